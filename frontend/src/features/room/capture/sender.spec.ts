import { describe, expect, it } from "vitest";

import type { KeptPart, KeptStep } from "./partStore";
import { Sender, type PutAnswer, type Waiting } from "./sender";

const part = (number: number, run = 0): KeptPart => ({ meetingId: "m", run, number, data: new ArrayBuffer(4), begun: null });
const step = (kind: KeptStep["kind"], run: number, parts = 0): KeptStep => ({ meetingId: "m", run, kind, source: "microphone", parts });

/** A sender before a server that answers in turn: 200 where nothing is left to say. */
function desk(answers: (PutAnswer | null)[]) {
  const happened: string[] = [];
  const answerTo = (what: string) => {
    const answer = answers.shift() ?? { status: 200, detail: "" };
    if (answer.status !== 200)
      return Promise.reject(Object.assign(new Error(answer.detail), answer.status ? { status: answer.status } : {}));
    happened.push(what);
    return Promise.resolve();
  };
  const sent: number[] = [];
  const earliest: number[] = [];
  const removed: number[] = [];
  const removedSteps: string[] = [];
  const numbers = [1, 2, 3];
  const reports: Waiting[] = [];
  const sender = new Sender(
    {
      remove: (p) => {
        removed.push(p.number);
        return Promise.resolve();
      },
      removeStep: (s) => {
        removedSteps.push(`${s.kind} ${s.run}`);
        return Promise.resolve();
      },
    },
    {
      put: (p, _digest, lowest) => {
        sent.push(p.number);
        earliest.push(lowest);
        const answer = answers.shift() ?? { status: 200, detail: "" };
        if (answer.status === 200) happened.push(`part ${p.run}.${p.number}`);
        return answer.status === 0 ? Promise.reject(new Error("away")) : Promise.resolve(answer);
      },
      begin: () => answerTo(`begin ${numbers[0]}`).then(() => numbers.shift() ?? 0),
      pause: (run, parts) => answerTo(`pause ${run} behind ${parts}`),
    },
    (waiting) => reports.push(waiting),
    () => Promise.resolve(),
  );
  return { sender, sent, earliest, removed, removedSteps, reports, happened, numbers };
}

const ok = { status: 200, detail: "" };
const away = { status: 0, detail: "" };

describe("Sender", () => {
  it("sends parts in order and forgets each when it is acknowledged", async () => {
    const { sender, sent, removed, reports } = desk([]);
    sender.recover([part(0), part(1), part(2)], []);
    await sender.drained();
    expect(sent).toEqual([0, 1, 2]);
    expect(removed).toEqual([0, 1, 2]);
    expect(reports.at(-1)).toEqual({ parts: 0, away: false, trouble: "", refused: "" });
  });

  it("tries again while the server is away, and loses nothing", async () => {
    const { sender, sent, removed, reports } = desk([ok, away, { status: 502, detail: "" }, ok]);
    sender.recover([part(0), part(1)], []);
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
    sender.recover([part(0), part(1), part(2), part(3)], []);
    await sender.drained();
    expect(sent).toEqual([0, 1, 2, 3, 1, 2]);
    expect(earliest).toEqual([0, 0, 0, 0, 0, 0]);
  });

  it("says which part is the earliest it has, so that the server does not wait for others", async () => {
    const { sender, sent, earliest } = desk([
      { status: 200, detail: "", held: 11 },
      { status: 200, detail: "", held: 52 },
    ]);
    sender.recover([part(50), part(51)], []);
    await sender.drained();
    expect(sent).toEqual([50, 51]);
    expect(earliest).toEqual([50, 50]);
  });

  it("drops what came behind a pause", async () => {
    const { sender, removed } = desk([{ status: 410, detail: "not kept" }]);
    sender.recover([part(0), part(1)], []);
    await sender.drained();
    expect(removed).toEqual([0, 1]);
  });

  it("ends when somebody else records, and keeps what it has", async () => {
    const { sender, removed, reports } = desk([{ status: 409, detail: "Ines is recording" }]);
    sender.recover([part(0), part(1)], []);
    await sender.drained();
    expect(removed).toEqual([]);
    expect(reports.at(-1)).toEqual({ parts: 2, away: false, trouble: "", refused: "Ines is recording" });
  });

  it("lets the server hear of pauses and new runs in the order in which they happened", async () => {
    const { sender, happened, removedSteps } = desk([away, away, ok]);
    sender.add(part(0));
    sender.pause(step("pause", 0, 1));
    sender.begin(step("begin", 1));
    sender.add(part(0, 1));
    sender.pause(step("pause", 1, 1));
    sender.begin(step("begin", 2));
    sender.add(part(0, 2));
    expect(sender.hasSteps).toBe(true);
    await sender.drained();
    expect(happened).toEqual(["part 0.0", "pause 0 behind 1", "begin 1", "pause 1 behind 1", "part 1.0", "begin 2", "part 2.0"]);
    expect(removedSteps).toEqual(["pause 0", "begin 1", "pause 1", "begin 2"]);
    expect(sender.hasSteps).toBe(false);
  });

  it("puts a pause ahead of the parts that are still to be sent, but not of the one on its way", async () => {
    const { sender, happened } = desk([]);
    sender.recover([part(0), part(1), part(2)], []);
    sender.pause(step("pause", 0, 3));
    await sender.drained();
    expect(happened).toEqual(["part 0.0", "pause 0 behind 3", "part 0.1", "part 0.2"]);
  });

  it("goes on with what an earlier page left behind", async () => {
    const { sender, happened } = desk([]);
    sender.recover([part(1, 1), part(0, 1), part(7)], [step("begin", 1), step("pause", 0, 8), step("pause", 1, 2)]);
    await sender.drained();
    expect(happened).toEqual(["pause 0 behind 8", "part 0.7", "begin 1", "pause 1 behind 2", "part 1.0", "part 1.1"]);
  });

  it("takes a pause as heard of where the recording has ended meanwhile", async () => {
    const { sender, removedSteps } = desk([{ status: 409, detail: "Nothing is being recorded now." }]);
    sender.pause(step("pause", 0, 1));
    await sender.drained();
    expect(removedSteps).toEqual(["pause 0"]);
  });

  it.each([
    ["the server refuses the new run", [{ status: 409, detail: "This recording has ended." }], 1, "This recording has ended."],
    ["another page has recorded meanwhile", [], 2, "another page"],
  ])("ends, and keeps what it has, where %s", async (_, answers, number, words) => {
    const { sender, removed, reports, numbers } = desk(answers);
    numbers[0] = number;
    sender.begin(step("begin", 1));
    sender.add(part(0, 1));
    await sender.drained();
    expect(removed).toEqual([]);
    expect(reports.at(-1)?.refused).toContain(words);
  });
});
