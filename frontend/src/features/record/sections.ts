import { clock } from "../../shared/times";
import type { Line, RecordData } from "./types";

export interface Section {
  key: string;
  title: string;
  lines: Line[];
}

const KINDS: [Line["kind"], string][] = [["note", "Notes"], ["decision", "Decisions"], ["action", "Actions"]];

/**
 * The minutes in the order a reader wants them: a person's notes, decisions and actions first, then chapter by chapter what
 * was said, then the questions that stayed open, and at the end what was thrown out.
 */
export function sections(all: NonNullable<RecordData["minutes"]>): Section[] {
  const minutes = { ...all, lines: all.lines.filter((l) => l.thrown_out === null) };
  const made: Section[] = KINDS.map(([kind, title]) => ({ key: kind, title, lines: minutes.lines.filter((l) => l.kind === kind) }));
  const open = minutes.lines.filter((l) => l.kind === "question" && l.state === "open");
  made.push({ key: "open", title: "Still open", lines: open });
  minutes.chapters.forEach((chapter, number) => {
    const told = minutes.lines.filter((l) => l.chapter === number && !KINDS.some(([kind]) => kind === l.kind) && !(l.kind === "question" && l.state === "open"));
    made.push({ key: `chapter-${number}`, title: `${chapter.title} · ${clock(chapter.start)} to ${clock(chapter.end)}`, lines: told });
  });
  made.push({ key: "thrown", title: "Thrown out", lines: all.lines.filter((l) => l.thrown_out !== null) });
  return made.filter((section) => section.lines.length > 0);
}

/** All lines in the order in which they are shown. */
export function shownLines(made: readonly Section[]): Line[] {
  return made.flatMap((section) => section.lines);
}
