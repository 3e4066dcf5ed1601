import { describe, expect, it } from "vitest";

import { between, boldened, listed, mentioned, padReducer, spans } from "./pad";
import type { Note } from "./types";

const note = (id: string, position: number, text = id): Note => ({ id, text, at: 0, position, private: false });

describe("between", () => {
  it("finds room for a paragraph anywhere", () => {
    expect(between(undefined, undefined)).toBe(1);
    expect(between(1, undefined)).toBe(2);
    expect(between(undefined, 1)).toBe(0);
    expect(between(1, 2)).toBe(1.5);
  });
});

describe("padReducer", () => {
  it("puts a new paragraph in its place", () => {
    expect(padReducer([note("a", 1), note("b", 2)], { type: "add", note: note("c", 1.5) }).map((n) => n.id)).toEqual(["a", "c", "b"]);
  });

  it("takes the server's word only for what was not touched here", () => {
    const notes = padReducer([note("a", 1, "being written"), note("b", 2, "old")], {
      type: "server",
      notes: [note("a", 1, "as sent"), note("b", 2, "new")],
      touched: new Set(["a"]),
    });
    expect(notes.map((n) => n.text)).toEqual(["being written", "new"]);
  });

  it("lets a paragraph go that was removed elsewhere, but not one that is still on its way", () => {
    const notes = padReducer([note("a", 1), note("b", 2)], { type: "server", notes: [], touched: new Set(["b"]) });
    expect(notes.map((n) => n.id)).toEqual(["b"]);
  });
});

describe("spans", () => {
  it("knows bold, links and people, and leaves the rest alone", () => {
    expect(spans("ask **two yards**, see https://example.test/a?b=1. @Ines Carvell rings")).toEqual([
      { text: "ask ", kind: "plain" },
      { text: "two yards", kind: "bold" },
      { text: ", see ", kind: "plain" },
      { text: "https://example.test/a?b=1", kind: "link" },
      { text: ". ", kind: "plain" },
      { text: "@Ines Carvell", kind: "mention" },
      { text: " rings", kind: "plain" },
    ]);
  });

  it("makes nothing of markup it does not know", () => {
    expect(spans("<b>x</b> javascript:alert(1)")).toEqual([{ text: "<b>x</b> javascript:alert(1)", kind: "plain" }]);
  });
});

describe("writing", () => {
  it("knows a list item by its dash", () => {
    expect(listed("- sand")).toEqual({ item: true, rest: "sand" });
    expect(listed("**bold** first")).toEqual({ item: false, rest: "**bold** first" });
  });

  it("offers people after an @", () => {
    expect(mentioned("ask @In")).toBe("In");
    expect(mentioned("mail a@b")).toBeNull();
  });

  it("makes a selection bold and plain again", () => {
    const bold = boldened("ask two yards", 4, 7);
    expect(bold).toEqual({ text: "ask **two** yards", start: 6, end: 9 });
    expect(boldened(bold.text, bold.start, bold.end).text).toBe("ask two yards");
  });
});
