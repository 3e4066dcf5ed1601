import { expect, test } from "vitest";

import { lies, linesOn, neighbour, passages, turnAt } from "./links";
import { sampleLine, samplePassage } from "./sampleLine";
import type { Line, Turn } from "./types";

const turn = (number: number, start: number, end: number): Turn => ({ number, voice: 1, heard: null, words: [["word", start, end, 1]] });
const line = (id: number, ...at: [number, number][]): Line =>
  sampleLine({ id, evidence: at.map(([start, end]) => samplePassage(0, start, end)) });

test("passages come in the order of the talk", () => {
  expect(passages(line(1, [9, 10], [2, 3]))).toEqual([
    { start: 2, end: 3 },
    { start: 9, end: 10 },
  ]);
});

test("a turn lights the lines that rest on it", () => {
  const lines = [line(1, [0, 2]), line(2, [5, 6]), line(3, [1.5, 9])];
  expect(linesOn(lines, turn(0, 1, 3))).toEqual([1, 3]);
});

test("a word is lit when its middle lies in a passage", () => {
  expect(lies([{ start: 1, end: 2 }], 1.4, 2.4)).toBe(true);
  expect(lies([{ start: 1, end: 2 }], 1.8, 2.6)).toBe(false);
});

test("the turn at a moment is the last one begun", () => {
  const turns = [turn(0, 1, 2), turn(1, 3, 4), turn(2, 6, 7)];
  expect([0, 1, 2.5, 3, 9].map((now) => turnAt(turns, now))).toEqual([-1, 0, 0, 1, 2]);
});

test("next and previous passage go round", () => {
  const stretches = [
    { start: 2, end: 3 },
    { start: 9, end: 10 },
  ];
  expect(neighbour(stretches, 2, 1)?.start).toBe(9);
  expect(neighbour(stretches, 9, 1)?.start).toBe(2);
  expect(neighbour(stretches, 9.5, -1)?.start).toBe(2);
  expect(neighbour(stretches, 2, -1)?.start).toBe(9);
});
