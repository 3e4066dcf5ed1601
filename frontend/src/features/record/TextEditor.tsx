import { Alert, Box, Button, TextField, Typography } from "@mui/material";
import { useState } from "react";

import type { Kept } from "./useRecord";

interface Props {
  label: string;
  text: string;
  /** Keeps the words; `was` is what they were written in place of. */
  onKeep: (text: string, was: string) => Promise<Kept>;
  onEnd: () => void;
}

/** A text in place: Enter keeps it, Esc leaves it as it was. It stays open when it could not be kept, and where somebody
 * else changed the same text meanwhile it shows theirs and asks which words stay. */
export function TextEditor({ label, text, onKeep, onEnd }: Props) {
  const [draft, setDraft] = useState(text);
  const [was, setWas] = useState(text);
  const [told, setTold] = useState("");
  const save = async () => {
    if (draft.trim() === was) return onEnd();
    const kept = await onKeep(draft, was);
    if (kept === true) onEnd();
    else if (kept) {
      setWas(kept.theirs);
      setTold(kept.told);
    }
  };
  return (
    <Box onClick={(e) => e.stopPropagation()} sx={{ py: 0.5 }}>
      {told && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1 }}>
          {told}
          <Typography variant="body2" sx={{ mt: 0.5, overflowWrap: "anywhere" }}>{was}</Typography>
        </Alert>
      )}
      <TextField
        multiline fullWidth autoFocus size="small" value={draft} onChange={(e) => setDraft(e.target.value)} slotProps={{ htmlInput: { "aria-label": label } }}
        onKeyDown={(e) => {
          if (e.key === "Escape") onEnd();
          if (e.key === "Enter" && !e.shiftKey) {
            e.preventDefault();
            void save();
          }
        }}
      />
      <Box sx={{ display: "flex", gap: 1, mt: 0.5 }}>
        <Button size="small" variant="contained" onClick={() => void save()} disabled={!draft.trim()}>{told ? "Keep mine" : "Keep"}</Button>
        <Button size="small" color="inherit" onClick={onEnd}>{told ? "Take theirs" : "Leave as it was"}</Button>
      </Box>
    </Box>
  );
}
