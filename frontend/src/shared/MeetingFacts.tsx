import { Typography } from "@mui/material";

import type { Schemas } from "../api/client";
import { day, hour, lasting } from "./times";

/** Day, hour, length, kind and people of a meeting in one quiet line. */
export function MeetingFacts({ meeting }: { meeting: Schemas["MeetingOut"] }) {
  const people = meeting.people.map((name) => name.split(" ")[0]).join(", ");
  const facts = [
    day(meeting.starts_at, meeting.time_zone),
    hour(meeting.starts_at, meeting.time_zone),
    meeting.duration ? lasting(meeting.duration) : "",
    meeting.kind,
    people,
  ];
  return (
    <Typography variant="body2" color="textSecondary" sx={{ gridColumn: "1 / -1" }}>
      {facts.filter(Boolean).join(" · ")}
    </Typography>
  );
}
