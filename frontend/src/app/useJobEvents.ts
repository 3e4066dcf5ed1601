import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useRef } from "react";

import type { Schemas } from "../api/client";
import { useStream } from "../shared/useStream";

type Job = Schemas["JobOut"];
type Today = Schemas["TodayOut"];
type Record = Schemas["RecordOut"];

/** Follows the work on the server and keeps what is shown in step with it. */
export function useJobEvents(): void {
  const queries = useQueryClient();
  const states = useRef(new Map<string, string>());
  useStream("/api/events", {
    job: (data) => {
      const job = JSON.parse(data) as Job;
      apply(queries, job, states.current.get(job.id));
      states.current.set(job.id, job.state);
    },
  });
}

/** Puts the news of a job into what is cached; fetches anew what its end has changed. */
export function apply(queries: QueryClient, job: Job, before: string | undefined): void {
  const moved = (list: Today["busy"]) => ({ ...list, meetings: list.meetings.map((m) => (m.id === job.meeting_id ? { ...m, job } : m)) });
  queries.setQueryData<Today>(
    ["meetings", "today"],
    (old) => old && { on: moved(old.on), busy: moved(old.busy), not_done: moved(old.not_done), check: moved(old.check) },
  );
  queries.setQueryData<Record>(["record", job.meeting_id], (old) => old && { ...old, meeting: { ...old.meeting, job } });
  const known = queries.getQueryData<Today>(["meetings", "today"]);
  if (known && job.state === "waiting" && !known.busy.meetings.some((m) => m.id === job.meeting_id))
    void queries.invalidateQueries({ queryKey: ["meetings"] });
  const ended = job.state === "done" || job.state === "failed" || job.state === "cancelled";
  if (ended && before && before !== job.state) {
    void queries.invalidateQueries({ queryKey: ["meetings"] });
    void queries.invalidateQueries({ queryKey: ["actions"] });
    void queries.invalidateQueries({ queryKey: ["record", job.meeting_id] });
  }
}
