import { Alert, Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField, Typography } from "@mui/material";
import { useState } from "react";

import { clock } from "./times";
import { readClock } from "./readClock";

interface Props {
  open: boolean;
  /** The last second that can be removed. */
  seconds: number;
  /** Where the stretch begins at first; the last minute where nothing is given. */
  from?: number;
  /** What was said between two moments, to see what goes. */
  words: (start: number, end: number) => string;
  onClose: () => void;
  onCut: (start: number, end: number) => Promise<boolean>;
}

/** Removing a stretch from sound and text for good; a mark that something was removed stays. */
export function CutOut({ open, seconds, from, words, onClose, onCut }: Props) {
  return (
    <Dialog open={open} onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="cut-title">
      <DialogTitle id="cut-title">Remove a stretch for good</DialogTitle>
      {open && <Form seconds={seconds} {...(from === undefined ? {} : { from })} words={words} onClose={onClose} onCut={onCut} />}
    </Dialog>
  );
}

function Form({ seconds, from: first, words, onClose, onCut }: Omit<Props, "open">) {
  const [until] = useState(seconds);
  const [from, setFrom] = useState(clock(first ?? Math.max(0, until - 60)));
  const [to, setTo] = useState(clock(first === undefined ? until : Math.min(until, first + 30)));
  const [start, end] = [readClock(from), readClock(to)];
  const fits = start !== null && end !== null && start < end;
  const said = fits ? words(start, end) : "";
  const cut = async () => {
    if (fits && (await onCut(start, Math.min(end + 0.999, until)))) onClose();
  };
  return (
    <>
      <DialogContent sx={{ display: "grid", gap: 2 }}>
        <Typography>
          Sound, words and pictures of this stretch are deleted and cannot be brought back. The record shows that something was removed,
          when and by whom.
        </Typography>
        <Box sx={{ display: "flex", gap: 1.5, pt: 0.5, flexWrap: "wrap" }}>
          <TextField
            size="small"
            label="From"
            sx={{ width: 100 }}
            value={from}
            onChange={(e) => setFrom(e.target.value)}
            error={start === null}
            autoFocus
          />
          <TextField size="small" label="To" sx={{ width: 100 }} value={to} onChange={(e) => setTo(e.target.value)} error={end === null} />
          {first === undefined &&
            [30, 60, 300].map((back) => (
              <Button
                key={back}
                size="small"
                color="inherit"
                sx={{ whiteSpace: "nowrap" }}
                onClick={() => {
                  setFrom(clock(Math.max(0, until - back)));
                  setTo(clock(until));
                }}
              >
                last {back < 60 ? `${back} s` : `${back / 60} min`}
              </Button>
            ))}
        </Box>
        {!fits && (
          <Alert severity="warning" variant="outlined">
            Write both times as minutes:seconds, the first before the second.
          </Alert>
        )}
        {said && (
          <Typography variant="body2" color="textSecondary" sx={{ maxHeight: 140, overflow: "auto" }}>
            {said}
          </Typography>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="contained" color="error" disabled={!fits} onClick={() => void cut()}>
          Remove for good
        </Button>
      </DialogActions>
    </>
  );
}
