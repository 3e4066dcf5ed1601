import type { Schemas } from "../../api/client";

type OpenAction = Schemas["OpenAction"];

/** Actions that are due at about the same time. */
export interface ActionGroup {
  title: string;
  overdue: boolean;
  actions: OpenAction[];
}

const WEEK = 7; // days

/** Actions by when they are due, seen from a day (`2026-12-02`); groups without any are left out. */
export function actionGroups(actions: readonly OpenAction[], today: string): ActionGroup[] {
  const week = new Date(`${today}T12:00:00Z`);
  week.setUTCDate(week.getUTCDate() + WEEK);
  const until = week.toISOString().slice(0, 10);
  const groups: [string, (due: string | null) => boolean][] = [
    ["Overdue", (due) => due !== null && due < today],
    ["Today", (due) => due === today],
    ["Within a week", (due) => due !== null && due > today && due <= until],
    ["Later", (due) => due !== null && due > until],
    ["No date named", (due) => due === null],
  ];
  return groups
    .map(([title, fits]) => ({ title, overdue: title === "Overdue", actions: actions.filter((action) => fits(action.due)) }))
    .filter((group) => group.actions.length > 0);
}
