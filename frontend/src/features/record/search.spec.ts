import { expect, test } from "vitest";

import { find, findWithin, fits, indexTurns, WIDE, wordAt, type Narrowing } from "./search";
import type { RecordData, Turn } from "./types";

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

test("a search is narrowed to a voice, a chapter, or what lines of a kind rest on", () => {
  const turns = [
    { ...turn(0, "The boat is here"), voice: 1 },
    { ...turn(1, "Which boat"), voice: 2 },
    { ...turn(2, "I paint the boat"), voice: 2 },
  ].map((each, i) => ({
    ...each,
    words: each.words.map(([word, , , sure], at): [string, number, number, number] => [word, 10 * i + at, 10 * i + at + 1, sure]),
  }));
  const minutes = {
    chapters: [
      { title: "Boats", start: 0, end: 15 },
      { title: "Paint", start: 15, end: 40 },
    ],
    lines: [
      { kind: "action", thrown_out: null, evidence: [{ turn: 2 }] },
      { kind: "action", thrown_out: "no", evidence: [{ turn: 0 }] },
    ],
  } as unknown as RecordData["minutes"];
  const index = indexTurns(turns);
  const found = (wanted: string, within: Narrowing) =>
    findWithin(index, wanted, within, fits({ turns, minutes }, within)).map((match) => match.index);
  expect(found("boat", WIDE)).toEqual([0, 1, 2]);
  expect(found("boat", { ...WIDE, voice: 2 })).toEqual([1, 2]);
  expect(found("boat", { ...WIDE, voice: 2, chapter: 0 })).toEqual([1]);
  expect(found("boat", { ...WIDE, kind: "action" })).toEqual([2]);
  expect(found("", { ...WIDE, voice: 2 })).toEqual([1, 2]);
  expect(found("", WIDE)).toEqual([]);
});
