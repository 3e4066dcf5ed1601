import { turnAt } from "./links";
import type { Mark, RecordData } from "./types";

/** Label of the marks that chat lines become. */
export const CHAT = "Chat";

/** What was written beside the meeting, by the index of the turn during or behind which it was written. */
export function chatByTurn({ turns, marks }: Pick<RecordData, "turns" | "marks">): Map<number, Mark[]> {
  const made = new Map<number, Mark[]>();
  for (const mark of marks) {
    if (mark.label !== CHAT) continue;
    const at = Math.max(0, turnAt(turns, mark.start));
    made.set(at, [...(made.get(at) ?? []), mark]);
  }
  return made;
}
