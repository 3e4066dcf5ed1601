import { TextField } from "@mui/material";

import { readAgenda } from "./agenda";
import { lasting } from "../../shared/times";

/** An agenda as a person writes it: an item a line, with its minutes at the end. */
export function AgendaField({ text, onText }: { text: string; onText: (text: string) => void }) {
  const items = readAgenda(text);
  const planned = items.reduce((sum, item) => sum + (item.planned ?? 0), 0);
  const help = items.length
    ? `${items.length} ${items.length === 1 ? "item" : "items"}${planned ? `, ${lasting(planned)} planned` : ""}`
    : "One item a line; minutes at the end if you like: “Slipway 15”.";
  return (
    <TextField
      label="Agenda"
      multiline
      minRows={3}
      maxRows={10}
      fullWidth
      value={text}
      onChange={(e) => onText(e.target.value)}
      helperText={help}
      placeholder={"Winter timetable 10\nSlipway 15"}
      slotProps={{ inputLabel: { shrink: true } }}
    />
  );
}
