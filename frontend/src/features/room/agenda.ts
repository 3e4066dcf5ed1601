import { clock } from "../../shared/times";
import type { Agenda } from "./types";

/** Items of a text with one item a line: `Slipway 15` or `Slipway, 15 min` is an item of 15 minutes. */
export function readAgenda(text: string): { title: string; planned: number | null }[] {
  return text
    .split("\n")
    .map((line) => line.replace(/^\s*(?:[-*•]|\d+[.)])\s+/, "").trim())
    .filter(Boolean)
    .slice(0, 40)
    .map((line) => {
      const match = /^(.*?\S)[\s,:(–-]+(\d{1,3})\s*(?:m|min|mins|minutes|['’])?\)?$/i.exec(line);
      const minutes = Number(match?.[2] ?? 0);
      return match?.[1] && minutes > 0
        ? { title: match[1].slice(0, 200), planned: minutes * 60 }
        : { title: line.slice(0, 200), planned: null };
    });
}

/** The text from which the same agenda is read. */
export function agendaText(items: readonly Pick<Agenda, "title" | "planned">[]): string {
  return items.map((item) => (item.planned ? `${item.title} ${Math.round(item.planned / 60)}` : item.title)).join("\n");
}

/** How an item stands at `now`: done, on with its time left, or still to come with its planned minutes. */
export function itemStatus(item: Agenda, now: number): { state: "done" | "on" | "to come"; text: string; late: boolean } {
  const planned = item.planned ?? 0;
  if (item.begun === null) return { state: "to come", text: planned ? `· ${Math.round(planned / 60)}` : "", late: false };
  if (item.ended !== null) return { state: "done", text: "✓", late: false };
  const spent = Math.max(0, now - item.begun);
  if (!planned) return { state: "on", text: `· ${clock(spent)}`, late: false };
  const left = planned - spent;
  if (left < 0) return { state: "on", text: `· ${clock(-left)} over`, late: true };
  return { state: "on", text: left < 120 ? `· ${clock(left)} left` : `· ${Math.floor(left / 60)} min left`, late: false };
}
