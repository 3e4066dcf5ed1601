import { Box, Dialog, DialogContent, DialogTitle, Typography } from "@mui/material";
import { useState } from "react";

import { useKeyGroups, useKeyListener, useKeys, type Key } from "./keys";

const SHOWN: Record<string, string> = { " ": "Space", ArrowUp: "↑", ArrowDown: "↓", ArrowLeft: "←", ArrowRight: "→", Escape: "Esc" };

function shown(key: Key): string {
  return key.shown ?? `${key.ctrl ? "Ctrl " : ""}${SHOWN[key.key] ?? key.key}`;
}

/** The sheet of keys, opened by `?`; made from the registry, so it never lies. */
export function KeySheet() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <KeyListener onAsk={() => setOpen((was) => !was)} />
      <Dialog open={open} onClose={() => setOpen(false)} aria-labelledby="keys-title">
        <DialogTitle id="keys-title">Keys</DialogTitle>
        <DialogContent sx={{ minWidth: 340 }}>{open && <Groups />}</DialogContent>
      </Dialog>
    </>
  );
}

function KeyListener({ onAsk }: { onAsk: () => void }) {
  useKeyListener();
  useKeys("Help", [{ key: "?", label: "Show the keys", run: onAsk }]);
  return null;
}

function Groups() {
  const groups = useKeyGroups();
  return groups.map((group) => (
    <Box key={group.title} sx={{ mb: 2 }}>
      <Typography variant="h3" sx={{ color: "text.secondary", mb: 0.5 }}>
        {group.title}
      </Typography>
      {group.keys.map((key) => (
        <Box key={shown(key) + key.label} sx={{ display: "flex", gap: 2, py: 0.25 }}>
          <Typography component="kbd" sx={{ width: 72, fontWeight: 700 }}>
            {shown(key)}
          </Typography>
          <Typography>{key.label}</Typography>
        </Box>
      ))}
    </Box>
  ));
}
