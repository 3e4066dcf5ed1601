import { Box, Button, TextField } from "@mui/material";
import { useState } from "react";

/** A text in place: Enter keeps it, Esc leaves it as it was; it stays open when it could not be kept. */
export function TextEditor({ label, text, onKeep, onEnd }: { label: string; text: string; onKeep: (text: string) => Promise<boolean>; onEnd: () => void }) {
  const [draft, setDraft] = useState(text);
  const save = async () => {
    if (draft.trim() === text || (await onKeep(draft))) onEnd();
  };
  return (
    <Box onClick={(e) => e.stopPropagation()} sx={{ py: 0.5 }}>
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
        <Button size="small" variant="contained" onClick={() => void save()} disabled={!draft.trim()}>Keep</Button>
        <Button size="small" color="inherit" onClick={onEnd}>Leave as it was</Button>
      </Box>
    </Box>
  );
}
