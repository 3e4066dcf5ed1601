import { expect, test } from "vitest";

import { lookOf } from "./pasted";

test("who speaks in a pasted text", () => {
  expect(lookOf("Maren: Good morning.\n[0:12] Tobias: Is the ferry in?\nIt is late.").description).toBe("Said by Maren, Tobias.");
  expect(lookOf("Maren Tull [0:12]: Good morning.").description).toBe("Said by Maren Tull.");
});

test("captions are taken as they are", () => {
  expect(lookOf("1\n00:00:01,000 --> 00:00:02,000\nHello there").usable).toBe(true);
});

test("a text without names is not taken, and an empty one tells what is wanted", () => {
  expect(lookOf("just some words").usable).toBe(false);
  expect(lookOf("just some words").wrong).toContain("Name: words");
  expect(lookOf("  ").description).toContain("colon");
});
