import { Alert, Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { body, client } from "../../api/client";
import { moment } from "../../shared/times";
import { lineIn } from "./fragment";
import type { Line, RecordData } from "./types";

interface Props {
  hash: string;
  record: RecordData;
  onLine: (line: Line) => void;
  onVersions: () => void;
}

/** Where an address names a line that is not there: leads to the line that stands for it, or says what became of it. */
export function GoneLine({ hash, record, onLine, onVersions }: Props) {
  const lines = record.minutes?.lines;
  const named = lineIn(hash);
  const gone = named !== null && lines !== undefined && !lines.some((line) => line.id === named);
  const [left, setLeft] = useState<number | null>(null);
  const fate = useQuery({
    queryKey: ["line", record.meeting.id, named],
    enabled: gone,
    retry: false,
    queryFn: () =>
      body(
        client.GET("/api/meetings/{meeting_id}/lines/{line_id}", {
          params: { path: { meeting_id: record.meeting.id, line_id: named ?? 0 } },
        }),
      ),
  });
  const stands = gone ? lines.find((line) => line.id === fate.data?.now_in) : undefined;
  useEffect(() => {
    if (stands) onLine(stands);
    // once for each address: the line may be left again
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [stands?.id]);
  if (!gone || stands || left === named || fate.isPending) return null;
  const text = fate.data?.text;
  return (
    <Alert
      severity="info"
      variant="outlined"
      sx={{ mx: { xs: 1, sm: 3 }, mt: 1, py: 0 }}
      onClose={() => setLeft(named)}
      action={
        text ? (
          <>
            <Button size="small" onClick={onVersions}>
              Earlier minutes
            </Button>
            <Button size="small" color="inherit" onClick={() => setLeft(named)}>
              Close
            </Button>
          </>
        ) : undefined
      }
    >
      {text
        ? `The line that this link leads to is not in the minutes any more; they were written again ${fate.data?.until ? moment(fate.data.until) : "since"}. It said: “${text}”`
        : "The line that this link leads to is not in these minutes. It may have been removed."}
    </Alert>
  );
}
