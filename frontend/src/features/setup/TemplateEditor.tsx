import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  MenuItem,
  TextField,
  Typography,
  useMediaQuery,
  useTheme,
} from "@mui/material";
import { useReducer, useState } from "react";

import { sentenceOf, type Schemas } from "../../api/client";
import { useLeaveWarning } from "../../shared/useLeaveWarning";
import { SectionForm } from "./SectionForm";
import { draftOf, listed, templateOf, written, type Template } from "./templateDraft";

interface Props {
  start: Template;
  kinds: Schemas["KindOut"][];
  onKeep: (template: Template) => Promise<void>;
  onClose: () => void;
}

/** Writes a template: its sections, labels for marks, standing agenda and ready questions. */
export function TemplateEditor({ start, kinds, onKeep, onClose }: Props) {
  const narrow = useMediaQuery(useTheme().breakpoints.down("sm"));
  const [draft, step] = useReducer(written, start, draftOf);
  const [first] = useState(draft);
  const [lists, setLists] = useState({
    labels: start.labels.join(", "),
    agenda: start.agenda.join("\n"),
    questions: start.questions.join("\n"),
  });
  const [error, setError] = useState("");
  const [busy, setBusy] = useState(false);
  const changed = draft !== first;
  useLeaveWarning(changed);
  const keep = async () => {
    setBusy(true);
    try {
      await onKeep({
        ...templateOf(draft),
        labels: listed(lists.labels, /,/),
        agenda: listed(lists.agenda, /\n/),
        questions: listed(lists.questions, /\n/),
      });
    } catch (problem) {
      setError(sentenceOf(problem));
      setBusy(false);
    }
  };
  return (
    <Dialog
      open
      fullWidth
      maxWidth="md"
      fullScreen={narrow}
      onClose={(_, reason) => {
        if (reason !== "backdropClick" || !changed) onClose();
      }}
      aria-labelledby="template-title"
    >
      <DialogTitle id="template-title">A template of your own</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 2, pt: "8px !important", alignContent: "start" }}>
        <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { sm: "2fr 1fr" } }}>
          <TextField
            label="Name"
            required
            value={draft.name}
            onChange={(e) => step({ type: "set", part: { name: e.target.value } })}
            slotProps={{ htmlInput: { maxLength: 200 } }}
          />
          <TextField
            label="Length to begin with"
            select
            value={draft.length}
            onChange={(e) => step({ type: "set", part: { length: e.target.value as Template["length"] } })}
          >
            {["short", "standard", "full"].map((length) => (
              <MenuItem key={length} value={length}>
                {length}
              </MenuItem>
            ))}
          </TextField>
        </Box>
        <Typography variant="h3" component="h2">
          Sections, in their order
        </Typography>
        {draft.sections.map((section, at) => (
          <SectionForm
            key={section.id}
            section={section}
            kinds={kinds}
            number={at + 1}
            last={at === draft.sections.length - 1}
            onChange={(part) => step({ type: "section", at, part })}
            onMove={(by) => step({ type: "move", at, by })}
            onRemove={() => step({ type: "remove", at })}
          />
        ))}
        <Box>
          <Button size="small" onClick={() => step({ type: "add" })}>
            Add a section
          </Button>
        </Box>
        <TextField
          label="Labels for marks"
          value={lists.labels}
          onChange={(e) => setLists({ ...lists, labels: e.target.value })}
          helperText="With commas between them; each gets a digit key in the Room, nine at most."
        />
        <TextField
          label="Standing agenda"
          multiline
          minRows={2}
          value={lists.agenda}
          onChange={(e) => setLists({ ...lists, agenda: e.target.value })}
          helperText="One item a line. A meeting recorded by this template begins with it."
        />
        <TextField
          label="Ready questions"
          multiline
          minRows={2}
          value={lists.questions}
          onChange={(e) => setLists({ ...lists, questions: e.target.value })}
          helperText="One a line. They are offered when you ask the record."
        />
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2, flexWrap: "wrap" }}>
        {error && (
          <Alert severity="error" variant="outlined" sx={{ flex: "1 1 100%", mb: 1 }}>
            {error}
          </Alert>
        )}
        <Button color="inherit" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="contained" disabled={busy || !draft.name.trim()} onClick={() => void keep()}>
          Keep the template
        </Button>
      </DialogActions>
    </Dialog>
  );
}
