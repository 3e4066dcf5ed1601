import type { Schemas } from "../api/client";
import { clock, hour, lasting } from "./times";

/** A pause, gap or cut in words, with its place: `paused at 12:03 for 17 min`. */
export function breakText(pause: Schemas["BreakOut"]): string {
  const long = pause.seconds === null ? "" : ` for ${pause.seconds < 1 ? "less than a second" : lasting(pause.seconds)}`;
  if (pause.kind === "pause") return `paused at ${clock(pause.at)}${long}`;
  if (pause.kind === "gap") return `broke off at ${clock(pause.at)}${long}`;
  return `${lasting(pause.seconds ?? 0)} removed at ${clock(pause.at)} by ${pause.by}, ${hour(pause.made_at)}`;
}
