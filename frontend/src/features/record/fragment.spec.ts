import { describe, expect, it } from "vitest";

import { fragmentFor, fragmentOf, lineIn } from "./fragment";

// W3C Media Fragments URI 1.0 (2012), 4.2.1 "Temporal Dimension" and its examples in 4.2.1.1.
describe("fragmentOf", () => {
  it.each([
    ["#t=10,20", { start: 10, end: 20 }],
    ["#t=,20", { start: 0, end: 20 }],
    ["#t=10", { start: 10, end: null }],
    ["#t=npt:10,20", { start: 10, end: 20 }],
    ["#t=npt:,121.5", { start: 0, end: 121.5 }],
    ["#t=0:02:00,121.5", { start: 120, end: 121.5 }],
    ["#t=npt:120,0:02:01.5", { start: 120, end: 121.5 }],
    ["#t=02:00", { start: 120, end: null }],
  ])("reads %s", (hash, expected) => expect(fragmentOf(hash)).toEqual(expected));

  // 5.2.1 "Errors": an empty or reversed interval, or a time that is none, is no fragment.
  it.each(["", "#line-7", "#t=", "#t=,", "#t=20,10", "#t=5,5", "#t=abc", "#t=1,2,3", "#t=1:75:00"])("takes %s for none", (hash) =>
    expect(fragmentOf(hash)).toBeNull(),
  );

  it("reads back what it writes", () => {
    expect(fragmentOf(fragmentFor(12.345, 20))).toEqual({ start: 12.35, end: 20 });
    expect(fragmentOf(fragmentFor(3))).toEqual({ start: 3, end: null });
  });
});

it("a line is named by its number", () => {
  expect(lineIn("#line-7")).toBe(7);
  expect(["", "#line-", "#line-x", "#t=7", "#line-99999999999"].map(lineIn)).toEqual([null, null, null, null, null]);
});
