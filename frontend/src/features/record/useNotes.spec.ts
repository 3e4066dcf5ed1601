import { expect, test } from "vitest";

import { positionAt, type Note } from "./useNotes";

const note = (at: number, position: number): Note => ({ id: `${at}`, text: "", at, position, private: false });

test("a note finds its place among the others by its moment", () => {
  expect(positionAt([], 5)).toBe(1);
  expect(positionAt([note(1, 4)], 5)).toBe(5);
  expect(positionAt([note(9, 4)], 5)).toBe(3);
  expect(positionAt([note(1, 1), note(9, 2)], 5)).toBe(1.5);
});
