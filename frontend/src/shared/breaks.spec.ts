import { expect, it } from "vitest";

import { breakText } from "./breaks";

const pause = { at: 723, seconds: 1020, by: "Maren Tull", made_at: "2026-11-25T10:00:00Z" };

it("says what happened, where and for how long", () => {
  expect(breakText({ ...pause, kind: "pause" })).toBe("paused at 12:03 for 17 min");
  expect(breakText({ ...pause, kind: "gap", seconds: 0.4 })).toBe("broke off at 12:03 for less than a second");
  expect(breakText({ ...pause, kind: "cut", seconds: 60 })).toContain("1 min removed at 12:03 by Maren Tull");
});
