import Close from "@mui/icons-material/Close";
import DownloadOutlined from "@mui/icons-material/DownloadOutlined";
import { Badge, Box, Button, IconButton, LinearProgress, Popover, Tooltip, Typography } from "@mui/material";
import { useState } from "react";

import { size } from "../../shared/size";
import { fileAddress, files, goesOn, type Export } from "./awaited";
import { useExportActions, useExports } from "./useExports";

/** The files that were asked for within a day: how far each is, to be saved, tried again or removed. */
export function ExportsButton() {
  const exports = files(useExports());
  const { retry, remove } = useExportActions();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  if (!exports.length && !anchor) return null;
  const busy = exports.filter((each) => goesOn([each])).length;
  const label = busy ? `Downloads: ${busy} being made` : "Downloads";
  return (
    <>
      <Tooltip title={label}>
        <IconButton size="small" aria-label={label} aria-haspopup="dialog" onClick={(e) => setAnchor(e.currentTarget)}>
          <Badge badgeContent={busy || null} color="primary" overlap="circular">
            <DownloadOutlined fontSize="small" />
          </Badge>
        </IconButton>
      </Tooltip>
      <Popover
        open={!!anchor}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: "bottom", horizontal: "right" }}
        transformOrigin={{ vertical: "top", horizontal: "right" }}
        slotProps={{
          paper: { role: "dialog", "aria-label": "Downloads", sx: { width: 420, maxWidth: "calc(100vw - 24px)", p: 2 } },
        }}
      >
        <Typography variant="h3" component="h2" gutterBottom>
          Downloads
        </Typography>
        {!exports.length && <Typography color="textSecondary">Nothing is kept here any more.</Typography>}
        {exports.map((each) => (
          <Row key={each.id} made={each} onRetry={() => void retry(each.id)} onRemove={() => void remove(each.id)} />
        ))}
        <Typography variant="body2" color="textSecondary" sx={{ mt: 1 }}>
          Each is kept for a day and can be seen by nobody else.
        </Typography>
      </Popover>
    </>
  );
}

const KINDS: Record<string, string> = {
  "minutes.pdf": "Minutes (PDF)",
  "transcript.pdf": "Transcript (PDF)",
  "small.ogg": "Sound as a small file (Ogg)",
  "whole meeting.zip": "Whole meeting (ZIP)",
  "excerpts.ogg": "Sound of excerpts (Ogg)",
  "compilation.ogg": "Sound of a compilation (Ogg)",
  "compilation.m4a": "Sound of a compilation (M4A)",
  "compilation.mp4": "Picture with captions (MP4)",
};
const STATES: Record<Export["state"], string> = {
  waiting: "Waiting",
  working: "Being made",
  done: "Ready",
  failed: "Not made",
  cancelled: "Taken back",
};

function Row({ made, onRetry, onRemove }: { made: Export; onRetry: () => void; onRemove: () => void }) {
  const busy = goesOn([made]);
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: "1fr auto auto",
        alignItems: "center",
        columnGap: 1,
        py: 0.75,
        borderTop: 1,
        borderColor: "divider",
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Typography>{KINDS[made.kind] ?? made.kind}</Typography>
        <Typography variant="body2" noWrap title={made.title}>
          {made.title}
        </Typography>
        <Typography variant="body2" role="status" color={made.state === "failed" ? "error" : "textSecondary"}>
          {made.state === "failed" ? made.error : STATES[made.state]}
          {made.size !== null && ` · ${size(made.size)}`}
        </Typography>
      </Box>
      {made.state === "done" && (
        <Button size="small" component="a" href={fileAddress(made.id)} download>
          Save
        </Button>
      )}
      {made.state === "failed" && (
        <Button size="small" onClick={onRetry}>
          Try again
        </Button>
      )}
      <Tooltip title={busy ? "Do not make it" : "Remove"}>
        <IconButton size="small" aria-label={`${busy ? "Do not make" : "Remove"} ${made.name}`} onClick={onRemove} sx={{ gridColumn: 3 }}>
          <Close sx={{ fontSize: 16 }} />
        </IconButton>
      </Tooltip>
      {busy && (
        <LinearProgress aria-label={`${made.name} is being made`} sx={{ gridColumn: "1 / -1", height: 3, borderRadius: 1, mt: 0.5 }} />
      )}
    </Box>
  );
}
