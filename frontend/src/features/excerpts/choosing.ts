import type { Schemas } from "../../api/client";

export type Excerpt = Schemas["ExcerptOut"];

/** One of them moved by a step; the same order at either end. */
export function moved<T extends { id: number }>(order: readonly T[], id: number, step: 1 | -1): T[] {
  const from = order.findIndex((each) => each.id === id);
  const to = from + step;
  if (from < 0 || to < 0 || to >= order.length) return [...order];
  const made = [...order];
  [made[from], made[to]] = [made[to]!, made[from]!];
  return made;
}
