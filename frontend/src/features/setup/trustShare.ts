import type { Schemas } from "../../api/client";

type Trust = Schemas["TrustOut"];

export const KIND_NAMES: Record<Trust["kind"], string> = {
  note: "Notes",
  decision: "Decisions",
  action: "Actions",
  question: "Questions",
  key_point: "Key points",
  figure: "Figures",
  risk: "Risks",
  step: "Steps",
  need: "Needs and objections",
  named: "Who was named",
  turning_point: "Turning points",
  sought: "Looked for by own words",
};
const ENOUGH = 5; // lines that somebody must have looked at before a share says anything

/** The share of lines that were right as written, of those that somebody looked at; a word where too few were. */
export function rightShare({ confirmed, corrected, thrown_out }: Pick<Trust, "confirmed" | "corrected" | "thrown_out">): string {
  const seen = confirmed + corrected + thrown_out;
  return seen < ENOUGH ? "too few yet" : `${Math.floor((confirmed / seen) * 100)} %`;
}
