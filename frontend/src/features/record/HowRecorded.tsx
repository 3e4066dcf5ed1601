import { Typography } from "@mui/material";

import { breakText } from "../../shared/breaks";
import { hour } from "../../shared/times";
import type { RecordData } from "./types";

/** How the recording was announced, and where it was paused, broke off or was cut. */
export function HowRecorded({ record }: { record: RecordData }) {
  const { consent, breaks } = record;
  const agreed = consent?.there.filter((p) => p.agreed_at) ?? [];
  const facts = [
    consent?.announced_at
      ? `Recording announced to all at ${hour(consent.announced_at, record.meeting.time_zone)}${consent.announced_by ? ` by ${consent.announced_by}` : ""}`
      : "",
    consent?.brought_in || agreed.some((p) => p.brought_in) ? "consent brought in, not verified" : "",
    agreed.length ? `agreed: ${agreed.map((p) => p.name.split(" ")[0]).join(", ")}` : "",
    ...breaks.map(breakText),
  ].filter(Boolean);
  return (
    <Typography variant="body2" color="textSecondary">
      {facts.join(" · ")}
    </Typography>
  );
}
