import type { RecordData, Turn } from "./types";

/** A place where the wanted words stand: words `first` to `last` of the turn at `index`. */
export interface Match {
  index: number;
  first: number;
  last: number;
}

const plain = (text: string): string =>
  text
    .toLowerCase()
    .normalize("NFKD")
    .replace(/[\u0300-\u036f]/g, "")
    .replace(/’/g, "'");

/** Turns as plain text, with the character at which each word begins: made once, searched often. */
export interface SearchIndex {
  text: string;
  starts: number[];
}

export function indexTurns(turns: readonly Turn[]): SearchIndex[] {
  return turns.map((turn) => {
    const made = indexed.get(turn) ?? indexTurn(turn);
    indexed.set(turn, made);
    return made;
  });
}

const indexed = new WeakMap<Turn, SearchIndex>(); // after an edit only the turns that changed are read again

function indexTurn(turn: Turn): SearchIndex {
  const starts: number[] = [];
  let text = "";
  for (const word of turn.words) {
    starts.push(text.length);
    text += `${plain(word[0])} `;
  }
  return { text, starts };
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

/** What a search is narrowed to; null stands for all. */
export interface Narrowing {
  voice: number | null;
  chapter: number | null;
  kind: string | null;
}

export const WIDE: Narrowing = { voice: null, chapter: null, kind: null };

export const isWide = (narrowing: Narrowing): boolean => narrowing.voice === null && narrowing.chapter === null && narrowing.kind === null;

/** Whether the turn at an index is by the voice, in the chapter, and evidence of a line of the kind that are wanted. */
export function fits(
  { turns, minutes }: Pick<RecordData, "turns" | "minutes">,
  { voice, chapter, kind }: Narrowing,
): (index: number) => boolean {
  const within = chapter === null ? undefined : minutes?.chapters[chapter];
  const proofs = new Set(
    kind === null
      ? []
      : (minutes?.lines ?? [])
          .filter((line) => line.kind === kind && line.thrown_out === null)
          .flatMap((line) => line.evidence.map((each) => each.turn)),
  );
  return (index) => {
    const turn = turns[index];
    if (!turn || (voice !== null && turn.voice !== voice)) return false;
    const start = turn.words[0]?.[1] ?? 0;
    if (chapter !== null && !(within && start >= within.start - 0.01 && start < within.end)) return false;
    return kind === null || proofs.has(turn.number);
  };
}

/** The places of `wanted` in the turns that fit; without words to look for, those turns as wholes. */
export function findWithin(
  index: readonly SearchIndex[],
  wanted: string,
  narrowing: Narrowing,
  fitting: (index: number) => boolean,
): Match[] {
  if (wanted.trim().length >= 2) return find(index, wanted).filter((match) => fitting(match.index));
  if (isWide(narrowing)) return [];
  return index.flatMap(({ starts }, number) => (fitting(number) ? [{ index: number, first: 0, last: starts.length - 1 }] : []));
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
