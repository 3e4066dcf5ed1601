import { describe, expect, it } from "vitest";

import { copiedLines, copiedMinutes } from "./copied";
import { sampleLine, samplePassage } from "./sampleLine";
import type { Line } from "./types";

const PAGE = "http://nuntius.example/meetings/abc";
const line = (part: Partial<Line>): Line =>
  sampleLine({
    id: 7,
    kind: "decision",
    text: "Close the slipway & pier.",
    evidence: [samplePassage(0, 61, 63, "close it")],
    ...part,
  });

describe("lines that are copied", () => {
  it("carry the link to the words behind them, in text and in rich text", () => {
    const { text, html } = copiedLines([line({})], PAGE);
    expect(text).toBe(`- Close the slipway & pier. ${PAGE}#t=61,63\n`);
    expect(html).toBe(`<ul><li>Close the slipway &amp; pier. [<a href="${PAGE}#t=61,63">1:01</a>]</li></ul>`);
  });

  it("say who does a task by when, and how far it is", () => {
    const task = line({ kind: "action", text: "Ask two yards.", owner: ["Ines"], due: "2026-10-09", progress: "done", evidence: [] });
    expect(copiedLines([task], PAGE).text).toBe(`- Ask two yards. (Ines, by Fri 9 Oct 2026, done) ${PAGE}#line-7\n`);
    expect(copiedLines([line({ kind: "action", text: "Ask.", evidence: [] })], PAGE).text).toContain(
      "(nobody took this on, no date named)",
    );
  });
});

describe("minutes that are copied", () => {
  it("have their sections, without what was thrown out", () => {
    const made = copiedMinutes(
      "Crew <rota>",
      [
        { key: "a", title: "Decisions", place: 0, lines: [line({})] },
        { key: "thrown", title: "Thrown out", lines: [line({})] },
      ],
      PAGE,
    );
    expect(made.html).toContain("<h1>Crew &lt;rota&gt;</h1><h2>Decisions</h2><ul>");
    expect(made.text.startsWith("Crew <rota>\n\nDecisions\n- Close")).toBe(true);
    expect(made.text).not.toContain("Thrown out");
  });
});
