import { describe, expect, it } from "vitest";

import type { Schemas } from "../api/client";
import { whole } from "./fetchRecord";

type Turn = Schemas["TurnOut"];

const turn = (number: number): Turn => ({ number, voice: 1, words: [["word", number, number + 1, 1]], heard: null });
const record = (held: number, total: number) =>
  ({ turns: Array.from({ length: held }, (_, n) => turn(n)), total_turns: total }) as unknown as Schemas["RecordOut"];

describe("whole", () => {
  it("fetches the turns that are missing, in order", async () => {
    const asked: number[] = [];
    const made = await whole(record(2, 5), (first) => {
      asked.push(first);
      return Promise.resolve({ turns: [turn(first), turn(first + 1)].slice(0, 5 - first), total: 5 });
    });
    expect(asked).toEqual([2, 4]);
    expect(made.turns.map((each) => each.number)).toEqual([0, 1, 2, 3, 4]);
  });

  it("asks for nothing where all is there, and ends where no more come", async () => {
    const none = () => Promise.resolve({ turns: [], total: 0 });
    expect((await whole(record(3, 3), () => Promise.reject(new Error()))).turns).toHaveLength(3);
    expect((await whole(record(0, 0), () => Promise.reject(new Error()))).turns).toHaveLength(0);
    expect((await whole(record(3, 4), none)).turns).toHaveLength(3);
  });
});
