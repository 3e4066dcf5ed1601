import { expect, test } from "vitest";

import { nextDoubted, openDoubts } from "./doubts";
import { sampleLine, samplePassage } from "./sampleLine";
import type { Line } from "./types";

const line = (id: number, more: Partial<Line> = {}): Line => sampleLine({ id, evidence: [samplePassage(id, 0, 1)], ...more });

test("a line is worth a look for each of its doubts", () => {
  const doubts = openDoubts([line(1), line(2, { doubts: ["may be no task", "may have a day"] })], []);
  expect([...doubts.keys()]).toEqual([2]);
  expect(doubts.get(2)).toBe("it may not be meant as a task. Also, a day was named close by, and none is in the line.");
});

test("what a person checked, changed or threw out is worth no look any more", () => {
  const doubtful = { doubts: ["may be no task"] as Line["doubts"] };
  expect(
    openDoubts(
      [line(1, { ...doubtful, checked: true }), line(2, { ...doubtful, heard: "before" }), line(3, { ...doubtful, thrown_out: "twice" })],
      [],
    ).size,
  ).toBe(0);
});

test("a task of somebody is worth a look where it is unsure who spoke", () => {
  const doubts = openDoubts(
    [line(1, { owner: ["Ines"] }), line(2), line(3, { owner: ["Jonas"] })],
    [
      { turn: 1, unsure: true, over: [] },
      { turn: 2, unsure: true, over: [] },
      { turn: 3, unsure: false, over: [1] },
    ],
  );
  expect([...doubts]).toEqual([[1, "it is unsure in whose voice this was said."]]);
});

test("the next one stands behind the line that is selected, after the last comes the first", () => {
  const lines = [line(1), line(2), line(3)];
  const doubts = new Map([
    [1, "a"],
    [3, "b"],
  ]);
  expect([null, 1, 2, 3].map((selected) => nextDoubted(lines, doubts, selected)?.id)).toEqual([1, 3, 3, 1]);
  expect(nextDoubted(lines, new Map(), null)).toBeUndefined();
});

test("what a person set right is no longer worth a look; that its task is done says nothing of it", () => {
  const doubts = ["may be no task" as const];
  const lines = [
    line(1, { doubts, set_by_person: ["owner"] }),
    line(2, { doubts, set_by_person: ["progress"] }),
    line(3, { doubts, by_hand: true }),
  ];
  expect([...openDoubts(lines, []).keys()]).toEqual([2]);
});
