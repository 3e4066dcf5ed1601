import type { Note } from "./types";

/** Numbers between two neighbours, so that a paragraph can be put between them without moving others. */
export function between(before: number | undefined, after: number | undefined): number {
  if (before === undefined && after === undefined) return 1;
  if (before === undefined) return (after ?? 0) - 1;
  if (after === undefined) return before + 1;
  return (before + after) / 2;
}

export type PadAct =
  | { type: "add"; note: Note }
  | { type: "write"; id: string; text: string }
  | { type: "keep"; id: string; private: boolean }
  | { type: "remove"; id: string }
  | { type: "server"; notes: Note[]; touched: ReadonlySet<string> };

/**
 * The paragraphs of a pad, in order. What comes from the server replaces what was not touched here since it was
 * last sent; a paragraph that is being written stays as it is written.
 */
export function padReducer(notes: Note[], act: PadAct): Note[] {
  switch (act.type) {
    case "add":
      return sorted([...notes, act.note]);
    case "write":
      return notes.map((note) => (note.id === act.id ? { ...note, text: act.text } : note));
    case "keep":
      return notes.map((note) => (note.id === act.id ? { ...note, private: act.private } : note));
    case "remove":
      return notes.filter((note) => note.id !== act.id);
    case "server": {
      const own = notes.filter((note) => act.touched.has(note.id));
      return sorted([...act.notes.filter((note) => !act.touched.has(note.id)), ...own]);
    }
  }
}

function sorted(notes: Note[]): Note[] {
  return [...notes].sort((a, b) => a.position - b.position);
}

/** A piece of a paragraph as it is shown. */
export interface Span {
  text: string;
  kind: "plain" | "bold" | "link" | "mention";
}

const PIECES = /(\*\*[^*]+\*\*)|(https?:\/\/[^\s<>"]+[^\s<>".,;:!?)])|(@\p{Lu}[\p{L}'-]+(?: \p{Lu}[\p{L}'-]+)?)/gu;

/** A paragraph taken apart: bold between double asterisks, links, people after an @; the rest is plain. */
export function spans(text: string): Span[] {
  const made: Span[] = [];
  let at = 0;
  for (const match of text.matchAll(PIECES)) {
    if (match.index > at) made.push({ text: text.slice(at, match.index), kind: "plain" });
    if (match[1]) made.push({ text: match[1].slice(2, -2), kind: "bold" });
    else made.push({ text: match[0], kind: match[2] ? "link" : "mention" });
    at = match.index + match[0].length;
  }
  if (at < text.length) made.push({ text: text.slice(at), kind: "plain" });
  return made;
}

/** The paragraph without its list dash, and whether it had one. */
export function listed(text: string): { item: boolean; rest: string } {
  const match = /^\s*[-*] (?!\*)/.exec(text);
  return match ? { item: true, rest: text.slice(match[0].length) } : { item: false, rest: text };
}

/** The name being typed after an @ at the end of what stands before the cursor; null when none is. */
export function mentioned(before: string): string | null {
  return /(?:^|\s)@([\p{L}'-]*(?: [\p{L}'-]*)?)$/u.exec(before)?.[1] ?? null;
}

/** The text with the selection made bold, or plain again, and where the selection lies then. */
export function boldened(text: string, start: number, end: number): { text: string; start: number; end: number } {
  const chosen = text.slice(start, end);
  if (text.slice(start - 2, start) === "**" && text.slice(end, end + 2) === "**") {
    return { text: text.slice(0, start - 2) + chosen + text.slice(end + 2), start: start - 2, end: end - 2 };
  }
  return { text: `${text.slice(0, start)}**${chosen}**${text.slice(end)}`, start: start + 2, end: end + 2 };
}
