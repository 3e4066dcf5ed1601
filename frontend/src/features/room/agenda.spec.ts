import { describe, expect, it } from "vitest";

import { agendaText, itemStatus, readAgenda } from "./agenda";

describe("readAgenda", () => {
  it("reads an item a line with its minutes in the ways people write them", () => {
    expect(readAgenda("Winter timetable 10\n- Slipway, 15 min\n2. Crew (5)\n\nAny other business")).toEqual([
      { title: "Winter timetable", planned: 600 },
      { title: "Slipway", planned: 900 },
      { title: "Crew", planned: 300 },
      { title: "Any other business", planned: null },
    ]);
  });

  it("reads what it has written", () => {
    const items = readAgenda("Winter timetable 10\nCrew");
    expect(readAgenda(agendaText(items))).toEqual(items);
  });

  it("keeps a number that is the whole item", () => {
    expect(readAgenda("2027")).toEqual([{ title: "2027", planned: null }]);
  });
});

describe("itemStatus", () => {
  const item = { title: "Slipway", planned: 600, begun: null, ended: null };
  it("says what is to come, on, running over and done", () => {
    expect(itemStatus(item, 0)).toEqual({ state: "to come", text: "· 10", late: false });
    expect(itemStatus({ ...item, begun: 100 }, 160).text).toBe("· 9 min left");
    expect(itemStatus({ ...item, begun: 100 }, 650).text).toBe("· 0:50 left");
    expect(itemStatus({ ...item, begun: 100 }, 765)).toEqual({ state: "on", text: "· 1:05 over", late: true });
    expect(itemStatus({ ...item, begun: 100, ended: 200 }, 765).state).toBe("done");
  });
});
