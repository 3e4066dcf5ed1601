import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";

import { body, client, sentenceOf } from "../../api/client";
import { useNotice } from "../../app/notices";

/** Stopping the work on a meeting, and letting it go on. */
export function useWork(meetingId: string) {
  const queries = useQueryClient();
  const notice = useNotice();
  const ask = useCallback(async (path: "/api/meetings/{meeting_id}/cancel" | "/api/meetings/{meeting_id}/retry") => {
    try {
      await body(client.POST(path, { params: { path: { meeting_id: meetingId } } }));
    } catch (error) {
      notice({ text: sentenceOf(error), severity: "error" });
    }
    await queries.invalidateQueries({ queryKey: ["meetings"] });
    await queries.invalidateQueries({ queryKey: ["record", meetingId] });
  }, [meetingId, notice, queries]);
  return {
    cancel: () => void ask("/api/meetings/{meeting_id}/cancel"),
    retry: () => void ask("/api/meetings/{meeting_id}/retry"),
  };
}
