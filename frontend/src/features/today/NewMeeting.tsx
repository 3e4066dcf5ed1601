import { Alert, Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";

import { bodyAs, client, sentenceOf } from "../../api/client";
import { PeopleField } from "../../shared/PeopleField";
import { TemplateField } from "../../shared/TemplateField";
import { readAgenda } from "../room/agenda";
import { AgendaField } from "../room/AgendaField";

/** Asks what meeting is about to be recorded, then opens its room. */
export function NewMeeting({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [title, setTitle] = useState("");
  const [template, setTemplate] = useState("general meeting");
  const [there, setThere] = useState<string[]>([]);
  const [typed, setTyped] = useState("");
  const [agenda, setAgenda] = useState("");
  const [error, setError] = useState("");
  const [busy, setBusy] = useState(false);
  const open = async () => {
    setBusy(true);
    try {
      const names = [...there, ...(typed.trim() ? [typed.trim()] : [])];
      const time_zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
      const room = await bodyAs(
        "RoomOut",
        client.POST("/api/rooms", {
          body: { title, kind: "general meeting", template, time_zone, people: names, agenda: readAgenda(agenda) },
        }),
      );
      void queries.invalidateQueries({ queryKey: ["meetings"] });
      void queries.invalidateQueries({ queryKey: ["people"] });
      void navigate(`/meetings/${room.board.meeting.id}/room`);
    } catch (problem) {
      setError(sentenceOf(problem));
      setBusy(false);
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="new-meeting-title">
      <DialogTitle id="new-meeting-title">Record a meeting</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 2, pt: "8px !important" }}>
        <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "2fr 1fr" }, gap: 2 }}>
          <TextField
            label="Title"
            value={title}
            onChange={(e) => setTitle(e.target.value)}
            required
            autoFocus
            slotProps={{ htmlInput: { maxLength: 200 } }}
          />
          <TemplateField value={template} onChoose={setTemplate} />
        </Box>
        <PeopleField label="Who is there besides you" value={there} onChange={setThere} typed={typed} onType={setTyped} />
        <AgendaField text={agenda} onText={setAgenda} />
        {error && (
          <Alert severity="error" variant="outlined">
            {error}
          </Alert>
        )}
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button color="inherit" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="contained" disabled={busy || !title.trim()} onClick={() => void open()}>
          Open the room
        </Button>
      </DialogActions>
    </Dialog>
  );
}
