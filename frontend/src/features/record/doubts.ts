import type { Doubt, Line } from "./types";

type Reason = Line["doubts"][number] | "voice unsure";

const SENTENCES: Record<Reason, string> = {
  "may not be settled": "it may only have been talked about, and not settled.",
  "may be no task": "it may not be meant as a task.",
  "may have a day": "a day was named close by, and none is in the line.",
  "may mean something else": "what stands in square brackets may not be what was meant.",
  "heard unsurely": "a name or a figure in it was not heard clearly.",
  "voice unsure": "it is unsure in whose voice this was said.",
};

/** For each line that is worth a look before the minutes go out, by its number, why; none for what a person checked, changed or threw out. */
export function openDoubts(lines: readonly Line[], voices: readonly Doubt[]): ReadonlyMap<number, string> {
  const unsure = new Set(voices.filter((doubt) => doubt.unsure).map((doubt) => doubt.turn));
  const made = new Map<number, string>();
  for (const line of lines) {
    if (line.checked || line.heard !== null || line.thrown_out !== null || line.by_hand || isSetRight(line)) continue;
    const doubts: Reason[] = [...line.doubts];
    if (line.owner.length > 0 && line.evidence.some((each) => !each.of_answer && unsure.has(each.turn))) doubts.push("voice unsure");
    if (doubts.length > 0) made.set(line.id, doubts.map((each) => SENTENCES[each]).join(" Also, "));
  }
  return made;
}

/** Whether a person set more of a line than where it stands and how far it is. */
const isSetRight = (line: Line): boolean => line.set_by_person.some((part) => !["number", "place", "progress"].includes(part));

/** The next of some lines, behind the one that is selected and then from the top, that is worth a look. */
export function nextDoubted(lines: readonly Line[], doubts: ReadonlyMap<number, string>, selected: number | null): Line | undefined {
  const here = lines.findIndex((line) => line.id === selected);
  return [...lines.slice(here + 1), ...lines.slice(0, here + 1)].find((line) => doubts.has(line.id));
}

/** How many lines are worth a look, in words. */
export const worthALook = (count: number): string => `${count} ${count === 1 ? "line is" : "lines are"} worth a look`;
