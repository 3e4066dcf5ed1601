import FilterList from "@mui/icons-material/FilterList";
import { Button, IconButton, MenuItem, Popover, TextField, Tooltip } from "@mui/material";
import { useState } from "react";

import { isWide, WIDE, type Narrowing } from "./search";
import type { Line, RecordData } from "./types";

const KINDS: [Line["kind"], string][] = [
  ["action", "Actions"],
  ["decision", "Decisions"],
  ["question", "Questions"],
  ["key_point", "Key points"],
  ["risk", "Risks"],
  ["figure", "Figures"],
];

/** Narrows the search to a voice, a chapter, or what lines of a kind rest on. */
export function Narrow({
  record,
  narrowing,
  onNarrow,
}: {
  record: RecordData;
  narrowing: Narrowing;
  onNarrow: (within: Narrowing) => void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const on = !isWide(narrowing);
  const there = new Set(record.minutes?.lines.map((line) => line.kind));
  const choice = (label: string, key: "voice" | "chapter", all: string, values: [number, string][]) => (
    <TextField
      select
      fullWidth
      size="small"
      label={label}
      value={narrowing[key] ?? ""}
      onChange={(e) => onNarrow({ ...narrowing, [key]: e.target.value === "" ? null : Number(e.target.value) })}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
    >
      <MenuItem value="">{all}</MenuItem>
      {values.map(([value, name]) => (
        <MenuItem key={value} value={value}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <>
      <Tooltip title="Only by a voice, in a chapter, or behind a kind of line">
        <IconButton
          size="small"
          aria-label={on ? "Search is narrowed" : "Narrow the search"}
          aria-haspopup="dialog"
          onClick={(e) => setAnchor(e.currentTarget)}
          color={on ? "primary" : "default"}
        >
          <FilterList fontSize="small" />
        </IconButton>
      </Tooltip>
      <Popover
        open={!!anchor}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: "bottom", horizontal: "right" }}
        transformOrigin={{ vertical: "top", horizontal: "right" }}
        slotProps={{
          paper: {
            role: "dialog",
            "aria-label": "Narrow the search",
            sx: { p: 2, width: 300, maxWidth: "90vw", display: "grid", gap: 1.5 },
          } as object,
        }}
      >
        {choice(
          "Said by",
          "voice",
          "Everybody",
          record.voices.map((voice) => [voice.id, voice.name]),
        )}
        {choice(
          "Chapter",
          "chapter",
          "All chapters",
          (record.minutes?.chapters ?? []).map((chapter, i) => [i, chapter.title]),
        )}
        <TextField
          select
          fullWidth
          size="small"
          label="What lines rest on"
          value={narrowing.kind ?? ""}
          onChange={(e) => onNarrow({ ...narrowing, kind: e.target.value || null })}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">All that was said</MenuItem>
          {KINDS.filter(([kind]) => there.has(kind)).map(([kind, name]) => (
            <MenuItem key={kind} value={kind}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <Button
          size="small"
          color="inherit"
          disabled={!on}
          onClick={() => {
            setAnchor(null);
            onNarrow(WIDE);
          }}
          sx={{ justifySelf: "start" }}
        >
          Search everything
        </Button>
      </Popover>
    </>
  );
}
