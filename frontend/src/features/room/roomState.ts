import { interrupted, zeroAfter } from "./clock";
import type { RecorderState } from "./useRecorder";
import type { Board, LiveLine, Speech } from "./types";

/** A room as this page knows it. */
export interface RoomState {
  board: Board;
  speech: Speech;
  lines: LiveLine[];
  /** When the last news came, in milliseconds of the page's clock. */
  at: number;
  /** When the recording would have begun without a break, by the same clock: see `clock.ts`. */
  zero: number;
}

export type RoomAct =
  | { type: "all"; room: Omit<RoomState, "at" | "zero">; at: number }
  | { type: "board"; board: Board }
  | { type: "speech"; speech: Speech; at: number }
  | { type: "lines"; lines: LiveLine[] };

/** Puts news into the room. News before the room itself is known is of no use and comes again. */
export function roomReducer(state: RoomState | null, act: RoomAct): RoomState | null {
  if (act.type === "all") return { ...act.room, at: act.at, zero: zeroAfter(null, act.room.speech.duration, act.at, false) };
  if (!state) return state;
  switch (act.type) {
    case "board":
      return { ...state, board: act.board, zero: interrupted(state.board, act.board) ? resumed(state) : state.zero };
    case "speech":
      return { ...state, speech: act.speech, at: act.at, zero: zeroAfter(state, act.speech.duration, act.at, false) };
    case "lines":
      return { ...state, lines: mergedLines(state.lines, act.lines) };
  }
}

/** The lines with those that changed in their places. */
export function mergedLines(old: readonly LiveLine[], changed: readonly LiveLine[]): LiveLine[] {
  const news = new Map(changed.map((line) => [line.number, line]));
  const kept = old.map((line) => {
    const now = news.get(line.number);
    news.delete(line.number);
    return now ?? line;
  });
  return [...kept, ...news.values()].sort((a, b) => a.start - b.start || a.number - b.number);
}

/** Behind a break the clock counts on from what the server holds. */
const resumed = (state: RoomState): number => zeroAfter(null, state.speech.duration, state.at, true);

/** The state of a recording as this page shows it: its own recorder knows before the server does. */
export function phaseOf(state: Board["state"], recorder: RecorderState): Board["state"] {
  if (recorder === "recording" || recorder === "paused" || recorder === "stopping") return recorder;
  return recorder === "starting" && state !== "paused" ? "ready" : state;
}
