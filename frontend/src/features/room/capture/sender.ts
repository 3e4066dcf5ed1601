import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";

import type { KeptPart, KeptStep, PartStore } from "./partStore";
import type { Source } from "./source";

/** How the server answered to a part: its status, the sentence where it refused, and how many it holds without one missing. */
export interface PutAnswer {
  status: number;
  detail: string;
  held?: number;
}

/** Sends a part; `earliest` is the lowest part of its run that can still be sent. */
export type PutPart = (part: KeptPart, digest: string, earliest: number) => Promise<PutAnswer>;

/** What the sender asks of the server. `begin` answers with the number of the run. */
export interface SenderServer {
  put: PutPart;
  begin: (source: Source, takeOver: boolean) => Promise<number>;
  pause: (run: number, parts: number) => Promise<unknown>;
}

/** How many parts wait, whether the server is out of reach, and what else keeps it from taking them. */
export interface Waiting {
  parts: number;
  away: boolean;
  trouble: string;
  refused: string;
}

type Item = KeptPart | KeptStep;
const isStep = (item: Item): item is KeptStep => "kind" in item;
const isPart = (item: Item): item is KeptPart => !isStep(item);

const SHORTEST = 500; // milliseconds before another try
const LONGEST = 5000;

/** Parts kept in memory after they were acknowledged (two minutes): a server that lost them gets them again. */
const RETAINED = 240;

const ELSEWHERE = "This meeting has been recorded on another page meanwhile. What this page kept cannot be added to it.";

/** Waits, but no longer than until the browser says that the network is back. */
function untilOnline(milliseconds: number): Promise<void> {
  return new Promise((resolve) => {
    const done = () => {
      clearTimeout(timer);
      removeEventListener("online", done);
      resolve();
    };
    const timer = setTimeout(done, milliseconds);
    addEventListener("online", done);
  });
}

/**
 * Sends parts in their order, one at a time, for as long as it takes: a part is forgotten only when the server
 * has it. Between them stand the beginnings and pauses of runs that the server does not know of yet. So a recording goes on
 * without waiting for the server, which hears of everything in the order in which it happened.
 *
 * The server's count is believed: of what it does not hold although it was acknowledged, what is still in
 * memory is sent again. Parts that the server does not want (they came behind a pause) are dropped; when somebody else has
 * taken the recording over, sending ends and `refused` says so.
 */
export class Sender {
  private readonly queue: Item[] = [];
  private retained: KeptPart[] = [];
  private busy = false;
  private away = false;
  private trouble = "";
  private refused = "";
  private idle: (() => void)[] = [];

  constructor(
    private readonly store: Pick<PartStore, "remove" | "removeStep">,
    private readonly server: SenderServer,
    private readonly report: (waiting: Waiting) => void,
    private readonly sleep: (milliseconds: number) => Promise<void> = untilOnline,
  ) {}

  /** Takes what an earlier page left behind: each run begins before its parts, and its pause comes before them. */
  recover(parts: readonly KeptPart[], steps: readonly KeptStep[]): void {
    const order = { begin: 0, pause: 1, part: 2 };
    const rank = (item: Item) => order[isStep(item) ? item.kind : "part"];
    const number = (item: Item) => (isStep(item) ? 0 : item.number);
    this.push(...[...parts, ...steps].sort((a, b) => a.run - b.run || rank(a) - rank(b) || number(a) - number(b)));
  }

  add(part: KeptPart): void {
    this.push(part);
  }

  /** A run begins behind all that waits. */
  begin(step: KeptStep): void {
    this.push(step);
  }

  /** A pause goes ahead of the parts that are still to be sent, so that others see it at once. */
  pause(step: KeptStep): void {
    const behind = this.queue.findIndex((item, i) => item.run === step.run && isPart(item) && !(this.busy && i === 0));
    this.queue.splice(behind < 0 ? this.queue.length : behind, 0, step);
    this.reportState();
    void this.run();
  }

  /** How many parts are still to be sent. */
  get left(): number {
    return this.queue.filter(isPart).length;
  }

  /** Whether the server does not know of a run or pause yet. */
  get hasSteps(): boolean {
    return this.queue.some(isStep);
  }

  /** Resolves when nothing waits any more, or sending was refused. */
  drained(): Promise<void> {
    if (!this.busy && (!this.queue.length || this.refused)) return Promise.resolve();
    return new Promise((resolve) => this.idle.push(resolve));
  }

  private push(...items: Item[]): void {
    this.queue.push(...items);
    this.reportState();
    void this.run();
  }

  private async run(): Promise<void> {
    if (this.busy || this.refused) return;
    this.busy = true;
    let pause = SHORTEST;
    for (let item = this.queue[0]; item && !this.refused; item = this.queue[0]) {
      if (await (isStep(item) ? this.announced(item) : this.sent(item))) {
        pause = SHORTEST;
        continue;
      }
      await this.sleep(pause);
      pause = Math.min(LONGEST, pause * 2);
    }
    this.busy = false;
    this.idle.splice(0).forEach((done) => done());
  }

  private async sent(part: KeptPart): Promise<boolean> {
    const digest = bytesToHex(sha256(new Uint8Array(part.data)));
    const answer = await this.server.put(part, digest, this.earliest(part)).catch(() => null);
    this.reached(answer?.status ?? 0, answer?.detail ?? "");
    if (answer && (answer.status === 200 || answer.status === 410)) {
      await this.store.remove(part);
      this.queue.shift();
      if (answer.status === 200) this.acknowledged(part, answer.held ?? part.number + 1);
      this.reportState();
      return true;
    }
    if (answer && (answer.status === 409 || answer.status === 404)) this.refused = answer.detail;
    this.reportState();
    return false;
  }

  /** Whether the server knows of the step now. */
  private async announced(step: KeptStep): Promise<boolean> {
    try {
      if (step.kind === "pause") await this.server.pause(step.run, step.parts);
      else if ((await this.server.begin(step.source, false)) !== step.run) this.refused = ELSEWHERE;
      this.reached(200, "");
    } catch (error) {
      const { status = 0, message } = error as { status?: number; message: string };
      this.reached(status, message);
      const settled = status === 409 || status === 404;
      if (settled && step.kind === "begin") this.refused = message;
      if (!settled || step.kind === "begin") {
        this.reportState();
        return false; // a pause that is refused is one of a recording that has ended or been paused already
      }
    }
    await this.store.removeStep(step);
    this.queue.splice(this.queue.indexOf(step), 1);
    this.reportState();
    return true;
  }

  private reached(status: number, detail: string): void {
    this.away = status === 0 || status === 502 || status === 503;
    this.trouble = this.away || status === 200 || status === 410 ? "" : detail;
  }

  private earliest(part: KeptPart): number {
    const parts = [...this.retained, ...this.queue.filter(isPart)];
    return Math.min(...parts.filter((other) => other.run === part.run).map((other) => other.number));
  }

  /** Retains an acknowledged part, and sends again what the server has lost since. Each is sent again once. */
  private acknowledged(part: KeptPart, held: number): void {
    const lost = this.retained.filter((other) => other.run === part.run && other.number >= held && other.number < part.number);
    this.retained = [...this.retained.filter((other) => !lost.includes(other)), part].slice(-RETAINED);
    this.queue.unshift(...lost);
  }

  private reportState(): void {
    this.report({ parts: this.left, away: this.away, trouble: this.refused ? "" : this.trouble, refused: this.refused });
  }
}
