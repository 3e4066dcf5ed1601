import { describe, expect, it } from "vitest";

import { waiting } from "./Progress";

describe("waiting", () => {
  it("says how much comes before", () => {
    expect([null, 0, 1, 4].map(waiting)).toEqual([
      "Waiting; it is the next",
      "Waiting; it is the next",
      "Waiting; one other comes before it",
      "Waiting; 4 others come before it",
    ]);
  });
});
