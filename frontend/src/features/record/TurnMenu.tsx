import MoreHoriz from "@mui/icons-material/MoreHoriz";
import { ButtonBase, Divider, Menu, MenuItem } from "@mui/material";
import { useRef, useState, type MouseEvent } from "react";

import { clock } from "../../shared/times";
import type { Position } from "./position";
import { toolStyle } from "./toolStyle";
import { turnStart, type Turn, type Voice } from "./types";
import type { RecordActions } from "./useRecord";
import { VoiceItems } from "./VoiceItems";

/** What can be set right about a turn as a whole. */
export function TurnMenu({
  turn,
  voices,
  position,
  isLast,
  actions,
}: {
  turn: Turn;
  voices: readonly Voice[];
  position: Position;
  isLast: boolean;
  actions: RecordActions;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [used, setUsed] = useState(false); // the menu is made when it is first asked for
  const choosing = useRef(false);
  const open = (event: MouseEvent<HTMLElement>) => {
    setUsed(true);
    setAnchor(event.currentTarget);
  };
  const now = anchor ? position.get() : 0;
  const here = turn.words.findIndex((word) => word[2] > now);
  const then = (run: () => unknown) => {
    setAnchor(null);
    run();
  };
  const gone = () => {
    if (choosing.current) chooseTurn(turn.number); // only now, when the menu has given the focus back
    choosing.current = false;
  };
  return (
    <>
      <ButtonBase
        className="edit"
        title="Set the turn right"
        aria-haspopup="menu"
        aria-label={`Set right the turn at ${clock(turnStart(turn))}`}
        onClick={open}
        sx={toolStyle}
      >
        <MoreHoriz sx={{ fontSize: 17 }} />
      </ButtonBase>
      {used && (
        <Menu open={!!anchor} anchorEl={anchor} onClose={() => setAnchor(null)} slotProps={{ transition: { onExited: gone } }}>
          <MenuItem disabled sx={{ opacity: "1 !important" }}>
            This turn was said by
          </MenuItem>
          {VoiceItems({ voices, but: turn.voice, onChoose: (voice) => then(() => actions.giveWords(turn.number, voice)) })}
          <Divider />
          <MenuItem
            onClick={() => {
              choosing.current = true;
              setAnchor(null);
            }}
          >
            Choose all its words
          </MenuItem>
          <MenuItem disabled={here <= 0} onClick={() => then(() => actions.splitTurn(turn.number, here))}>
            Begin a turn where the sound is
          </MenuItem>
          <MenuItem disabled={isLast} onClick={() => then(() => actions.joinTurns(turn.number))}>
            Join with the next turn
          </MenuItem>
        </Menu>
      )}
    </>
  );
}

/** Chooses the words of a turn as the mouse would, so that the keyboard can do with them what the mouse can. */
function chooseTurn(number: number): void {
  const words = document.querySelectorAll(`[data-turn="${number}"] [data-word]`);
  const [first, last] = [words[0]?.firstChild, words[words.length - 1]?.lastChild];
  if (!first || !last) return;
  document.getSelection()?.setBaseAndExtent(first, 0, last, last.textContent?.length ?? 0);
  setTimeout(() => document.querySelector<HTMLElement>("[role=toolbar][aria-label='Chosen words'] button")?.focus(), 60);
}
