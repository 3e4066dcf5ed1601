import { expect, test } from "vitest";

import { joined, mailto } from "./textDraft";

const piece = (text: string, ...lines: number[]) => ({ text, lines });

test("items stand under their heading, everything else apart", () => {
  const pieces = [
    piece("Hello all,"),
    piece("Decided:"),
    piece("- January it is.", 1),
    piece("- Two boats.", 2),
    piece("To do:"),
    piece("- Ines: Ask.", 3),
    piece("Maren"),
  ];
  expect(joined(pieces)).toBe("Hello all,\n\nDecided:\n- January it is.\n- Two boats.\n\nTo do:\n- Ines: Ask.\n\nMaren\n");
});

test("what was emptied is gone", () => {
  expect(joined([piece("A"), piece("  ", 1), piece("B")])).toBe("A\n\nB\n");
});

test("a mail address keeps signs and ends of lines", () => {
  expect(mailto("Tea & boats", "a\nb")).toBe("mailto:?subject=Tea%20%26%20boats&body=a%0D%0Ab");
});
