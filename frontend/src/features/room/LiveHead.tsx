import { Box, Button, Dialog, DialogActions, DialogContent, DialogContentText, DialogTitle, Popover, Typography } from "@mui/material";
import { useState } from "react";

import { CutOut } from "../../shared/CutOut";
import { Details } from "../../shared/Details";
import { clock } from "../../shared/times";
import { Consent } from "./Consent";
import { Choices } from "./Choices";
import { LineToCall } from "./LineToCall";
import { phaseOf, type RoomState } from "./roomState";
import type { RecorderView } from "./useRecorder";
import type { RoomActions } from "./useRoom";

type Sheet = "stop" | "take over" | "cut" | "finish" | "details" | null;

/** Title, what is being recorded, consent, level, pause and stop. */
export function LiveHead({
  room,
  recorder,
  actions,
  seconds,
}: {
  room: RoomState;
  recorder: RecorderView;
  actions: RoomActions;
  seconds: number;
}) {
  const { board } = room;
  const [sheet, setSheet] = useState<Sheet>(null);
  const close = () => setSheet(null);
  return (
    <Box
      sx={{
        display: "flex",
        alignItems: "center",
        gap: { xs: 1, sm: 2 },
        px: { xs: 1.5, sm: 3 },
        minHeight: 54,
        borderBottom: 1,
        borderColor: "divider",
        flexWrap: "wrap",
        flex: "none",
        py: 0.75,
      }}
    >
      <Typography
        variant="h2"
        component="h1"
        noWrap
        title={board.meeting.title}
        sx={{ flex: { xs: "1 1 100%", md: "0 1 auto" }, minWidth: 0 }}
      >
        {board.meeting.title}
      </Typography>
      <State room={room} recorder={recorder} seconds={seconds} />
      <ConsentButton room={room} actions={actions} />
      <Box sx={{ ml: "auto", display: "flex", alignItems: "center", gap: 1 }}>
        {recorder.state === "recording" && recorder.level && (
          <Typography
            variant="body2"
            color="textSecondary"
            sx={{ fontVariantNumeric: "tabular-nums", whiteSpace: "nowrap", display: { xs: "none", sm: "block" } }}
          >
            level {String(Math.round(recorder.level.rms)).replace("-", "−")} dBFS
          </Typography>
        )}
        <More
          onCut={() => setSheet("cut")}
          onDetails={() => setSheet("details")}
          onFinish={board.runner && recorder.state === "idle" && board.source !== "line" ? () => setSheet("finish") : undefined}
          board={board}
          actions={actions}
        />
        <Buttons
          room={room}
          recorder={recorder}
          onStop={() => setSheet("stop")}
          onTakeOver={() => setSheet("take over")}
          onFinish={() => setSheet("finish")}
        />
      </Box>
      <Sure open={sheet === "stop"} title="Stop the recording?" label="Stop" onClose={close} onSure={() => void recorder.stop()}>
        The minutes follow at once. A recording that has been stopped cannot be gone on with.
      </Sure>
      <Sure
        open={sheet === "take over"}
        title="Record here instead?"
        label="Record here"
        onClose={close}
        onSure={() => void recorder.start("microphone", "", true)}
      >{`${board.recorder ?? "Somebody"} records this meeting on another page. That page stops, and yours goes on.`}</Sure>
      {sheet === "details" && <Details meeting={board.meeting} onClose={close} />}
      <Sure open={sheet === "finish"} title="Finish the recording?" label="Finish" onClose={close} onSure={() => void actions.finish()}>
        It ends with the sound that has arrived. Do this when the page that recorded does not come back.
      </Sure>
      <CutOut
        open={sheet === "cut"}
        words={(start, end) =>
          room.lines
            .filter((l) => l.text && l.start < end && start < l.end)
            .map((l) => l.text)
            .join(" ")
        }
        seconds={seconds}
        onClose={close}
        onCut={actions.cut}
      />
    </Box>
  );
}

function State({ room, recorder, seconds }: { room: RoomState; recorder: RecorderView; seconds: number }) {
  const { board } = room;
  const phase = phaseOf(board.state, recorder.state);
  const recording = phase === "recording";
  const words = { ready: "Beginning", recording: "Recording", paused: "Paused at", stopping: "Ending", stopped: "Ended at" }[phase];
  const elsewhere = recording && recorder.state === "idle" && board.recorder;
  return (
    <Box
      role="status"
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 1,
        color: recording ? "error.main" : "text.secondary",
        fontWeight: 700,
        whiteSpace: "nowrap",
      }}
    >
      <Box aria-hidden sx={{ width: 11, height: 11, borderRadius: recording ? "50%" : 0.5, bgcolor: "currentColor" }} />
      <span>
        {words}{" "}
        <Box component="span" sx={{ fontVariantNumeric: "tabular-nums" }}>
          {clock(seconds)}
        </Box>
      </span>
      {elsewhere && (
        <Typography component="span" variant="body2" color="textSecondary">
          {board.source === "line" ? "from the call (simulated)" : `by ${board.recorder}`}
        </Typography>
      )}
    </Box>
  );
}

function Buttons({
  room,
  recorder,
  onStop,
  onTakeOver,
  onFinish,
}: {
  room: RoomState;
  recorder: RecorderView;
  onStop: () => void;
  onTakeOver: () => void;
  onFinish: () => void;
}) {
  const { board } = room;
  if (recorder.state === "recording") {
    return (
      <>
        <Button variant="outlined" color="inherit" onClick={() => void recorder.pause()}>
          Pause
        </Button>
        <Button variant="contained" color="error" onClick={onStop}>
          Stop
        </Button>
      </>
    );
  }
  if (recorder.state === "starting" || recorder.state === "stopping")
    return (
      <Button variant="outlined" color="inherit" disabled>
        {recorder.state === "starting" ? "Beginning …" : "Sending the rest …"}
      </Button>
    );
  if (phaseOf(board.state, recorder.state) === "paused") {
    return (
      <>
        <Button
          variant="contained"
          onClick={() => void (recorder.state === "paused" ? recorder.resume() : recorder.start("microphone", ""))}
        >
          Go on
        </Button>
        {recorder.state === "paused" && (
          <Button variant="contained" color="error" onClick={onStop}>
            Stop
          </Button>
        )}
      </>
    );
  }
  if (board.source === "line" && board.state === "recording")
    return (
      board.runner && (
        <Button variant="contained" color="error" onClick={onFinish}>
          Stop
        </Button>
      )
    );
  if (board.state === "recording" && !recorder.broken && board.runner)
    return (
      <Button variant="outlined" color="inherit" onClick={onTakeOver}>
        Record here
      </Button>
    );
  return null;
}

function ConsentButton({ room, actions }: { room: RoomState; actions: RoomActions }) {
  const { board } = room;
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const ticked = board.there.filter((p) => p.agreed_at).length;
  const status = [
    board.announced_at ? "announced to all" : "",
    ticked || !board.announced_at ? `${ticked} of ${board.there.length} ticked` : "",
  ]
    .filter(Boolean)
    .join(" · ");
  return (
    <>
      <Button
        size="small"
        color="inherit"
        onClick={(e) => setAnchor(e.currentTarget)}
        aria-haspopup="dialog"
        sx={{ fontWeight: 400, color: "text.secondary", whiteSpace: "nowrap" }}
      >
        {status}
      </Button>
      <Popover
        open={!!anchor}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: "bottom", horizontal: "left" }}
        slotProps={{ paper: { role: "dialog", "aria-label": "Who is there and agrees" } as object }}
      >
        <Box sx={{ p: 2, width: "min(440px, 92vw)" }}>
          <Consent board={board} actions={actions} />
        </Box>
      </Popover>
    </>
  );
}

function More({
  onCut,
  onDetails,
  onFinish,
  board,
  actions,
}: {
  onCut: () => void;
  onDetails: () => void;
  onFinish: (() => void) | undefined;
  board: RoomState["board"];
  actions: RoomActions;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const then = (run: () => void) => () => {
    setAnchor(null);
    run();
  };
  return (
    <>
      <Button size="small" color="inherit" onClick={(e) => setAnchor(e.currentTarget)} aria-haspopup="dialog">
        More
      </Button>
      <Popover
        open={!!anchor}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: "bottom", horizontal: "right" }}
        transformOrigin={{ vertical: "top", horizontal: "right" }}
        slotProps={{ paper: { role: "dialog", "aria-label": "More" } as object }}
      >
        <Box sx={{ p: 2, width: 320, display: "grid", gap: 1.5, justifyItems: "start" }}>
          <Choices board={board} actions={actions} />
          {board.runner && (
            <Button size="small" onClick={then(onDetails)}>
              Title and time …
            </Button>
          )}
          {board.runner && (
            <Button size="small" onClick={then(onCut)}>
              Remove a stretch for good …
            </Button>
          )}
          {onFinish && (
            <Button size="small" onClick={then(onFinish)}>
              Finish with the sound that is here …
            </Button>
          )}
          {board.line_state && board.runner && (
            <Box sx={{ borderTop: 1, borderColor: "divider", pt: 1.5, width: "100%" }}>
              <LineToCall board={board} actions={actions} brief />
            </Box>
          )}
        </Box>
      </Popover>
    </>
  );
}

export function Sure({
  open,
  title,
  label,
  onClose,
  onSure,
  children,
}: {
  open: boolean;
  title: string;
  label: string;
  onClose: () => void;
  onSure: () => void;
  children: string;
}) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="sure-title">
      <DialogTitle id="sure-title">{title}</DialogTitle>
      <DialogContent>
        <DialogContentText>{children}</DialogContentText>
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Not now
        </Button>
        <Button
          variant="contained"
          color="error"
          autoFocus
          onClick={() => {
            onClose();
            onSure();
          }}
        >
          {label}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
