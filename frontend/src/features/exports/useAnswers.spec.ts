import { QueryClient } from "@tanstack/react-query";
import { describe, expect, it } from "vitest";

import type { Export } from "./awaited";
import { made } from "./useAnswers";
import { EXPORTS } from "./useExports";

function knowing(...exports: Partial<Export>[]) {
  const queries = new QueryClient();
  queries.setQueryData(EXPORTS, { exports });
  return queries;
}

describe("waiting for an export", () => {
  it("ends when it is made", async () => {
    const queries = knowing({ id: "a", state: "waiting" });
    const waits = made(queries, "a");
    queries.setQueryData(EXPORTS, { exports: [{ id: "a", state: "working" }] });
    queries.setQueryData(EXPORTS, { exports: [{ id: "a", state: "done" }] });
    expect((await waits).state).toBe("done");
  });

  it("ends at once when it is made already", async () => {
    expect((await made(knowing({ id: "a", state: "done" }), "a")).id).toBe("a");
  });

  it("throws what is said of one that failed", async () => {
    const waits = made(knowing({ id: "a", state: "failed", error: "The disk is full." }), "a");
    await expect(waits).rejects.toThrow("The disk is full.");
  });

  it("throws when it is taken back", async () => {
    const queries = knowing({ id: "a", state: "waiting" });
    const waits = made(queries, "a");
    queries.setQueryData(EXPORTS, { exports: [] });
    await expect(waits).rejects.toThrow("taken back");
  });
});
