import { Box, Button } from "@mui/material";
import { useVirtualizer } from "@tanstack/react-virtual";
import { memo, useCallback, useEffect, useMemo, useRef } from "react";

import { ChosenBar } from "./ChosenBar";
import { useChosenWords } from "./chosenWords";
import { turnAt } from "./links";
import { usePosition } from "./position";
import type { Match } from "./search";
import { TurnItem } from "./TurnItem";
import { chatByTurn } from "./chat";
import type { Passage } from "./lineDraft";
import type { Line, Mark, RecordData, Stretch, Turn, Voice } from "./types";
import { turnStart } from "./types";
import type { Player } from "./usePlayer";
import type { RecordActions } from "./useRecord";

const LINE = 21; // pixels of a line of text
const LETTERS = 62; // letters in a line, for the first guess of a turn's height

interface Props {
  record: RecordData;
  player: Player;
  actions: RecordActions;
  lit: readonly Stretch[];
  matches: readonly Match[];
  match: Match | undefined;
  following: boolean;
  setFollowing: (on: boolean) => void;
  goTo: { index: number; stamp: number } | null;
  onChoose: (turn: Turn) => void;
  onMoved: () => void;
  /** The line that is chosen. */
  line: Line | undefined;
  onAddLine: (section: null, evidence: Passage[]) => void;
}

/** The transcript. Only what is seen is drawn; it follows the sound until the reader scrolls. */
export const TranscriptPane = memo(function TranscriptPane({
  record,
  player,
  actions,
  lit,
  matches,
  match,
  following,
  setFollowing,
  goTo,
  onChoose,
  onMoved,
  line,
  onAddLine,
}: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const { turns, voices } = record;
  const [chosen, leaveChosen] = useChosenWords(scroller);
  const byId = useMemo(() => new Map(voices.map((voice) => [voice.id, voice])), [voices]);
  const byTurn = useMemo(() => grouped(matches), [matches]);
  const chat = useMemo(() => chatByTurn(record), [record]);
  const doubts = useMemo(() => new Map(record.doubts.map((doubt) => [doubt.turn, doubt])), [record.doubts]);
  const virtual = useVirtualizer({
    count: turns.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => 40 + LINE * Math.ceil(letters(turns[i]) / LETTERS),
    overscan: 6,
    getItemKey: (i) => turns[i]?.number ?? i,
  });
  const current = usePosition(player.position, (now) => turnAt(turns, now));
  useEffect(() => {
    if (following && player.playing && current >= 0) virtual.scrollToIndex(current, { align: "center" });
  }, [current, following, player.playing, virtual]);
  useEffect(() => {
    if (goTo) virtual.scrollToIndex(goTo.index, { align: "center" });
  }, [goTo, virtual]);
  const release = useCallback(() => setFollowing(false), [setFollowing]);
  const hear = useCallback((seconds: number) => player.play(seconds), [player]);
  const sample = useCallback(
    (voice: Voice) => {
      const longest = turns
        .filter((t) => t.voice === voice.id)
        .reduce<Turn | null>((best, t) => (!best || t.words.length > best.words.length ? t : best), null);
      if (longest) player.play(turnStart(longest), turnStart(longest) + 6);
    },
    [player, turns],
  );
  const items = virtual.getVirtualItems();
  return (
    <Box sx={{ position: "relative", minHeight: 0, height: "100%" }}>
      <Box
        ref={scroller}
        role="region"
        aria-label="Transcript"
        tabIndex={0}
        onWheel={release}
        onTouchMove={release}
        onScroll={onMoved}
        onKeyDown={(e) => ["PageUp", "PageDown", "Home", "End"].includes(e.key) && release()}
        sx={{ height: "100%", overflowY: "auto", overflowX: "hidden", overscrollBehavior: "contain", outlineOffset: -2 }}
      >
        <Box sx={{ height: virtual.getTotalSize(), position: "relative" }}>
          {items.map((item) => {
            const turn = turns[item.index];
            const voice = turn && byId.get(turn.voice);
            if (!turn || !voice) return null;
            return (
              <Box
                key={item.key}
                data-index={item.index}
                ref={virtual.measureElement}
                sx={{ position: "absolute", insetInline: 0, top: 0, transform: `translateY(${item.start}px)` }}
              >
                <TurnItem
                  turn={turn}
                  voice={voice}
                  voices={voices}
                  isLast={item.index === turns.length - 1}
                  goesOn={turns[item.index - 1]?.voice === turn.voice}
                  doubt={doubts.get(turn.number)}
                  chat={chat.get(item.index) ?? NO_CHAT}
                  lit={lit}
                  matches={byTurn.get(item.index) ?? NONE}
                  match={match?.index === item.index ? match : undefined}
                  position={player.position}
                  actions={actions}
                  onWord={hear}
                  onChoose={onChoose}
                  onSample={sample}
                />
              </Box>
            );
          })}
        </Box>
      </Box>
      {chosen && (
        <ChosenBar
          record={record}
          chosen={chosen}
          player={player}
          actions={actions}
          line={line}
          onAddLine={(evidence) => onAddLine(null, evidence)}
          onDone={leaveChosen}
        />
      )}
      {!chosen && !following && player.playing && (
        <Button
          size="small"
          variant="contained"
          onClick={() => setFollowing(true)}
          sx={{ position: "absolute", bottom: 12, left: "50%", transform: "translateX(-50%)" }}
        >
          Follow the sound
        </Button>
      )}
    </Box>
  );
});

const NONE: readonly Match[] = [];
const NO_CHAT: readonly Mark[] = [];

function letters(turn: Turn | undefined): number {
  return turn ? turn.words.reduce((sum, word) => sum + word[0].length + 1, 0) : 0;
}

function grouped(matches: readonly Match[]): Map<number, Match[]> {
  const made = new Map<number, Match[]>();
  for (const match of matches) made.set(match.index, [...(made.get(match.index) ?? []), match]);
  return made;
}
