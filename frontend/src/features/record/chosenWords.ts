import { useEffect, useState, type RefObject } from "react";

import type { Turn } from "./types";

/** Words chosen with the mouse or by touch: from a word of one turn to a word of the same or a later one. */
export interface Chosen {
  turn: number;
  first: number;
  lastTurn: number;
  last: number;
}

/** The word that a place in the page belongs to. */
function wordAt(node: Node | null): { turn: number; word: number } | null {
  const element = node instanceof Element ? node : node?.parentElement;
  const word = element?.closest<HTMLElement>("[data-word]");
  const turn = word?.closest<HTMLElement>("[data-turn]");
  return word && turn ? { turn: Number(turn.dataset.turn), word: Number(word.dataset.word) } : null;
}

/** What is chosen between two places, in the order of the talk. */
export function between(a: { turn: number; word: number }, b: { turn: number; word: number }): Chosen {
  const [from, to] = a.turn < b.turn || (a.turn === b.turn && a.word <= b.word) ? [a, b] : [b, a];
  return { turn: from.turn, first: from.word, lastTurn: to.turn, last: to.word };
}

/** Start, end (seconds) and number of the words chosen; null where they are there no more. */
export function stretchOf(turns: readonly Turn[], chosen: Chosen): { start: number; end: number; count: number } | null {
  const inside = turns.filter((turn) => chosen.turn <= turn.number && turn.number <= chosen.lastTurn);
  const words = inside.flatMap((turn) =>
    turn.words.filter((_, i) => (turn.number > chosen.turn || i >= chosen.first) && (turn.number < chosen.lastTurn || i <= chosen.last)),
  );
  const [first, last] = [words[0], words[words.length - 1]];
  return first && last ? { start: first[1], end: last[2], count: words.length } : null;
}

/** The words chosen inside an element, as the browser's own selection has them. */
export function useChosenWords(inside: RefObject<HTMLElement | null>): [Chosen | null, () => void] {
  const [chosen, setChosen] = useState<Chosen | null>(null);
  useEffect(() => {
    const look = () => {
      const selection = document.getSelection();
      const there = selection && !selection.isCollapsed && inside.current?.contains(selection.anchorNode);
      const [a, b] = there ? [wordAt(selection.anchorNode), wordAt(selection.focusNode)] : [null, null];
      if (a && b) setChosen(between(a, b));
      else if ((!selection || selection.isCollapsed) && !document.querySelector("[role=dialog], [role=menu]")) setChosen(null);
    };
    document.addEventListener("selectionchange", look);
    return () => document.removeEventListener("selectionchange", look);
  }, [inside]);
  const leave = () => {
    document.getSelection()?.removeAllRanges();
    setChosen(null);
  };
  return [chosen, leave];
}
