import { describe, expect, it } from "vitest";

import { findLines, liveItems, partialOf, stable } from "./liveTurns";
import type { LiveLine } from "./types";

const line = (number: number, start: number, voice: number | null, text = `line ${number}`): LiveLine => ({
  number,
  start,
  end: start + 2,
  text,
  heard: null,
  voice,
});
const pause = { kind: "pause" as const, at: 6, seconds: 600, by: "Maren Tull", made_at: "2026-11-25T10:00:00Z" };

describe("liveItems", () => {
  it("makes one turn of lines of one voice, and a new one after a silence or another voice", () => {
    const items = liveItems([line(1, 0, 1), line(2, 2.5, 1), line(3, 5, 2), line(4, 12, 2)], []);
    expect(items.map((item) => item.type === "turn" && item.lines.map((l) => l.number))).toEqual([[1, 2], [3], [4]]);
  });

  it("shows a pause where it was, even at the end", () => {
    expect(liveItems([line(1, 0, 1), line(2, 6, 1)], [pause]).map((item) => item.type)).toEqual(["turn", "break", "turn"]);
    expect(liveItems([line(1, 0, 1)], [pause]).map((item) => item.type)).toEqual(["turn", "break"]);
  });

  it("leaves out lines that were cut", () => {
    expect(liveItems([line(1, 0, 1, "")], [])).toEqual([]);
  });
});

describe("stable", () => {
  it("keeps the objects of turns in which nothing changed", () => {
    const lines = [line(1, 0, 1), line(2, 5, 2)];
    const before = liveItems(lines, []);
    const after = stable(liveItems([...lines, line(3, 7.2, 2)], []), before);
    expect(after[0]).toBe(before[0]);
    expect(after[1]).not.toBe(before[1]);
  });
});

describe("findLines", () => {
  it("finds words whatever their case, from two letters on", () => {
    expect(findLines([line(1, 0, 1, "The Slipway"), line(2, 3, 1, "no")], "slip")).toEqual([1]);
    expect(findLines([line(1, 0, 1, "a")], "a")).toEqual([]);
  });
});

describe("partialOf", () => {
  it("does not repeat words that have settled already", () => {
    const speech = { state: "recording" as const, duration: 9, partial: "line 1", partial_start: 0, behind: 0, silent: 0 };
    expect(partialOf(speech, [line(1, 0, 1), line(2, 3, 1)])).toBe("");
    expect(partialOf({ ...speech, partial_start: 5 }, [line(1, 0, 1)])).toBe("line 1");
  });
});
