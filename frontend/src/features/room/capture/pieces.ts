import { levelOf, type Level } from "./level";
import { Resampler, RATE, toPcm } from "./resample";

/** Samples of a part: half a second. */
export const PART = RATE / 2;

/** A part of the sound, numbered by whoever takes it, and its level. */
export interface Piece {
  data: ArrayBuffer;
  level: Level;
}

/** Collects sound of any rate into parts of half a second. */
export class Parts {
  private resampler: Resampler | null = null;
  private rate = 0;
  private held: Float32Array[] = [];
  private count = 0;

  /** Takes mono samples at `rate` Hz; the parts that became full. */
  push(samples: Float32Array, rate: number): Piece[] {
    if (!this.resampler || rate !== this.rate) {
      this.resampler = new Resampler(rate);
      this.rate = rate;
    }
    const made = this.resampler.push(samples);
    this.held.push(made);
    this.count += made.length;
    const full: Piece[] = [];
    while (this.count >= PART) full.push(this.take(PART));
    return full;
  }

  /** What is left, as a shorter part; null when nothing is. */
  flush(): Piece | null {
    return this.count ? this.take(this.count) : null;
  }

  private take(size: number): Piece {
    const all = new Float32Array(this.count);
    let at = 0;
    for (const piece of this.held) {
      all.set(piece, at);
      at += piece.length;
    }
    this.held = [all.slice(size)];
    this.count -= size;
    const samples = all.slice(0, size);
    return { data: toPcm(samples).buffer as ArrayBuffer, level: levelOf(samples) };
  }
}
