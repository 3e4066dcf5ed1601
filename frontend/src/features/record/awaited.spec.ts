import { expect, test } from "vitest";

import { minutesAwaited } from "./awaited";
import type { RecordData } from "./types";

const record = (state: string | null, minutes: object | null = null) =>
  ({ minutes, meeting: { job: state && { state } } }) as unknown as Pick<RecordData, "minutes" | "meeting">;

test("minutes are awaited while the work goes on, or before it has begun", () => {
  expect(["waiting", "working", null].map((state) => minutesAwaited(record(state)))).toEqual([true, true, true]);
});

test("none are awaited once they are there, or when the work has ended without them", () => {
  expect(minutesAwaited(record("working", {}))).toBe(false);
  expect(["done", "failed", "cancelled"].map((state) => minutesAwaited(record(state)))).toEqual([false, false, false]);
});
