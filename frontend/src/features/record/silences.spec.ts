import { expect, test } from "vitest";

import { silences, skipTo } from "./silences";
import type { Turn } from "./types";

const turn = (number: number, ...words: [number, number][]): Turn => ({
  number,
  voice: 1,
  heard: null,
  words: words.map(([a, b]) => ["x", a, b, 1]),
});

test("silences lie between words, with an edge left standing", () => {
  const quiet = silences([turn(0, [2, 3], [3.2, 4]), turn(1, [8, 9])], 10.5);
  expect(quiet).toEqual([
    { start: 0.25, end: 1.75 },
    { start: 4.25, end: 7.75 },
    { start: 9.25, end: 10.5 },
  ]);
});

test("overlapping talk is no silence", () => {
  expect(silences([turn(0, [0, 9]), turn(1, [2, 3])], 9)).toEqual([]);
});

test("skipping goes to the end of the silence, and nowhere when somebody speaks", () => {
  const quiet = [
    { start: 1, end: 2 },
    { start: 5, end: 8 },
  ];
  expect(skipTo(quiet, 1.5)).toBe(2);
  expect(skipTo(quiet, 3)).toBeNull();
  expect(skipTo(quiet, 5)).toBe(8);
  expect(skipTo(quiet, 9)).toBeNull();
});
