/** Hz, what the server takes. */
export const RATE = 16_000;
/** Zero crossings of the filter on each side: 32 taps keep aliases some 70 dB down. */
const CROSSINGS = 16;
/** Share of the half rate that passes; above it the filter falls off. */
const PASS = 0.92;

/** Mono sound at any rate in, mono sound at 16 kHz out, without a seam between two pieces (windowed sinc). */
export class Resampler {
  private kept = new Float32Array(0);
  private at = 0;
  private readonly step: number;
  private readonly cutoff: number;
  private readonly reach: number;

  constructor(from: number, to: number = RATE) {
    this.step = from / to;
    this.cutoff = Math.min(1, to / from) * PASS;
    this.reach = Math.ceil(CROSSINGS / this.cutoff);
    this.kept = new Float32Array(this.reach);
    this.at = this.reach;
  }

  /** The samples that became certain with this piece. */
  push(piece: Float32Array): Float32Array {
    const sound = new Float32Array(this.kept.length + piece.length);
    sound.set(this.kept);
    sound.set(piece, this.kept.length);
    const count = Math.max(0, Math.floor((sound.length - this.reach - 1 - this.at) / this.step) + 1);
    const made = new Float32Array(count);
    for (let i = 0; i < count; i += 1) made[i] = this.sample(sound, this.at + i * this.step);
    const next = this.at + count * this.step;
    const drop = Math.max(0, Math.floor(next) - this.reach);
    this.kept = sound.slice(drop);
    this.at = next - drop;
    return made;
  }

  private sample(sound: Float32Array, at: number): number {
    let sum = 0;
    const middle = Math.floor(at);
    for (let k = middle - this.reach + 1; k <= middle + this.reach; k += 1) {
      const x = at - k;
      sum += (sound[k] ?? 0) * this.cutoff * sinc(x * this.cutoff) * hann(x / (this.reach + 1));
    }
    return sum;
  }
}

function sinc(x: number): number {
  return x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
}

function hann(x: number): number {
  return Math.abs(x) >= 1 ? 0 : 0.5 + 0.5 * Math.cos(Math.PI * x);
}

/** 16-bit little-endian samples of floats in -1 to 1. */
export function toPcm(samples: Float32Array): Int16Array {
  const made = new Int16Array(samples.length);
  for (let i = 0; i < samples.length; i += 1) made[i] = Math.max(-32768, Math.min(32767, Math.round((samples[i] ?? 0) * 32768)));
  return made;
}
