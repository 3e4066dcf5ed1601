import { describe, expect, it } from "vitest";

import { floorText } from "./floorNotice";
import type { LiveVoice } from "./types";

const voice = (id: number, name: string, longest: number, last_heard: number): LiveVoice => ({
  id,
  label: name,
  name,
  named: true,
  seconds: 100,
  longest,
  last_heard,
});
const voices = [voice(1, "Owen", 185, 1000), voice(2, "Ines", 40, 990), voice(3, "Priya", 30, 50)];

describe("floorText", () => {
  it("says who holds the floor and who held it longest", () => {
    expect(floorText({ voices, holder: 2, held: 24, floor_limit: 180 }, 500).line).toBe(
      "Ines has held the floor 0:24 · longest so far Owen 3:05",
    );
  });

  it("tells of a stretch beyond the set length, and of none when that is off", () => {
    expect(floorText({ voices, holder: 1, held: 185, floor_limit: 180 }, 500).notice).toContain("Owen has spoken for 3:05");
    expect(floorText({ voices, holder: 1, held: 185, floor_limit: 0 }, 500).notice).toBe("");
  });

  it("tells of somebody who has not spoken for long, late enough in the meeting", () => {
    expect(floorText({ voices, holder: null, held: 0, floor_limit: 180 }, 1000).notice).toBe("Priya has not spoken for 15 minutes.");
    expect(floorText({ voices, holder: null, held: 0, floor_limit: 180 }, 500).notice).toBe("");
  });
});
