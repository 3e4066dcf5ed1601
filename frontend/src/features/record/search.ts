import type { Turn } from "./types";

/** A place where the wanted words stand: words `first` to `last` of the turn at `index`. */
export interface Match {
  index: number;
  first: number;
  last: number;
}

const plain = (text: string): string => text.toLowerCase().normalize("NFKD").replace(/[\u0300-\u036f]/g, "").replace(/’/g, "'");

/** Turns as plain text, with the character at which each word begins: made once, searched often. */
export interface SearchIndex {
  text: string;
  starts: number[];
}

export function indexTurns(turns: readonly Turn[]): SearchIndex[] {
  return turns.map((turn) => {
    const starts: number[] = [];
    let text = "";
    for (const word of turn.words) {
      starts.push(text.length);
      text += `${plain(word[0])} `;
    }
    return { text, starts };
  });
}

/** All places of `wanted` in order, not counting case and accents; none for fewer than two letters. */
export function find(index: readonly SearchIndex[], wanted: string): Match[] {
  const needle = plain(wanted.trim().replace(/\s+/g, " "));
  if (needle.length < 2) return [];
  return index.flatMap(({ text, starts }, number) => {
    const found: Match[] = [];
    for (let at = text.indexOf(needle); at >= 0; at = text.indexOf(needle, at + needle.length)) {
      found.push({ index: number, first: wordAt(starts, at), last: wordAt(starts, at + needle.length - 1) });
    }
    return found;
  });
}

/** Number of the word in which a character lies. */
export function wordAt(starts: readonly number[], at: number): number {
  let [low, high] = [0, starts.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((starts[middle] ?? Infinity) <= at) low = middle;
    else high = middle - 1;
  }
  return low;
}
