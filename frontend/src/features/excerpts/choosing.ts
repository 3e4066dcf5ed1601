import type { Schemas } from "../../api/client";

export type Excerpt = Schemas["ExcerptOut"];

/** What the list is narrowed to; "" stands for all. */
export interface Narrowed {
  words: string;
  meeting: string;
  person: string;
  label: string;
}

/** The excerpts that fit. */
export function fitting(excerpts: readonly Excerpt[], { words, meeting, person, label }: Narrowed): Excerpt[] {
  const wanted = words.trim().toLowerCase();
  return excerpts.filter(
    (each) =>
      (!meeting || each.meeting_id === meeting) &&
      (!person || each.speakers.includes(person)) &&
      (!label || each.label === label) &&
      (!wanted || `${each.title} ${each.note} ${each.quote}`.toLowerCase().includes(wanted)),
  );
}

/** One piece of `order` moved by a step; the same order at either end. */
export function moved(order: readonly number[], id: number, step: 1 | -1): number[] {
  const from = order.indexOf(id);
  const to = from + step;
  if (from < 0 || to < 0 || to >= order.length) return [...order];
  const made = [...order];
  [made[from], made[to]] = [made[to]!, made[from]!];
  return made;
}
