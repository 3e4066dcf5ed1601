import {
  Alert,
  Button,
  Checkbox,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  TextField,
  Typography,
} from "@mui/material";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import { bodyAs, client, sentenceOf } from "../../api/client";

interface Props {
  meetingId: string;
  onClose: () => void;
  onReplaced: () => void;
}

/** Other words in place of some, in this meeting or all of its series, with the count before. */
export function Replace({ meetingId, onClose, onReplaced }: Props) {
  const [wanted, setWanted] = useState("");
  const [instead, setInstead] = useState("");
  const [exactly, setExactly] = useState(false);
  const [series, setSeries] = useState(false);
  const put = (dry: boolean) =>
    bodyAs(
      "ReplacedOut",
      client.POST("/api/meetings/{meeting_id}/replace", {
        params: { path: { meeting_id: meetingId } },
        body: { wanted: wanted.trim(), instead: instead.trim(), exactly, series, dry },
      }),
    );
  const found = useQuery({
    queryKey: ["replace", meetingId, wanted.trim(), exactly, series],
    queryFn: () => put(true),
    enabled: wanted.trim().length > 0,
    staleTime: 0,
  });
  const replaced = useMutation({ mutationFn: () => put(false), onSuccess: onReplaced });
  const count = found.data?.count ?? 0;
  const where = series && found.data ? ` in ${found.data.meetings === 1 ? "1 meeting" : `${found.data.meetings} meetings`}` : "";
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (count) replaced.mutate();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="replace-title" component="form" onSubmit={send}>
      <DialogTitle id="replace-title">Find and replace</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1.5, pt: "8px !important" }}>
        <TextField
          size="small"
          autoFocus
          label="What was written"
          value={wanted}
          onChange={(e) => setWanted(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <TextField
          size="small"
          label="What it should be"
          value={instead}
          onChange={(e) => setInstead(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <FormControlLabel
          control={<Checkbox size="small" checked={exactly} onChange={(_, on) => setExactly(on)} />}
          label="Only with the same capital letters"
        />
        <FormControlLabel
          control={<Checkbox size="small" checked={series} onChange={(_, on) => setSeries(on)} />}
          label="In all meetings of this series"
        />
        <Typography role="status" color="textSecondary" sx={{ minHeight: 24 }}>
          {!wanted.trim()
            ? ""
            : found.isPending
              ? "Counting …"
              : count
                ? `Stands ${count === 1 ? "once" : `${count} times`}${where}. It is replaced in what was said and in the minutes, and can be taken back.`
                : "Stands nowhere as words of their own."}
        </Typography>
        {replaced.data && (
          <Alert severity="success" variant="outlined">
            Replaced {replaced.data.count === 1 ? "once" : `${replaced.data.count} times`}.
          </Alert>
        )}
        {(replaced.error ?? found.error) && (
          <Alert severity="error" variant="outlined">
            {sentenceOf(replaced.error ?? found.error)}
          </Alert>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Close
        </Button>
        <Button type="submit" variant="contained" disabled={!count || replaced.isPending}>
          Replace
        </Button>
      </DialogActions>
    </Dialog>
  );
}
