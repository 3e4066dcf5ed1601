import { Alert, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField, Typography } from "@mui/material";
import { useState } from "react";

import { lookOf } from "./pasted";

/** Takes a transcript from the clipboard. */
export function Paste({ onText, onClose }: { onText: (file: File) => void; onClose: () => void }) {
  const [text, setText] = useState("");
  const look = lookOf(text);
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="paste-title">
      <DialogTitle id="paste-title">Paste a transcript</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1.5, pt: "8px !important" }}>
        <TextField
          autoFocus
          multiline
          rows={11}
          label="Transcript"
          value={text}
          onChange={(e) => setText(e.target.value)}
          placeholder={"Maren: Good morning.\n[0:12] Tobias: Is the ferry in?"}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <Typography role="status" color="textSecondary" sx={{ minHeight: 24 }}>
          {look.description}
        </Typography>
        {look.wrong && (
          <Alert severity="warning" variant="outlined">
            {look.wrong}
          </Alert>
        )}
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button color="inherit" onClick={onClose}>
          Leave it
        </Button>
        <Button
          variant="contained"
          disabled={!look.usable}
          onClick={() => onText(new File([text], "Pasted transcript.txt", { type: "text/plain" }))}
        >
          Go on
        </Button>
      </DialogActions>
    </Dialog>
  );
}
