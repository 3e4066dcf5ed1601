import { Box, Button, ButtonBase, Popover, TextField, Tooltip, Typography } from "@mui/material";
import { memo, useState, type FormEvent } from "react";

import { clock } from "../../shared/times";
import { TextEditor } from "../record/TextEditor";
import type { LiveItem } from "./liveTurns";
import type { LiveLine } from "./types";
import type { RoomActions } from "./useRoom";

interface Props {
  item: Extract<LiveItem, { type: "turn" }>;
  voiceId: number | null;
  voiceName: string;
  named: boolean;
  people: readonly string[];
  found: readonly number[];
  here: number | undefined;
  actions: RoomActions;
}

/** One live turn: time, voice, lines that can be corrected where they stand. */
export const LiveTurn = memo(function LiveTurn({ item, voiceId, voiceName, named, people, found, here, actions }: Props) {
  const [editing, setEditing] = useState<number | null>(null);
  return (
    <Box
      data-item={item.key}
      data-live-turn
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "46px 1fr", sm: "56px 1fr" },
        columnGap: 1.5,
        pt: 0.75,
        pb: 0.25,
        contentVisibility: "auto",
        containIntrinsicSize: "auto 60px",
      }}
    >
      <Typography sx={{ color: "text.secondary", fontSize: "0.8rem", pt: "2px", fontVariantNumeric: "tabular-nums" }}>
        {clock(item.start)}
      </Typography>
      <Box sx={{ minWidth: 0 }}>
        {voiceId !== null ? (
          <VoiceButton voice={{ id: voiceId, name: voiceName, named }} people={people} actions={actions} />
        ) : (
          <Typography component="span" color="textSecondary" sx={{ fontSize: "0.85rem" }}>
            voice not known yet
          </Typography>
        )}
        <Box sx={{ lineHeight: 1.5, overflowWrap: "anywhere" }}>
          {item.lines.map((line) =>
            editing === line.number ? (
              <TextEditor
                key={line.number}
                label="Words of this line"
                text={line.text}
                onEnd={() => setEditing(null)}
                onKeep={(text) => actions.correct(line.number, text)}
              />
            ) : (
              <Words
                key={line.number}
                line={line}
                found={found.includes(line.number)}
                here={here === line.number}
                onEdit={() => setEditing(line.number)}
              />
            ),
          )}
        </Box>
      </Box>
    </Box>
  );
});

function Words({ line, found, here, onEdit }: { line: LiveLine; found: boolean; here: boolean; onEdit: () => void }) {
  return (
    <Tooltip title={line.heard === null ? "Press to correct" : `As heard: ${line.heard}`} enterDelay={900}>
      <Box
        component="span"
        role="button"
        tabIndex={0}
        data-line={line.number}
        aria-label={`Correct: ${line.text}`}
        onClick={onEdit}
        onKeyDown={(e: React.KeyboardEvent) => {
          if (e.key === "Enter") {
            e.preventDefault();
            onEdit();
          }
        }}
        sx={{
          cursor: "text",
          py: "2px",
          /* a short line is 20 px high, a target has 24 */ bgcolor: here ? "warning.light" : found ? "action.selected" : undefined,
          color: here ? "#1E2A2F" : undefined,
          borderBottom: line.heard === null ? undefined : "1px dotted",
          "&:hover": { bgcolor: here ? undefined : "action.hover" },
        }}
      >
        {line.text}{" "}
      </Box>
    </Tooltip>
  );
}

function VoiceButton({
  voice,
  people,
  actions,
}: {
  voice: { id: number; name: string; named: boolean };
  people: readonly string[];
  actions: RoomActions;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [typed, setTyped] = useState("");
  const choose = (name: string | null) => {
    setAnchor(null);
    void actions.nameVoice(voice.id, name);
  };
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (typed.trim()) choose(typed.trim());
  };
  return (
    <>
      <ButtonBase
        onClick={(e) => setAnchor(e.currentTarget)}
        aria-haspopup="dialog"
        sx={{ font: "inherit", fontWeight: 700, borderRadius: 0.5 }}
      >
        {voice.name}
        {!voice.named && (
          <Box component="span" sx={{ ml: 0.75, color: "text.secondary", fontWeight: 400 }}>
            — name this voice
          </Box>
        )}
      </ButtonBase>
      <Popover
        open={!!anchor}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: "bottom", horizontal: "left" }}
        slotProps={{ paper: { role: "dialog", "aria-label": `Who is ${voice.name}?` } as object }}
      >
        <Box component="form" onSubmit={send} sx={{ p: 2, width: 280, display: "grid", gap: 1.25 }}>
          <Typography variant="h3">Who is {voice.name}?</Typography>
          <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}>
            {people.map((name) => (
              <Button key={name} size="small" variant="outlined" onClick={() => choose(name)}>
                {name}
              </Button>
            ))}
          </Box>
          <TextField size="small" label="Another name" value={typed} onChange={(e) => setTyped(e.target.value)} />
          <Box sx={{ display: "flex", gap: 1 }}>
            <Button type="submit" variant="contained" size="small" disabled={!typed.trim()}>
              Name it
            </Button>
            {voice.named && (
              <Button size="small" color="inherit" onClick={() => choose(null)}>
                Take the name away
              </Button>
            )}
          </Box>
        </Box>
      </Popover>
    </>
  );
}
