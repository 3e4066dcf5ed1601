import {
  Alert,
  Autocomplete,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  MenuItem,
  TextField,
  Typography,
} from "@mui/material";
import { useState, type FormEvent } from "react";

import { clock } from "../../shared/times";
import { useLeaving } from "../../shared/useLeaving";
import { KINDS, PROGRESS, type LineDraft } from "./lineDraft";

interface Props {
  title: string;
  start: LineDraft;
  /** Titles of the sections, in their order. */
  sections: readonly string[];
  /** Names to choose owners from. */
  people: readonly string[];
  /** The section for a line of a kind that stands in a section now. */
  placeOf: (kind: LineDraft["kind"], place: number) => number;
  /** Keeps the line; the sentence where it could not be. */
  onKeep: (draft: LineDraft) => Promise<string>;
  onClose: () => void;
}

/** A line in all its parts: what it says, what it is, where it stands, who does it by when, what it rests on. */
export function LineForm({ title, start, sections, people, placeOf, onKeep, onClose }: Props) {
  const [draft, setDraft] = useState(start);
  const [typed, setTyped] = useState("");
  const [error, setError] = useState("");
  const [busy, setBusy] = useState(false);
  const set = (part: Partial<LineDraft>) => setDraft((old) => ({ ...old, ...part }));
  const owner = [...draft.owner, ...(typed.trim() ? [typed.trim()] : [])];
  const { leave, question } = useLeaving(JSON.stringify({ ...draft, owner }) !== JSON.stringify(start), onClose);
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    const problem = await onKeep({ ...draft, owner });
    setBusy(false);
    setError(problem);
    if (!problem) onClose();
  };
  return (
    <Dialog open onClose={leave} fullWidth maxWidth="sm" aria-labelledby="line-title">
      <form onSubmit={(event) => void keep(event)}>
        <DialogTitle id="line-title">{title}</DialogTitle>
        <DialogContent>
          <Box sx={{ display: "grid", gap: 2, pt: 1 }}>
            <TextField
              label="What it says"
              multiline
              autoFocus
              required
              value={draft.text}
              onChange={(e) => set({ text: e.target.value })}
              slotProps={{ htmlInput: { maxLength: 4000 } }}
            />
            <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { sm: "1fr 1fr" } }}>
              <TextField
                select
                size="small"
                label="What it is"
                value={draft.kind}
                onChange={(e) => {
                  const kind = e.target.value as LineDraft["kind"];
                  set({ kind, place: placeOf(kind, draft.place) });
                }}
              >
                {KINDS.map(([kind, label]) => (
                  <MenuItem key={kind} value={kind}>
                    {label}
                  </MenuItem>
                ))}
              </TextField>
              <TextField select size="small" label="Section" value={draft.place} onChange={(e) => set({ place: Number(e.target.value) })}>
                {sections.map((section, place) => (
                  <MenuItem key={place} value={place}>
                    {section}
                  </MenuItem>
                ))}
              </TextField>
            </Box>
            {draft.kind === "action" && (
              <>
                <Autocomplete
                  multiple
                  freeSolo
                  size="small"
                  options={people.filter((name) => !draft.owner.includes(name))}
                  value={draft.owner}
                  onChange={(_, names) => set({ owner: names })}
                  inputValue={typed}
                  onInputChange={(_, text) => setTyped(text)}
                  renderInput={(params) => (
                    <TextField {...params} label="Who does it" helperText={owner.length ? undefined : "Nobody took this on."} />
                  )}
                />
                <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { sm: "1fr 1fr 1fr" } }}>
                  <TextField
                    size="small"
                    label="By when, in words"
                    placeholder="by Friday"
                    value={draft.said}
                    onChange={(e) => set({ said: e.target.value })}
                    slotProps={{ htmlInput: { maxLength: 120 }, inputLabel: { shrink: true } }}
                  />
                  <TextField
                    size="small"
                    type="date"
                    label="or the day"
                    value={draft.day}
                    onChange={(e) => set({ day: e.target.value })}
                    slotProps={{ inputLabel: { shrink: true } }}
                  />
                  <TextField
                    select
                    size="small"
                    label="How far it is"
                    value={draft.progress}
                    onChange={(e) => set({ progress: e.target.value as LineDraft["progress"] })}
                  >
                    {PROGRESS.map(([progress, label]) => (
                      <MenuItem key={progress} value={progress}>
                        {label}
                      </MenuItem>
                    ))}
                  </TextField>
                </Box>
              </>
            )}
            <TextField
              size="small"
              multiline
              label="Remark"
              value={draft.remark}
              onChange={(e) => set({ remark: e.target.value })}
              slotProps={{ htmlInput: { maxLength: 4000 } }}
            />
            <Evidence draft={draft} onChange={(evidence) => set({ evidence })} />
            {error && (
              <Alert severity="error" variant="outlined">
                {error}
              </Alert>
            )}
          </Box>
        </DialogContent>
        <DialogActions sx={{ px: 3, pb: 2 }}>
          <Button color="inherit" onClick={leave}>
            Leave it
          </Button>
          <Button type="submit" variant="contained" disabled={busy || !draft.text.trim()}>
            Keep
          </Button>
        </DialogActions>
      </form>
      {question}
    </Dialog>
  );
}

/** The words that a line rests on, each of which can be taken off. */
function Evidence({ draft, onChange }: { draft: LineDraft; onChange: (evidence: LineDraft["evidence"]) => void }) {
  return (
    <Box role="group" aria-label="What it rests on">
      <Typography variant="body2" color="textSecondary">
        {draft.evidence.length
          ? "What it rests on. For other words, choose them in the transcript and press “To the minutes”."
          : "It rests on no words: the minutes will say that it was added by hand. To point at words, choose them in the transcript and press “To the minutes”."}
      </Typography>
      {draft.evidence.map((each, at) => (
        <Box key={`${each.turn}:${each.first}`} sx={{ display: "flex", gap: 1, alignItems: "baseline", mt: 0.5 }}>
          <Typography variant="body2" sx={{ flex: 1, overflowWrap: "anywhere" }}>
            {clock(each.start)} “{each.quote}”
          </Typography>
          <Button
            size="small"
            color="inherit"
            aria-label={`Take off ${clock(each.start)}: ${each.quote}`}
            onClick={() => onChange(draft.evidence.filter((_, i) => i !== at))}
          >
            Take off
          </Button>
        </Box>
      ))}
    </Box>
  );
}
