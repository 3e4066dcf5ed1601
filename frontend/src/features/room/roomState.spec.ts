import { describe, expect, it } from "vitest";

import { mergedLines, roomReducer, secondsNow } from "./roomState";
import type { Board, LiveLine, Speech } from "./types";

const line = (number: number, text: string): LiveLine => ({ number, start: number, end: number + 1, text, heard: null, voice: null });
const speech: Speech = { state: "recording", duration: 12, partial: "", partial_start: 0, behind: 0, silent: 0 };

describe("mergedLines", () => {
  it("puts changed lines in their places and new ones at the end", () => {
    expect(mergedLines([line(1, "a"), line(2, "b")], [line(3, "c"), line(1, "A")]).map((l) => l.text)).toEqual(["A", "b", "c"]);
  });
});

describe("roomReducer", () => {
  it("waits for the room itself before it takes news", () => {
    expect(roomReducer(null, { type: "speech", speech, at: 0 })).toBeNull();
  });

  it("keeps lines when the board changes", () => {
    const room = roomReducer(null, { type: "all", room: { board: { state: "ready" } as Board, speech, lines: [line(1, "a")] }, at: 5 });
    const next = roomReducer(room, { type: "board", board: { state: "recording" } as Board });
    expect(next?.lines).toHaveLength(1);
    expect(next?.board.state).toBe("recording");
  });
});

describe("secondsNow", () => {
  it("goes on between two pieces of news, but not for long and not in a pause", () => {
    expect(secondsNow({ speech, at: 1000 }, 2500)).toBe(13.5);
    expect(secondsNow({ speech, at: 1000 }, 100_000)).toBe(17);
    expect(secondsNow({ speech: { ...speech, state: "paused" }, at: 1000 }, 2500)).toBe(12);
  });
});
