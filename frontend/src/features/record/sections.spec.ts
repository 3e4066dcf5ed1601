import { expect, test } from "vitest";

import { sections } from "./sections";
import type { Line, RecordData } from "./types";

const line = (id: number, kind: Line["kind"], more: Partial<Line> = {}): Line => ({
  id, kind, text: `line ${id}`, heard: null, owner: [], due: null, due_said: null, state: "open", answer: null, chapter: 0, checked: false, thrown_out: null, why: "", evidence: [], ...more,
});

const minutes = (lines: Line[]): NonNullable<RecordData["minutes"]> => ({ source: "settled", length: "standard", coverage: 1, gaps: [], chapters: [{ title: "Slipway", start: 0, end: 60 }], lines });

test("what was thrown out stands at the end and nowhere else", () => {
  const made = sections(minutes([line(1, "decision", { thrown_out: "twice" }), line(2, "action"), line(3, "key_point")]));
  expect(made.map((section) => [section.title.split(" ·")[0], section.lines.map((l) => l.id)])).toEqual([["Actions", [2]], ["Slipway", [3]], ["Thrown out", [1]]]);
});

test("a question that stayed open is not told with its chapter", () => {
  const made = sections(minutes([line(1, "question"), line(2, "question", { state: "settled" })]));
  expect(made.map((section) => section.lines.map((l) => l.id))).toEqual([[1], [2]]);
});
