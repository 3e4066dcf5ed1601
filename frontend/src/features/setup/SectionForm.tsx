import ArrowDownward from "@mui/icons-material/ArrowDownward";
import ArrowUpward from "@mui/icons-material/ArrowUpward";
import { Box, Button, Checkbox, IconButton, MenuItem, Paper, TextField } from "@mui/material";
import { useState } from "react";

import type { Schemas } from "../../api/client";
import { listed, type Section } from "./templateDraft";

interface Props {
  section: Section;
  kinds: Schemas["KindOut"][];
  number: number;
  last: boolean;
  onChange: (part: Partial<Section>) => void;
  onMove: (by: 1 | -1) => void;
  onRemove: () => void;
}

const LAYOUTS: [Section["group"], string][] = [
  ["", "one after the other"],
  ["chapter", "by chapter"],
  ["voice", "by voice"],
];

/** One section of a template: what it takes, which words and voices, how it is laid out. */
export function SectionForm({ section, kinds, number, last, onChange, onMove, onRemove }: Props) {
  const [words, setWords] = useState(section.words.join(", "));
  const [voices, setVoices] = useState(section.voices.join(", "));
  const description = (chosen: string[]) =>
    kinds
      .filter((each) => chosen.includes(each.kind))
      .map((each) => each.description)
      .join(", ") || "whatever holds the words beside";
  return (
    <Paper sx={{ p: 1.5, display: "grid", gap: 1.5 }} role="group" aria-label={`Section ${number}`}>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
        <TextField
          size="small"
          fullWidth
          label="Title"
          value={section.title}
          onChange={(e) => onChange({ title: e.target.value })}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <IconButton size="small" aria-label={`Move section ${number} up`} disabled={number === 1} onClick={() => onMove(-1)}>
          <ArrowUpward fontSize="small" />
        </IconButton>
        <IconButton size="small" aria-label={`Move section ${number} down`} disabled={last} onClick={() => onMove(1)}>
          <ArrowDownward fontSize="small" />
        </IconButton>
        <Button size="small" color="inherit" aria-label={`Remove section ${number}`} onClick={onRemove}>
          Remove
        </Button>
      </Box>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { sm: "1fr 1fr" } }}>
        <TextField
          size="small"
          select
          label="Takes"
          value={section.kinds}
          onChange={(e) => onChange({ kinds: e.target.value as unknown as string[] })}
          slotProps={{
            inputLabel: { shrink: true },
            select: { multiple: true, displayEmpty: true, renderValue: (chosen) => description(chosen as string[]) },
          }}
        >
          {kinds.map(({ kind, description: words }) => (
            <MenuItem key={kind} value={kind} dense>
              <Checkbox size="small" checked={section.kinds.includes(kind)} sx={{ p: 0, mr: 1 }} />
              {words}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          size="small"
          label="Only with one of these words"
          value={words}
          onChange={(e) => {
            setWords(e.target.value);
            onChange({ words: listed(e.target.value, /,/) });
          }}
          placeholder="pontoon, life jacket"
        />
        <TextField
          size="small"
          label="Only of these voices"
          value={voices}
          onChange={(e) => {
            setVoices(e.target.value);
            onChange({ voices: listed(e.target.value, /,/) });
          }}
          placeholder="Maren Tull, Ines Carvell"
        />
        <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: "2fr 1fr" }}>
          <TextField
            size="small"
            select
            label="Laid out"
            value={section.group}
            onChange={(e) => onChange({ group: e.target.value as Section["group"] })}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
          >
            {LAYOUTS.map(([group, words]) => (
              <MenuItem key={group} value={group}>
                {words}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            size="small"
            type="number"
            label="Lines at most"
            value={section.most ?? ""}
            onChange={(e) => onChange({ most: e.target.value ? Number(e.target.value) : null })}
            slotProps={{ htmlInput: { min: 1, max: 500 }, inputLabel: { shrink: true } }}
            placeholder="all"
          />
        </Box>
      </Box>
    </Paper>
  );
}
