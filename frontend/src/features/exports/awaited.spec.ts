import { describe, expect, it } from "vitest";

import { goesOn, settled, withOrdered, type Export } from "./awaited";

const made = (id: string, state: Export["state"]): Export => ({ id, state }) as Export;

describe("exports that are waited for", () => {
  it("are saved once they are there, and no others", () => {
    const found = settled(["a", "b"], [made("a", "done"), made("b", "working"), made("c", "done")]);
    expect(found.saved.map((each) => each.id)).toEqual(["a"]);
    expect(found.failed).toEqual([]);
    expect(found.left).toEqual(["b"]);
  });

  it("are not waited for any more when they failed", () => {
    const found = settled(["a"], [made("a", "failed")]);
    expect(found.failed.map((each) => each.id)).toEqual(["a"]);
    expect(found.left).toEqual([]);
  });

  it("are waited for while the list does not hold them yet", () => {
    expect(settled(["a"], []).left).toEqual(["a"]);
  });
});

describe("the list of exports", () => {
  it("goes on while one waits or is being made", () => {
    expect(goesOn([made("a", "waiting")])).toBe(true);
    expect(goesOn([made("a", "done"), made("b", "failed")])).toBe(false);
  });

  it("keeps what the stream has said of a new one before the answer came", () => {
    expect(withOrdered([made("a", "done")], made("a", "waiting"))).toEqual([made("a", "done")]);
    expect(withOrdered([made("a", "done")], made("b", "waiting")).map((each) => each.id)).toEqual(["b", "a"]);
  });
});
