import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useCallback } from "react";

import { ApiProblem, body, client, type Schemas } from "../../api/client";
import { withOrdered, type Export } from "./awaited";
import { EXPORTS } from "./useExports";

/** What is asked, and of whom: everybody, or one voice, or a stretch in seconds. */
export type Question = Schemas["Question"];

/** An export as soon as it is made; what was said of it where it failed, or was taken back, is thrown. */
export function made(queries: QueryClient, id: string): Promise<Export> {
  return new Promise((resolve, reject) => {
    const cache = queries.getQueryCache();
    const forget = cache.subscribe(() => look());
    const look = () => {
      const each = queries.getQueryData<Schemas["ExportsOut"]>(EXPORTS)?.exports.find((one) => one.id === id);
      if (each && (each.state === "waiting" || each.state === "working")) return;
      forget();
      if (each?.state === "done") resolve(each);
      else reject(new ApiProblem(409, each?.error ?? "The answer was taken back. Ask again."));
    };
    look();
  });
}

/** Asks the worker and waits for what it makes of it. */
export function useAnswers(meetingId: string) {
  const queries = useQueryClient();
  const path = { meeting_id: meetingId };
  const waited = useCallback(
    async (ordered: Export) => {
      queries.setQueryData<Schemas["ExportsOut"]>(EXPORTS, (old) => ({ exports: withOrdered(old?.exports ?? [], ordered) }));
      return { path: { export_id: (await made(queries, ordered.id)).id } };
    },
    [queries],
  );
  const reply = async (ordered: Export) => body(client.GET("/api/exports/{export_id}/reply", { params: await waited(ordered) }));
  return {
    ask: async (question: Question) =>
      reply(await body(client.POST("/api/meetings/{meeting_id}/inquiry", { params: { path }, body: question }))),
    askLive: async (question: Question) =>
      reply(await body(client.POST("/api/meetings/{meeting_id}/room/inquiry", { params: { path }, body: question }))),
    misheard: async () =>
      body(
        client.GET("/api/exports/{export_id}/misheard", {
          params: await waited(await body(client.POST("/api/meetings/{meeting_id}/misheard/search", { params: { path } }))),
        }),
      ),
    brief: async () =>
      body(
        client.GET("/api/exports/{export_id}/brief", {
          params: await waited(await body(client.POST("/api/meetings/{meeting_id}/room/brief", { params: { path } }))),
        }),
      ),
  };
}
