import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

import type { Schemas } from "../api/client";

type Job = Schemas["JobOut"];
type Today = Schemas["TodayOut"];
type Record = Schemas["RecordOut"];

/** Follows the work on the server and keeps what is shown in step with it. */
export function useJobEvents(): void {
  const queries = useQueryClient();
  useEffect(() => {
    const source = new EventSource("/api/events");
    const states = new Map<string, string>();
    source.addEventListener("job", (event: MessageEvent<string>) => {
      const job = JSON.parse(event.data) as Job;
      apply(queries, job, states.get(job.id));
      states.set(job.id, job.state);
    });
    return () => source.close();
  }, [queries]);
}

/** Puts the news of a job into what is cached; fetches anew what its end has changed. */
export function apply(queries: QueryClient, job: Job, before: string | undefined): void {
  const moved = (list: Today["busy"]) => ({ ...list, meetings: list.meetings.map((m) => (m.id === job.meeting_id ? { ...m, job } : m)) });
  queries.setQueryData<Today>(["meetings", "today"], (old) => old && { on: moved(old.on), busy: moved(old.busy), check: moved(old.check) });
  queries.setQueryData<Record>(["record", job.meeting_id], (old) => old && { ...old, meeting: { ...old.meeting, job } });
  const known = queries.getQueryData<Today>(["meetings", "today"]);
  if (known && job.state === "waiting" && !known.busy.meetings.some((m) => m.id === job.meeting_id)) void queries.invalidateQueries({ queryKey: ["meetings"] });
  const ended = job.state === "done" || job.state === "failed" || job.state === "cancelled";
  if (ended && before && before !== job.state) {
    void queries.invalidateQueries({ queryKey: ["meetings"] });
    void queries.invalidateQueries({ queryKey: ["actions"] });
    void queries.invalidateQueries({ queryKey: ["record", job.meeting_id] });
  }
}
