import { MenuItem } from "@mui/material";
import type { ReactNode } from "react";

import type { Voice } from "./types";

/** The voices to choose from, and one that is not among them yet; a list, since a menu takes no fragments. */
export function VoiceItems({
  voices,
  but,
  onChoose,
}: {
  voices: readonly Voice[];
  but: number | undefined;
  onChoose: (voice: number | null) => void;
}): ReactNode[] {
  return [
    ...voices
      .filter((voice) => voice.id !== but)
      .map((voice) => (
        <MenuItem key={voice.id} onClick={() => onChoose(voice.id)}>
          {voice.name}
        </MenuItem>
      )),
    <MenuItem key="new" onClick={() => onChoose(null)}>
      Somebody else (a new voice)
    </MenuItem>,
  ];
}
