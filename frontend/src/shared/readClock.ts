/** Seconds of `m:ss` or `h:mm:ss`; null for anything else. */
export function readClock(text: string): number | null {
  const match = /^\s*(?:(\d+):)?(\d{1,3}):(\d{2})\s*$/.exec(text);
  if (!match || Number(match[3]) > 59 || (match[1] !== undefined && Number(match[2]) > 59)) return null;
  return Number(match[1] ?? 0) * 3600 + Number(match[2]) * 60 + Number(match[3]);
}
