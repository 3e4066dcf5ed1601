import type { FromWorker, ToWorker } from "./pcm.worker";
import tapUrl from "./tap.worklet.ts?worker&url";

declare global {
  interface Window {
    MediaStreamTrackProcessor?: new (options: { track: MediaStreamTrack; maxBufferSize?: number }) => {
      readable: ReadableStream<AudioData>;
    };
  }
}

type Part = Extract<FromWorker, { type: "part" }>;

/** A track being turned into parts. */
export interface Tapping {
  /** Ends it; resolves when the last, shorter part has been handed over. */
  end: () => Promise<void>;
}

/** Frames that may wait for the worker: some two seconds of 10 ms each. */
const BUFFER = 200;

/** Turns a track into numbered PCM parts in a worker: track processor first, worklet where it is missing. */
export async function tap(track: MediaStreamTrack, onPart: (part: Part) => void): Promise<Tapping> {
  const worker = new Worker(new URL("./pcm.worker.ts", import.meta.url), { type: "module" });
  let ended: () => void = () => undefined;
  const over = new Promise<void>((resolve) => {
    ended = resolve;
  });
  worker.onmessage = (event: MessageEvent<FromWorker>) => (event.data.type === "part" ? onPart(event.data) : ended());
  const post = (message: ToWorker, transfer: Transferable[] = []) => worker.postMessage(message, transfer);
  const close = window.MediaStreamTrackProcessor ? processed(window.MediaStreamTrackProcessor, track, post) : await tapped(track, post);
  return {
    end: async () => {
      post({ type: "end" });
      await over;
      close();
      worker.terminate();
    },
  };
}

type Post = (message: ToWorker, transfer?: Transferable[]) => void;

function processed(Processor: NonNullable<Window["MediaStreamTrackProcessor"]>, track: MediaStreamTrack, post: Post): () => void {
  const own = track.clone(); // ending the reading must not end the source
  const { readable } = new Processor({ track: own, maxBufferSize: BUFFER });
  post({ type: "frames", readable }, [readable]);
  return () => own.stop();
}

async function tapped(track: MediaStreamTrack, post: Post): Promise<() => void> {
  const context = new AudioContext({ latencyHint: "playback" });
  await context.audioWorklet.addModule(tapUrl);
  const node = new AudioWorkletNode(context, "tap", { numberOfInputs: 1, numberOfOutputs: 1 });
  node.port.onmessage = (event: MessageEvent<Float32Array>) =>
    post({ type: "samples", samples: event.data, rate: context.sampleRate }, [event.data.buffer]);
  context.createMediaStreamSource(new MediaStream([track])).connect(node);
  await context.resume();
  return () => void context.close();
}
