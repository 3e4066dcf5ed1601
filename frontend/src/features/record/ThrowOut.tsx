import { ListSubheader, Menu, MenuItem } from "@mui/material";
import RemoveCircleOutlineOutlined from "@mui/icons-material/RemoveCircleOutlineOutlined";
import SettingsBackupRestore from "@mui/icons-material/SettingsBackupRestore";
import { useState } from "react";

import { REASONS } from "./reasons";
import { Tool } from "./Tool";
import type { Line, Reason } from "./types";

/** Throws a line out of the minutes for one of a few reasons, or takes it back in. */
export function ThrowOut({ line, onThrow }: { line: Line; onThrow: (line: Line, reason: Reason | null) => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const choose = (reason: Reason) => {
    setAnchor(null);
    onThrow(line, reason);
  };
  if (line.thrown_out !== null) {
    return (
      <Tool label={`Take back in: ${line.text}`} title="Take it back in" onClick={() => onThrow(line, null)}>
        <SettingsBackupRestore sx={{ fontSize: 17 }} />
      </Tool>
    );
  }
  return (
    <>
      <Tool label={`Throw out: ${line.text}`} title="Throw out" menu onClick={(e) => setAnchor(e.currentTarget)}>
        <RemoveCircleOutlineOutlined sx={{ fontSize: 16 }} />
      </Tool>
      <Menu open={!!anchor} anchorEl={anchor} onClose={() => setAnchor(null)} onClick={(e) => e.stopPropagation()}>
        <ListSubheader sx={{ lineHeight: 2.2 }}>Not for the minutes, because</ListSubheader>
        {REASONS.map(([reason, label]) => (
          <MenuItem key={reason} onClick={() => choose(reason)}>
            {label}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
