import { Parts } from "./pieces";

/** From the page: the track's frames, or raw samples of the worklet; `end` flushes what is left. */
export type ToWorker =
  { type: "frames"; readable: ReadableStream<AudioData> } | { type: "samples"; samples: Float32Array; rate: number } | { type: "end" };
/** To the page: a part with its level, and `begun`, the clock in seconds at the first sample, once. */
export type FromWorker =
  { type: "part"; data: ArrayBuffer; level: { rms: number; peak: number }; begun: number | null } | { type: "ended" };

const parts = new Parts();
let begun: number | null = null;
let announced = false;
let reader: ReadableStreamDefaultReader<AudioData> | null = null;

function post(message: FromWorker, transfer: Transferable[] = []): void {
  (self as unknown as { postMessage: (m: FromWorker, t: Transferable[]) => void }).postMessage(message, transfer);
}

function take(samples: Float32Array, rate: number): void {
  begun ??= (performance.timeOrigin + performance.now()) / 1000 - samples.length / rate;
  for (const piece of parts.push(samples, rate)) send(piece);
}

function send(piece: { data: ArrayBuffer; level: { rms: number; peak: number } }): void {
  post({ type: "part", ...piece, begun: announced ? null : begun }, [piece.data]);
  announced = true;
}

/** The mean of all channels of a frame. */
function mono(frame: AudioData): Float32Array {
  const sum = new Float32Array(frame.numberOfFrames);
  const plane = new Float32Array(frame.numberOfFrames);
  for (let channel = 0; channel < frame.numberOfChannels; channel += 1) {
    frame.copyTo(plane, { planeIndex: channel, format: "f32-planar" });
    for (let i = 0; i < sum.length; i += 1) sum[i] = (sum[i] ?? 0) + (plane[i] ?? 0) / frame.numberOfChannels;
  }
  return sum;
}

async function read(readable: ReadableStream<AudioData>): Promise<void> {
  reader = readable.getReader();
  for (;;) {
    const { value, done } = await reader.read();
    if (done) return;
    take(mono(value), value.sampleRate);
    value.close();
  }
}

function end(): void {
  void reader?.cancel().catch(() => undefined);
  const rest = parts.flush();
  if (rest) send(rest);
  post({ type: "ended" });
}

self.onmessage = (event: MessageEvent<ToWorker>) => {
  const message = event.data;
  if (message.type === "frames") void read(message.readable);
  else if (message.type === "samples") take(message.samples, message.rate);
  else end();
};
