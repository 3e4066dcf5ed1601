import { expect, test } from "vitest";

import { clock, day, lasting, remaining } from "./times";

test("clock cuts and never rounds up", () => {
  expect(clock(59.99)).toBe("0:59");
  expect(clock(3599.999)).toBe("59:59");
  expect(clock(3661)).toBe("1:01:01");
  expect(clock(-1)).toBe("0:00");
});

test("durations and what remains in words", () => {
  expect(lasting(50.9)).toBe("50 s");
  expect(lasting(2472)).toBe("41 min");
  expect(lasting(3900)).toBe("1 h 5 min");
  expect(remaining(4)).toBe("a few seconds left");
  expect(remaining(41)).toBe("about 50 s left");
  expect(remaining(170)).toBe("about 3 min left");
});

test("a day shows its weekday", () => {
  expect(day("2026-10-06")).toBe("Tue 6 Oct 2026");
  expect(day("2026-10-06T23:30:00+00:00", "Europe/Berlin")).toBe("Wed 7 Oct 2026");
});
