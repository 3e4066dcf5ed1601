import type { Schemas } from "../../api/client";

/** The meetings in whose title, kind or people every wanted word occurs. */
export function matching(meetings: Schemas["MeetingOut"][], wanted: string): Schemas["MeetingOut"][] {
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  return meetings.filter((m) => {
    const held = [m.title, m.kind, ...m.people].join(" ").toLowerCase();
    return words.every((word) => held.includes(word));
  });
}
