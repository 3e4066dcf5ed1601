import { Alert } from "@mui/material";

import type { RecordData } from "./types";

/** What is to be known of a record before it is read. */
export function RecordNotices({ record }: { record: RecordData }) {
  return (
    <>
      {record.recording?.broken && (
        <Alert severity="warning" variant="outlined" sx={{ m: 1 }}>
          The file breaks off or is damaged in places. What could be read has been used.
        </Alert>
      )}
      {record.minutes?.source === "live" && (
        <Alert severity="info" variant="outlined" sx={{ mx: { xs: 1, sm: 3 }, mt: 1, py: 0 }}>
          These minutes are from the live text. They are replaced when the better recogniser has listened to the whole; what you change
          stays.
        </Alert>
      )}
      {record.minutes?.remark && (
        <Alert severity="info" variant="outlined" sx={{ mx: { xs: 1, sm: 3 }, mt: 1, py: 0 }}>
          {record.minutes.remark}
        </Alert>
      )}
    </>
  );
}
