import type { Schemas } from "../../api/client";
import type { Chosen } from "./chosenWords";
import type { Line, Turn } from "./types";

export type Kind = Line["kind"];
export type Progress = Line["progress"];
type Pointed = Schemas["PointedAt"];

/** A line as it is being written: `day` is a picked date, `said` a day as people say it. */
export interface LineDraft {
  kind: Kind;
  text: string;
  place: number;
  chapter: number;
  owner: string[];
  day: string;
  said: string;
  progress: Progress;
  remark: string;
  evidence: Passage[];
}

/** Words that a line rests on, with how they read. */
export interface Passage extends Pointed {
  quote: string;
  start: number;
}

export const KINDS: readonly [Kind, string][] = [
  ["action", "Action"],
  ["decision", "Decision"],
  ["question", "Question"],
  ["key_point", "Key point"],
  ["figure", "Figure"],
  ["risk", "Risk"],
  ["need", "Need or objection"],
  ["step", "Step"],
  ["turning_point", "Turning point"],
  ["named", "Who was named"],
  ["note", "Note"],
  ["sought", "Looked for"],
];

export const PROGRESS: readonly [Progress, string][] = [
  ["open", "Open"],
  ["done", "Done"],
  ["dropped", "Dropped"],
];

/** An empty line of a section, resting on the words chosen, where some are. */
export function emptyDraft(place: number, kind: Kind, chapter = 0, evidence: Passage[] = []): LineDraft {
  const words = evidence.map((each) => each.quote).join(" … ");
  const text = words.charAt(0).toUpperCase() + words.slice(1);
  return { kind, text, place, chapter, owner: [], day: "", said: "", progress: "open", remark: "", evidence };
}

export function draftOf(line: Line): LineDraft {
  return {
    kind: line.kind,
    text: line.text,
    place: line.place,
    chapter: line.chapter,
    owner: line.owner,
    day: line.due ?? "",
    said: line.due_said ?? "",
    progress: line.progress,
    remark: line.remark,
    evidence: line.evidence.filter((each) => !each.of_answer),
  };
}

/** What has to be sent for a new line. */
export function newLine(draft: LineDraft, after: number | null): Schemas["LineNew"] {
  const { kind, text, place, chapter, owner, progress, remark } = draft;
  return { kind, text, place, chapter, owner, progress, remark, after, ...dayOf(draft), evidence: draft.evidence.map(pointed) };
}

/** What of a line is otherwise now; empty where nothing is. */
export function patchOf(line: Line, draft: LineDraft): Partial<Schemas["LinePatch"]> {
  const was = draftOf(line);
  const patch: Partial<Schemas["LinePatch"]> = {};
  if (draft.text.trim() !== was.text) patch.text = draft.text;
  if (draft.kind !== was.kind) patch.kind = draft.kind;
  if (draft.place !== was.place) patch.place = draft.place;
  if (draft.owner.join("\n") !== was.owner.join("\n")) patch.owner = draft.owner;
  if (draft.day !== was.day || draft.said !== was.said) Object.assign(patch, dayOf(draft, was));
  if (draft.progress !== was.progress) patch.progress = draft.progress;
  if (draft.remark.trim() !== was.remark) patch.remark = draft.remark;
  if (draft.evidence.map(key).join() !== was.evidence.map(key).join()) patch.evidence = draft.evidence.map(pointed);
  return patch;
}

/** Day and words of it: words that are new are read by the server, a day that is picked goes without them. */
function dayOf(draft: LineDraft, was?: LineDraft): { due: string | null; due_said: string | null } {
  const said = draft.said.trim();
  if (said && said !== was?.said) return { due: null, due_said: said };
  return { due: draft.day || null, due_said: draft.day && draft.day === was?.day ? said || null : null };
}

const pointed = ({ turn, first, last }: Passage): Pointed => ({ turn, first, last });
const key = (each: Passage): string => `${each.turn}:${each.first}-${each.last}`;

/** The words chosen as passages, one for each turn that they are of. */
export function passagesOf(turns: readonly Turn[], chosen: Chosen): Passage[] {
  return turns
    .filter((turn) => chosen.turn <= turn.number && turn.number <= chosen.lastTurn)
    .map((turn) => {
      const first = turn.number === chosen.turn ? chosen.first : 0;
      const last = turn.number === chosen.lastTurn ? Math.min(chosen.last, turn.words.length - 1) : turn.words.length - 1;
      const words = turn.words.slice(first, last + 1);
      return { turn: turn.number, first, last, quote: words.map((word) => word[0]).join(" "), start: words[0]?.[1] ?? 0 };
    })
    .filter((each) => each.quote);
}
