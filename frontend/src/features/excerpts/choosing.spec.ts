import { describe, expect, it } from "vitest";

import { fitting, moved, type Excerpt } from "./choosing";

const excerpt = (id: number, more: Partial<Excerpt>): Excerpt => ({
  may_change: true,
  id,
  meeting_id: "a",
  meeting: "A",
  day: "2026-10-06",
  title: "T",
  note: "",
  label: "",
  speakers: ["Ines"],
  start: 0,
  end: 1,
  quote: "words",
  ...more,
});
const ALL = { words: "", meeting: "", person: "", label: "" };
const ROWS = [
  excerpt(1, { title: "Slipway" }),
  excerpt(2, { meeting_id: "b", speakers: ["Maren"], label: "idea" }),
  excerpt(3, { note: "for the slipway people" }),
];

describe("excerpts that fit", () => {
  it("are all without a choice", () => expect(fitting(ROWS, ALL)).toHaveLength(3));
  it("are found by words of title, note and quote", () =>
    expect(fitting(ROWS, { ...ALL, words: " SLIPWAY" }).map((e) => e.id)).toEqual([1, 3]));
  it("are found by meeting, person and label", () => {
    expect(fitting(ROWS, { ...ALL, meeting: "b" }).map((e) => e.id)).toEqual([2]);
    expect(fitting(ROWS, { ...ALL, person: "Maren" }).map((e) => e.id)).toEqual([2]);
    expect(fitting(ROWS, { ...ALL, label: "idea" }).map((e) => e.id)).toEqual([2]);
  });
});

describe("moved", () => {
  it("changes places with the neighbour", () => expect(moved([1, 2, 3], 2, 1)).toEqual([1, 3, 2]));
  it("stays at either end", () => {
    expect(moved([1, 2], 1, -1)).toEqual([1, 2]);
    expect(moved([1, 2], 2, 1)).toEqual([1, 2]);
    expect(moved([1, 2], 9, 1)).toEqual([1, 2]);
  });
});
