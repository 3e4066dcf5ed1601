import { describe, expect, it } from "vitest";

import { between, stretchOf } from "./chosenWords";
import type { Turn } from "./types";

const turn = (number: number, start: number, count: number): Turn => ({
  number,
  voice: 1,
  heard: null,
  words: Array.from({ length: count }, (_, i) => [`w${i}`, start + i, start + i + 0.8, 1] as [string, number, number, number]),
});
const TURNS = [turn(0, 0, 3), turn(1, 10, 4)];

describe("words chosen", () => {
  it("are in the order of the talk, whichever way they were drawn over", () => {
    expect(between({ turn: 1, word: 2 }, { turn: 0, word: 1 })).toEqual({ turn: 0, first: 1, lastTurn: 1, last: 2 });
    expect(between({ turn: 1, word: 3 }, { turn: 1, word: 0 })).toEqual({ turn: 1, first: 0, lastTurn: 1, last: 3 });
  });

  it("have a start, an end and a number, over several turns too", () => {
    expect(stretchOf(TURNS, { turn: 1, first: 1, lastTurn: 1, last: 2 })).toEqual({ start: 11, end: 12.8, count: 2 });
    expect(stretchOf(TURNS, { turn: 0, first: 2, lastTurn: 1, last: 0 })).toEqual({ start: 2, end: 10.8, count: 2 });
  });

  it("are nothing when the turns are others by now", () =>
    expect(stretchOf(TURNS, { turn: 7, first: 0, lastTurn: 7, last: 1 })).toBeNull());
});
