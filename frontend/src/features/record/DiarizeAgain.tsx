import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField, Typography } from "@mui/material";
import { useState, type FormEvent } from "react";

/** Asks how many people spoke, and has the voices told apart again. */
export function DiarizeAgain({
  voices,
  onDiarize,
  onClose,
}: {
  voices: number;
  onDiarize: (people: number | null) => Promise<boolean>;
  onClose: () => void;
}) {
  const [people, setPeople] = useState<number | null>(voices);
  const [busy, setBusy] = useState(false);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    if (await onDiarize(people)) onClose();
    else setBusy(false);
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="voices-title" component="form" onSubmit={(e) => void send(e)}>
      <DialogTitle id="voices-title">Tell the voices apart again</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1.5, pt: "8px !important" }}>
        <Typography>
          Now there {voices === 1 ? "is 1 voice" : `are ${voices} voices`}. Names stay with the voices that speak at the same times,
          corrected words stay, and the minutes follow. It can be taken back.
        </Typography>
        <TextField
          label="How many people spoke"
          type="number"
          autoFocus
          value={people ?? ""}
          helperText="Leave empty if you do not know."
          onChange={(e) => setPeople(e.target.value ? Math.min(20, Math.max(1, Number(e.target.value))) : null)}
          slotProps={{ htmlInput: { min: 1, max: 20 } }}
        />
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Leave it
        </Button>
        <Button type="submit" variant="contained" disabled={busy}>
          Tell them apart
        </Button>
      </DialogActions>
    </Dialog>
  );
}
