/** A word of a record: text, start, end (seconds), confidence. */
export type Word = readonly [string, number, number, number];

export const AROUND = 20; // seconds before and behind a passage within which its ends are drawn

/** The words that stand between two times or touch them, in order. */
export function wordsBetween(words: readonly Word[], from: number, to: number): Word[] {
  return words.filter((word) => word[2] > from && word[1] < to);
}

/** The next beginning (or end) of a word behind a time, or before it; the time itself where there is none. */
export function stepped(words: readonly Word[], seconds: number, edge: "start" | "end", by: 1 | -1): number {
  const at = edge === "start" ? 1 : 2;
  const boundaries = words.map((word) => word[at]).filter((boundary) => (boundary - seconds) * by > 0.001);
  return boundaries.length ? (by > 0 ? Math.min(...boundaries) : Math.max(...boundaries)) : seconds;
}

/** The beginning (or end) of the word that lies nearest to a time; the time itself where nothing is said near. */
export function snapped(words: readonly Word[], seconds: number, edge: "start" | "end"): number {
  const at = edge === "start" ? 1 : 2;
  const nearest = words.reduce<Word | null>(
    (best, word) => (!best || Math.abs(word[at] - seconds) < Math.abs(best[at] - seconds) ? word : best),
    null,
  );
  return nearest && Math.abs(nearest[at] - seconds) < 2 ? nearest[at] : seconds;
}
