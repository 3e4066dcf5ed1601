import { MenuItem, TextField } from "@mui/material";

import type { Board } from "./types";
import type { RoomActions } from "./useRoom";

const SILENCES = [0, 120, 300, 600, 1200, 1800];
const FLOORS = [0, 60, 120, 180, 300, 600];

/** When the recording stops by itself, and when a long turn is told of. */
export function Choices({ board, actions }: { board: Board; actions: RoomActions }) {
  const options = (all: number[], own: number) => [...new Set([...all, own])].sort((a, b) => a - b);
  const minutes = (seconds: number, never: string) =>
    seconds === 0 ? never : `after ${seconds % 60 ? `${seconds} s` : `${seconds / 60} min`}`;
  return (
    <>
      <TextField
        select
        fullWidth
        size="small"
        label="Stop by itself when nobody speaks"
        value={board.silence_stop}
        onChange={(e) => void actions.choose(Number(e.target.value), board.floor_limit)}
      >
        {options(SILENCES, board.silence_stop).map((s) => (
          <MenuItem key={s} value={s}>
            {minutes(s, "never")}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        fullWidth
        size="small"
        label="Tell me when one person holds the floor"
        value={board.floor_limit}
        onChange={(e) => void actions.choose(board.silence_stop, Number(e.target.value))}
      >
        {options(FLOORS, board.floor_limit).map((s) => (
          <MenuItem key={s} value={s}>
            {minutes(s, "never")}
          </MenuItem>
        ))}
      </TextField>
    </>
  );
}
