import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { bodyAs, body, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";

const FIRST = 8; // actions shown before more are asked for
const MOST = 200; // that the server gives at once
const WHOSE = "nuntius.actions-mine";

/** What is still to be done, one's own or everybody's; how many are shown, and a task said to be done. */
export function useOpenActions() {
  const queries = useQueryClient();
  const notice = useNotice();
  const [mine, setOnlyMine] = useState(() => localStorage.getItem(WHOSE) === "yes");
  const [most, setMost] = useState(FIRST);
  const query = useQuery({
    queryKey: ["actions", mine, most],
    queryFn: () => body(client.GET("/api/meetings/actions", { params: { query: { most, mine } } })),
    placeholderData: keepPreviousData,
  });
  const put = async (action: Schemas["OpenAction"], progress: "open" | "done") => {
    const path = { meeting_id: action.meeting_id, line_id: action.line_id };
    try {
      await bodyAs(
        "ChangedOut",
        client.PATCH("/api/meetings/{meeting_id}/lines/{line_id}", { params: { path }, body: { progress } as Schemas["LinePatch"] }),
      );
      await Promise.all([
        queries.invalidateQueries({ queryKey: ["actions"] }),
        queries.invalidateQueries({ queryKey: ["record", action.meeting_id] }),
      ]);
      return true;
    } catch (problem) {
      notice({ text: sentenceOf(problem), severity: "error" });
      return false;
    }
  };
  const finish = async (action: Schemas["OpenAction"]) => {
    if (await put(action, "done"))
      notice({ text: `Done: ${action.text}`, severity: "info", action: { label: "Take back", run: () => void put(action, "open") } });
  };
  const setMine = (next: boolean) => {
    localStorage.setItem(WHOSE, next ? "yes" : "no");
    setOnlyMine(next);
  };
  return { query, mine, setMine, more: () => setMost((old) => Math.min(MOST, Math.max(old, FIRST) * 5)), finish };
}
