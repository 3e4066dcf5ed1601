import { expect, test } from "vitest";

import { chatByTurn } from "./chat";
import type { Mark, Turn } from "./types";

const turn = (number: number, start: number): Turn => ({ number, voice: 1, heard: null, words: [["so", start, start + 2, 1]] });
const mark = (label: string, start: number): Mark => ({
  id: `${label}${start}`,
  label,
  text: "x",
  start,
  end: start + 5,
  by: "",
  mine: true,
});

test("chat lines stand behind the turn that was being said", () => {
  const made = chatByTurn({
    turns: [turn(0, 10), turn(1, 20)],
    marks: [mark("Chat", 3), mark("Chat", 11), mark("important", 21), mark("Chat", 40)],
  });
  expect([...made].map(([at, marks]) => [at, marks.map((each) => each.start)])).toEqual([
    [0, [3, 11]],
    [1, [40]],
  ]);
});
