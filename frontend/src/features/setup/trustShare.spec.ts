import { expect, test } from "vitest";

import { rightShare } from "./trustShare";

test("a share is told when enough lines were looked at, and never rounded up", () => {
  expect(rightShare({ confirmed: 4, corrected: 0, thrown_out: 0 })).toBe("too few yet");
  expect(rightShare({ confirmed: 5, corrected: 1, thrown_out: 1 })).toBe("71 %");
  expect(rightShare({ confirmed: 199, corrected: 1, thrown_out: 0 })).toBe("99 %");
});
