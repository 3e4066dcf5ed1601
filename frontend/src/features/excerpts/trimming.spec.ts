import { expect, test } from "vitest";

import { snapped, stepped, wordsBetween, type Word } from "./trimming";

const words: Word[] = [
  ["Who", 1, 1.4, 1],
  ["pays", 1.5, 2, 1],
  ["then", 8, 8.5, 1],
];

test("ends go to the boundary of the nearest word", () => {
  expect(snapped(words, 1.7, "start")).toBe(1.5);
  expect(snapped(words, 1.8, "end")).toBe(2);
  expect(snapped(words, 5, "start")).toBe(5);
  expect(snapped([], 5, "end")).toBe(5);
});

test("the words around a passage", () => expect(wordsBetween(words, 1.2, 1.6).map((w) => w[0])).toEqual(["Who", "pays"]));

test("a key goes to the boundary of the next word", () => {
  expect(stepped(words, 1, "start", 1)).toBe(1.5);
  expect(stepped(words, 1.5, "start", -1)).toBe(1);
  expect(stepped(words, 8, "start", 1)).toBe(8);
});
