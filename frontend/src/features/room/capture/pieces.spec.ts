import { describe, expect, it } from "vitest";

import { Parts } from "./pieces";

describe("Parts", () => {
  it("cuts the sound into half seconds and loses no sample at 16 kHz", () => {
    const parts = new Parts();
    const sound = Float32Array.from({ length: 40_000 }, (_, i) => Math.sin(i / 20));
    const made = [];
    for (let at = 0; at < sound.length; at += 1000) made.push(...parts.push(sound.slice(at, at + 1000), 16_000));
    const rest = parts.flush();
    expect(made.map((piece) => piece.data.byteLength)).toEqual([16_000, 16_000, 16_000, 16_000]);
    expect(rest?.data.byteLength).toBeGreaterThan(15_900);
    expect(parts.flush()).toBeNull();
  });
});
