import { describe, expect, it } from "vitest";

import { size } from "./size";

describe("size", () => {
  it("uses the step that leaves few digits", () => {
    expect([0, 1, 1024, 300_000, 5 * 1024 ** 2, 50 * 1024 ** 3, 3 * 1024 ** 4, 5000 * 1024 ** 4].map(size)).toEqual([
      "0 kB",
      "1 kB",
      "1 kB",
      "293 kB",
      "5.0 MB",
      "50.0 GB",
      "3.0 TB",
      "5000.0 TB",
    ]);
  });
});
