import { describe, expect, it } from "vitest";

import { sampleLine } from "./sampleLine";
import type { Line } from "./types";
import { likelyKind } from "./useLineForm";

const of = (kind: Line["kind"]): Line => sampleLine({ kind });

describe("what a new line of a section most likely is", () => {
  it("is what most of the others there are", () => {
    expect(likelyKind("The engine", [of("figure"), of("risk"), of("risk")])).toBe("risk");
  });

  it("is what the title says where the section is empty", () => {
    expect(likelyKind("Next steps", [])).toBe("action");
    expect(likelyKind("Decisions", [])).toBe("decision");
    expect(likelyKind("The engine", [])).toBe("key_point");
  });
});
