import { describe, expect, it } from "vitest";

import { moved } from "./choosing";

const rows = (...ids: number[]) => ids.map((id) => ({ id }));

describe("moved", () => {
  it("changes places with the neighbour", () => expect(moved(rows(1, 2, 3), 2, 1)).toEqual(rows(1, 3, 2)));
  it("stays at either end", () => {
    expect(moved(rows(1, 2), 1, -1)).toEqual(rows(1, 2));
    expect(moved(rows(1, 2), 2, 1)).toEqual(rows(1, 2));
    expect(moved(rows(1, 2), 9, 1)).toEqual(rows(1, 2));
  });
});
