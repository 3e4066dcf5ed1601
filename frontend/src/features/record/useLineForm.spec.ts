import { describe, expect, it } from "vitest";

import { sampleLine } from "./sampleLine";
import type { Line } from "./types";
import { likelyKind, sectionFor } from "./useLineForm";

const of = (kind: Line["kind"]): Line => sampleLine({ kind });

describe("the section of a line of another kind", () => {
  const lines = [sampleLine({ kind: "risk", place: 2 }), sampleLine({ kind: "risk", place: 2 }), sampleLine({ kind: "risk", place: 1 })];

  it("is where most of that kind stand", () => {
    expect(sectionFor("risk", lines, 0)).toBe(2);
  });

  it("stays where some of that kind stand, or none anywhere", () => {
    expect(sectionFor("risk", lines, 1)).toBe(1);
    expect(sectionFor("decision", lines, 3)).toBe(3);
  });
});

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
