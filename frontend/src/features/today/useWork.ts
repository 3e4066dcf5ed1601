import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";

import { body, client, sentenceOf } from "../../api/client";
import { useNotice } from "../../app/notices";

/** Stopping the work on a meeting, and letting it go on. */
export function useWork(meetingId: string) {
  const queries = useQueryClient();
  const notice = useNotice();
  const ask = useCallback(
    async (path: "/api/meetings/{meeting_id}/cancel" | "/api/meetings/{meeting_id}/retry") => {
      try {
        await body(client.POST(path, { params: { path: { meeting_id: meetingId } } }));
      } catch (error) {
        notice({ text: sentenceOf(error), severity: "error" });
      }
      await queries.invalidateQueries({ queryKey: ["meetings"] });
      await queries.invalidateQueries({ queryKey: ["record", meetingId] });
    },
    [meetingId, notice, queries],
  );
  const putAway = useCallback(
    async (away: boolean) => {
      try {
        await body(
          client.PUT("/api/meetings/{meeting_id}/put-away", { params: { path: { meeting_id: meetingId } }, body: { put_away: away } }),
        );
        if (away)
          notice({
            text: "Put away. The meeting stays in the Archive, and its work can be tried again there.",
            severity: "info",
            action: { label: "Take back", run: () => void putAway(false) },
          });
      } catch (error) {
        notice({ text: sentenceOf(error), severity: "error" });
      }
      await queries.invalidateQueries({ queryKey: ["meetings"] });
    },
    [meetingId, notice, queries],
  );
  return {
    putAway: () => void putAway(true),
    cancel: () => void ask("/api/meetings/{meeting_id}/cancel"),
    retry: () => void ask("/api/meetings/{meeting_id}/retry"),
  };
}
