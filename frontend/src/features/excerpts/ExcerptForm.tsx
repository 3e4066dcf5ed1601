import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from "@mui/material";
import { useState, type FormEvent } from "react";

import type { Schemas } from "../../api/client";
import { readClock } from "../../shared/readClock";
import { clock } from "../../shared/times";
import { Trim } from "./Trim";

type Draft = Schemas["NewExcerpt"];

/** Title, label, note and ends of an excerpt. */
export function ExcerptForm({
  title,
  meetingId,
  draft,
  onKeep,
  onClose,
}: {
  title: string;
  meetingId: string;
  draft: Draft;
  onKeep: (draft: Draft) => Promise<void>;
  onClose: () => void;
}) {
  const [made, setMade] = useState(draft);
  const [from, setFrom] = useState(tenths(draft.start));
  const [to, setTo] = useState(tenths(draft.end));
  // ends that were not typed over stay as exact as they were
  const [start, end] = [from === tenths(made.start) ? made.start : readTenths(from), to === tenths(made.end) ? made.end : readTenths(to)];
  const wrong = start === null || end === null || end <= start;
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (wrong) return;
    void onKeep({ ...made, start, end });
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="excerpt-title" component="form" onSubmit={send}>
      <DialogTitle id="excerpt-title">{title}</DialogTitle>
      <DialogContent sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1.5, pt: "8px !important" }}>
        <TextField
          size="small"
          autoFocus
          label="Title"
          value={made.title}
          onChange={(e) => setMade({ ...made, title: e.target.value })}
          slotProps={{ htmlInput: { maxLength: 200 } }}
          sx={{ gridColumn: "1 / -1" }}
          helperText="Left empty, its first words."
        />
        <TextField
          size="small"
          label="Label"
          value={made.label}
          onChange={(e) => setMade({ ...made, label: e.target.value })}
          slotProps={{ htmlInput: { maxLength: 60 } }}
          sx={{ gridColumn: "1 / -1" }}
        />
        <TextField
          size="small"
          label="Note"
          multiline
          minRows={2}
          value={made.note}
          onChange={(e) => setMade({ ...made, note: e.target.value })}
          slotProps={{ htmlInput: { maxLength: 4000 } }}
          sx={{ gridColumn: "1 / -1" }}
        />
        <Trim
          meetingId={meetingId}
          around={draft}
          start={start ?? draft.start}
          end={Math.max(end ?? draft.end, (start ?? draft.start) + 0.1)}
          onTrim={(a, b) => {
            setMade({ ...made, start: a, end: b });
            setFrom(tenths(a));
            setTo(tenths(b));
          }}
        />
        <TextField
          size="small"
          label="From"
          value={from}
          onChange={(e) => setFrom(e.target.value)}
          error={start === null}
          helperText={start === null ? "A time such as 1:12.5" : " "}
        />
        <TextField
          size="small"
          label="To"
          value={to}
          onChange={(e) => setTo(e.target.value)}
          error={wrong}
          helperText={end === null ? "A time such as 1:12.5" : wrong ? "Behind the beginning" : " "}
        />
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Close
        </Button>
        <Button type="submit" variant="contained" disabled={wrong}>
          Keep
        </Button>
      </DialogActions>
    </Dialog>
  );
}

const tenths = (seconds: number): string => `${clock(seconds)}.${Math.floor((seconds % 1) * 10)}`;

function readTenths(text: string): number | null {
  const [whole = "", part] = text.trim().split(".");
  const seconds = readClock(whole);
  return seconds === null || (part !== undefined && !/^\d{1,3}$/.test(part)) ? null : seconds + Number(`0.${part ?? "0"}`);
}
