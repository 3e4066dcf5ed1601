const NAMED =
  /^\s*(?:[[(]?(?:\d{1,2}:)?\d{1,2}:\d{2}(?:[.,]\d{1,3})?[\])]?\s*[-–]?\s*)?([^\W\d_][^:[\]()\n]{0,48}?)\s*(?:[[(](?:\d{1,2}:)?\d{1,2}:\d{2}[\])])?\s*:\s+\S/u;

/** What a pasted text looks like: who speaks in it, or what is wrong with it. */
export function lookOf(text: string): { usable: boolean; description: string; wrong: string } {
  if (!text.trim())
    return {
      usable: false,
      description: "A line each with the name, a colon and the words; times are taken where there are any.",
      wrong: "",
    };
  if (text.includes("-->")) return { usable: true, description: "Captions with their times.", wrong: "" };
  const names = new Set(text.split("\n").flatMap((line) => NAMED.exec(line)?.[1]?.trim() ?? []));
  if (!names.size)
    return {
      usable: false,
      description: "",
      wrong: "No line has the form “Name: words”. Put the name of whoever speaks and a colon before their words.",
    };
  const shown = [...names].slice(0, 4).join(", ");
  return { usable: true, description: `Said by ${shown}${names.size > 4 ? ` and ${names.size - 4} more` : ""}.`, wrong: "" };
}
