import { describe, expect, it } from "vitest";

import { EVERYTHING, isWide, queryFor } from "./useExcerpts";

describe("what excerpts are narrowed to", () => {
  it("lets everything through at first, and with blanks for words", () => {
    expect(isWide(EVERYTHING)).toBe(true);
    expect(isWide({ ...EVERYTHING, words: "  " })).toBe(true);
    expect(isWide({ ...EVERYTHING, label: "money" })).toBe(false);
  });

  it("asks for a person by number, and for the next page only where there is one", () => {
    expect(queryFor({ ...EVERYTHING, person: "7" }, "place")).toEqual({ words: "", meeting: "", label: "", person: 7, after: "place" });
    expect(queryFor(EVERYTHING, null)).toEqual({ words: "", meeting: "", label: "" });
  });
});
