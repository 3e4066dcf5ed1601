import { Alert, Box, Button, Typography } from "@mui/material";
import { useParams } from "react-router";
import { Link as RouterLink } from "react-router";

import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { Before } from "./Before";
import { Live } from "./Live";
import { useRecorder } from "./useRecorder";
import { useRoom } from "./useRoom";

/** A meeting being recorded: before it begins, while it runs, and the way to its record when it has ended. */
export default function Room() {
  const { meetingId = "" } = useParams();
  return <Opened key={meetingId} meetingId={meetingId} />;
}

function Opened({ meetingId }: { meetingId: string }) {
  const { query, state, ...actions } = useRoom(meetingId);
  const recorder = useRecorder(meetingId, state);
  if (query.error) return <Failure error={query.error} onRetry={() => void query.refetch()} />;
  if (!state) return <Loading what="the room" />;
  if (state.board.state === "stopped") return <Ended meetingId={meetingId} title={state.board.meeting.title} waiting={recorder.waiting.parts} />;
  if (state.board.state === "ready" && recorder.state !== "recording") return <Before room={state} recorder={recorder} actions={actions} />;
  return <Live room={state} recorder={recorder} actions={actions} />;
}

function Ended({ meetingId, title, waiting }: { meetingId: string; title: string; waiting: number }) {
  return (
    <Box sx={{ maxWidth: 640, mx: "auto", p: { xs: 2, sm: 4 }, display: "grid", gap: 2, justifyItems: "start" }}>
      <Typography variant="h1" sx={{ overflowWrap: "anywhere" }}>{title}</Typography>
      <Typography>The recording has ended. Minutes from the live text are ready in a moment; they are replaced when the better recogniser has listened to the whole. What you wrote, marked and corrected stays.</Typography>
      {waiting > 0 && <Alert severity="warning" variant="outlined">{waiting} parts of the sound are still on this computer only. Leave this page open until they are sent.</Alert>}
      <Button variant="contained" component={RouterLink} to={`/meetings/${meetingId}`}>Open the record</Button>
    </Box>
  );
}
