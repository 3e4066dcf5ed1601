import { localMoment } from "../../shared/times";
import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  LinearProgress,
  Link,
  MenuItem,
  TextField,
  Typography,
} from "@mui/material";
import { useState } from "react";
import { Link as RouterLink } from "react-router";

import { sentenceOf } from "../../api/client";
import { size } from "../../shared/size";
import { PeopleField } from "../../shared/PeopleField";
import { TemplateField } from "../../shared/TemplateField";
import { leading, ROLE_NAMES, whyNot, type Role } from "./roles";
import type { Chosen, Details } from "./useBringIn";

function titleOf(name: string): string {
  const plain = name
    .replace(/\.[^.]+$/, "")
    .replace(/[_-]+/g, " ")
    .trim();
  return (plain.charAt(0).toUpperCase() + plain.slice(1)).slice(0, 200);
}

interface Props {
  chosen: readonly Chosen[];
  onRole: (file: File, role: Role) => void;
  onLeaveOut: (file: File) => void;
  onSubmit: (details: Details) => Promise<string>;
  onClose: () => void;
}

/** Asks what a recording is: title, day, kind, who was there; of several files, what each of them is. */
export function BringIn({ chosen, onRole, onLeaveOut, onSubmit, onClose }: Props) {
  const roles = chosen.map((each) => each.role);
  const first = chosen[leading(roles)]?.file ?? chosen[0]!.file;
  const isBundle = roles[0] === "bundle";
  const wrong = whyNot(roles);
  const [details, setDetails] = useState<Details>({
    title: titleOf(first.name),
    template: "general meeting",
    startsAt: localMoment(new Date(first.lastModified)),
    people: [],
    voices: null,
  });
  const [typed, setTyped] = useState("");
  const [error, setError] = useState("");
  const [busy, setBusy] = useState(false);
  const set = (part: Partial<Details>) => setDetails((old) => ({ ...old, ...part }));
  const known = chosen.map((each) => each.upload).find((upload) => upload?.same_as);
  const ready = chosen.every((each) => each.upload);
  const send = async () => {
    setBusy(true);
    try {
      await onSubmit({ ...details, people: [...details.people, ...(typed.trim() ? [typed.trim()] : [])] });
    } catch (problem) {
      setError(sentenceOf(problem));
      setBusy(false);
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="bring-in-title">
      <DialogTitle id="bring-in-title">{isBundle ? "Bring in a whole meeting" : "Bring in a recording"}</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 2, pt: "8px !important" }}>
        {chosen.map((each) => (
          <Box key={each.file.name + each.file.size}>
            <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
              <Typography color="textSecondary" noWrap title={each.file.name} sx={{ flex: 1, minWidth: 0 }}>
                {each.file.name} · {size(each.file.size)}
              </Typography>
              {chosen.length > 1 && (
                <>
                  <TextField
                    select
                    size="small"
                    value={each.role}
                    onChange={(e) => onRole(each.file, e.target.value as Role)}
                    slotProps={{ htmlInput: { "aria-label": `What ${each.file.name} is` } }}
                    sx={{ width: 132 }}
                  >
                    {(["recording", "transcript", "chat"] as const).map((role) => (
                      <MenuItem key={role} value={role}>
                        {ROLE_NAMES[role]}
                      </MenuItem>
                    ))}
                    {each.role === "bundle" && <MenuItem value="bundle">{ROLE_NAMES.bundle}</MenuItem>}
                  </TextField>
                  <Button size="small" color="inherit" aria-label={`Leave out ${each.file.name}`} onClick={() => onLeaveOut(each.file)}>
                    Leave out
                  </Button>
                </>
              )}
            </Box>
            {!each.upload && !each.error && (
              <LinearProgress variant="determinate" value={each.read * 100} aria-label={`Reading ${each.file.name}`} />
            )}
            {each.error && (
              <Alert severity="error" variant="outlined">
                {each.error}
              </Alert>
            )}
          </Box>
        ))}
        {wrong && (
          <Alert severity="warning" variant="outlined">
            {wrong}
          </Alert>
        )}
        {roles.length > 1 && !wrong && roles.includes("recording") && roles.includes("transcript") && (
          <Typography variant="body2" color="textSecondary">
            The transcript’s words are taken; the recording is heard beside them
            {roles.includes("chat") ? ", and the chat stands on the spine" : ""}.
          </Typography>
        )}
        {known && (
          <Alert severity="info" variant="outlined">
            This very file is here already:{" "}
            <Link component={RouterLink} to={`/meetings/${known.same_as}`}>
              {known.same_title}
            </Link>
            . Open it, or bring the file in again below.
          </Alert>
        )}
        {isBundle ? (
          <Typography>
            A whole meeting, taken from a Nuntius: its title, day, people, transcript, minutes and sound come with it.
          </Typography>
        ) : (
          <>
            <TextField
              label="Title"
              value={details.title}
              onChange={(e) => set({ title: e.target.value })}
              required
              autoFocus
              error={details.title.length > 200}
              helperText={details.title.length > 200 ? "At most 200 characters." : ""}
            />
            <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" }, gap: 2 }}>
              <TextField
                label="Began"
                type="datetime-local"
                value={details.startsAt}
                onChange={(e) => set({ startsAt: e.target.value })}
                required
                slotProps={{ inputLabel: { shrink: true } }}
              />
              <TemplateField value={details.template} onChoose={(template) => set({ template })} />
            </Box>
            <PeopleField
              label="Who was there"
              value={details.people}
              onChange={(names) => set({ people: names })}
              typed={typed}
              onType={setTyped}
            />
            <TextField
              label="How many voices"
              type="number"
              value={details.voices ?? ""}
              helperText="Leave empty if you do not know; it helps to tell voices apart."
              onChange={(e) => set({ voices: e.target.value ? Math.min(20, Math.max(1, Number(e.target.value))) : null })}
              slotProps={{ htmlInput: { min: 1, max: 20 } }}
            />
          </>
        )}
        {error && (
          <Alert severity="error" variant="outlined">
            {error}
          </Alert>
        )}
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button onClick={onClose}>Leave it</Button>
        <Button
          variant="contained"
          onClick={() => void send()}
          disabled={busy || !ready || !!wrong || !details.title.trim() || details.title.length > 200 || !details.startsAt}
        >
          {known ? "Bring in again" : "Bring in"}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
