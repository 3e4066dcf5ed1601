import { expect, it } from "vitest";

import { readClock } from "./readClock";

it("reads minutes and hours, and refuses what is no time", () => {
  expect(readClock("1:05")).toBe(65);
  expect(readClock("1:02:03")).toBe(3723);
  expect(readClock("75:00")).toBe(4500);
  for (const wrong of ["", "5", "1:75", "1:75:00", "a:bc"]) expect(readClock(wrong)).toBeNull();
});
