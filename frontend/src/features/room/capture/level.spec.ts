import { describe, expect, it } from "vitest";

import { levelOf, warningOf, type Level } from "./level";

const many = (rms: number, peak: number): Level[] => Array.from({ length: 16 }, () => ({ rms, peak }));

describe("levelOf", () => {
  it("gives a full-scale sine 3 dB less than its peak", () => {
    const sine = Float32Array.from({ length: 16_000 }, (_, i) => Math.sin((2 * Math.PI * 100 * i) / 16_000));
    expect(levelOf(sine).peak).toBeCloseTo(0, 1);
    expect(levelOf(sine).rms).toBeCloseTo(-3.01, 1);
  });

  it("gives silence the lowest level, not minus infinity", () => {
    expect(levelOf(new Float32Array(100))).toEqual({ rms: -100, peak: -100 });
  });
});

describe("warningOf", () => {
  it("warns of silence, of a quiet room and of clipping", () => {
    expect(warningOf(many(-80, -70))).toBe("silent");
    expect(warningOf(many(-50, -40))).toBe("quiet");
    expect(warningOf(many(-12, 0))).toBe("clipping");
    expect(warningOf(many(-25, -10))).toBeNull();
  });

  it("says nothing of silence before it has listened for some seconds", () => {
    expect(warningOf(many(-80, -70).slice(0, 4))).toBeNull();
  });

  it("takes one word in a pause as speech", () => {
    expect(warningOf([...many(-80, -70).slice(0, 12), { rms: -25, peak: -12 }])).toBeNull();
  });
});
