import { expect, test } from "vitest";

import { find, indexTurns, wordAt } from "./search";
import type { Turn } from "./types";

function turn(number: number, text: string): Turn {
  return { number, voice: 1, heard: null, words: text.split(" ").map((word, i) => [word, i, i + 1, 1]) };
}

test("finds every place, over word borders, without case or accents", () => {
  const index = indexTurns([turn(0, "The Zoë runs at ten"), turn(1, "At ten, at ten sharp")]);
  expect(find(index, "zoe runs")).toEqual([{ index: 0, first: 1, last: 2 }]);
  expect(find(index, "at ten")).toEqual([
    { index: 0, first: 3, last: 4 },
    { index: 1, first: 0, last: 1 },
    { index: 1, first: 2, last: 3 },
  ]);
  expect(find(index, "a")).toEqual([]);
  expect(find(index, "boat")).toEqual([]);
});

test("a character belongs to the word that begins at or before it", () => {
  expect([0, 3, 4, 9].map((at) => wordAt([0, 4, 8], at))).toEqual([0, 0, 1, 2]);
});
