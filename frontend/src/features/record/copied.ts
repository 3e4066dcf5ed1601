import { escaped, type Copied } from "../../shared/copy";
import { clock, day } from "../../shared/times";
import { fragmentFor } from "./fragment";
import type { Section } from "./sections";
import type { Line } from "./types";

/** The address of a line. */
export const addressOf = (page: string, line: Line): string => `${page}#line-${line.id}`;

/** Lines as they are copied: what each says, for a task who does it by when, and the link to the words behind it. */
export function copiedLines(lines: readonly Line[], page: string): Copied {
  return {
    text:
      lines.map((line) => `- ${said(line)} ${links(line, page).map(([, address]) => address)[0] ?? addressOf(page, line)}`).join("\n") +
      "\n",
    html: `<ul>${lines.map((line) => `<li>${escaped(said(line))} ${linked(line, page)}</li>`).join("")}</ul>`,
  };
}

/** The minutes as they are copied, section by section, without what was thrown out. */
export function copiedMinutes(title: string, sections: readonly Section[], page: string): Copied {
  const kept = sections.filter((section) => section.place !== undefined);
  const parts = kept.map((section) => ({ title: section.title, ...copiedLines(section.lines, page) }));
  return {
    text: [title, ...parts.map((part) => `${part.title}\n${part.text}`)].join("\n\n"),
    html: `<h1>${escaped(title)}</h1>${parts.map((part) => `<h2>${escaped(part.title)}</h2>${part.html}`).join("")}`,
  };
}

function said(line: Line): string {
  const end = [line.answer ?? "", line.remark].filter(Boolean).map((each) => ` — ${each}`);
  if (line.kind !== "action") return line.text + end.join("");
  const who = line.owner.join(", ") || "nobody took this on";
  const done = line.progress === "open" ? "" : `, ${line.progress}`;
  return `${line.text} (${who}, ${line.due ? `by ${day(line.due)}` : "no date named"}${done})${end.join("")}`;
}

/** Times of the passages with the address of each. */
function links(line: Line, page: string): [string, string][] {
  const own = line.evidence.filter((each) => !each.of_answer).sort((a, b) => a.start - b.start);
  const times = new Map(own.map((each) => [clock(each.start), `${page}${fragmentFor(each.start, each.end)}`]));
  return [...times];
}

function linked(line: Line, page: string): string {
  const times = links(line, page);
  const shown: [string, string][] = times.length ? times : [["added by hand", addressOf(page, line)]];
  return `[${shown.map(([time, address]) => `<a href="${escaped(address)}">${time}</a>`).join(", ")}]`;
}
