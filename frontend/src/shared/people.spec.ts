import { describe, expect, it } from "vitest";

import { opener, openers } from "./people";

const person = (id: number, plain: string, distinction: string, email: string | null) => ({
  id,
  plain,
  distinction,
  name: distinction ? `${plain} (${distinction})` : plain,
  account: email ? { email, role: "member" as const } : null,
  invited_until: null,
  me: false,
});
const people = [
  person(1, "Ines Carvell", "", "ines@saltmarsh.example"),
  person(2, "Tobias Pryce", "", null),
  person(3, "Ann Lowe", "yard", null),
  person(4, "Ann Lowe", "office", "ann@saltmarsh.example"),
];

describe("opener", () => {
  it.each([
    ["", ""],
    ["ines  CARVELL", "Ines Carvell will be able to open it, as ines@saltmarsh.example."],
    ["Tobias Pryce", "Tobias Pryce cannot open it: nobody signs in as them."],
    ["Bea Moss", "Bea Moss is new here and cannot open it: nobody signs in as them."],
    ["Ann Lowe", "Several people are called Ann Lowe: Ann Lowe (yard); Ann Lowe (office). Say which one."],
    ["Ann Lowe (office)", "Ann Lowe (office) will be able to open it, as ann@saltmarsh.example."],
  ])("says of %s who will open it", (name, said) => {
    expect(opener(name, people)).toBe(said);
  });
});

describe("openers", () => {
  it("names those with an account", () => {
    expect(openers(["Ines Carvell", "Tobias Pryce"], people)).toBe("Will be able to open it: Ines Carvell (ines@saltmarsh.example).");
    expect(openers(["Tobias Pryce"], people)).toBe("None of them can open it: nobody signs in as them.");
    expect(openers([], people)).toBe("");
  });
});
