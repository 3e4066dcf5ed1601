/** Hands every block of the first input to the page: for browsers without a track processor. */
declare const registerProcessor: (name: string, processor: unknown) => void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

class Tap extends AudioWorkletProcessor {
  process(inputs: Float32Array[][]): boolean {
    const channels = inputs[0] ?? [];
    const first = channels[0];
    if (first) {
      const mono = new Float32Array(first.length);
      for (const channel of channels)
        for (let i = 0; i < mono.length; i += 1) mono[i] = (mono[i] ?? 0) + (channel[i] ?? 0) / channels.length;
      this.port.postMessage(mono, [mono.buffer]);
    }
    return true;
  }
}

registerProcessor("tap", Tap);
