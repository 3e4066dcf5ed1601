import { Box, Button, ButtonBase, Dialog, DialogActions, DialogContent, DialogTitle, Tooltip } from "@mui/material";
import { useState } from "react";

import { AgendaField } from "./AgendaField";
import { FloorButton } from "./FloorButton";
import { agendaText, readAgenda } from "./agenda";
import { itemStatus } from "./agenda";
import type { Board } from "./types";

interface Props {
  board: Board;
  seconds: number;
  floor: string;
  onTurnTo: (number: number | null) => void;
  onWrite: (items: { title: string; planned: number | null }[]) => Promise<boolean>;
}

/** The agenda in one strip: what is on and for how long yet, what is to come, what the talk has moved to. */
export function AgendaStrip({ board, seconds, floor, onTurnTo, onWrite }: Props) {
  const [editing, setEditing] = useState(false);
  return (
    <Box
      sx={{
        display: "flex",
        alignItems: "stretch",
        borderBottom: 1,
        borderColor: "divider",
        flex: "none",
        minHeight: 36,
        overflowX: "auto",
      }}
    >
      <Box role="group" aria-label="Agenda" sx={{ display: "flex" }}>
        {board.agenda.map((item, number) => {
          const status = itemStatus(item, seconds);
          return (
            <Tooltip key={number} title={status.state === "on" ? "This is on now" : "Turn to this item (n: the next one)"}>
              <ButtonBase
                onClick={() => onTurnTo(status.state === "on" ? null : number)}
                aria-pressed={status.state === "on"}
                sx={{
                  fontFamily: "inherit",
                  px: 1.75,
                  borderRight: 1,
                  borderColor: "divider",
                  fontSize: "0.85rem",
                  whiteSpace: "nowrap",
                  color: status.state === "on" ? "text.primary" : "text.secondary",
                  bgcolor: status.state === "on" ? "wash" : undefined,
                  fontWeight: status.state === "on" ? 700 : 400,
                }}
              >
                {item.title}
                {status.text && (
                  <Box
                    component="span"
                    sx={{ ml: 0.75, color: status.late ? "error.main" : undefined, fontVariantNumeric: "tabular-nums" }}
                  >
                    {status.text}
                  </Box>
                )}
              </ButtonBase>
            </Tooltip>
          );
        })}
      </Box>
      {board.suggested !== null && board.agenda[board.suggested] && (
        <Button size="small" onClick={() => onTurnTo(board.suggested)} sx={{ mx: 1, whiteSpace: "nowrap" }}>
          On to “{board.agenda[board.suggested]?.title}”?
        </Button>
      )}
      <Button
        size="small"
        color="inherit"
        onClick={() => setEditing(true)}
        sx={{ mx: 0.5, color: "text.secondary", fontWeight: 400, whiteSpace: "nowrap" }}
      >
        {board.agenda.length ? "Change" : "Add an agenda"}
      </Button>
      <FloorButton board={board} line={floor} />
      {editing && <EditAgenda board={board} onClose={() => setEditing(false)} onWrite={onWrite} />}
    </Box>
  );
}

function EditAgenda({ board, onClose, onWrite }: { board: Board; onClose: () => void; onWrite: Props["onWrite"] }) {
  const [text, setText] = useState(agendaText(board.agenda));
  const save = async () => {
    if (await onWrite(readAgenda(text))) onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="agenda-title">
      <DialogTitle id="agenda-title">Agenda</DialogTitle>
      <DialogContent>
        <Box sx={{ pt: 1 }}>
          <AgendaField text={text} onText={setText} />
        </Box>
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="contained" onClick={() => void save()}>
          Keep
        </Button>
      </DialogActions>
    </Dialog>
  );
}
