import { Box, Button, Checkbox, FormControlLabel, TextField, Typography } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import { body, client } from "../../api/client";
import { opener, usePeople } from "../../shared/people";
import { hour } from "../../shared/times";
import { SERIF } from "../../theme/theme";
import { useSession } from "../entry/useSession";
import type { Board } from "./types";
import type { RoomActions } from "./useRoom";

/** The announcement to read out, and who has agreed: announced to all, or ticked one by one. */
export function Consent({ board, actions }: { board: Board; actions: RoomActions }) {
  const [name, setName] = useState("");
  const { session } = useSession();
  const people = usePeople();
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim()) void actions.addPerson(name.trim()).then((done) => done && setName(""));
  };
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <Typography variant="h2">Who is there and agrees</Typography>
      <Announcement
        key={board.announcement}
        text={board.announcement}
        needed={board.consent_needed}
        administrator={session.administrator}
      />
      <FormControlLabel
        control={
          <Checkbox
            checked={board.announced_at !== null}
            disabled={board.announced_at !== null && board.state !== "ready"}
            onChange={(_, on) => void actions.announce(on)}
          />
        }
        label={
          board.announced_at
            ? `Announced to all at ${hour(board.announced_at, board.meeting.time_zone)}${board.announced_by ? ` by ${board.announced_by}` : ""}`
            : "Announced to all"
        }
      />
      <Typography variant="h3" component="h3" sx={{ color: "text.secondary" }}>
        Or tick each one who agrees
      </Typography>
      <Box role="group" aria-label="People who agree" sx={{ display: "grid", gridTemplateColumns: { sm: "1fr 1fr" } }}>
        {board.there.map((person) => (
          <FormControlLabel
            key={person.id}
            sx={{ minWidth: 0 }}
            control={
              <Checkbox
                size="small"
                checked={person.agreed_at !== null}
                disabled={!board.runner && person.id !== session.person_id}
                onChange={(_, on) => void actions.tickConsent(person.id, on)}
              />
            }
            label={
              <>
                {person.name}
                {person.agreed_at && (
                  <Box component="span" sx={{ color: "text.secondary", ml: 1, fontSize: "0.8rem" }}>
                    {hour(person.agreed_at, board.meeting.time_zone)}
                  </Box>
                )}
              </>
            }
          />
        ))}
      </Box>
      {board.runner && (
        <Box component="form" onSubmit={add} sx={{ display: "flex", gap: 1 }}>
          <TextField
            size="small"
            label="Somebody else has come in"
            value={name}
            onChange={(e) => setName(e.target.value)}
            sx={{ flex: 1 }}
            helperText={opener(name, people.data?.people ?? [])}
          />
          <Button type="submit" disabled={!name.trim()}>
            Add
          </Button>
        </Box>
      )}
      {!board.consent_needed && (
        <Typography variant="body2" color="textSecondary">
          This workspace lets a recording begin without either.
        </Typography>
      )}
    </Box>
  );
}

function Announcement({ text, needed, administrator }: { text: string; needed: boolean; administrator: boolean }) {
  const queries = useQueryClient();
  const [draft, setDraft] = useState<string | null>(null);
  const [shown, setShown] = useState(text);
  const [free, setFree] = useState(!needed);
  const save = async () => {
    if (!draft?.trim()) return;
    const saved = await body(client.PUT("/api/workspace", { body: { announcement: draft.trim(), consent_needed: !free } }));
    setShown(saved.announcement);
    setDraft(null);
    void queries.invalidateQueries({ queryKey: ["room"] });
  };
  if (draft !== null) {
    return (
      <Box>
        <TextField
          multiline
          fullWidth
          size="small"
          value={draft}
          onChange={(e) => setDraft(e.target.value)}
          slotProps={{ htmlInput: { "aria-label": "Announcement", maxLength: 2000 } }}
        />
        <FormControlLabel
          control={<Checkbox size="small" checked={free} onChange={(_, on) => setFree(on)} />}
          label="Recording may begin without announcement or ticks"
        />
        <Box sx={{ display: "flex", gap: 1, mt: 0.5 }}>
          <Button size="small" variant="contained" disabled={!draft.trim()} onClick={() => void save()}>
            Keep for all meetings
          </Button>
          <Button size="small" color="inherit" onClick={() => setDraft(null)}>
            Leave as it was
          </Button>
        </Box>
      </Box>
    );
  }
  return (
    <Box sx={{ borderLeft: 4, borderColor: "primary.main", pl: 1.5 }}>
      <Typography variant="body2" color="textSecondary">
        To read out:
      </Typography>
      <Typography sx={{ fontFamily: SERIF }}>{shown}</Typography>
      {administrator && (
        <Button size="small" sx={{ ml: -0.6 }} onClick={() => setDraft(shown)}>
          Change the wording
        </Button>
      )}
    </Box>
  );
}
