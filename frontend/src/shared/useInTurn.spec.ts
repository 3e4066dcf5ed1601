import { expect, test } from "vitest";

import { inTurn } from "./useInTurn";

test("a step begins when the one before has ended", async () => {
  const queue = inTurn();
  const seen: string[] = [];
  let release = () => {};
  const first = queue(
    () =>
      new Promise<void>((resolve) => {
        release = () => {
          seen.push("first");
          resolve();
        };
      }),
  );
  const second = queue(() => {
    seen.push("second");
    return Promise.resolve();
  });
  await Promise.resolve();
  release();
  await Promise.all([first, second]);
  expect(seen).toEqual(["first", "second"]);
});

test("a step that fails tells so and holds up nothing", async () => {
  const queue = inTurn();
  const first = queue(() => Promise.reject(new Error("no connection")));
  const second = queue(() => Promise.resolve(2));
  await expect(first).rejects.toThrow("no connection");
  await expect(second).resolves.toBe(2);
});
