import { Box, Button, Popover, Typography } from "@mui/material";
import { useState } from "react";

import { clock } from "../../shared/times";
import type { Board } from "./types";

/** Who holds the floor; pressed, it shows how long each has spoken, the share of the talk, and the longest stretch. */
export function FloorButton({ board, line }: { board: Board; line: string }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const total = board.voices.reduce((sum, voice) => sum + voice.seconds, 0);
  const ranked = [...board.voices].sort((a, b) => b.seconds - a.seconds);
  return (
    <>
      <Button
        size="small"
        color="inherit"
        aria-haspopup="dialog"
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ ml: "auto", mr: 1, color: "text.secondary", fontWeight: 400, whiteSpace: "nowrap", fontVariantNumeric: "tabular-nums" }}
      >
        {line || "Floor"}
      </Button>
      <Popover
        open={!!anchor}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: "bottom", horizontal: "right" }}
        transformOrigin={{ vertical: "top", horizontal: "right" }}
        slotProps={{ paper: { role: "dialog", "aria-label": "The floor" } as object }}
      >
        <Box sx={{ p: 2, minWidth: 300 }}>
          <Typography variant="h3" component="h2" sx={{ mb: 1 }}>
            Who has spoken how long
          </Typography>
          {ranked.length === 0 && <Typography color="textSecondary">Nobody yet; voices are known after some ten seconds.</Typography>}
          {ranked.map((voice) => (
            <Box key={voice.id} sx={{ display: "grid", gridTemplateColumns: "1fr auto auto", columnGap: 2, py: 0.4 }}>
              <Typography sx={{ fontWeight: voice.id === board.holder ? 700 : 400 }}>{voice.name}</Typography>
              <Typography sx={{ fontVariantNumeric: "tabular-nums" }}>
                {clock(voice.seconds)} · {Math.round((voice.seconds / Math.max(1, total)) * 100)} %
              </Typography>
              <Typography variant="body2" color="textSecondary" sx={{ fontVariantNumeric: "tabular-nums" }}>
                longest {clock(voice.longest)}
              </Typography>
              <Box aria-hidden sx={{ gridColumn: "1 / -1", height: 4, borderRadius: 1, bgcolor: "divider" }}>
                <Box
                  sx={{
                    height: 4,
                    borderRadius: 1,
                    bgcolor: "primary.main",
                    width: `${(voice.seconds / Math.max(1, ranked[0]?.seconds ?? 1)) * 100}%`,
                  }}
                />
              </Box>
            </Box>
          ))}
        </Box>
      </Popover>
    </>
  );
}
