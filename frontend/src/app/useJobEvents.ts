import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { EXPORTS } from "../features/exports/useExports";
import { useStream } from "../shared/useStream";

type Job = Schemas["JobOut"];
type Today = Schemas["TodayOut"];
type Record = Schemas["RecordOut"];

/** Follows the work on the server and keeps what is shown in step with it. */
export function useJobEvents(): void {
  const queries = useQueryClient();
  useStream("/api/events", {
    job: (data) => {
      apply(queries, JSON.parse(data) as Job);
    },
    exports: (data) => queries.setQueryData(EXPORTS, JSON.parse(data) as Schemas["ExportsOut"]),
  });
}

/** The job of a meeting as some view shows it. */
function shown(queries: QueryClient, meetingId: string): Job | null | undefined {
  const today = queries.getQueryData<Today>(["meetings", "today"]);
  const lists = today ? [today.on, today.busy, today.not_done, today.check] : [];
  const listed = lists.flatMap((list) => list.meetings).find((meeting) => meeting.id === meetingId);
  return queries.getQueryData<Record>(["record", meetingId])?.meeting.job ?? listed?.job;
}

/**
 * Puts the news of a job into what is cached; fetches again what its end has changed.
 *
 * Minutes that are written again beside the work on a recording do not hide how far that is.
 */
export function apply(queries: QueryClient, job: Job): void {
  const now = shown(queries, job.meeting_id);
  const beside = job.kind === "minutes" && now && now.id !== job.id && (now.state === "waiting" || now.state === "working");
  const before = (beside ? null : now) ?? queries.getQueryData<Job>(["job", job.id]);
  queries.setQueryData<Job>(["job", job.id], job);
  if (beside) {
    if (hasEnded(job) && before?.state !== job.state) refresh(queries, job.meeting_id);
    return;
  }
  const moved = (list: Today["busy"]) => ({ ...list, meetings: list.meetings.map((m) => (m.id === job.meeting_id ? { ...m, job } : m)) });
  queries.setQueryData<Today>(
    ["meetings", "today"],
    (old) => old && { on: moved(old.on), busy: moved(old.busy), not_done: moved(old.not_done), check: moved(old.check) },
  );
  queries.setQueryData<Record>(["record", job.meeting_id], (old) => old && { ...old, meeting: { ...old.meeting, job } });
  const known = queries.getQueryData<Today>(["meetings", "today"]);
  if (known && job.state === "waiting" && !known.busy.meetings.some((m) => m.id === job.meeting_id))
    void queries.invalidateQueries({ queryKey: ["meetings"] });
  if (hasEnded(job) && before && (before.id !== job.id || before.state !== job.state)) refresh(queries, job.meeting_id);
}

function hasEnded(job: Job): boolean {
  return job.state === "done" || job.state === "failed" || job.state === "cancelled";
}

function refresh(queries: QueryClient, meetingId: string): void {
  void queries.invalidateQueries({ queryKey: ["meetings"] });
  void queries.invalidateQueries({ queryKey: ["actions"] });
  void queries.invalidateQueries({ queryKey: ["record", meetingId] });
}
