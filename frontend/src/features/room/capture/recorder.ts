import { watchPicture } from "./pictures";
import type { Level } from "./level";
import type { KeptPart, KeptRun, KeptStep, PartStore } from "./partStore";
import { Sender, type SenderServer, type Waiting } from "./sender";
import { openSource, type Opened, type Source } from "./source";
import { tap, type Tapping } from "./tapping";

/** What the recorder asks of the server. */
export interface RecorderServer extends SenderServer {
  /** Ends a run, `allSent` when nothing of it is left to send; whether the server still waits for parts of it. */
  stop: (run: number, parts: number, allSent: boolean) => Promise<boolean>;
  picture: (at: number, jpeg: Blob) => Promise<unknown>;
}

export interface RecorderListener {
  level: (level: Level) => void;
  waiting: (waiting: Waiting) => void;
  /** Seconds of the meeting that have been recorded; called with every part. */
  seconds: (recorded: number) => void;
  /** The source went away by itself: unplugged, or sharing was ended. */
  lost: () => void;
}

interface Start {
  /** Seconds that had been recorded before, as far as the server knows. */
  already: number;
  takeOver: boolean;
  pictures: boolean;
}

const SAMPLE = 2; // bytes
const RATE = 16_000;

/** Records one meeting from this page: source, parts, their keeping and sending. */
export class Recorder {
  private opened: Opened | null = null;
  private tapping: Tapping | null = null;
  private unwatch: () => void = () => undefined;
  private current: KeptRun | null = null;
  /** The run that was paused last; going on begins the next one. */
  private paused: KeptRun | null = null;
  private chain: Promise<unknown> = Promise.resolve();
  private readonly sender: Sender;
  private recorded = 0;

  constructor(
    private readonly meetingId: string,
    private readonly store: PartStore,
    private readonly server: RecorderServer,
    private readonly listener: RecorderListener,
  ) {
    this.sender = new Sender(store, server, listener.waiting);
  }

  /** Sends what an earlier page left behind, and says what it was recording. */
  async recover(): Promise<KeptRun | undefined> {
    const [parts, steps, run] = await Promise.all([
      this.store.parts(this.meetingId),
      this.store.steps(this.meetingId),
      this.store.run(this.meetingId),
    ]);
    this.sender.recover(parts, steps);
    return run;
  }

  /** Opens the source and records. After a pause of this page it listens at once; the server hears of it in its turn. */
  async start(source: Source, deviceId: string, { already, takeOver, pictures }: Start): Promise<void> {
    this.opened ??= await openSource(source, deviceId);
    this.opened.track.onended = () => this.listener.lost();
    try {
      const run = this.paused && !takeOver ? await this.next(this.paused, source) : await this.begun(source, takeOver);
      this.current = { meetingId: this.meetingId, run, source, deviceId, parts: 0, active: true, at: Date.now() };
      this.recorded = this.paused ? this.recorded : already;
      this.paused = null;
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
    if (!run) return;
    this.paused = run;
    const step: KeptStep = { meetingId: this.meetingId, run: run.run, kind: "pause", source: run.source, parts: run.parts };
    await this.store.putStep(step);
    this.sender.pause(step);
  }

  /** Ends the recording; resolves when the server has everything, or this page may not send it. */
  async stop(): Promise<void> {
    const run = (await this.silence()) ?? this.paused;
    this.close();
    if (!run) return;
    if (this.sender.hasSteps) await this.sender.drained(); // the server has to know the run that it is to end
    const waits = await this.server.stop(run.run, run.parts, false);
    await this.sender.drained();
    // everything has been sent: what the server has not got by now it has lost, and it need not wait for it
    if (waits && !this.sender.left) await this.server.stop(run.run, run.parts, true);
    this.paused = null;
  }

  /** Lets go of the source, whatever state it is in; nothing that was recorded is lost. */
  close(): void {
    this.unwatch();
    this.opened?.close();
    this.opened = null;
  }

  /** The number of a run that the server begins now: the first one, or one of another page. */
  private async begun(source: Source, takeOver: boolean): Promise<number> {
    await this.sender.drained();
    return this.server.begin(source, takeOver);
  }

  /** The number of the run behind a pause, of which the server hears when its turn comes. */
  private async next(before: KeptRun, source: Source): Promise<number> {
    const step: KeptStep = { meetingId: this.meetingId, run: before.run + 1, kind: "begin", source, parts: 0 };
    await this.store.putStep(step);
    this.sender.begin(step);
    return step.run;
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
