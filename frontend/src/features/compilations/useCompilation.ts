import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useReducer, useRef, useState } from "react";

import { bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { changed, type Draft } from "./order";

const SAVED_AFTER = 500; // milliseconds without a further change

type Saving = { state: "saved" | "saving" } | { state: "failed"; told: string };

const bodyOf = ({ title, spoken, sections }: Draft): Schemas["CompilationIn"] => ({
  title: title.trim() || "Without a title",
  spoken,
  sections: sections.map((each) => ({ title: each.title, passages: each.passages.filter((p) => p.open).map(({ meeting_id, title: name, start, end }) => ({ meeting_id, title: name, start, end })) })),
});

/** A compilation being put together: every change is kept by itself, and can be taken back. */
export function useCompilation(kept: Schemas["CompilationOut"]) {
  const queries = useQueryClient();
  const [state, act] = useReducer(changed, { draft: { title: kept.title, spoken: kept.spoken, sections: kept.sections }, past: [] });
  const [saving, setSaving] = useState<Saving>({ state: "saved" });
  const [version, setVersion] = useState(0); // grows when something new has been kept, so that the sound is made anew
  const first = useRef(state.draft);
  useEffect(() => {
    if (first.current === state.draft) return;
    first.current = state.draft;
    setSaving({ state: "saving" });
    const timer = window.setTimeout(() => {
      bodyAs("CompilationOut", client.PUT("/api/compilations/{compilation_id}", { params: { path: { compilation_id: kept.id } }, body: bodyOf(state.draft) }))
        .then((fresh) => {
          queries.setQueryData(["compilation", kept.id], fresh);
          void queries.invalidateQueries({ queryKey: ["compilations"] });
          void queries.invalidateQueries({ queryKey: ["captions", kept.id] });
          setSaving({ state: "saved" });
          setVersion((n) => n + 1);
        })
        .catch((error: unknown) => setSaving({ state: "failed", told: sentenceOf(error) }));
    }, SAVED_AFTER);
    return () => window.clearTimeout(timer);
  }, [kept.id, queries, state.draft]);
  return { draft: state.draft, canUndo: state.past.length > 0, act, saving, version };
}
