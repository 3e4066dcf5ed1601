import type { Line, Stretch, Turn } from "./types";
import { turnEnd, turnStart } from "./types";

/** The passages of a line in the order of the talk, its answer's included. */
export function passages(line: Line): Stretch[] {
  return [...line.evidence].sort((a, b) => a.start - b.start).map(({ start, end }) => ({ start, end }));
}

/** Whether a word lies in one of the stretches. */
export function lies(stretches: readonly Stretch[], start: number, end: number): boolean {
  const middle = (start + end) / 2;
  return stretches.some((s) => s.start <= middle && middle <= s.end);
}

/** Identifiers of the lines that rest on something of this turn. */
export function linesOn(lines: readonly Line[], turn: Turn): number[] {
  const [start, end] = [turnStart(turn), turnEnd(turn)];
  return lines.filter((line) => line.evidence.some((e) => e.start < end && start < e.end)).map((line) => line.id);
}

/** Index of the turn that is being spoken at `now`, the last one begun; -1 before the first. */
export function turnAt(turns: readonly Turn[], now: number): number {
  let [low, high] = [-1, turns.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    const turn = turns[middle];
    if (turn && turnStart(turn) <= now) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The passage before or after `now` among `stretches`, round and round. */
export function neighbour(stretches: readonly Stretch[], now: number, step: 1 | -1): Stretch | undefined {
  if (step > 0) return stretches.find((s) => s.start > now + 0.2) ?? stretches[0];
  return [...stretches].reverse().find((s) => s.start < now - 1) ?? stretches[stretches.length - 1];
}

/** Where the voice that speaks at `now` began to speak the time before; null where it did not. */
export function spokeBefore(turns: readonly Turn[], now: number): number | null {
  const at = turnAt(turns, now + 0.05);
  const voice = turns[at]?.voice;
  let first = at;
  while (first > 0 && turns[first - 1]?.voice === voice) first -= 1;
  for (let i = first - 1; i >= 0; i -= 1) {
    const turn = turns[i];
    if (turn && turn.voice === voice && turns[i - 1]?.voice !== voice) return turnStart(turn);
  }
  return null;
}
