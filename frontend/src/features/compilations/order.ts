import type { Schemas } from "../../api/client";

export type Passage = Schemas["CompiledPassageOut"];
export type Section = Schemas["CompiledSectionOut"];

/** What a person puts together. */
export interface Draft {
  title: string;
  spoken: boolean;
  sections: readonly Section[];
}

export interface Place {
  section: number;
  at: number;
}

export type Act =
  | { type: "retitle"; title: string }
  | { type: "speak"; spoken: boolean }
  | { type: "name section"; section: number; title: string }
  | { type: "add section" }
  | { type: "remove section"; section: number }
  | { type: "move"; from: Place; to: Place }
  | { type: "step"; from: Place; by: 1 | -1 }
  | { type: "remove"; from: Place }
  | { type: "name"; from: Place; title: string }
  | { type: "undo" };

/** A draft with those before it, the newest first. */
export interface State {
  draft: Draft;
  past: readonly Draft[];
  typing?: string; // the field that is being typed in: its letters are taken back together
}

const MOST_UNDONE = 100;

/** The state after an act; the same state where the act changes nothing. */
export function changed(state: State, act: Act): State {
  if (act.type === "undo") {
    const [last, ...rest] = state.past;
    return last ? { draft: last, past: rest } : state;
  }
  const draft = put(state.draft, act);
  if (draft === state.draft) return state;
  const typing = fieldOf(act);
  if (typing && typing === state.typing) return { ...state, draft };
  return { draft, past: [state.draft, ...state.past].slice(0, MOST_UNDONE), ...(typing ? { typing } : {}) };
}

function fieldOf(act: Act): string {
  if (act.type === "retitle") return "title";
  if (act.type === "name section") return `section ${act.section}`;
  return act.type === "name" ? `passage ${act.from.section} ${act.from.at}` : "";
}

function put(draft: Draft, act: Exclude<Act, { type: "undo" }>): Draft {
  const { sections } = draft;
  switch (act.type) {
    case "retitle":
      return act.title === draft.title ? draft : { ...draft, title: act.title };
    case "speak":
      return { ...draft, spoken: act.spoken };
    case "name section":
      return { ...draft, sections: sections.map((each, i) => (i === act.section ? { ...each, title: act.title } : each)) };
    case "add section":
      return { ...draft, sections: [...sections, { title: "", passages: [] }] };
    case "remove section":
      return { ...draft, sections: withoutSection(sections, act.section) };
    case "remove":
      return { ...draft, sections: without(sections, act.from) };
    case "name":
      return {
        ...draft,
        sections: sections.map((each, i) =>
          i === act.from.section
            ? { ...each, passages: each.passages.map((p, k) => (k === act.from.at ? { ...p, title: act.title } : p)) }
            : each,
        ),
      };
    case "move":
      return { ...draft, sections: moved(sections, act.from, act.to) };
    case "step": {
      const to = beside(sections, act.from, act.by);
      return to ? { ...draft, sections: moved(sections, act.from, to) } : draft;
    }
  }
}

/** The sections with a passage at another place; `to.at` counts before it is taken out. */
function moved(sections: readonly Section[], from: Place, to: Place): readonly Section[] {
  const passage = sections[from.section]?.passages[from.at];
  if (!passage) return sections;
  const at = from.section === to.section && from.at < to.at ? to.at - 1 : to.at;
  return without(sections, from).map((each, i) =>
    i === to.section ? { ...each, passages: [...each.passages.slice(0, at), passage, ...each.passages.slice(at)] } : each,
  );
}

/** Where a passage goes by one step: past its neighbour, or into the section beside; null at either end. */
function beside(sections: readonly Section[], { section, at }: Place, by: 1 | -1): Place | null {
  const count = sections[section]?.passages.length ?? 0;
  if (by < 0) {
    if (at > 0) return { section, at: at - 1 };
    return section > 0 ? { section: section - 1, at: sections[section - 1]?.passages.length ?? 0 } : null;
  }
  if (at < count - 1) return { section, at: at + 2 };
  return section < sections.length - 1 ? { section: section + 1, at: 0 } : null;
}

function without(sections: readonly Section[], { section, at }: Place): readonly Section[] {
  return sections.map((each, i) => (i === section ? { ...each, passages: each.passages.filter((_, k) => k !== at) } : each));
}

/** The sections without one of them; its passages go to the one before, or behind. */
function withoutSection(sections: readonly Section[], section: number): readonly Section[] {
  const gone = sections[section];
  if (!gone) return sections;
  const heir = section > 0 ? section - 1 : 1;
  return sections.flatMap((each, i) => {
    if (i === section) return sections.length === 1 && gone.passages.length ? [{ title: "", passages: gone.passages }] : [];
    if (i !== heir) return [each];
    return [{ ...each, passages: section > 0 ? [...each.passages, ...gone.passages] : [...gone.passages, ...each.passages] }];
  });
}

/** Seconds of all passages. */
export function lengthOf(sections: readonly Section[]): number {
  return sections.reduce((sum, each) => sum + each.passages.reduce((s, p) => s + p.end - p.start, 0), 0);
}
