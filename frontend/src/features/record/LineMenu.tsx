import { Divider, Menu, MenuItem } from "@mui/material";
import MoreHoriz from "@mui/icons-material/MoreHoriz";
import { useState } from "react";

import { Tool } from "./Tool";
import type { Line } from "./types";

export interface LineUses {
  onChange: (line: Line) => void;
  /** Puts the line before or behind the one beside it; nothing where there is none. */
  onMove: (line: Line, step: 1 | -1) => void;
  /** Makes one line of it and the next of its section. */
  onJoin: (line: Line) => void;
  onCopy: (lines: readonly Line[]) => void;
  onLink: (line: Line) => void;
}

/** What else can be done with a line. `first` and `last` say whether it has no neighbour in its section. */
export function LineMenu({ line, first, last, uses }: { line: Line; first: boolean; last: boolean; uses: LineUses }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const then = (run: () => void) => () => {
    setAnchor(null);
    run();
  };
  return (
    <>
      <Tool label={`More for: ${line.text}`} title="More" menu onClick={(e) => setAnchor(e.currentTarget)}>
        <MoreHoriz sx={{ fontSize: 17 }} />
      </Tool>
      <Menu open={!!anchor} anchorEl={anchor} onClose={() => setAnchor(null)} onClick={(e) => e.stopPropagation()}>
        <MenuItem onClick={then(() => uses.onChange(line))}>Change all of it …</MenuItem>
        <MenuItem disabled={first} onClick={then(() => uses.onMove(line, -1))}>
          Move up
        </MenuItem>
        <MenuItem disabled={last} onClick={then(() => uses.onMove(line, 1))}>
          Move down
        </MenuItem>
        <MenuItem disabled={last} onClick={then(() => uses.onJoin(line))}>
          Join with the next line
        </MenuItem>
        <Divider />
        <MenuItem onClick={then(() => uses.onCopy([line]))}>Copy</MenuItem>
        <MenuItem onClick={then(() => uses.onLink(line))}>Copy the link to it</MenuItem>
      </Menu>
    </>
  );
}
