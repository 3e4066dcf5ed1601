import { describe, expect, it } from "vitest";

import { draftOf, emptyDraft, newLine, passagesOf, patchOf } from "./lineDraft";
import { sampleLine, samplePassage } from "./sampleLine";
import type { Turn } from "./types";

const LINE = sampleLine({
  id: 7,
  text: "Ask two yards.",
  place: 1,
  owner: ["Ines Carvell"],
  due: "2026-10-09",
  due_said: "by Friday",
  evidence: [samplePassage(2, 4, 6, "I'll ask two yards")],
});

describe("what is sent of a line that was changed", () => {
  it("is nothing where nothing was", () => {
    expect(patchOf(LINE, draftOf(LINE))).toEqual({});
  });

  it("is only what is otherwise now", () => {
    expect(patchOf(LINE, { ...draftOf(LINE), progress: "done", owner: [] })).toEqual({ progress: "done", owner: [] });
  });

  it("gives words of a day to be read, and a picked day without the words that meant another", () => {
    expect(patchOf(LINE, { ...draftOf(LINE), said: "by Monday" })).toEqual({ due: null, due_said: "by Monday" });
    expect(patchOf(LINE, { ...draftOf(LINE), day: "2026-12-01" })).toEqual({ due: "2026-12-01", due_said: null });
    expect(patchOf(LINE, { ...draftOf(LINE), day: "", said: "" })).toEqual({ due: null, due_said: null });
  });

  it("points at words without repeating them", () => {
    const evidence = [{ turn: 0, first: 1, last: 2, quote: "two yards", start: 1 }];
    expect(patchOf(LINE, { ...draftOf(LINE), evidence })).toEqual({ evidence: [{ turn: 0, first: 1, last: 2 }] });
  });
});

describe("a new line", () => {
  it("begins with the words that it rests on", () => {
    const evidence = [{ turn: 0, first: 1, last: 2, quote: "two yards", start: 1 }];
    const draft = emptyDraft(3, "decision", 1, evidence);
    expect(draft.text).toBe("Two yards");
    expect(newLine(draft, 7)).toMatchObject({ place: 3, kind: "decision", chapter: 1, after: 7, due: null, due_said: null });
  });
});

describe("words chosen across turns", () => {
  const turn = (number: number, words: string): Turn => ({
    number,
    voice: 1,
    heard: null,
    words: words.split(" ").map((word, i) => [word, number * 10 + i, number * 10 + i + 1, 1]),
  });

  it("are a passage for each turn", () => {
    const turns = [turn(0, "we ask two yards"), turn(1, "yes please"), turn(2, "by Friday then")];
    expect(passagesOf(turns, { turn: 0, first: 2, lastTurn: 2, last: 1 })).toEqual([
      { turn: 0, first: 2, last: 3, quote: "two yards", start: 2 },
      { turn: 1, first: 0, last: 1, quote: "yes please", start: 10 },
      { turn: 2, first: 0, last: 1, quote: "by Friday", start: 20 },
    ]);
  });
});
