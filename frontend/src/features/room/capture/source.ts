export type Source = "microphone" | "computer" | "both";

/** The sound that was chosen, as one track, and the picture of what is shared where there is one. */
export interface Opened {
  track: MediaStreamTrack;
  picture: MediaStreamTrack | null;
  close: () => void;
  /** Silences the source during a pause, without asking for it again afterwards. */
  mute: (on: boolean) => void;
}

/** A microphone to choose from. */
export interface Device {
  id: string;
  label: string;
}

/** The sound as it is in the room: what helps a call to be heard harms a recording. */
const PLAIN: MediaTrackConstraints = { echoCancellation: false, noiseSuppression: false, autoGainControl: true };

export async function microphones(): Promise<Device[]> {
  const all = await navigator.mediaDevices.enumerateDevices();
  return all.filter((d) => d.kind === "audioinput").map((d, i) => ({ id: d.deviceId, label: d.label || `Microphone ${i + 1}` }));
}

/** Opens a source. Throws an `Error` with a sentence that says what to do. */
export async function openSource(source: Source, deviceId: string): Promise<Opened> {
  if (!navigator.mediaDevices)
    throw new Error("This browser records only over HTTPS or on this computer. Open the page with an https address.");
  const streams: MediaStream[] = [];
  try {
    if (source !== "microphone") streams.push(await shared());
    if (source !== "computer")
      streams.push(await navigator.mediaDevices.getUserMedia({ audio: deviceId ? { ...PLAIN, deviceId: { exact: deviceId } } : PLAIN }));
  } catch (error) {
    streams.forEach(end);
    throw new Error(sentence(error, source), { cause: error });
  }
  const all = streams.flatMap((stream) => stream.getTracks());
  const sounds = streams.flatMap((stream) => stream.getAudioTracks());
  const mixed = sounds.length > 1 ? await mix(sounds) : null;
  const track = mixed?.track ?? sounds[0];
  if (!track) throw new Error("What you shared has no sound. Share again and tick “Share audio”.");
  return {
    track,
    picture: streams.flatMap((stream) => stream.getVideoTracks())[0] ?? null,
    close: () => {
      all.forEach((t) => t.stop());
      mixed?.close();
    },
    mute: (on) =>
      all.forEach((t) => {
        t.enabled = !on;
      }),
  };
}

async function shared(): Promise<MediaStream> {
  const stream = await navigator.mediaDevices.getDisplayMedia({
    audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    video: true,
  });
  if (stream.getAudioTracks().length) return stream;
  end(stream);
  throw new Error("What you shared has no sound. Share a tab or the whole screen, and tick “Share audio”.");
}

async function mix(tracks: MediaStreamTrack[]): Promise<{ track: MediaStreamTrack | undefined; close: () => void }> {
  const context = new AudioContext({ latencyHint: "playback" });
  await context.resume();
  const out = context.createMediaStreamDestination();
  tracks.forEach((track) => context.createMediaStreamSource(new MediaStream([track])).connect(out));
  return { track: out.stream.getAudioTracks()[0], close: () => void context.close() };
}

function end(stream: MediaStream): void {
  stream.getTracks().forEach((track) => track.stop());
}

function sentence(error: unknown, source: Source): string {
  const name = error instanceof DOMException ? error.name : "";
  if (name === "NotAllowedError" && source !== "microphone")
    return "Nothing was shared. Press the button again and choose a tab or a screen.";
  if (name === "NotAllowedError") return "The browser may not use the microphone. Allow it beside the address, then try again.";
  if (name === "NotFoundError" || name === "OverconstrainedError")
    return "This microphone is not there any more. Plug it in, or choose another one.";
  if (name === "NotReadableError") return "The microphone is used by another program. Close that one, then try again.";
  return error instanceof Error && error.message ? error.message : "The sound could not be opened. Try again.";
}
