import { describe, expect, it } from "vitest";

import { pieces, durationText } from "./bars";

describe("pieces of a bar", () => {
  it("leave the silence open", () =>
    expect(pieces({ title: "", start: 0, end: 10, seconds: [5, 0, 2] })).toEqual([
      { voice: 0, from: 0, to: 0.5 },
      { voice: 2, from: 0.5, to: 0.7 },
    ]));
  it("fill the bar when voices speak over each other", () =>
    expect(pieces({ title: "", start: 0, end: 10, seconds: [10, 10] }).map((p) => p.to)).toEqual([0.5, 1]));
  it("are none for a slice without length or speech", () => {
    expect(pieces({ title: "", start: 0, end: 0, seconds: [0] })).toEqual([]);
    expect(pieces({ title: "", start: 0, end: 5, seconds: [0, 0] })).toEqual([]);
  });
});

it("durations are written as people say them", () =>
  expect([0, 0.9, 59.9, 60, 725].map(durationText)).toEqual(["0 s", "under 1 s", "59 s", "1 min", "12 min 5 s"]));
