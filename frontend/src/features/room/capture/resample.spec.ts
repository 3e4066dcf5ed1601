import { describe, expect, it } from "vitest";

import { Resampler, toPcm } from "./resample";

const tone = (hertz: number, rate: number, seconds: number) =>
  Float32Array.from({ length: rate * seconds }, (_, i) => 0.5 * Math.sin((2 * Math.PI * hertz * i) / rate));

/** Feeds a tone in uneven pieces. */
function resampled(sound: Float32Array, rate: number): Float32Array {
  const resampler = new Resampler(rate);
  const made: number[] = [];
  for (let at = 0, size = 441; at < sound.length; at += size, size = 300 + ((size * 7) % 400))
    made.push(...resampler.push(sound.slice(at, at + size)));
  return Float32Array.from(made);
}

describe("Resampler", () => {
  it.each([44_100, 48_000, 16_000, 8_000])("keeps a 440 Hz tone from %i Hz as it was, without a seam", (rate) => {
    const made = resampled(tone(440, rate, 1), rate);
    const wanted = tone(440, 16_000, 1);
    expect(made.length).toBeGreaterThan(15_900);
    let worst = 0;
    for (let i = 200; i < made.length - 200; i += 1) worst = Math.max(worst, Math.abs((made[i] ?? 0) - (wanted[i] ?? 0)));
    expect(worst).toBeLessThan(0.01);
  });

  it("lets nothing above half the new rate fold back", () => {
    const made = resampled(tone(11_000, 48_000, 1), 48_000).slice(400, 15_000);
    expect(Math.max(...made.map(Math.abs))).toBeLessThan(0.005);
  });
});

describe("toPcm", () => {
  it("clips what is louder than full scale", () => {
    expect([...toPcm(Float32Array.from([0, 0.5, 1.5, -1.5]))]).toEqual([0, 16384, 32767, -32768]);
  });
});
