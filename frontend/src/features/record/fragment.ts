/** A stretch that an address names; `end` is null where it goes on to the end. */
export interface Fragment {
  start: number;
  end: number | null;
}

const NPT = /^(?:(?:(\d+):)?([0-5]\d):)?(\d+(?:\.\d*)?)$/;

/** The time of a W3C media fragment (`#t=10`, `#t=,20`, `#t=npt:0:02:00,121.5`); null where it names none or an empty one. */
export function fragmentOf(hash: string): Fragment | null {
  const value = new URLSearchParams(hash.replace(/^#/, "")).get("t");
  if (!value) return null;
  const parts = value.replace(/^npt:/, "").split(",");
  if (parts.length > 2) return null;
  const [from = "", until] = parts;
  const start = from === "" ? 0 : secondsOf(from);
  const end = until === undefined ? null : secondsOf(until);
  if (start === null || (until !== undefined && end === null) || (from === "" && until === undefined)) return null;
  return end !== null && end <= start ? null : { start, end };
}

/** The address part for a stretch. */
export function fragmentFor(start: number, end?: number): string {
  return `#t=${short(start)}${end === undefined ? "" : `,${short(end)}`}`;
}

const short = (seconds: number): string => String(Math.round(seconds * 100) / 100);

/** Seconds of a normal play time: `121.5`, `02:01.5`, `0:02:01.5`. */
function secondsOf(text: string): number | null {
  const found = NPT.exec(text);
  if (!found) return null;
  const [, hours = "0", minutes, seconds = "0"] = found;
  if (minutes !== undefined && Number(seconds) >= 60) return null;
  return Number(hours) * 3600 + Number(minutes ?? "0") * 60 + Number(seconds);
}

/** Number of the line that an address names; null where it names none. */
export function lineIn(hash: string): number | null {
  const found = /^#line-(\d{1,9})$/.exec(hash);
  return found ? Number(found[1]) : null;
}
