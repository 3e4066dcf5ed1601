import { expect, test } from "vitest";

import { changed, lengthOf, type Act, type Passage, type State } from "./order";

const passage = (title: string): Passage => ({
  title,
  meeting_id: "m",
  meeting: "Stand-up",
  day: "2026-10-06",
  open: true,
  start: 1,
  end: 3,
});
const start: State = {
  draft: {
    title: "T",
    spoken: false,
    sections: [
      { title: "One", passages: [passage("a"), passage("b"), passage("c")] },
      { title: "Two", passages: [passage("d")] },
    ],
  },
  past: [],
};
const after = (...acts: Act[]) => acts.reduce(changed, start);
const outline = (state: State) =>
  state.draft.sections.map((each) => `${each.title}:${each.passages.map((p) => p.title).join("")}`).join(" ");

test("a passage is dropped at another place, before or behind where it was", () => {
  expect(outline(after({ type: "move", from: { section: 0, at: 0 }, to: { section: 0, at: 2 } }))).toBe("One:bac Two:d");
  expect(outline(after({ type: "move", from: { section: 0, at: 2 }, to: { section: 0, at: 0 } }))).toBe("One:cab Two:d");
  expect(outline(after({ type: "move", from: { section: 0, at: 1 }, to: { section: 1, at: 1 } }))).toBe("One:ac Two:db");
});

test("by keys it goes past its neighbour and over the border of its section", () => {
  expect(outline(after({ type: "step", from: { section: 0, at: 0 }, by: 1 }))).toBe("One:bac Two:d");
  expect(outline(after({ type: "step", from: { section: 0, at: 2 }, by: 1 }))).toBe("One:ab Two:cd");
  expect(outline(after({ type: "step", from: { section: 1, at: 0 }, by: -1 }))).toBe("One:abcd Two:");
  expect(after({ type: "step", from: { section: 0, at: 0 }, by: -1 })).toBe(start);
  expect(after({ type: "step", from: { section: 1, at: 0 }, by: 1 })).toBe(start);
});

test("the passages of a section that goes stay", () => {
  expect(outline(after({ type: "remove section", section: 1 }))).toBe("One:abcd");
  expect(outline(after({ type: "remove section", section: 0 }))).toBe("Two:abcd");
  expect(outline(after({ type: "remove section", section: 0 }, { type: "remove section", section: 0 }))).toBe(":abcd");
});

test("everything can be taken back, step by step", () => {
  const done = after({ type: "remove", from: { section: 0, at: 1 } }, { type: "retitle", title: "Other" }, { type: "add section" });
  expect(done.past).toHaveLength(3);
  const back = [1, 2, 3, 4].reduce((state) => changed(state, { type: "undo" }), done);
  expect(outline(back)).toBe(outline(start));
  expect(back.draft.title).toBe("T");
});

test("the length is that of all passages", () => expect(lengthOf(start.draft.sections)).toBe(8));

test("letters typed in one field are taken back together", () => {
  const done = after({ type: "retitle", title: "Tw" }, { type: "retitle", title: "Two" }, { type: "name section", section: 0, title: "X" });
  expect(done.past.map((each) => each.title)).toEqual(["Two", "T"]);
});
