import type { Schemas } from "../../api/client";

export type Export = Schemas["ExportOut"];

/** What has become of exports that this page waits for: those to save, those that failed, those still to wait for. */
export function settled(awaited: readonly string[], exports: readonly Export[]): { saved: Export[]; failed: Export[]; left: string[] } {
  const mine = exports.filter((each) => awaited.includes(each.id));
  const saved = mine.filter((each) => each.state === "done");
  const failed = mine.filter((each) => each.state === "failed");
  const ended = new Set([...saved, ...failed].map((each) => each.id));
  return { saved, failed, left: awaited.filter((id) => !ended.has(id)) };
}

/** Whether one of them is not made yet. */
export function goesOn(exports: readonly Export[]): boolean {
  return exports.some((each) => each.state === "waiting" || each.state === "working");
}

/** The list with one more, unless it holds it already, and further on, perhaps. */
export function withOrdered(exports: readonly Export[], ordered: Export): Export[] {
  return exports.some((each) => each.id === ordered.id) ? [...exports] : [ordered, ...exports];
}

/** Those that are files, and no answers for a page. */
export function files(exports: readonly Export[]): Export[] {
  return exports.filter((each) => !each.kind.endsWith(".json"));
}

/** Where a finished file is fetched. */
export function fileAddress(id: string): string {
  return `/api/exports/${id}/file`;
}
