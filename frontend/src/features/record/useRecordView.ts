import { startTransition, useCallback, useDeferredValue, useMemo, useState } from "react";

import { nextDoubted, openDoubts } from "./doubts";
import { linesOn, neighbour, passages } from "./links";
import { sections, shownLines } from "./sections";
import { findWithin, fits, indexTurns, WIDE, type Match, type Narrowing } from "./search";
import type { Line, RecordData, Stretch, Turn } from "./types";
import type { Player } from "./usePlayer";
import { turnAt } from "./links";

const EMPTY: Stretch[] = [];

/** Who said what a line rests on. */
function speakers({ turns, voices }: RecordData): (line: Line) => string {
  const names = new Map(voices.map((voice) => [voice.id, voice.name]));
  return (line) => names.get(turns[line.evidence[0]?.turn ?? -1]?.voice ?? -1) ?? "";
}

/** What is chosen, lit, searched and followed on a record. */
export function useRecordView(record: RecordData, player: Player) {
  const [selected, setSelected] = useState<number | null>(null);
  const [litLines, setLitLines] = useState<ReadonlySet<number>>(new Set());
  const [editing, setEditing] = useState<number | null>(null);
  const [following, setFollowing] = useState(true);
  const [wanted, setWantedText] = useState("");
  const [narrowing, setNarrowing] = useState<Narrowing>(WIDE);
  const [at, setAt] = useState(0);
  const [goTo, setGoTo] = useState<{ index: number; stamp: number } | null>(null);

  const speaker = useMemo(() => speakers(record), [record]);
  const made = useMemo(() => (record.minutes ? sections(record.minutes, speaker) : []), [record.minutes, speaker]);
  const lines = useMemo(() => shownLines(made), [made]);
  const line = lines.find((l) => l.id === selected);
  const doubts = useMemo(() => openDoubts(lines, record.doubts), [lines, record.doubts]);
  const lit = useMemo(() => (line ? passages(line) : EMPTY), [line]);
  const index = useMemo(() => indexTurns(record.turns), [record.turns]);
  const fitting = useMemo(() => fits(record, narrowing), [record, narrowing]);
  const matches = useMemo(() => findWithin(index, wanted, narrowing, fitting), [fitting, index, narrowing, wanted]);
  const shownMatches = useDeferredValue(matches); // drawn a moment later than they are counted
  const match: Match | undefined = matches[Math.min(at, matches.length - 1)];

  const show = useCallback(
    (seconds: number) => {
      const turn = turnAt(record.turns, seconds + 0.05);
      if (turn >= 0) setGoTo({ index: turn, stamp: Date.now() });
    },
    [record.turns],
  );

  const select = useCallback(
    (next: Line) => {
      setSelected(next.id);
      setLitLines(new Set());
      setFollowing(false);
      const first = passages(next)[0];
      if (first) show(first.start);
    },
    [show],
  );

  const playLine = useCallback(
    (next: Line, passage?: Stretch) => {
      const chosen = passage ?? passages(next)[0];
      select(next);
      if (!chosen) return;
      show(chosen.start);
      player.play(Math.max(0, chosen.start - 0.15), chosen.end + 0.25);
    },
    [player, select, show],
  );

  const stepLine = useCallback(
    (step: 1 | -1) => {
      const here = lines.findIndex((l) => l.id === selected);
      const next = lines[here < 0 ? (step > 0 ? 0 : lines.length - 1) : Math.min(lines.length - 1, Math.max(0, here + step))];
      if (next) select(next);
    },
    [lines, select, selected],
  );

  const stepDoubt = useCallback(() => {
    const next = nextDoubted(lines, doubts, selected);
    if (next) select(next);
  }, [doubts, lines, select, selected]);

  const stepPassage = useCallback(
    (step: 1 | -1) => {
      const next = neighbour(lit, player.position.get(), step);
      if (line && next) playLine(line, next);
    },
    [line, lit, playLine, player.position],
  );

  const chooseTurn = useCallback(
    (turn: Turn) => {
      setLitLines(new Set(linesOn(record.minutes?.lines ?? [], turn)));
      setSelected(null);
    },
    [record.minutes],
  );

  const search = useCallback(
    (text: string, within: Narrowing) => {
      setWantedText(text);
      setNarrowing(within);
      setAt(0);
      const first = findWithin(index, text, within, fits(record, within))[0];
      if (first) {
        setFollowing(false);
        startTransition(() => setGoTo({ index: first.index, stamp: Date.now() })); // the count first, then the place
      }
    },
    [index, record],
  );

  const stepMatch = useCallback(
    (step: 1 | -1) => {
      if (!matches.length) return;
      const next = (at + step + matches.length) % matches.length;
      setAt(next);
      setFollowing(false);
      const found = matches[next];
      if (found) setGoTo({ index: found.index, stamp: Date.now() });
    },
    [at, matches],
  );

  const leave = useCallback(() => {
    setSelected(null);
    setLitLines(new Set());
    setEditing(null);
  }, []);

  return {
    sections: made,
    selected,
    line,
    lit,
    litLines,
    editing,
    setEditing,
    following,
    setFollowing,
    wanted,
    narrowing,
    search,
    matches,
    shownMatches,
    match,
    at: Math.min(at, Math.max(0, matches.length - 1)),
    stepMatch,
    goTo,
    show,
    select,
    doubts,
    playLine,
    stepLine,
    stepDoubt,
    stepPassage,
    chooseTurn,
    leave,
  };
}

export type RecordView = ReturnType<typeof useRecordView>;
