import { Box, Typography } from "@mui/material";
import { useEffect, useMemo, useRef } from "react";
import { useParams } from "react-router";

import { useKeys, useKeyListener } from "../../app/keys";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { useTitle } from "../../shared/useTitle";
import { liveItems, partialOf } from "./liveTurns";
import { useRoom } from "./useRoom";
import { useTextSize } from "./useTextSize";

const SHOWN = 12; // turns

/** The words alone, large, for a projector or a second screen. */
export default function Captions() {
  const { meetingId = "" } = useParams();
  const { query, state } = useRoom(meetingId);
  useTitle(state ? `Captions: ${state.board.meeting.title}` : "");
  const look = useTextSize(2);
  const foot = useRef<HTMLDivElement>(null);
  useKeyListener();
  useKeys("Captions", [
    { key: "+", label: "Larger text", run: look.larger },
    { key: "-", label: "Smaller text", run: look.smaller },
    { key: "c", label: "High contrast", run: look.toggleContrast },
  ]);
  const items = useMemo(() => (state ? liveItems(state.lines.slice(-60), state.board.breaks).slice(-SHOWN) : []), [state]);
  const partial = state ? partialOf(state.speech, state.lines) : "";
  useEffect(() => {
    void foot.current?.scrollIntoView({ block: "end" });
  }, [items, partial, look.rem]);
  if (query.error) return <Failure error={query.error} onRetry={() => void query.refetch()} />;
  if (!state) return <Loading what="the captions" />;
  const names = new Map(state.board.voices.map((voice) => [voice.id, voice.name]));
  return (
    <Box
      component="main"
      sx={{
        height: "100dvh",
        overflow: "hidden",
        display: "flex",
        flexDirection: "column",
        justifyContent: "flex-end",
        p: { xs: 2, sm: 4 },
        fontSize: `${look.rem}rem`,
        lineHeight: 1.45,
        bgcolor: look.contrast ? "#000" : "background.default",
        color: look.contrast ? "#fff" : "text.primary",
      }}
    >
      <Typography component="h1" sx={{ position: "absolute", left: -9999 }}>
        Captions: {state.board.meeting.title}
      </Typography>
      <Box role="log" aria-live="polite" aria-label="Captions">
        {items.map((item) =>
          item.type === "break" ? null : (
            <Box key={item.key} sx={{ mb: 0.75 }}>
              {item.voice !== null && (
                <Box component="span" sx={{ fontWeight: 700, mr: 1 }}>
                  {names.get(item.voice)}
                </Box>
              )}
              {item.lines.map((line) => line.text).join(" ")}
            </Box>
          ),
        )}
        {partial && <Box sx={{ opacity: look.contrast ? 0.85 : 0.75 }}>{partial}</Box>}
        {!items.length && !partial && (
          <Box sx={{ opacity: 0.75 }}>{state.board.state === "recording" ? "Waiting for words …" : "Nothing is being recorded."}</Box>
        )}
        {state.board.state === "paused" && <Box sx={{ opacity: 0.75 }}>Paused.</Box>}
      </Box>
      <div ref={foot} />
    </Box>
  );
}
