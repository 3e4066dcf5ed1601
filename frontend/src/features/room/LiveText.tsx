import { Box, Button, IconButton, Tooltip, Typography } from "@mui/material";
import Contrast from "@mui/icons-material/Contrast";
import TextDecrease from "@mui/icons-material/TextDecrease";
import TextIncrease from "@mui/icons-material/TextIncrease";
import { useEffect, useMemo, useRef, useState } from "react";

import { useKeys } from "../../app/keys";
import { breakText } from "../../shared/breaks";
import { clock } from "../../shared/times";
import { SearchField } from "../record/SearchField";
import { LiveTurn } from "./LiveTurn";
import { findLines, liveItems, partialOf, stable, type LiveItem } from "./liveTurns";
import type { RoomState } from "./roomState";
import type { Break, LiveLine, LiveVoice, Speech } from "./types";
import type { RoomActions } from "./useRoom";
import { useTextSize } from "./useTextSize";

/** Pixels from the foot within which the text is followed. */
const FOOT = 60;

/** What is said, as it is said: followed until the reader scrolls up, searched, corrected. */
export function LiveText({
  room,
  lines,
  speech,
  actions,
  goTo,
}: {
  room: RoomState;
  lines: LiveLine[];
  speech: Speech;
  actions: RoomActions;
  goTo: { at: number; stamp: number } | null;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const field = useRef<HTMLInputElement>(null);
  const [following, setFollowing] = useState(true);
  const [wanted, setWanted] = useState("");
  const [at, setAt] = useState(0);
  const look = useTextSize();
  const items = useLiveItems(lines, room.board.breaks);
  const found = useMemo(() => findLines(lines, wanted), [lines, wanted]);
  const here = found[Math.min(at, found.length - 1)];
  const voices = useMemo(() => new Map(room.board.voices.map((voice) => [voice.id, voice])), [room.board.voices]);
  const people = useFreePeople(room);
  const partial = partialOf(speech, lines);

  useEffect(() => {
    if (following && scroller.current) scroller.current.scrollTop = scroller.current.scrollHeight;
  }, [following, items, partial, look.rem]);
  const scrollTo = (selector: string) => {
    setFollowing(false);
    scroller.current?.querySelector(selector)?.scrollIntoView({ block: "center" });
  };
  useEffect(() => {
    if (!goTo) return;
    const turn = [...items].reverse().find((item) => (item.type === "turn" ? item.start : item.at) <= goTo.at + 0.5) ?? items[0];
    if (turn) {
      setFollowing(false);
      scroller.current?.querySelector(`[data-item="${turn.key}"]`)?.scrollIntoView({ block: "center" });
    }
  }, [goTo]); // eslint-disable-line react-hooks/exhaustive-deps
  const step = (by: 1 | -1) => {
    if (!found.length) return;
    const next = (at + by + found.length) % found.length;
    setAt(next);
    scrollTo(`[data-line="${found[next]}"]`);
  };
  const search = (text: string) => {
    setWanted(text);
    const first = findLines(lines, text);
    setAt(Math.max(0, first.length - 1));
    if (first.length) scrollTo(`[data-line="${first[first.length - 1]}"]`);
  };
  useKeys("What is said", [
    { key: "/", label: "Search what was said", run: () => field.current?.focus() },
    { key: "f", label: "Follow what is said", run: () => setFollowing(true) },
  ]);
  return (
    <Box sx={{ position: "relative", flex: 1, minWidth: 0, display: "flex", flexDirection: "column" }}>
      <Box sx={{ display: "flex", alignItems: "center", px: { xs: 1, sm: 2 }, py: 0.75, borderBottom: 1, borderColor: "divider" }}>
        <SearchField field={field} wanted={wanted} count={found.length} at={at} onWanted={search} onStep={step} />
        <Tool title="Smaller text" onClick={look.smaller}>
          <TextDecrease fontSize="small" />
        </Tool>
        <Tool title="Larger text" onClick={look.larger}>
          <TextIncrease fontSize="small" />
        </Tool>
        <Tool title={look.contrast ? "Usual contrast" : "High contrast"} onClick={look.toggleContrast}>
          <Contrast fontSize="small" />
        </Tool>
      </Box>
      <Box
        ref={scroller}
        role="log"
        aria-label="What is said"
        aria-live="off"
        tabIndex={0}
        onScroll={(e) => {
          const box = e.currentTarget;
          setFollowing(box.scrollHeight - box.scrollTop - box.clientHeight < FOOT);
        }}
        sx={{
          flex: 1,
          minHeight: 0,
          overflowY: "auto",
          px: { xs: 1, sm: 2 },
          pb: 3,
          pt: 1,
          fontSize: `${look.rem}rem`,
          outlineOffset: -2,
          ...(look.contrast
            ? { bgcolor: (t) => (t.palette.mode === "dark" ? "#000" : "#fff"), color: (t) => (t.palette.mode === "dark" ? "#fff" : "#000") }
            : {}),
        }}
      >
        {items.map((item) =>
          item.type === "break" ? (
            <BreakRow key={item.key} id={item.key} pause={item.pause} />
          ) : (
            <LiveTurn
              key={item.key}
              item={item}
              {...voiceOf(item.voice === null ? undefined : voices.get(item.voice))}
              people={people}
              found={found}
              here={here}
              actions={actions}
            />
          ),
        )}
        {partial && (
          <Box sx={{ display: "grid", gridTemplateColumns: { xs: "46px 1fr", sm: "56px 1fr" }, columnGap: 1.5, pt: 0.5 }}>
            <Typography sx={{ color: "text.secondary", fontSize: "0.8rem", pt: "2px" }}>{clock(speech.partial_start)}</Typography>
            <Box data-partial sx={{ color: look.contrast ? undefined : "text.secondary", lineHeight: 1.5 }}>
              {partial}
            </Box>
          </Box>
        )}
        {items.length === 0 && !partial && (
          <Typography color="textSecondary" sx={{ p: 2 }}>
            {room.board.state === "recording" ? "What is said appears here a moment after it is spoken." : "Nothing has been said yet."}
          </Typography>
        )}
      </Box>
      {!following && (
        <Button
          size="small"
          variant="contained"
          onClick={() => setFollowing(true)}
          sx={{ position: "absolute", bottom: 12, left: "50%", transform: "translateX(-50%)" }}
        >
          Back to now
        </Button>
      )}
    </Box>
  );
}

/** The items, with those objects kept in which nothing changed. */
function useLiveItems(lines: LiveLine[], breaks: Break[]): LiveItem[] {
  const [kept, setKept] = useState<{ lines: LiveLine[]; breaks: Break[]; items: LiveItem[] }>({ lines: [], breaks: [], items: [] });
  if (kept.lines === lines && kept.breaks === breaks) return kept.items;
  const items = stable(liveItems(lines, breaks), kept.items);
  setKept({ lines, breaks, items });
  return items;
}

/** Names of those who are there and bear no voice yet; the same list as long as it says the same. */
function useFreePeople(room: RoomState): readonly string[] {
  const taken = new Set(room.board.voices.filter((v) => v.named).map((v) => v.name));
  const key = JSON.stringify(room.board.there.map((p) => p.name).filter((name) => !taken.has(name)));
  return useMemo(() => JSON.parse(key) as string[], [key]);
}

/** What a turn shows of its voice, in plain values. */
function voiceOf(voice: LiveVoice | undefined) {
  return { voiceId: voice?.id ?? null, voiceName: voice?.name ?? "", named: voice?.named ?? false };
}

function BreakRow({ id, pause }: { id: string; pause: Break }) {
  const text = breakText(pause);
  return (
    <Box
      data-item={id}
      data-break={pause.kind}
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 1.5,
        py: 1,
        color: pause.kind === "gap" ? "error.main" : "text.secondary",
        fontSize: "0.85rem",
        "&::before, &::after": { content: '""', flex: 1, borderTop: 1, borderColor: "divider" },
      }}
    >
      {text.charAt(0).toUpperCase() + text.slice(1)}
    </Box>
  );
}

function Tool({ title, onClick, children }: { title: string; onClick: () => void; children: React.ReactNode }) {
  return (
    <Tooltip title={title}>
      <IconButton size="small" aria-label={title} onClick={onClick}>
        {children}
      </IconButton>
    </Tooltip>
  );
}
