import type { RecordData } from "./types";

/** Whether minutes are still to come: there are none, and the work on the meeting is not at its end. */
export function minutesAwaited({ minutes, meeting }: Pick<RecordData, "minutes" | "meeting">): boolean {
  return !minutes && (!meeting.job || meeting.job.state === "waiting" || meeting.job.state === "working");
}
