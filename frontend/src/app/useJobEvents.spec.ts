import { QueryClient } from "@tanstack/react-query";
import { describe, expect, it } from "vitest";

import { apply } from "./useJobEvents";

const RECORD = ["record", "m"];

function job(id: string, state: string, kind = "work") {
  return { id, meeting_id: "m", state, kind } as Parameters<typeof apply>[1];
}

function showing(shown: ReturnType<typeof job>) {
  const queries = new QueryClient();
  queries.setQueryData(RECORD, { meeting: { id: "m", job: shown } });
  return queries;
}

const stale = (queries: QueryClient) => queries.getQueryState(RECORD)?.isInvalidated;

describe("the news of a job", () => {
  it("moves what is shown on without fetching it again", () => {
    const queries = showing(job("a", "waiting"));
    apply(queries, job("a", "working"));
    expect(queries.getQueryData(RECORD)).toMatchObject({ meeting: { job: { state: "working" } } });
    expect(stale(queries)).toBe(false);
  });

  it("fetches the record again when the job has ended", () => {
    const queries = showing(job("a", "working"));
    apply(queries, job("a", "done"));
    expect(stale(queries)).toBe(true);
  });

  it("fetches it again when a job has ended that was too quick to be seen at work", () => {
    const queries = showing(job("a", "done"));
    apply(queries, job("b", "done"));
    expect(stale(queries)).toBe(true);
  });

  it("leaves it alone when the end is known already", () => {
    const queries = showing(job("a", "done"));
    apply(queries, job("a", "done"));
    expect(stale(queries)).toBe(false);
  });

  it("shows the work on the recording while minutes are written again beside it, and then the minutes", () => {
    const queries = showing(job("a", "working"));
    apply(queries, job("b", "working", "minutes"));
    expect(queries.getQueryData(RECORD)).toMatchObject({ meeting: { job: { id: "a" } } });
    expect(stale(queries)).toBe(false);
    apply(queries, job("b", "done", "minutes"));
    expect(queries.getQueryData(RECORD)).toMatchObject({ meeting: { job: { id: "a" } } });
    expect(stale(queries)).toBe(true);
  });
});
