import { describe, expect, it } from "vitest";

import { interrupted, meetingSecond, zeroAfter, type Known } from "./clock";
import type { Board } from "./types";

const known = (state: Known["speech"]["state"], duration: number, zero: number): Known => ({ speech: { state, duration }, zero });

describe("whoever records", () => {
  it("counts what was recorded, whether it has arrived or not", () => {
    expect(meetingSecond(known("recording", 4, 0), { seconds: 27, at: 90_000 }, 90_300)).toBeCloseTo(27.3);
  });

  it("stands still while nothing is recorded: on a laptop that slept, and through a pause", () => {
    expect(meetingSecond(known("recording", 4, 0), { seconds: 27, at: 90_000 }, 9_000_000)).toBe(28);
  });

  it("never runs backwards when the computer's clock is set", () => {
    expect(meetingSecond(known("recording", 4, 0), { seconds: 27, at: 90_000 }, 10_000)).toBe(27);
  });
});

describe("everybody else", () => {
  it("counts on while the sound is late", () => {
    expect(meetingSecond(known("recording", 10, 1000), null, 131_000)).toBe(130);
  });

  it("stands still while nothing is recorded", () => {
    for (const state of ["ready", "paused", "stopping", "stopped"] as const)
      expect(meetingSecond(known(state, 10, 1000), null, 131_000)).toBe(10);
  });

  it("goes by the news that came with the least delay, so that it never runs backwards", () => {
    const first = known("recording", 10, zeroAfter(null, 10, 12_000, false));
    const late = known("recording", 11, zeroAfter(first, 11, 15_000, false));
    expect(late.zero).toBe(first.zero);
    expect(zeroAfter(late, 14, 15_500, false)).toBe(1500);
  });

  it("begins to count again behind a pause", () => {
    expect(zeroAfter(known("paused", 10, 0), 10, 70_000, false)).toBe(60_000);
  });

  it("begins to count again behind a gap, since what was lost is not part of the recording", () => {
    expect(zeroAfter(known("recording", 10, 0), 11, 70_000, true)).toBe(59_000);
  });
});

it("a gap that is added or measured interrupts, a stretch that is removed does not", () => {
  const board = (...breaks: [string, number | null][]) =>
    ({ breaks: breaks.map(([kind, seconds]) => ({ kind, seconds, at: 1, by: "", made_at: "" })) }) as unknown as Board;
  expect(interrupted(board(), board(["gap", null]))).toBe(true);
  expect(interrupted(board(["gap", null]), board(["gap", 3]))).toBe(true);
  expect(interrupted(board(["gap", 3]), board(["gap", 3], ["cut", 4]))).toBe(false);
});
