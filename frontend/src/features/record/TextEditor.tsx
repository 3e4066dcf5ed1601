import { Alert, Box, Button, TextField, Typography } from "@mui/material";
import { useEffect, useRef, useState } from "react";

import type { Kept } from "./useRecord";

interface Props {
  label: string;
  text: string;
  /** Keeps the words; `was` is what they were written in place of. */
  onKeep: (text: string, was: string) => Promise<Kept>;
  onEnd: () => void;
  /** Makes two of the text, where that can be done. */
  onSplit?: (first: string, second: string) => Promise<Kept>;
}

/** A text in place: Enter keeps it, Esc leaves it as it was. While it is being kept it takes no keys, so that taking back
 * at once takes back the change. It stays open when it could not be kept, and where somebody else changed the same text
 * meanwhile it shows theirs and asks which words stay. */
export function TextEditor({ label, text, onKeep, onEnd, onSplit }: Props) {
  const [draft, setDraft] = useState(text);
  const [was, setWas] = useState(text);
  const [message, setMessage] = useState("");
  const [keeping, setKeeping] = useState(false);
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    if (!keeping) field.current?.focus();
  }, [keeping]);
  const [at, setAt] = useState(0);
  const parts: [string, string] = [draft.slice(0, at).trim(), draft.slice(at).trim()];
  const save = async () => {
    if (draft.trim() === was) return onEnd();
    await hold(() => onKeep(draft, was));
  };
  const hold = async (keep: () => Promise<Kept>) => {
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur(); // what cannot be used must not hold the keys
    setKeeping(true);
    const kept = await keep();
    if (kept === true) return onEnd();
    setKeeping(false);
    if (kept) {
      setWas(kept.theirs);
      setMessage(kept.message);
    }
  };
  return (
    <Box onClick={(e) => e.stopPropagation()} sx={{ py: 0.5 }}>
      {message && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1 }}>
          {message}
          <Typography variant="body2" sx={{ mt: 0.5, overflowWrap: "anywhere" }}>
            {was}
          </Typography>
        </Alert>
      )}
      <TextField
        multiline
        fullWidth
        disabled={keeping}
        inputRef={field}
        size="small"
        value={draft}
        onChange={(e) => setDraft(e.target.value)}
        onSelect={(e) => setAt((e.target as HTMLTextAreaElement).selectionStart)}
        slotProps={{ htmlInput: { "aria-label": label } }}
        onKeyDown={(e) => {
          if (e.key === "Escape") onEnd();
          if (e.key === "Enter" && !e.shiftKey) {
            e.preventDefault();
            void save();
          }
        }}
      />
      <Box sx={{ display: "flex", gap: 1, mt: 0.5 }}>
        <Button size="small" variant="contained" onClick={() => void save()} disabled={keeping || !draft.trim()}>
          {message ? "Keep mine" : "Keep"}
        </Button>
        <Button size="small" color="inherit" disabled={keeping} onClick={onEnd}>
          {message ? "Take theirs" : "Leave as it was"}
        </Button>
        {onSplit && (
          <Button
            size="small"
            color="inherit"
            disabled={keeping || !parts[0] || !parts[1]}
            onClick={() => void hold(() => onSplit(...parts))}
            title="Two lines: up to the cursor, and from there on"
          >
            Split at the cursor
          </Button>
        )}
      </Box>
    </Box>
  );
}
