import { watchPicture } from "./pictures";
import type { Level } from "./level";
import type { KeptPart, KeptRun, PartStore } from "./partStore";
import { Sender, type PutPart, type Waiting } from "./sender";
import { openSource, type Opened, type Source } from "./source";
import { tap, type Tapping } from "./tapping";

/** What the recorder asks of the server. */
export interface RecorderServer {
  begin: (source: Source, takeOver: boolean) => Promise<number>;
  put: PutPart;
  pause: (run: number, parts: number) => Promise<unknown>;
  /** Ends a run, `allSent` when nothing of it is left to send; whether the server still waits for parts of it. */
  stop: (run: number, parts: number, allSent: boolean) => Promise<boolean>;
  picture: (at: number, jpeg: Blob) => Promise<unknown>;
}

export interface RecorderListener {
  level: (level: Level) => void;
  waiting: (waiting: Waiting) => void;
  seconds: (recorded: number) => void;
  /** The source went away by itself: unplugged, or sharing was ended. */
  lost: () => void;
}

const SAMPLE = 2; // bytes
const RATE = 16_000;

/** Records one meeting from this page: source, parts, their keeping and sending. */
export class Recorder {
  private opened: Opened | null = null;
  private tapping: Tapping | null = null;
  private unwatch: () => void = () => undefined;
  private current: KeptRun | null = null;
  private chain: Promise<unknown> = Promise.resolve();
  private readonly sender: Sender;
  private recorded = 0;

  constructor(
    private readonly meetingId: string,
    private readonly store: PartStore,
    private readonly server: RecorderServer,
    private readonly listener: RecorderListener,
  ) {
    this.sender = new Sender(store, server.put, listener.waiting);
  }

  /** Sends what an earlier page left behind, and tells what it was recording. */
  async recover(): Promise<KeptRun | undefined> {
    const [left, run] = await Promise.all([this.store.parts(this.meetingId), this.store.run(this.meetingId)]);
    this.sender.add(...left);
    return run;
  }

  /** Opens the source and records; `already` is what has been recorded before, in seconds. */
  async start(
    source: Source,
    deviceId: string,
    { already, takeOver, pictures }: { already: number; takeOver: boolean; pictures: boolean },
  ): Promise<void> {
    this.opened ??= await openSource(source, deviceId);
    this.opened.track.onended = () => this.listener.lost();
    try {
      await this.sender.drained();
      const run = await this.server.begin(source, takeOver);
      this.current = { meetingId: this.meetingId, run, source, deviceId, parts: 0, active: true, at: Date.now() };
      this.recorded = already;
      await this.store.note(this.current);
      this.opened.mute(false);
      this.tapping = await tap(this.opened.track, (part) => this.take(part.data, part.level, part.begun));
    } catch (error) {
      this.close();
      throw error;
    }
    const picture = this.opened.picture;
    if (picture && pictures)
      this.unwatch = watchPicture(picture, (jpeg) => void this.server.picture(this.recorded, jpeg).catch(() => undefined));
  }

  /** Stops listening; the source stays open, but silent, to go on with. */
  async pause(): Promise<void> {
    const run = await this.silence();
    if (run) await this.server.pause(run.run, run.parts);
  }

  /** Ends the recording; resolves when the server has everything, or this page may not send it. */
  async stop(): Promise<void> {
    const run = await this.silence();
    this.close();
    if (!run) return;
    const waits = await this.server.stop(run.run, run.parts, false);
    await this.sender.drained();
    // everything has been sent: what the server has not got by now it has lost, and it need not wait for it
    if (waits && !this.sender.left) await this.server.stop(run.run, run.parts, true);
  }

  /** Lets go of the source, whatever state it is in; nothing that was recorded is lost. */
  close(): void {
    this.unwatch();
    this.opened?.close();
    this.opened = null;
  }

  /** Resolves when everything recorded so far is on the server. */
  drained(): Promise<void> {
    return this.sender.drained();
  }

  private take(data: ArrayBuffer, level: Level, begun: number | null): void {
    const run = this.current;
    if (!run) return;
    const part: KeptPart = { meetingId: this.meetingId, run: run.run, number: run.parts, data, begun };
    run.parts += 1;
    run.at = Date.now();
    this.recorded += data.byteLength / SAMPLE / RATE;
    this.listener.level(level);
    this.listener.seconds(this.recorded);
    const kept = { ...run };
    this.chain = this.chain
      .then(() => this.store.put(part, kept))
      .catch(() => undefined)
      .then(() => this.sender.add(part));
  }

  /** Ends the run on this side: all its parts are kept on this computer when it resolves. */
  private async silence(): Promise<KeptRun | null> {
    this.unwatch();
    await this.tapping?.end();
    this.tapping = null;
    this.opened?.mute(true);
    await this.chain;
    const run = this.current;
    if (run) await this.store.note({ ...run, active: false });
    this.current = null;
    return run;
  }
}
