import { Button, Dialog, DialogActions, DialogContent, DialogContentText } from "@mui/material";
import { useState, type ReactNode } from "react";

/** Leaving what holds changes asks first: `leave` is what closes it, `question` the dialog that may come before. */
export function useLeaving(changed: boolean, onLeave: () => void): { leave: () => void; question: ReactNode } {
  const [asking, setAsking] = useState(false);
  const leave = () => (changed ? setAsking(true) : onLeave());
  const question = (
    <Dialog open={asking} onClose={() => setAsking(false)} aria-label="Leave the changes?">
      <DialogContent>
        <DialogContentText>What you have written here is not kept yet.</DialogContentText>
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onLeave}>
          Leave without it
        </Button>
        <Button variant="contained" autoFocus onClick={() => setAsking(false)}>
          Go on writing
        </Button>
      </DialogActions>
    </Dialog>
  );
  return { leave, question };
}
