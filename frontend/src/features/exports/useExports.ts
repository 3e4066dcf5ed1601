import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, use, useCallback } from "react";

import { bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { goesOn, withOrdered, type Export } from "./awaited";

const LOOK_AGAIN = 3000; // milliseconds between two looks where no stream brings the news

export const EXPORTS = ["exports"];

type OfMeeting = Schemas["MeetingExport"]["kind"];
type OfCompilation = Schemas["CompilationExport"]["kind"];

/** What is to be made. */
export type Order =
  | { of: "meeting"; id: string; kind: OfMeeting }
  | { of: "compilation"; id: number; kind: OfCompilation }
  | { of: "excerpts"; ids: number[] };

/** Lets this page save a file as soon as it is there. */
export const AwaitContext = createContext<(id: string) => void>(() => undefined);

/** One's own exports of the last day, the newest first. */
export function useExports(): Export[] {
  const query = useQuery({
    queryKey: EXPORTS,
    queryFn: () => bodyAs("ExportsOut", client.GET("/api/exports")),
    staleTime: 60_000,
    refetchInterval: (q) => (goesOn(q.state.data?.exports ?? []) ? LOOK_AGAIN : false),
  });
  return query.data?.exports ?? [];
}

function post(order: Order): Promise<Export> {
  if (order.of === "meeting")
    return bodyAs(
      "ExportOut",
      client.POST("/api/meetings/{meeting_id}/exports", { params: { path: { meeting_id: order.id } }, body: { kind: order.kind } }),
    );
  if (order.of === "compilation")
    return bodyAs(
      "ExportOut",
      client.POST("/api/compilations/{compilation_id}/exports", {
        params: { path: { compilation_id: order.id } },
        body: { kind: order.kind },
      }),
    );
  return bodyAs("ExportOut", client.POST("/api/excerpts/exports", { body: { ids: order.ids } }));
}

/** Asks for files, follows and forgets them. */
export function useExportActions() {
  const queries = useQueryClient();
  const notice = useNotice();
  const wait = use(AwaitContext);
  /** Asks for a file; throws where that is refused. */
  const order = useCallback(
    async (wanted: Order): Promise<Export> => {
      const made = await post(wanted);
      queries.setQueryData<Schemas["ExportsOut"]>(EXPORTS, (old) => ({ exports: withOrdered(old?.exports ?? [], made) }));
      return made;
    },
    [queries],
  );
  /** Asks for a file, and saves it when it is there. */
  const save = useCallback(
    async (wanted: Order) => {
      try {
        const made = await order(wanted);
        wait(made.id);
        notice({ text: `“${made.name}” is being made. It is saved when it is ready; you may go on.`, severity: "info" });
      } catch (error) {
        notice({ text: sentenceOf(error), severity: "error" });
      }
    },
    [notice, order, wait],
  );
  const retry = useCallback(
    async (id: string) => {
      try {
        await bodyAs("ExportOut", client.POST("/api/exports/{export_id}/retry", { params: { path: { export_id: id } } }));
        wait(id);
      } catch (error) {
        notice({ text: sentenceOf(error), severity: "error" });
      }
      await queries.invalidateQueries({ queryKey: EXPORTS });
    },
    [notice, queries, wait],
  );
  const remove = useCallback(
    async (id: string) => {
      queries.setQueryData<Schemas["ExportsOut"]>(EXPORTS, (old) => old && { exports: old.exports.filter((each) => each.id !== id) });
      await client.DELETE("/api/exports/{export_id}", { params: { path: { export_id: id } } }).catch(() => undefined);
      await queries.invalidateQueries({ queryKey: EXPORTS });
    },
    [queries],
  );
  return { order, save, retry, remove };
}
