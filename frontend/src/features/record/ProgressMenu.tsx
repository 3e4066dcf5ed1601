import { Box, Menu, MenuItem } from "@mui/material";
import { useState } from "react";

import { PROGRESS, type Progress } from "./lineDraft";
import { linkStyle } from "./toolStyle";
import type { Line } from "./types";

/** How far a task is, and a menu to say otherwise. */
export function ProgressMenu({ line, onProgress }: { line: Line; onProgress: (line: Line, progress: Progress) => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const shown = PROGRESS.find(([each]) => each === line.progress)?.[1].toLowerCase() ?? "";
  return (
    <>
      <Box
        component="button"
        aria-haspopup="menu"
        aria-label={`How far it is: ${shown}. ${line.text}`}
        onClick={(e: React.MouseEvent<HTMLElement>) => {
          e.stopPropagation();
          setAnchor(e.currentTarget);
        }}
        sx={{ ...linkStyle, color: line.progress === "done" ? "success.main" : undefined, textDecorationColor: "inherit" }}
      >
        {shown}
      </Box>
      <Menu open={!!anchor} anchorEl={anchor} onClose={() => setAnchor(null)} onClick={(e) => e.stopPropagation()}>
        {PROGRESS.map(([progress, label]) => (
          <MenuItem
            key={progress}
            dense
            selected={progress === line.progress}
            onClick={() => {
              setAnchor(null);
              if (progress !== line.progress) onProgress(line, progress);
            }}
          >
            {label}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
