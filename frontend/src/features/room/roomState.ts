import type { Board, LiveLine, Speech } from "./types";

/** A room as this page knows it. */
export interface RoomState {
  board: Board;
  speech: Speech;
  lines: LiveLine[];
  /** When the last news came, by this computer's clock in milliseconds. */
  at: number;
}

export type RoomAct =
  | { type: "all"; room: Omit<RoomState, "at">; at: number }
  | { type: "board"; board: Board }
  | { type: "speech"; speech: Speech; at: number }
  | { type: "lines"; lines: LiveLine[] };

/** Puts news into the room. News before the room itself is known is of no use and comes again. */
export function roomReducer(state: RoomState | null, act: RoomAct): RoomState | null {
  if (act.type === "all") return { ...act.room, at: act.at };
  if (!state) return state;
  switch (act.type) {
    case "board":
      return { ...state, board: act.board };
    case "speech":
      return { ...state, speech: act.speech, at: act.at };
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

/** Seconds recorded by now: what the server holds, and what has passed since it said so while it records. */
export function secondsNow(state: Pick<RoomState, "speech" | "at">, clock: number): number {
  const passed = state.speech.state === "recording" ? Math.min(5, Math.max(0, (clock - state.at) / 1000)) : 0;
  return state.speech.duration + passed;
}
