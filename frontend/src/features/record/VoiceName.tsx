import { Box, Button, ButtonBase, MenuItem, Popover, TextField, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import type { RecordActions } from "./useRecord";
import type { Voice } from "./types";

/** A voice's name; pressing it names the voice everywhere at once. */
export function VoiceName({
  voice,
  voices,
  actions,
  onSample,
}: {
  voice: Voice;
  voices: readonly Voice[];
  actions: RecordActions;
  onSample: () => void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => setAnchor(null);
  const choose = (name: string | null) => {
    close();
    void actions.nameVoice(voice.id, name);
  };
  return (
    <>
      <ButtonBase
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ fontWeight: 700, font: "inherit", borderRadius: 0.5 }}
        aria-haspopup="dialog"
      >
        <Box component="span" sx={{ fontWeight: 700 }}>
          {voice.name}
        </Box>
        {!voice.named && (
          <Box component="span" sx={{ ml: 0.75, color: "text.secondary" }}>
            — name this voice
          </Box>
        )}
      </ButtonBase>
      {anchor && (
        <Popover
          open
          anchorEl={anchor}
          onClose={close}
          anchorOrigin={{ vertical: "bottom", horizontal: "left" }}
          slotProps={{ paper: { role: "dialog", "aria-label": `Who is ${voice.name}?` } as object }}
        >
          <Choice voice={voice} suggest={actions.suggest} onChoose={choose} onSample={onSample} />
          {voices.length > 1 && (
            <Box sx={{ px: 2, pb: 2, width: 280 }}>
              <TextField
                select
                fullWidth
                size="small"
                label="The same voice as"
                value=""
                onChange={(e) => {
                  close();
                  void actions.mergeVoices(voice.id, Number(e.target.value));
                }}
                helperText="Makes one voice of two; can be taken back."
              >
                {voices
                  .filter((other) => other.id !== voice.id)
                  .map((other) => (
                    <MenuItem key={other.id} value={other.id}>
                      {other.name}
                    </MenuItem>
                  ))}
              </TextField>
            </Box>
          )}
        </Popover>
      )}
    </>
  );
}

function Choice({
  voice,
  suggest,
  onChoose,
  onSample,
}: {
  voice: Voice;
  suggest: RecordActions["suggest"];
  onChoose: (name: string | null) => void;
  onSample: () => void;
}) {
  const [typed, setTyped] = useState("");
  const suggestions = useQuery({
    queryKey: ["suggestions", voice.id],
    queryFn: () => suggest(voice.id),
    staleTime: 0,
    gcTime: 0,
    retry: false,
  });
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (typed.trim()) onChoose(typed.trim());
  };
  return (
    <Box component="form" onSubmit={send} sx={{ p: 2, width: 280, display: "grid", gap: 1.25 }}>
      <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between" }}>
        <Typography variant="h3">Who is {voice.name}?</Typography>
        <Button size="small" onClick={onSample}>
          Hear it
        </Button>
      </Box>
      {suggestions.isPending && (
        <Typography variant="body2" color="textSecondary">
          Who it may be …
        </Typography>
      )}
      {suggestions.data && suggestions.data.length > 0 && (
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}>
          {suggestions.data.map((name) => (
            <Button key={name} size="small" variant="outlined" onClick={() => onChoose(name)}>
              {name}
            </Button>
          ))}
        </Box>
      )}
      <TextField size="small" label="Another name" value={typed} onChange={(e) => setTyped(e.target.value)} autoFocus />
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button type="submit" variant="contained" size="small" disabled={!typed.trim()}>
          Name it
        </Button>
        {voice.named && (
          <Button size="small" color="inherit" onClick={() => onChoose(null)}>
            Take the name away
          </Button>
        )}
      </Box>
    </Box>
  );
}
