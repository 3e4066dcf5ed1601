import type { Stretch, Turn } from "./types";

/** Seconds without a word that are worth skipping. */
const LEAST = 1.2;
/** Seconds left standing at both ends, so that no word is clipped. */
const EDGE = 0.25;

/** Stretches in which nobody says a word. */
export function silences(turns: readonly Turn[], duration: number): Stretch[] {
  const words = turns.flatMap((turn) => turn.words.map((word) => [word[1], word[2]] as const)).sort((a, b) => a[0] - b[0]);
  const found: Stretch[] = [];
  let reached = 0;
  for (const [start, end] of words) {
    if (start - reached > LEAST) found.push({ start: reached + EDGE, end: start - EDGE });
    reached = Math.max(reached, end);
  }
  if (duration - reached > LEAST) found.push({ start: reached + EDGE, end: duration });
  return found;
}

/** Where to go on from `now`: the end of the silence it lies in, or null when somebody speaks. */
export function skipTo(quiet: readonly Stretch[], now: number): number | null {
  let [low, high] = [0, quiet.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((quiet[middle]?.end ?? Infinity) <= now) low = middle + 1;
    else high = middle;
  }
  const next = quiet[low];
  return next && next.start <= now ? next.end : null;
}
