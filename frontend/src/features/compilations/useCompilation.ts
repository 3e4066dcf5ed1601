import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useReducer, useRef, useState } from "react";

import { bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { changed, type Draft } from "./order";

const SAVED_AFTER = 500; // milliseconds without a further change

type Saving = { state: "saved" | "saving" } | { state: "failed"; message: string };

/** What is sent of a compilation: passages of meetings that are not open any more stay out. */
export const compilationBody = ({ title, spoken, sections }: Draft): Schemas["CompilationIn"] => ({
  title: title.trim() || "Without a title",
  spoken,
  sections: sections.map((each) => ({
    title: each.title,
    passages: each.passages
      .filter((p) => p.open)
      .map(({ meeting_id, title: name, start, end }) => ({ meeting_id, title: name, start, end })),
  })),
});

/** A compilation being put together: every change is kept by itself, and can be taken back. */
export function useCompilation(kept: Schemas["CompilationOut"]) {
  const queries = useQueryClient();
  const [state, act] = useReducer(changed, { draft: { title: kept.title, spoken: kept.spoken, sections: kept.sections }, past: [] });
  const { draft } = state;
  const [saving, setSaving] = useState<Saving>({ state: "saved" });
  const [version, setVersion] = useState(0); // grows when something new has been kept, so that the sound is made again
  const newest = useRef(draft);
  const unsent = useRef<Draft | null>(null);
  const send = useCallback(async () => {
    const sent = unsent.current;
    if (!sent) return;
    unsent.current = null;
    try {
      await bodyAs(
        "CompilationOut",
        client.PUT("/api/compilations/{compilation_id}", { params: { path: { compilation_id: kept.id } }, body: compilationBody(sent) }),
      );
      void queries.invalidateQueries({ queryKey: ["compilations"] });
      if (newest.current !== sent) return; // something newer waits
      setSaving({ state: "saved" });
      setVersion((n) => n + 1);
    } catch (error) {
      unsent.current ??= sent;
      setSaving({ state: "failed", message: sentenceOf(error) });
    }
  }, [kept.id, queries]);
  useEffect(() => {
    if (newest.current === draft) return;
    newest.current = unsent.current = draft;
    setSaving({ state: "saving" });
    queries.setQueryData<Schemas["CompilationOut"]>(
      ["compilation", kept.id],
      (old) => old && { ...old, ...draft, sections: [...draft.sections] },
    );
    const timer = window.setTimeout(() => void send(), SAVED_AFTER);
    return () => window.clearTimeout(timer);
  }, [draft, kept.id, queries, send]);
  useEffect(() => () => void send(), [send]); // what was changed last is kept though the view is left at once
  return { draft, canUndo: state.past.length > 0, act, saving, version, again: () => void send() };
}
