import type { Board, Speech } from "./types";

/** What this page has recorded itself: seconds of the meeting when its last part was taken, at `at` milliseconds of `pageClock`. */
export interface Recorded {
  seconds: number;
  at: number;
}

/** What the server said last of a meeting: `zero` is the millisecond of `pageClock` at which its recording would have begun without a break. */
export interface Known {
  speech: Pick<Speech, "state" | "duration">;
  zero: number;
}

/** Parts come twice a second: for longer than this nothing has been recorded, as on a laptop that slept. */
const LONGEST_PART = 1000; // milliseconds

/** The clock of this page in milliseconds: it never jumps when somebody sets the computer's clock. */
export const pageClock = (): number => performance.now();

/**
 * The second of the recording that is now, by which notes, marks and pictures are tied to what is said.
 *
 * Whoever records counts what was recorded, whether it has arrived or not. Everybody else counts on from the news that came
 * with the least delay, for as long as the recording runs: sound that is late was still spoken when the clock said so.
 */
export function meetingSecond(known: Known, recorded: Recorded | null, clock: number): number {
  if (recorded) return recorded.seconds + Math.min(LONGEST_PART, Math.max(0, clock - recorded.at)) / 1000;
  if (known.speech.state !== "recording") return known.speech.duration;
  return Math.max(known.speech.duration, (clock - known.zero) / 1000);
}

/** `zero` after news of `duration` seconds at `at`: the earliest there was, unless the recording has been interrupted since. */
export function zeroAfter(before: Known | null, duration: number, at: number, interrupted: boolean): number {
  const zero = at - duration * 1000;
  return before && before.speech.state === "recording" && !interrupted ? Math.min(before.zero, zero) : zero;
}

/** Whether a break was added or measured between two looks at a room. */
export function interrupted(before: Board, now: Board): boolean {
  const of = (board: Board) => JSON.stringify(board.breaks.filter((each) => each.kind !== "cut").map((each) => [each.kind, each.seconds]));
  return of(before) !== of(now);
}
