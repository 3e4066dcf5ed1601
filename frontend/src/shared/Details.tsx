import { Alert, Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import { body, client, sentenceOf, type Schemas } from "../api/client";
import { useNotice } from "../app/notices";
import { localMoment } from "./times";
import { useAttempt } from "./useAttempt";

/** Title and time of a meeting, for whoever runs it. */
export function Details({ meeting, onClose }: { meeting: Pick<Schemas["MeetingOut"], "id" | "title" | "starts_at">; onClose: () => void }) {
  const queries = useQueryClient();
  const notice = useNotice();
  const [title, setTitle] = useState(meeting.title);
  const [began, setBegan] = useState(localMoment(new Date(meeting.starts_at)));
  const { busy, error, run } = useAttempt();
  const put = async (title: string, starts_at: string) => {
    await body(
      client.PUT("/api/meetings/{meeting_id}/details", { params: { path: { meeting_id: meeting.id } }, body: { title, starts_at } }),
    );
    await Promise.all(["record", "meetings", "actions"].map((key) => queries.invalidateQueries({ queryKey: [key] })));
  };
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    if (!(await run(() => put(title.trim(), new Date(began).toISOString())))) return;
    onClose();
    const back = () =>
      void put(meeting.title, meeting.starts_at).catch((problem: unknown) => notice({ text: sentenceOf(problem), severity: "error" }));
    notice({ text: "Title and time are changed.", severity: "info", action: { label: "Take back", run: back } });
  };
  const tooLong = title.length > 200;
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="details-title">
      <form onSubmit={(event) => void keep(event)}>
        <DialogTitle id="details-title">Title and time</DialogTitle>
        <DialogContent>
          <Box sx={{ display: "grid", gap: 2, pt: 1 }}>
            <TextField
              label="Title"
              value={title}
              onChange={(e) => setTitle(e.target.value)}
              error={tooLong}
              helperText={tooLong ? "A title has at most 200 letters." : "Meetings of one series are found by their title."}
              autoFocus
              required
            />
            <TextField
              label="Began"
              type="datetime-local"
              value={began}
              onChange={(e) => setBegan(e.target.value)}
              helperText="On another day the minutes are written again: “by Friday” is counted from it. What you changed or ticked stays."
              required
              slotProps={{ inputLabel: { shrink: true } }}
            />
            {error && (
              <Alert severity="error" variant="outlined">
                {error}
              </Alert>
            )}
          </Box>
        </DialogContent>
        <DialogActions sx={{ px: 3, pb: 2 }}>
          <Button color="inherit" onClick={onClose}>
            Leave as it was
          </Button>
          <Button type="submit" variant="contained" disabled={busy || tooLong || !title.trim() || !began}>
            Keep
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
