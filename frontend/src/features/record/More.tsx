import { Button, Divider, Menu, MenuItem } from "@mui/material";
import { useState } from "react";
import { Link } from "react-router";

interface Props {
  meetingId: string;
  hasMinutes: boolean;
  onTexts: () => void;
  onDigest: (() => void) | undefined;
  onNotes: () => void;
  onMisheard: () => void;
  onReplace: () => void;
  onHistory: () => void;
  onVersions: () => void;
  onCopy: () => void;
  onVoices: (() => void) | undefined;
  onRemake: () => void;
  onCut?: (() => void) | undefined;
  onAttendees: () => void;
  onDetails: (() => void) | undefined;
}

/** What else can be made from a record, or done with it. */
export function More({
  meetingId,
  hasMinutes,
  onTexts,
  onDigest,
  onNotes,
  onMisheard,
  onReplace,
  onHistory,
  onVersions,
  onCopy,
  onVoices,
  onRemake,
  onCut,
  onAttendees,
  onDetails,
}: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const then = (run: () => void) => () => {
    setAnchor(null);
    run();
  };
  return (
    <>
      <Button size="small" color="inherit" onClick={(e) => setAnchor(e.currentTarget)} aria-haspopup="menu">
        More
      </Button>
      <Menu open={!!anchor} anchorEl={anchor} onClose={() => setAnchor(null)}>
        <MenuItem disabled={!hasMinutes} onClick={then(onCopy)}>
          Copy the minutes
        </MenuItem>
        <MenuItem disabled={!hasMinutes} onClick={then(onTexts)}>
          Texts that follow …
        </MenuItem>
        {onDigest && (
          <MenuItem disabled={!hasMinutes} onClick={then(onDigest)}>
            Listening digest …
          </MenuItem>
        )}
        <MenuItem disabled={!hasMinutes} component={Link} to={`/meetings/${meetingId}/map`}>
          Topic map
        </MenuItem>
        <MenuItem component={Link} to={`/meetings/${meetingId}/floor`}>
          The floor in figures
        </MenuItem>
        <MenuItem onClick={then(onNotes)}>Notes and marks …</MenuItem>
        <MenuItem onClick={then(onMisheard)}>Misheard names and terms …</MenuItem>
        <MenuItem onClick={then(onReplace)}>Find and replace …</MenuItem>
        {onVoices && <MenuItem onClick={then(onVoices)}>Tell the voices apart again …</MenuItem>}
        <MenuItem onClick={then(onHistory)}>Who changed what …</MenuItem>
        <MenuItem disabled={!hasMinutes} onClick={then(onVersions)}>
          Earlier minutes …
        </MenuItem>
        {onDetails && <MenuItem onClick={then(onDetails)}>Title and time …</MenuItem>}
        <MenuItem onClick={then(onAttendees)}>Who was there, and may open it …</MenuItem>
        <Divider />
        <MenuItem onClick={then(onRemake)}>Write the minutes again</MenuItem>
        {onCut && <MenuItem onClick={then(onCut)}>Remove a stretch for good …</MenuItem>}
      </Menu>
    </>
  );
}
