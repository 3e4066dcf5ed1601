import { Box, Typography } from "@mui/material";
import { Navigate } from "react-router";

import { MeetingFacts } from "../../shared/MeetingFacts";
import { Progress } from "../today/Progress";
import type { RecordData } from "./types";

/** The page of a meeting of which no word is known yet: how far the work on it is. */
export function Unfinished({ record, sending }: { record: RecordData; sending: Parameters<typeof Progress>[0]["sending"] }) {
  return (
    <Box sx={{ maxWidth: 720, mx: "auto", p: { xs: 2, sm: 4 }, display: "grid", gap: 2 }}>
      <Typography variant="h1" sx={{ overflowWrap: "anywhere" }}>
        {record.meeting.title}
      </Typography>
      <MeetingFacts meeting={record.meeting} />
      {record.meeting.room && record.meeting.room !== "stopped" && <Navigate to={`/meetings/${record.meeting.id}/room`} replace />}
      <Progress meeting={record.meeting} sending={sending} onChooseAgain={() => location.assign("/")} />
      <Typography color="textSecondary">
        You may close this page. The transcript and the minutes appear here when they are ready.
      </Typography>
    </Box>
  );
}
