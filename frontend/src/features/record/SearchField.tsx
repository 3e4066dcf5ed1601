import { Box, IconButton, InputAdornment, TextField } from "@mui/material";
import KeyboardArrowDown from "@mui/icons-material/KeyboardArrowDown";
import KeyboardArrowUp from "@mui/icons-material/KeyboardArrowUp";
import type { ReactNode, RefObject } from "react";

/** Search in the transcript, with the count, next and previous. */
export function SearchField({
  field,
  wanted,
  count,
  at,
  onWanted,
  onStep,
  narrowed = false,
  children,
}: {
  field: RefObject<HTMLInputElement | null>;
  wanted: string;
  count: number;
  at: number;
  onWanted: (text: string) => void;
  onStep: (step: 1 | -1) => void;
  narrowed?: boolean; // places are found even where no words are wanted
  children?: ReactNode; // what narrows the search
}) {
  const places = wanted.trim().length < 2 && !narrowed ? "" : count ? `${at + 1} of ${count}` : "none";
  return (
    <Box role="search" sx={{ display: "flex", alignItems: "center", flex: 1, minWidth: 0 }}>
      <TextField
        size="small"
        fullWidth
        placeholder="Search what was said"
        value={wanted}
        onChange={(e) => onWanted(e.target.value)}
        inputRef={field}
        type="search"
        onKeyDown={(e) => {
          if (e.key === "Enter") onStep(e.shiftKey ? -1 : 1);
          if (e.key === "Escape") {
            onWanted("");
            e.currentTarget.querySelector("input")?.blur();
          }
        }}
        slotProps={{
          htmlInput: { "aria-label": "Search what was said" },
          input: {
            endAdornment: (
              <InputAdornment position="end">
                <Box component="span" role="status" sx={{ fontSize: "0.8rem", whiteSpace: "nowrap" }}>
                  {places}
                </Box>
              </InputAdornment>
            ),
            sx: { height: 34 },
          },
        }}
      />
      {children}
      <IconButton size="small" aria-label="Previous place" disabled={!count} onClick={() => onStep(-1)}>
        <KeyboardArrowUp />
      </IconButton>
      <IconButton size="small" aria-label="Next place" disabled={!count} onClick={() => onStep(1)}>
        <KeyboardArrowDown />
      </IconButton>
    </Box>
  );
}
