import type { Break, LiveLine, Speech } from "./types";

/** Seconds of silence after which the same voice begins a new turn, as on the server. */
const BREAK = 1.5;

/** Lines of one voice that follow each other, or a break in the recording between two turns. */
export type LiveItem =
  | { type: "turn"; key: string; voice: number | null; start: number; lines: LiveLine[] }
  | { type: "break"; key: string; at: number; pause: Break };

/** What is shown: turns with the breaks between them, in order; lines that were cut away are left out. */
export function liveItems(lines: readonly LiveLine[], breaks: readonly Break[]): LiveItem[] {
  const items: LiveItem[] = [];
  const waiting = [...breaks].sort((a, b) => a.at - b.at);
  const breaksUpTo = (at: number) => {
    while (waiting[0] && waiting[0].at <= at + 0.01) {
      const pause = waiting.shift();
      if (pause) items.push({ type: "break", key: `b${pause.kind}${pause.at}${pause.made_at}`, at: pause.at, pause });
    }
  };
  for (const line of lines) {
    if (!line.text) continue;
    breaksUpTo(line.start);
    const last = items[items.length - 1];
    const before = last?.type === "turn" ? last.lines[last.lines.length - 1] : undefined;
    if (last?.type === "turn" && before && goesOn(last.voice, line, before)) last.lines.push(line);
    else items.push({ type: "turn", key: `t${line.number}`, voice: line.voice, start: line.start, lines: [line] });
  }
  breaksUpTo(Infinity);
  return items;
}

/** The same items, each the very object of `before` where nothing in it has changed, so that it need not be drawn again. */
export function stable(items: LiveItem[], before: readonly LiveItem[]): LiveItem[] {
  const old = new Map(before.map((item) => [item.key, item]));
  return items.map((item) => {
    const known = old.get(item.key);
    return known && sameItem(known, item) ? known : item;
  });
}

function sameItem(a: LiveItem, b: LiveItem): boolean {
  if (a.type === "break" || b.type === "break") return a.type === "break" && b.type === "break" && a.pause.seconds === b.pause.seconds;
  return a.voice === b.voice && a.lines.length === b.lines.length && a.lines.every((line, i) => line === b.lines[i]);
}

function goesOn(voice: number | null, line: LiveLine, before: LiveLine): boolean {
  return voice === line.voice && line.start - before.end <= BREAK;
}

/** Places of the wanted words among the lines: numbers of the lines, in order; none for fewer than two letters. */
export function findLines(lines: readonly LiveLine[], wanted: string): number[] {
  const needle = wanted.trim().toLowerCase().replace(/\s+/g, " ");
  if (needle.length < 2) return [];
  return lines.filter((line) => line.text.toLowerCase().includes(needle)).map((line) => line.number);
}

/** Words being spoken that no line holds yet. */
export function partialOf(speech: Speech, lines: readonly LiveLine[]): string {
  const last = lines[lines.length - 1];
  return last && speech.partial_start < last.start - 0.05 ? "" : speech.partial;
}
