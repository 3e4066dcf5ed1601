import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";

import type { KeptPart, PartStore } from "./partStore";

/** How the server answered to a part: its status, the sentence where it refused, and how many it holds without one missing. */
export interface PutAnswer {
  status: number;
  detail: string;
  held?: number;
}

/** Sends a part; `earliest` is the lowest part of its run that can still be sent. */
export type PutPart = (part: KeptPart, digest: string, earliest: number) => Promise<PutAnswer>;

/** How many parts wait, whether the server is out of reach, and what else keeps it from taking them. */
export interface Waiting {
  parts: number;
  away: boolean;
  trouble: string;
  refused: string;
}

const SHORTEST = 500; // milliseconds before another try
const LONGEST = 5000;

/** Parts kept in memory after they were acknowledged (two minutes): a server that lost them gets them again. */
const RETAINED = 240;

/**
 * Sends parts in their order, one at a time, for as long as it takes: a part is forgotten only when the server
 * has it. The server's count is believed: of what it does not hold although it was acknowledged, what is still in
 * memory is sent again. Parts that the server does not want (they came behind a pause) are dropped; when somebody else has
 * taken the recording over, sending ends and `refused` says so.
 */
export class Sender {
  private readonly queue: KeptPart[] = [];
  private retained: KeptPart[] = [];
  private busy = false;
  private away = false;
  private trouble = "";
  private refused = "";
  private idle: (() => void)[] = [];

  constructor(
    private readonly store: Pick<PartStore, "remove">,
    private readonly put: PutPart,
    private readonly report: (waiting: Waiting) => void,
    private readonly sleep: (milliseconds: number) => Promise<void> = (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
  ) {}

  add(...parts: KeptPart[]): void {
    this.queue.push(...parts);
    this.reportState();
    void this.run();
  }

  /** How many parts are still to be sent. */
  get left(): number {
    return this.queue.length;
  }

  /** Resolves when nothing waits any more, or sending was refused. */
  drained(): Promise<void> {
    if (!this.busy && (!this.queue.length || this.refused)) return Promise.resolve();
    return new Promise((resolve) => this.idle.push(resolve));
  }

  private async run(): Promise<void> {
    if (this.busy || this.refused) return;
    this.busy = true;
    let pause = SHORTEST;
    for (let part = this.queue[0]; part && !this.refused; part = this.queue[0]) {
      if (await this.sent(part)) {
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
    const answer = await this.put(part, bytesToHex(sha256(new Uint8Array(part.data))), this.earliest(part)).catch(() => null);
    this.away = answer === null || answer.status === 502 || answer.status === 503;
    this.trouble = answer === null || this.away || answer.status === 200 || answer.status === 410 ? "" : answer.detail;
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

  private earliest(part: KeptPart): number {
    return Math.min(...[...this.retained, ...this.queue].filter((other) => other.run === part.run).map((other) => other.number));
  }

  /** Retains an acknowledged part, and sends again what the server has lost since. Each is sent again once. */
  private acknowledged(part: KeptPart, held: number): void {
    const lost = this.retained.filter((other) => other.run === part.run && other.number >= held && other.number < part.number);
    this.retained = [...this.retained.filter((other) => !lost.includes(other)), part].slice(-RETAINED);
    this.queue.unshift(...lost);
  }

  private reportState(): void {
    this.report({ parts: this.queue.length, away: this.away, trouble: this.refused ? "" : this.trouble, refused: this.refused });
  }
}
