import { describe, expect, it } from "vitest";

import { mergedLines, phaseOf, roomReducer } from "./roomState";
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
    const room = roomReducer(null, {
      type: "all",
      room: { board: { state: "ready", breaks: [] as Board["breaks"] } as Board, speech, lines: [line(1, "a")] },
      at: 5,
    });
    const next = roomReducer(room, { type: "board", board: { state: "recording", breaks: [] as Board["breaks"] } as Board });
    expect(next?.lines).toHaveLength(1);
    expect(next?.board.state).toBe("recording");
  });
});

describe("phaseOf", () => {
  it("is what this page records, before the server knows", () => {
    expect(phaseOf("paused", "recording")).toBe("recording");
    expect(phaseOf("recording", "paused")).toBe("paused");
    expect(phaseOf("recording", "stopping")).toBe("stopping");
  });

  it("is what the server says where this page records nothing", () => {
    expect(phaseOf("recording", "idle")).toBe("recording");
    expect(phaseOf("ready", "starting")).toBe("ready");
    expect(phaseOf("paused", "starting")).toBe("paused");
  });
});
