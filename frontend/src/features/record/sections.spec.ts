import { expect, test } from "vitest";

import { sampleLine } from "./sampleLine";
import { sections } from "./sections";
import type { Line, RecordData } from "./types";

const line = (id: number, place: number, more: Partial<Line> = {}): Line => sampleLine({ id, kind: "key_point", place, ...more });
const minutes = (lines: Line[]): NonNullable<RecordData["minutes"]> => ({
  source: "settled",
  length: "standard",
  template: "general meeting",
  detailed: [],
  fine: false,
  remark: "",
  coverage: 1,
  gaps: [],
  lines,
  sections: [
    { title: "Decisions", layout: "" },
    { title: "What was said", layout: "chapter" },
    { title: "Round", layout: "voice" },
  ],
  chapters: [
    { title: "Slipway", start: 0, end: 60 },
    { title: "Tickets", start: 60, end: 90 },
  ],
});
const outline = (lines: Line[]) =>
  sections(minutes(lines), (l) => (l.id % 2 ? "Ines" : "Maren")).map((section) => [
    section.title.split(" · ").slice(0, 2).join(" "),
    section.lines.map((l) => l.id),
  ]);

test("sections stand in the order of the template, empty ones are left out", () => {
  expect(outline([line(1, 1), line(2, 0)])).toEqual([
    ["Decisions", [2]],
    ["Slipway 0:00 to 1:00", [1]],
  ]);
});

test("a section by chapter has a part for each chapter with lines, one by voice a part for each voice", () => {
  const made = outline([line(1, 1, { chapter: 1 }), line(2, 1), line(3, 2), line(4, 2), line(5, 2)]);
  expect(made).toEqual([
    ["Slipway 0:00 to 1:00", [2]],
    ["Tickets 1:00 to 1:30", [1]],
    ["Round Ines", [3, 5]],
    ["Round Maren", [4]],
  ]);
});

test("what was thrown out stands at the end and nowhere else", () => {
  expect(outline([line(1, 0, { thrown_out: "twice" }), line(3, 1)])).toEqual([
    ["Slipway 0:00 to 1:00", [3]],
    ["Thrown out", [1]],
  ]);
});
