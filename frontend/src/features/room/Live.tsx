import { Alert, Box, Button, ToggleButton, ToggleButtonGroup, Typography, useMediaQuery, useTheme } from "@mui/material";
import { useCallback, useEffect, useRef, useState } from "react";

import { useKeys } from "../../app/keys";
import { clock } from "../../shared/times";
import { AgendaStrip } from "./AgendaStrip";
import { WARNINGS } from "./capture/level";
import { Brief } from "./Brief";
import { floorText } from "./floorNotice";
import { LiveFoot } from "./LiveFoot";
import { LiveHead } from "./LiveHead";
import { LiveText } from "./LiveText";
import { Pad } from "./Pad";
import { RoomSpine } from "./RoomSpine";
import { pageClock } from "./clock";
import { phaseOf, type RoomState } from "./roomState";
import type { Board } from "./types";
import { useMarks } from "./useMarks";
import { useForget, type Forgetting } from "./useForget";
import { usePad } from "./usePad";
import { useSeconds, type RecorderView } from "./useRecorder";
import type { RoomActions } from "./useRoom";

/** The meeting while it runs: notes on the left, time in the middle, what is said on the right. */
export function Live({ room, recorder, actions }: { room: RoomState; recorder: RecorderView; actions: RoomActions }) {
  const { board, speech, lines } = room;
  const narrow = useMediaQuery(useTheme().breakpoints.down("md"));
  const [side, setSide] = useState<"notes" | "said">("notes");
  const [goTo, setGoTo] = useState<{ at: number; stamp: number } | null>(null);
  const seconds = useSeconds(room, recorder.recorded);
  const nowRef = useRef(seconds);
  useEffect(() => {
    nowRef.current = seconds;
  }, [seconds]);
  const now = useCallback(() => nowRef.current, []);
  const pad = usePad(board.meeting.id, board.notes, now);
  const running = phaseOf(board.state, recorder.state) === "recording";
  const marks = useMarks(board.labels, now, actions, running);
  const heldRef = useRef(speech.duration);
  useEffect(() => {
    heldRef.current = speech.duration;
  }, [speech.duration]);
  const held = useCallback(() => heldRef.current, []);
  const forgetting = useForget({ now, held, cut: actions.cut });
  const floor = floorText(board, seconds);
  const mine = recorder.state !== "idle";
  const show = useCallback((at: number) => {
    setGoTo({ at, stamp: Date.now() });
    setSide("said");
  }, []);
  const on = board.agenda.findIndex((item) => item.begun !== null && item.ended === null);
  const next = () => void actions.turnTo(on + 1 < board.agenda.length ? on + 1 : null, now());
  useKeys("Room", [
    ...(board.agenda.length ? [{ key: "n", label: "Next item of the agenda", run: next }] : []),
    { key: "z", ctrl: true, label: "Take the last correction back", run: () => void actions.undo() },
  ]);
  return (
    <Box sx={{ height: "100%", display: "flex", flexDirection: "column", minHeight: 0 }}>
      <LiveHead room={room} recorder={recorder} actions={actions} seconds={seconds} />
      <AgendaStrip
        board={board}
        seconds={seconds}
        floor={floor.line}
        onTurnTo={(number) => void actions.turnTo(number, now())}
        onWrite={(items) => actions.writeAgenda(items)}
      />
      <Alerts
        room={room}
        recorder={recorder}
        actions={actions}
        floor={mine || board.runner ? floor.notice : ""}
        forgetting={forgetting.stretch}
        onKeep={forgetting.keep}
      />
      {narrow && (
        <ToggleButtonGroup
          size="small"
          exclusive
          fullWidth
          value={side}
          onChange={(_, next: "notes" | "said" | null) => next && setSide(next)}
          aria-label="What to show"
          sx={{ px: 1, py: 0.5 }}
        >
          <ToggleButton value="notes" sx={{ py: 0.4 }}>
            Notes
          </ToggleButton>
          <ToggleButton value="said" sx={{ py: 0.4 }}>
            What is said
          </ToggleButton>
        </ToggleButtonGroup>
      )}
      <Box sx={{ flex: 1, minHeight: 0, display: "flex" }}>
        {(!narrow || side === "notes") && (
          <Box sx={{ flex: "1 1 0", minWidth: 0, display: "flex", flexDirection: "column", minHeight: 0 }}>
            <Pad
              pad={pad}
              board={board}
              onShow={show}
              onRemoveMark={(id) => void actions.removeMark(id)}
              onWriteMark={(mark, text) => void actions.mark(mark.id, mark.label, mark.start, mark.end, text)}
            />
            <Brief meetingId={board.meeting.id} onShow={show} />
          </Box>
        )}
        {!narrow && <RoomSpine room={room} seconds={seconds} onShow={show} />}
        {(!narrow || side === "said") && (
          <Box sx={{ flex: "1.05 1 0", minWidth: 0, minHeight: 0, display: "flex" }}>
            <LiveText room={room} lines={lines} speech={speech} actions={actions} goTo={goTo} />
          </Box>
        )}
      </Box>
      <LiveFoot board={board} recorder={recorder} marks={marks} running={running} onForget={board.runner ? forgetting.forget : undefined} />
    </Box>
  );
}

function Alerts({
  room,
  recorder,
  actions,
  floor,
  forgetting,
  onKeep,
}: {
  room: RoomState;
  recorder: RecorderView;
  actions: RoomActions;
  floor: string;
  forgetting: Forgetting | null;
  onKeep: () => void;
}) {
  const { board, speech } = room;
  const left = board.silence_stop - speech.silent;
  const phase = phaseOf(board.state, recorder.state);
  const stops = phase === "recording" && board.state === "recording" && board.silence_stop > 0 && left < 60 && speech.silent > 5;
  const mine = recorder.state !== "idle";
  const missing = useMissing(room);
  return (
    <Box aria-live="polite" sx={{ flex: "none", display: "grid", gap: 0.5, px: { xs: 1, sm: 2 }, "& > *": { mt: 0.75, py: 0 } }}>
      {forgetting && (
        <Alert
          severity="warning"
          variant="outlined"
          action={
            <Button color="inherit" size="small" onClick={onKeep}>
              Keep it
            </Button>
          }
        >
          {clock(forgetting.start)} to {clock(forgetting.end)} will be removed in a moment, sound, words and pictures, for good.
        </Alert>
      )}
      {stops && (
        <Alert
          severity="warning"
          variant="outlined"
          action={
            <Button color="inherit" size="small" onClick={() => void actions.keepOn()}>
              Keep on
            </Button>
          }
        >
          Nobody has spoken for a while. The recording stops by itself in {Math.max(1, Math.ceil(left))} s.
        </Alert>
      )}
      {mine && recorder.state === "recording" && recorder.warning && (
        <Alert severity="warning" variant="outlined">
          {WARNINGS[recorder.warning]}
        </Alert>
      )}
      {recorder.error && (
        <Alert severity="error" variant="outlined">
          {recorder.error}
        </Alert>
      )}
      {recorder.waiting.trouble && (
        <Alert severity="warning" variant="outlined">
          {recorder.waiting.trouble} {kept(phase)}
        </Alert>
      )}
      {recorder.waiting.away && (
        <Alert severity="warning" variant="outlined">
          The server cannot be reached. {kept(phase)}
        </Alert>
      )}
      {!recorder.waiting.away && speech.behind > 6 && phase !== "paused" && (
        <Alert severity="info" variant="outlined">
          The live text is {Math.round(speech.behind)} s behind and catches up. No sound is lost.
        </Alert>
      )}
      {missing > 0 && !mine && !recorder.broken && (
        <Alert
          severity="warning"
          variant="outlined"
          action={
            <Button color="inherit" size="small" onClick={() => void actions.finish()}>
              Finish with what is here
            </Button>
          }
        >
          No sound has come for {missing} s. The page that records may have been closed or have lost its connection; it sends what it kept
          when it is back.
        </Alert>
      )}
      {recorder.broken && recorder.state === "idle" && (
        <Alert
          severity="warning"
          variant="outlined"
          action={
            <>
              <Button
                color="inherit"
                size="small"
                onClick={() => void recorder.start(recorder.broken?.source ?? "microphone", recorder.broken?.deviceId ?? "")}
              >
                Go on recording
              </Button>
              <Button color="inherit" size="small" onClick={() => void actions.finish()}>
                Finish
              </Button>
            </>
          }
        >
          The recording broke off on this computer.
        </Alert>
      )}
      {floor && (
        <Alert severity="info" variant="outlined" icon={false}>
          <Typography variant="body2">Only you see this: {floor}</Typography>
        </Alert>
      )}
    </Box>
  );
}

/** What becomes of the sound while it cannot be sent. */
const kept = (phase: Board["state"]): string =>
  phase === "recording"
    ? "The recording goes on and is kept on this computer; it is sent when the connection is back."
    : "What was recorded is kept on this computer; it is sent when the connection is back.";

/** Seconds for which no sound has come although the meeting is being recorded; 0 for the first ten. */
function useMissing(room: RoomState): number {
  const [clock, setClock] = useState(pageClock);
  useEffect(() => {
    const timer = setInterval(() => setClock(pageClock()), 1000);
    return () => clearInterval(timer);
  }, []);
  const seconds = Math.floor((clock - room.at) / 1000);
  return room.speech.state === "recording" && seconds >= 10 ? seconds : 0;
}
