import { expect, test } from "vitest";

import { initials } from "./initials";

test("initials tell people apart", () => {
  const all = ["Maren Tull", "Martin Oke", "Ines Carvell", "Voice B"];
  expect(all.map((name) => initials(name, all))).toEqual(["MT", "MO", "I", "B"]);
});
