import { clock } from "../../shared/times";
import type { Board } from "./types";

/** Seconds of the meeting before anybody is said to be silent, and of silence before it is said. */
const QUIET_FROM = 600;
const QUIET_FOR = 900;

export interface FloorTold {
  /** Who holds the floor and the longest stretch so far, for everybody who looks. */
  line: string;
  /** What the facilitator alone is told; empty most of the time. */
  notice: string;
}

/** What is to be said about the floor at `now` seconds. */
export function floorText(board: Pick<Board, "voices" | "holder" | "held" | "floor_limit">, now: number): FloorTold {
  const holder = board.voices.find((voice) => voice.id === board.holder);
  const longest = [...board.voices].sort((a, b) => b.longest - a.longest)[0];
  const parts = [
    holder && board.held >= 5 ? `${holder.name} has held the floor ${clock(board.held)}` : "",
    longest && longest.longest >= 20 ? `longest so far ${longest.name} ${clock(longest.longest)}` : "",
  ];
  return { line: parts.filter(Boolean).join(" · "), notice: notice(board, holder?.name, now) };
}

function notice(board: Pick<Board, "voices" | "held" | "floor_limit">, holder: string | undefined, now: number): string {
  if (holder && board.floor_limit > 0 && board.held > board.floor_limit) {
    return `${holder} has spoken for ${clock(board.held)} without a break.`;
  }
  if (now < QUIET_FROM || board.voices.length < 3) return "";
  const silent = board.voices.filter((voice) => voice.named && now - voice.last_heard > QUIET_FOR);
  return silent[0] ? `${silent[0].name} has not spoken for ${Math.floor((now - silent[0].last_heard) / 60)} minutes.` : "";
}
