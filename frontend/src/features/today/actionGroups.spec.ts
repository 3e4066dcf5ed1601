import { describe, expect, it } from "vitest";

import type { Schemas } from "../../api/client";
import { actionGroups } from "./actionGroups";

const due = (day: string | null): Schemas["OpenAction"] => ({
  meeting_id: "a",
  meeting: "Crew rota",
  line_id: 1,
  text: `due ${day ?? "some day"}`,
  owner: [],
  due: day,
  due_said: null,
});

describe("actions by when they are due", () => {
  it("stand under the day as it is seen from today, across the end of a month", () => {
    const days = ["2026-11-29", "2026-11-30", "2026-12-07", "2026-12-08", null];
    const groups = actionGroups(days.map(due), "2026-11-30");
    expect(groups.map((group) => [group.title, group.overdue, group.actions.length])).toEqual([
      ["Overdue", true, 1],
      ["Today", false, 1],
      ["Within a week", false, 1],
      ["Later", false, 1],
      ["No date named", false, 1],
    ]);
  });

  it("are no groups where there are none", () => {
    expect(actionGroups([], "2026-11-30")).toEqual([]);
  });
});
