import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  MenuItem,
  Switch,
  TextField,
  Typography,
} from "@mui/material";
import { useState, type FormEvent } from "react";

import { useNotice } from "../../app/notices";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { WORTH_KEEPING } from "../../shared/markLabels";
import { readClock } from "../../shared/readClock";
import { clock } from "../../shared/times";
import { useAttempt } from "../../shared/useAttempt";
import { useLeaving } from "../../shared/useLeaving";
import { CHAT } from "./chat";
import type { Mark } from "./types";
import { positionAt, useNotes, type Note } from "./useNotes";

interface Props {
  meetingId: string;
  marks: readonly Mark[];
  duration: number;
  /** Where the sound is, in seconds. */
  at: number;
  onChanged: () => void;
  onShow: (seconds: number) => void;
  onClose: () => void;
}

/** One's own notes and the marks of all, at any moment of a record; the minutes follow what is not private. */
export function Notes({ meetingId, marks, duration, at, onChanged, onShow, onClose }: Props) {
  const { query, keep, drop, mark, unmark } = useNotes(meetingId, onChanged);
  const notes = query.data?.notes ?? [];
  const { busy, error, run } = useAttempt();
  const [moment, setMoment] = useState(clock(at));
  const [text, setText] = useState("");
  const [own, setOwn] = useState(false);
  const [label, setLabel] = useState(WORTH_KEEPING);
  const seconds = readClock(moment);
  const wrong = seconds === null || seconds > duration;
  const { leave, question } = useLeaving(text.trim() !== "", onClose);
  const notice = useNotice();
  const remove = async (what: string, gone: () => Promise<unknown>, back: () => Promise<unknown>) => {
    if (await run(gone))
      notice({ text: `${what} is removed.`, severity: "info", action: { label: "Take back", run: () => void run(back) } });
  };
  const add = async (event: FormEvent) => {
    event.preventDefault();
    if (seconds === null) return;
    const note = { id: crypto.randomUUID(), text: text.trim(), at: seconds, position: positionAt(notes, seconds), private: own };
    if (await run(() => keep(note))) setText("");
  };
  const labels = [...new Set([WORTH_KEEPING, ...(query.data?.labels ?? [])])];
  const shown = marks.filter((each) => each.label !== CHAT);
  return (
    <Dialog open onClose={leave} fullWidth maxWidth="sm" aria-labelledby="notes-title">
      <DialogTitle id="notes-title">Notes and marks</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 2, pt: "8px !important" }}>
        <Box component="form" onSubmit={(e) => void add(e)} sx={{ display: "grid", gap: 1.5 }}>
          <Box sx={{ display: "flex", gap: 1.5, alignItems: "flex-start" }}>
            <TextField
              size="small"
              label="At"
              value={moment}
              onChange={(e) => setMoment(e.target.value)}
              error={wrong}
              helperText={wrong ? `Between 0:00 and ${clock(duration)}` : undefined}
              sx={{ width: 110, flex: "none" }}
            />
            <TextField
              size="small"
              fullWidth
              multiline
              autoFocus
              label="Your note"
              value={text}
              onChange={(e) => setText(e.target.value)}
              slotProps={{ htmlInput: { maxLength: 4000 } }}
            />
          </Box>
          <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", flexWrap: "wrap" }}>
            <FormControlLabel
              control={<Switch size="small" checked={own} onChange={(_, next) => setOwn(next)} />}
              label="For me alone, not for the minutes"
              sx={{ mr: "auto" }}
            />
            <Button type="submit" variant="contained" disabled={busy || wrong || !text.trim()}>
              Keep the note
            </Button>
          </Box>
          <Box sx={{ display: "flex", gap: 1.5, alignItems: "center" }}>
            <TextField select size="small" label="Mark" value={label} onChange={(e) => setLabel(e.target.value)} sx={{ width: 200 }}>
              {labels.map((each) => (
                <MenuItem key={each} value={each}>
                  {each}
                </MenuItem>
              ))}
            </TextField>
            <Button
              disabled={busy || wrong}
              onClick={() => void run(() => mark({ id: crypto.randomUUID(), label, start: seconds ?? 0, end: seconds ?? 0, text: "" }))}
            >
              Mark this moment
            </Button>
          </Box>
        </Box>
        {error && (
          <Alert severity="error" variant="outlined">
            {error}
          </Alert>
        )}
        {query.isPending && <Loading what="your notes" />}
        {query.error && <Failure error={query.error} onRetry={() => void query.refetch()} />}
        {notes.length > 0 && (
          <Box component="section" aria-label="Your notes">
            {notes.map((note) => (
              <OwnNote
                key={note.id}
                note={note}
                busy={busy}
                onKeep={(changed) => run(() => keep(changed))}
                onDrop={() =>
                  void remove(
                    "The note",
                    () => drop(note),
                    () => keep(note),
                  )
                }
                onShow={onShow}
              />
            ))}
          </Box>
        )}
        {shown.length > 0 && (
          <Box component="section" aria-label="Marks">
            {shown.map((each) => (
              <Box key={each.id} sx={{ display: "flex", gap: 1, alignItems: "center", borderBottom: 1, borderColor: "divider", py: 0.5 }}>
                <Button size="small" color="inherit" onClick={() => onShow(each.start)} sx={{ minWidth: 0 }}>
                  {clock(each.start)}
                </Button>
                <Typography variant="body2" sx={{ flex: 1, overflowWrap: "anywhere" }}>
                  {each.label}
                  {each.text && `: ${each.text}`} · {each.by}
                </Typography>
                {each.mine && (
                  <Button
                    size="small"
                    color="inherit"
                    disabled={busy}
                    aria-label={`Remove the mark at ${clock(each.start)}`}
                    onClick={() =>
                      void remove(
                        "The mark",
                        () => unmark(each.id),
                        () => mark(each),
                      )
                    }
                  >
                    Remove
                  </Button>
                )}
              </Box>
            ))}
          </Box>
        )}
        {!query.isPending && !notes.length && !shown.length && (
          <Typography color="textSecondary">
            Nothing is noted or marked here yet. A note becomes part of the minutes, beside what was said of it; a mark says that a moment
            matters.
          </Typography>
        )}
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button color="inherit" onClick={leave}>
          Close
        </Button>
      </DialogActions>
      {question}
    </Dialog>
  );
}

/** A note that stands: its moment, its text to be changed in place, and removing it with a way back. */
function OwnNote({
  note,
  busy,
  onKeep,
  onDrop,
  onShow,
}: {
  note: Note;
  busy: boolean;
  onKeep: (note: Note) => Promise<boolean>;
  onDrop: () => void;
  onShow: (seconds: number) => void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const keep = async () => {
    if (draft?.trim() && draft.trim() !== note.text && !(await onKeep({ ...note, text: draft.trim() }))) return;
    setDraft(null);
  };
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "flex-start", borderBottom: 1, borderColor: "divider", py: 0.5 }}>
      <Button size="small" color="inherit" onClick={() => onShow(note.at)} sx={{ minWidth: 0 }}>
        {clock(note.at)}
      </Button>
      {draft === null ? (
        <Typography variant="body2" sx={{ flex: 1, py: 0.75, overflowWrap: "anywhere", whiteSpace: "pre-line" }}>
          {note.text}
          {note.private && " · for you alone"}
        </Typography>
      ) : (
        <TextField
          size="small"
          fullWidth
          multiline
          autoFocus
          value={draft}
          onChange={(e) => setDraft(e.target.value)}
          slotProps={{ htmlInput: { "aria-label": `Note at ${clock(note.at)}`, maxLength: 4000 } }}
        />
      )}
      {draft === null ? (
        <Button size="small" color="inherit" aria-label={`Change the note at ${clock(note.at)}`} onClick={() => setDraft(note.text)}>
          Change
        </Button>
      ) : (
        <Button size="small" disabled={busy || !draft.trim()} onClick={() => void keep()}>
          Keep
        </Button>
      )}
      <Button size="small" color="inherit" disabled={busy} aria-label={`Remove the note at ${clock(note.at)}`} onClick={onDrop}>
        Remove
      </Button>
    </Box>
  );
}
