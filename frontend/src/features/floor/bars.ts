import type { Schemas } from "../../api/client";

type Slice = Schemas["FloorSliceOut"];

/** A piece of a bar: which voice, from where to where (0 to 1 of the bar). */
export interface Piece {
  voice: number;
  from: number;
  to: number;
}

/** The pieces of a slice's bar, its voices in order; what is left of 1 is silence, speech over speech makes the bar no longer. */
export function pieces(slice: Slice): Piece[] {
  const length = slice.end - slice.start;
  const spoken = slice.seconds.reduce((sum, seconds) => sum + seconds, 0);
  const whole = Math.max(length, spoken);
  let at = 0;
  return slice.seconds.flatMap((seconds, voice) => {
    if (seconds <= 0 || whole <= 0) return [];
    const from = at;
    at += seconds / whole;
    return [{ voice, from, to: at }];
  });
}

/** A duration as people say it: `under 1 s`, `48 s`, `12 min 5 s`; never rounded up. */
export function durationText(seconds: number): string {
  const whole = Math.floor(seconds);
  if (whole === 0 && seconds > 0) return "under 1 s";
  return whole < 60 ? `${whole} s` : `${Math.floor(whole / 60)} min${whole % 60 ? ` ${whole % 60} s` : ""}`;
}
