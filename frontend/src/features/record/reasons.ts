import type { Reason } from "./types";

/** Why a person may throw a line out, as the store keeps it and as it is read. */
export const REASONS: readonly [Reason, string][] = [
  ["not said", "it was not said like that"],
  ["does not matter", "it does not matter"],
  ["somebody else's", "it is for somebody who was not there"],
  ["said as a joke", "it was said as a joke"],
  ["twice", "it is there twice"],
];

export const OWN_REMARK = "a person's own remark";

const WHY: Record<string, string> = {
  commitment: "somebody said that they would do it.",
  assignment: "it was given to somebody by name.",
  request: "it was asked for, and the one who was asked agreed.",
  "told and taken": "somebody was told to do it and agreed.",
  "told and taken by the next voice": "somebody was told to do it, and the next to speak took it on.",
  "asked of all": "it was asked of everybody there.",
  "asked for by a day": "it was asked for by a day, and the one who was asked agreed.",
  "offer taken up": "somebody offered to do it, and the others took that up.",
  "taken up": "it was needed, and somebody took it on.",
  "nobody took it": "it was needed, and nobody took it on.",
  "said as one": "it is said and answered as tasks are.",
  "done in the meeting": "somebody said that they would do it; it was done while the meeting ran.",
  decided: "the words settle something, and nobody objects.",
  "put to all": "it was put to everybody, and nobody objected.",
  "proposed and agreed": "it was proposed, and another voice agreed.",
  "a rule for all": "it tells what everybody, or nobody, does from then on.",
  ruled: "it is said as what holds from then on.",
  "when to meet again": "it tells when you meet again.",
  settled: "it is said and received as things that are settled are.",
  asked: "it asks something on the subject.",
  "weight in its chapter": "its figures, names and weighty words stand out in its chapter.",
  "near the middle of its chapter": "it stands nearest to all that is said in its chapter.",
  "a figure": "it names an amount, a date, a count or a measure.",
  "an instruction": "it tells what to do, by somebody who shows a procedure.",
  "what was asked for": "it names a need or an objection.",
  "named by others": "others spoke of this person.",
  "the first agreement": "it is the first thing that was agreed.",
  "an objection stuck": "somebody spoke against a proposal, and it was put off or reversed.",
  "a figure surprised": "somebody else was surprised by the figure.",
  reversed: "it was decided, then reversed.",
  "added by hand": "somebody added it by hand.",
  "a person's note": "somebody wrote it down; beside it stands what was said of it.",
  [OWN_REMARK]: "somebody wrote it down; nobody said it, so that only the moment of writing stands beside it.",
};

/** The rule that wrote a line, as half a sentence. */
export function reasonOf(why: string): string {
  return why.endsWith("was looked for") ? `${why}.` : (WHY[why] ?? `of the rule “${why}”.`);
}
