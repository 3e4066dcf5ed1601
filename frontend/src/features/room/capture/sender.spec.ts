import { describe, expect, it } from "vitest";

import type { KeptPart } from "./partStore";
import { Sender, type PutAnswer, type Waiting } from "./sender";

const part = (number: number): KeptPart => ({ meetingId: "m", run: 0, number, data: new ArrayBuffer(4), begun: null });

function desk(answers: (PutAnswer | null)[]) {
  const sent: number[] = [];
  const earliest: number[] = [];
  const removed: number[] = [];
  const reports: Waiting[] = [];
  const sender = new Sender(
    {
      remove: (p) => {
        removed.push(p.number);
        return Promise.resolve();
      },
    },
    (p, _digest, lowest) => {
      sent.push(p.number);
      earliest.push(lowest);
      const answer = answers.shift() ?? { status: 200, detail: "" };
      return answer.status === 0 ? Promise.reject(new Error("away")) : Promise.resolve(answer);
    },
    (waiting) => reports.push(waiting),
    () => Promise.resolve(),
  );
  return { sender, sent, earliest, removed, reports };
}

const ok = { status: 200, detail: "" };
const away = { status: 0, detail: "" };

describe("Sender", () => {
  it("sends parts in order and forgets each when it is acknowledged", async () => {
    const { sender, sent, removed, reports } = desk([]);
    sender.add(part(0), part(1), part(2));
    await sender.drained();
    expect(sent).toEqual([0, 1, 2]);
    expect(removed).toEqual([0, 1, 2]);
    expect(reports.at(-1)).toEqual({ parts: 0, away: false, trouble: "", refused: "" });
  });

  it("tries again while the server is away, and loses nothing", async () => {
    const { sender, sent, removed, reports } = desk([ok, away, { status: 502, detail: "" }, ok]);
    sender.add(part(0), part(1));
    await sender.drained();
    expect(sent).toEqual([0, 1, 1, 1]);
    expect(removed).toEqual([0, 1]);
    expect(reports.some((waiting) => waiting.away && waiting.parts === 1)).toBe(true);
  });

  it("says what else is wrong, a full disk or an ended session, and goes on trying", async () => {
    const { sender, removed, reports } = desk([
      { status: 507, detail: "The disk is full." },
      { status: 401, detail: "Please sign in." },
    ]);
    sender.add(part(0));
    await sender.drained();
    expect(reports.map((waiting) => waiting.trouble)).toEqual(expect.arrayContaining(["The disk is full.", "Please sign in."]));
    expect(reports.at(-1)?.trouble).toBe("");
    expect(removed).toEqual([0]);
  });

  it("sends again what the server has lost since it was acknowledged", async () => {
    const held = (count: number): PutAnswer => ({ status: 200, detail: "", held: count });
    const { sender, sent, earliest } = desk([held(1), held(2), held(3), held(1), held(2), held(4)]);
    sender.add(part(0), part(1), part(2), part(3));
    await sender.drained();
    expect(sent).toEqual([0, 1, 2, 3, 1, 2]);
    expect(earliest).toEqual([0, 0, 0, 0, 0, 0]);
  });

  it("says which part is the earliest it has, so that the server does not wait for others", async () => {
    const { sender, sent, earliest } = desk([
      { status: 200, detail: "", held: 11 },
      { status: 200, detail: "", held: 52 },
    ]);
    sender.add(part(50), part(51));
    await sender.drained();
    expect(sent).toEqual([50, 51]);
    expect(earliest).toEqual([50, 50]);
  });

  it("drops what came behind a pause", async () => {
    const { sender, removed } = desk([{ status: 410, detail: "not kept" }]);
    sender.add(part(0), part(1));
    await sender.drained();
    expect(removed).toEqual([0, 1]);
  });

  it("ends when somebody else records, and keeps what it has", async () => {
    const { sender, removed, reports } = desk([{ status: 409, detail: "Ines is recording" }]);
    sender.add(part(0), part(1));
    await sender.drained();
    expect(removed).toEqual([]);
    expect(reports.at(-1)).toEqual({ parts: 2, away: false, trouble: "", refused: "Ines is recording" });
  });
});
