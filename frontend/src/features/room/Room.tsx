import { Alert, Box, Button, Typography } from "@mui/material";
import { Link as RouterLink, useParams } from "react-router";

import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { phaseOf } from "./roomState";
import type { Board } from "./types";
import { useTitle } from "../../shared/useTitle";
import { Before } from "./Before";
import { useOpenRoom } from "./host";
import { Live } from "./Live";

/** A meeting being recorded: before it begins, while it runs, and the way to its record when it has ended. */
export default function Room() {
  const { meetingId = "" } = useParams();
  const { meetingId: held, room, error, retry, recorder, actions } = useOpenRoom(meetingId);
  useTitle(room ? roomTitle(phaseOf(room.board.state, recorder.state), room.board.meeting.title) : "");
  if (held && held !== meetingId) return <Elsewhere meetingId={held} />;
  if (error) return <Failure error={error} onRetry={retry} />;
  if (!room) return <Loading what="the room" />;
  if (room.board.state === "stopped")
    return <Ended meetingId={meetingId} title={room.board.meeting.title} waiting={recorder.waiting.parts} />;
  if (room.board.state === "ready" && recorder.state !== "recording") return <Before room={room} recorder={recorder} actions={actions} />;
  return <Live room={room} recorder={recorder} actions={actions} />;
}

/** The tab says first whether it records, since it is looked at from among many. */
const roomTitle = (phase: Board["state"], title: string): string =>
  phase === "recording" ? `Recording: ${title}` : phase === "paused" ? `Paused: ${title}` : title;

function Elsewhere({ meetingId }: { meetingId: string }) {
  return (
    <Box sx={{ maxWidth: 640, mx: "auto", p: { xs: 2, sm: 4 }, display: "grid", gap: 2, justifyItems: "start" }}>
      <Typography>This page records another meeting. Stop that one first, or open this room in another tab.</Typography>
      <Button variant="contained" component={RouterLink} to={`/meetings/${meetingId}/room`}>
        Back to the recording
      </Button>
    </Box>
  );
}

function Ended({ meetingId, title, waiting }: { meetingId: string; title: string; waiting: number }) {
  return (
    <Box sx={{ maxWidth: 640, mx: "auto", p: { xs: 2, sm: 4 }, display: "grid", gap: 2, justifyItems: "start" }}>
      <Typography variant="h1" sx={{ overflowWrap: "anywhere" }}>
        {title}
      </Typography>
      <Typography>
        The recording has ended. Minutes from the live text are ready in a moment; they are replaced when the better recogniser has listened
        to the whole. What you wrote, marked and corrected stays.
      </Typography>
      {waiting > 0 && (
        <Alert severity="warning" variant="outlined">
          {waiting} parts of the sound are still on this computer only. Leave this page open until they are sent.
        </Alert>
      )}
      <Button variant="contained" component={RouterLink} to={`/meetings/${meetingId}`}>
        Open the record
      </Button>
    </Box>
  );
}
