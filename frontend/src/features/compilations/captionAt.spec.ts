import { expect, test } from "vitest";

import { captionAt } from "./captionAt";

const rows = [
  { speaker: "", start: 0, end: 1, text: "Money" },
  { speaker: "Maren", start: 1.6, end: 3, text: "Who pays?" },
];

test("the caption of a moment, held through a short pause, none behind the last", () => {
  expect([0, 0.99, 1.2, 1.6, 2.9, 3.9].map((at) => captionAt(rows, at)?.text)).toEqual([
    "Money",
    "Money",
    "Money",
    "Who pays?",
    "Who pays?",
    undefined,
  ]);
  expect(captionAt([], 1)).toBeUndefined();
});
