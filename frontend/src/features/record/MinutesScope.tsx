import { Box, Button, FormControlLabel, Link, Popover, Switch, ToggleButton, ToggleButtonGroup, Typography } from "@mui/material";
import ArrowDropDown from "@mui/icons-material/ArrowDropDown";
import { useState } from "react";

import { TemplateField } from "../../shared/TemplateField";
import { clock } from "../../shared/times";
import type { Length, RecordData, Shape } from "./types";

const LENGTHS: readonly [Length, string][] = [
  ["short", "Short"],
  ["standard", "Standard"],
  ["full", "Full"],
];

interface Props {
  minutes: NonNullable<RecordData["minutes"]>;
  checked: number;
  lines: number;
  onShape: (shape: Shape) => Promise<void>;
  onSeek: (seconds: number) => void;
}

/** By which template the minutes are made, how long they are, how much of the talk they draw on, and the stretches that they leave out. */
export function MinutesScope({ minutes, checked, lines, onShape, onSeek }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [busy, setBusy] = useState(false);
  const choose = async (shape: Shape) => {
    setBusy(true);
    await onShape(shape);
    setBusy(false);
  };
  const name = LENGTHS.find(([length]) => length === minutes.length)?.[1] ?? "";
  return (
    <>
      <Button
        size="small"
        color="inherit"
        endIcon={<ArrowDropDown />}
        aria-haspopup="dialog"
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ whiteSpace: "nowrap", fontWeight: 400 }}
      >
        {name} · draws on {Math.floor(minutes.coverage * 100)} % of the talk · {checked} of {lines} checked
      </Button>
      <Popover
        open={!!anchor}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: "bottom", horizontal: "right" }}
        transformOrigin={{ vertical: "top", horizontal: "right" }}
        slotProps={{
          paper: {
            role: "dialog",
            "aria-label": "Template, length and coverage of the minutes",
            sx: { p: 2, width: 340, maxWidth: "calc(100vw - 32px)" },
          },
        }}
      >
        <Box sx={{ mt: 1, mb: 2 }}>
          <TemplateField label="Template" value={minutes.template} disabled={busy} onChoose={(template) => void choose({ template })} />
        </Box>
        <Typography variant="subtitle2" id="length-of-minutes">
          How long they are
        </Typography>
        <ToggleButtonGroup
          exclusive
          fullWidth
          size="small"
          value={minutes.length}
          disabled={busy}
          aria-labelledby="length-of-minutes"
          onChange={(_, next: Length | null) => next && void choose({ length: next })}
          sx={{ my: 1 }}
        >
          {LENGTHS.map(([length, label]) => (
            <ToggleButton key={length} value={length}>
              {label}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <FormControlLabel
          label="Finer chapters"
          control={<Switch size="small" checked={minutes.fine} disabled={busy} onChange={(_, fine) => void choose({ fine })} />}
          sx={{ mb: 1, ml: 0, gap: 1 }}
        />
        <Typography variant="body2" color="textSecondary" role="status">
          {busy ? "They are being written again …" : "What you changed, ticked or threw out stays so."}
        </Typography>
        <Typography variant="subtitle2" sx={{ mt: 2 }}>
          Left out ({minutes.gaps.length})
        </Typography>
        {minutes.gaps.length === 0 ? (
          <Typography variant="body2" color="textSecondary">
            Every part of the talk has a line that rests on it or stands for it.
          </Typography>
        ) : (
          <Box component="ul" sx={{ m: 0, pl: 2.5, maxHeight: 220, overflowY: "auto" }}>
            {minutes.gaps.map(([start, end]) => (
              <Typography component="li" variant="body2" key={start}>
                <Link
                  component="button"
                  variant="body2"
                  onClick={() => {
                    setAnchor(null);
                    onSeek(start);
                  }}
                >
                  {clock(start)} to {clock(end)}
                </Link>
              </Typography>
            ))}
          </Box>
        )}
      </Popover>
    </>
  );
}
