import { expect, test } from "vitest";

import { reasonOf, REASONS } from "./reasons";

test("a rule is given in words, and one that is not known is named", () => {
  expect(reasonOf("nobody took it")).toBe("it was needed, and nobody took it on.");
  expect(reasonOf("a new one")).toContain("a new one");
});

test("every reason has its own words", () => {
  expect(new Set(REASONS.map(([, text]) => text)).size).toBe(REASONS.length);
});
