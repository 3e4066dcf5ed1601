import { Box, Link } from "@mui/material";
import { Link as RouterLink, useLocation } from "react-router";

import { clock } from "../../shared/times";
import { useHost } from "./host";
import { useSeconds } from "./useRecorder";

const WORDS = { idle: "", starting: "Beginning", recording: "Recording", paused: "Paused", stopping: "Ending" };

/** Says on every other view that a meeting is being recorded from this page, and leads back. */
export function RecordingBar() {
  const { meetingId, room, recorder } = useHost();
  const { pathname } = useLocation();
  const seconds = useSeconds(room, recorder.recorded);
  const address = `/meetings/${meetingId}/room`;
  if (recorder.state === "idle" || pathname === address || !room) return null;
  return (
    <Box
      role="status"
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 1.5,
        px: { xs: 1.5, sm: 3 },
        py: 0.75,
        borderBottom: 1,
        borderColor: "divider",
        color: "error.main",
        fontWeight: 700,
        flex: "none",
        minWidth: 0,
      }}
    >
      <Box aria-hidden sx={{ width: 11, height: 11, borderRadius: "50%", bgcolor: "currentColor", flex: "none" }} />
      <Box component="span" sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
        {WORDS[recorder.state]} “{room.board.meeting.title}” {clock(seconds)}
      </Box>
      <Link component={RouterLink} to={address} color="inherit" sx={{ whiteSpace: "nowrap" }}>
        Back to the room
      </Link>
    </Box>
  );
}
