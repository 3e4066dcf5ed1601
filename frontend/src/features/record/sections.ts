import { clock } from "../../shared/times";
import type { Line, RecordData } from "./types";

export interface Section {
  key: string;
  title: string;
  lines: Line[];
  /** Number of the template's section that it is, or is a part of. */
  place?: number;
  /** Number of the chapter that this part tells, where it tells one. */
  chapter?: number;
}

type Minutes = NonNullable<RecordData["minutes"]>;

/** The minutes in the order of their template, some sections by chapter or by voice, and at the end what was thrown out. */
export function sections(all: Minutes, speaker: (line: Line) => string): Section[] {
  const kept = all.lines.filter((line) => line.thrown_out === null);
  const made = all.sections.flatMap(({ title, layout }, place): Section[] => {
    const lines = kept.filter((line) => line.place === place);
    if (layout === "chapter") return byChapter(all, place, lines);
    if (layout === "voice") return byVoice(place, title, lines, speaker);
    return [{ key: `section-${place}`, title, place, lines }];
  });
  made.push({ key: "thrown", title: "Thrown out", lines: all.lines.filter((line) => line.thrown_out !== null) });
  return made.filter((section) => section.lines.length > 0);
}

function byChapter({ chapters }: Minutes, place: number, lines: Line[]): Section[] {
  return chapters.map((chapter, number) => ({
    key: `chapter-${place}-${number}`,
    title: `${chapter.title} · ${clock(chapter.start)} to ${clock(chapter.end)}`,
    place,
    chapter: number,
    lines: lines.filter((line) => line.chapter === number),
  }));
}

function byVoice(place: number, title: string, lines: Line[], speaker: (line: Line) => string): Section[] {
  return [...new Set(lines.map(speaker))].map((name) => ({
    key: `voice-${place}-${name}`,
    title: name ? `${title} · ${name}` : title,
    place,
    lines: lines.filter((line) => speaker(line) === name),
  }));
}

/** All lines in the order in which they are shown. */
export function shownLines(made: readonly Section[]): Line[] {
  return made.flatMap((section) => section.lines);
}
