import { useCallback, useMemo, useState } from "react";

import { draftOf, emptyDraft, newLine, patchOf, type Kind, type LineDraft, type Passage } from "./lineDraft";
import type { Section } from "./sections";
import type { Line, RecordData } from "./types";
import type { RecordActions } from "./useRecord";

/** A line being written: a new one, or one that stands already. */
export type OpenLine = { line: Line; start: LineDraft } | { after: number | null; start: LineDraft };

const OF_TITLE: readonly [RegExp, Kind][] = [
  [/action|task|next step/i, "action"],
  [/decision|decided|resolution/i, "decision"],
  [/question/i, "question"],
  [/figure|number/i, "figure"],
  [/risk/i, "risk"],
  [/need|objection/i, "need"],
  [/step/i, "step"],
];

/** What a new line of a section most likely is: what the others there are, else what its title says. */
export function likelyKind(title: string, lines: readonly Line[]): Kind {
  const count = new Map<Kind, number>();
  for (const line of lines) count.set(line.kind, (count.get(line.kind) ?? 0) + 1);
  const most = [...count].sort((a, b) => b[1] - a[1])[0];
  return most?.[0] ?? OF_TITLE.find(([words]) => words.test(title))?.[1] ?? "key_point";
}

/** Number of the section in which most lines of a kind stand; `place` where none do, or where it holds some itself. */
export function sectionFor(kind: Kind, lines: readonly Line[], place: number): number {
  const count = new Map<number, number>();
  for (const line of lines) if (line.kind === kind && line.thrown_out === null) count.set(line.place, (count.get(line.place) ?? 0) + 1);
  if (count.has(place)) return place;
  return [...count].sort((a, b) => b[1] - a[1])[0]?.[0] ?? place;
}

/** What the form of a line shows and does: opened for a new line, for one that stands, or for words that were chosen. */
export function useLineForm(record: RecordData, actions: Pick<RecordActions, "addLine" | "changeLine">, selected: number | null) {
  const [open, setOpen] = useState<OpenLine | null>(null);
  const titles = useMemo(() => record.minutes?.sections.map((section) => section.title) ?? [], [record.minutes]);

  const lines = useMemo(() => record.minutes?.lines ?? [], [record.minutes]);
  const add = useCallback(
    (section: Section | null, evidence: Passage[] = []) => {
      const kind = likelyKind(section?.title ?? "", section?.lines ?? []);
      const place = section?.place ?? sectionFor(kind, lines, 0);
      setOpen({
        after: section?.lines.find((line) => line.id === selected)?.id ?? null,
        start: emptyDraft(place, kind, section?.chapter ?? 0, evidence),
      });
    },
    [lines, selected],
  );
  const placeOf = useCallback((kind: Kind, place: number) => sectionFor(kind, lines, place), [lines]);
  const change = useCallback((line: Line) => setOpen({ line, start: draftOf(line) }), []);
  const close = useCallback(() => setOpen(null), []);
  const keep = useCallback(
    async (draft: LineDraft): Promise<string> => {
      if (!open) return "";
      let problem = "";
      const tell = (sentence: string) => (problem = sentence);
      if ("line" in open) {
        const patch = patchOf(open.line, draft);
        if (Object.keys(patch).length) await actions.changeLine(open.line.id, patch, tell);
      } else await actions.addLine(newLine(draft, open.after), tell);
      return problem;
    },
    [actions, open],
  );
  return { open, titles, placeOf, add, change, close, keep };
}
