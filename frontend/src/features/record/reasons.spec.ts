import { expect, test } from "vitest";

import { reasonOf, REASONS } from "./reasons";

test("a rule is told in words, and one that is not known is named", () => {
  expect(reasonOf("nobody took it")).toBe("it was needed, and nobody took it on.");
  expect(reasonOf("a new one")).toContain("a new one");
});

test("every reason is told differently", () => {
  expect(new Set(REASONS.map(([, told]) => told)).size).toBe(REASONS.length);
});
