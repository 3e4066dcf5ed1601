import { expect, test } from "vitest";

import { layout, step, wrap, type MapNode } from "./layout";

const leaf = (id: string, text = id): MapNode => ({ id, text, children: [] });
const root: MapNode = {
  id: "meeting",
  text: "Timetable",
  children: [
    { id: "a", text: "Slipway", children: [leaf("a1"), leaf("a2")] },
    { id: "b", text: "Tickets", children: [leaf("b1", "word ".repeat(60))] },
  ],
};
const all = new Set(["meeting", "a", "b"]);

test("nodes of a column do not overlap, and a parent stands beside its first child", () => {
  const { nodes, height } = layout(root, all);
  const lines = nodes.filter((each) => each.depth === 2);
  for (const [n, each] of lines.entries()) expect(each.y).toBeGreaterThanOrEqual((lines[n - 1]?.y ?? 0) + (lines[n - 1]?.height ?? 0));
  const a = nodes.find((each) => each.node.id === "a");
  expect(a?.y).toBe(lines[0]?.y);
  expect(Math.max(...nodes.map((each) => each.y + each.height))).toBeLessThanOrEqual(height);
});

test("what is closed is not drawn", () => {
  expect(layout(root, new Set(["meeting", "b"])).nodes.map((each) => each.node.id)).toEqual(["meeting", "a", "b", "b1"]);
});

test("rows hold every word", () => {
  expect(wrap("the slipway needs new rails", 12)).toEqual(["the slipway", "needs new", "rails"]);
  expect(wrap("Donaudampfschifffahrt fährt", 8)).toEqual(["Donaudampfschifffahrt", "fährt"]);
});

test("keys go up and down, open, close and lead to the parent", () => {
  const { nodes } = layout(root, all);
  expect(step(nodes, all, "a", "ArrowDown").id).toBe("a1");
  expect(step(nodes, all, "a1", "ArrowLeft").id).toBe("a");
  expect(step(nodes, all, "a", "ArrowLeft").open.has("a")).toBe(false);
  expect(step(nodes, new Set(["meeting"]), "a", "ArrowRight").open.has("a")).toBe(true);
  expect(step(nodes, all, "meeting", "ArrowUp").id).toBe("meeting");
});
