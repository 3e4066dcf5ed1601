import { describe, expect, it } from "vitest";

import { COLUMNS, differs, grey, ROWS } from "./pictures";

const plain = (value: number) => new Float32Array(COLUMNS * ROWS).fill(value);

describe("differs", () => {
  it("sees another slide", () => {
    const slide = plain(240);
    slide.fill(40, 0, 200);
    expect(differs(plain(240), slide)).toBe(true);
    expect(differs(null, slide)).toBe(true);
  });

  it("takes no notice of a pointer, a cursor or the noise of a camera", () => {
    const pointer = plain(240);
    pointer.fill(20, 100, 104);
    expect(differs(plain(240), pointer)).toBe(false);
    expect(differs(plain(240), plain(236))).toBe(false);
  });
});

describe("grey", () => {
  it("weighs the colours as the eye does", () => {
    expect([...grey(Uint8ClampedArray.from([255, 255, 255, 255, 0, 255, 0, 255]))].map(Math.round)).toEqual([255, 150]);
  });
});
