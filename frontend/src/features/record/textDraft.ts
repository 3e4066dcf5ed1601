import type { Schemas } from "../../api/client";

export type Piece = Schemas["PieceOut"];

/** The whole of a text: a blank line around what stands by itself, none between items. */
export function joined(pieces: readonly Piece[]): string {
  const kept = pieces.filter((piece) => piece.text.trim());
  return (
    kept.map((piece, at) => (at && !(isItem(piece) && follows(kept[at - 1])) ? "\n\n" : at ? "\n" : "") + piece.text.trim()).join("") + "\n"
  );
}

const isItem = (piece: Piece): boolean => /^(?:- |\[[ x]\] )/.test(piece.text);
const follows = (before: Piece | undefined): boolean => before !== undefined && (isItem(before) || before.lines.length === 0);

/** An address that opens the mail program with the text in it. */
export function mailto(subject: string, text: string): string {
  return `mailto:?subject=${encodeURIComponent(subject)}&body=${encodeURIComponent(text.replace(/\n/g, "\r\n"))}`;
}
