import { expect, test } from "vitest";

import { copyOf, draftOf, EMPTY_SECTION, listed, templateOf, written, type Draft, type Template } from "./templateDraft";

const section = (title: string) => ({ ...EMPTY_SECTION, title, kinds: ["decision"] });
const template: Template = {
  name: "committee",
  sections: [section("A"), section("B"), section("C")],
  labels: [],
  agenda: [],
  questions: [],
  length: "standard",
};
const draft = draftOf(template);
const titles = (made: Draft) => made.sections.map((each) => each.title);

test("sections are moved, and not past either end", () => {
  expect(titles(written(draft, { type: "move", at: 2, by: -1 }))).toEqual(["A", "C", "B"]);
  expect(titles(written(draft, { type: "move", at: 0, by: -1 }))).toEqual(["A", "B", "C"]);
  expect(titles(written(draft, { type: "move", at: 2, by: 1 }))).toEqual(["A", "B", "C"]);
});

test("a section is added, written and removed, the others stay", () => {
  const added = written(draft, { type: "add" });
  const named = written(added, { type: "section", at: 3, part: { title: "Boats", words: ["boat"] } });
  expect(titles(named)).toEqual(["A", "B", "C", "Boats"]);
  const fewer = written(named, { type: "remove", at: 1 });
  expect(titles(fewer)).toEqual(["A", "C", "Boats"]);
  expect(new Set(written(fewer, { type: "add" }).sections.map((each) => each.id)).size).toBe(4);
  expect(templateOf(fewer).sections[2]).toEqual({ ...EMPTY_SECTION, title: "Boats", words: ["boat"] });
});

test("a copy has a name of its own and the same sections", () => {
  expect(copyOf(template)).toEqual({ ...template, name: "committee, our way" });
});

test("what is typed becomes a list without doubles", () => {
  expect(listed("boat, pontoon ,boat,, slip way", /,/)).toEqual(["boat", "pontoon", "slip way"]);
});
