/** Width and height of the reduced picture that is compared. */
export const [COLUMNS, ROWS] = [32, 18] as const;
/** Mean difference of grey (0 to 255) within a tile above which it counts as changed; common practice, no source. */
const TILE = 12;
/** Share of changed tiles above which the whole picture is another one: a slide, not a pointer or a blinking cursor. */
const CHANGED = 0.08;

/** Grey values of a reduced RGBA picture. */
export function grey(rgba: Uint8ClampedArray): Float32Array {
  const made = new Float32Array(rgba.length / 4);
  for (let i = 0; i < made.length; i += 1) {
    made[i] = 0.299 * (rgba[i * 4] ?? 0) + 0.587 * (rgba[i * 4 + 1] ?? 0) + 0.114 * (rgba[i * 4 + 2] ?? 0);
  }
  return made;
}

/** Whether two reduced pictures show something different to the eye; anything differs from nothing. */
export function differs(before: Float32Array | null, now: Float32Array): boolean {
  if (!before || before.length !== now.length) return true;
  let changed = 0;
  for (let i = 0; i < now.length; i += 1) if (Math.abs((now[i] ?? 0) - (before[i] ?? 0)) > TILE) changed += 1;
  return changed / now.length > CHANGED;
}

/** Looks at a shared picture every second and hands over a JPEG whenever something else is shown. */
export function watchPicture(track: MediaStreamTrack, onPicture: (jpeg: Blob) => void): () => void {
  const video = document.createElement("video");
  video.muted = true;
  video.srcObject = new MediaStream([track]);
  void video.play().catch(() => undefined);
  const small = new OffscreenCanvas(COLUMNS, ROWS).getContext("2d", { willReadFrequently: true });
  let kept: Float32Array | null = null;
  let last: Float32Array | null = null;
  const look = () => {
    if (!small || !video.videoWidth) return;
    small.drawImage(video, 0, 0, COLUMNS, ROWS);
    const now = grey(small.getImageData(0, 0, COLUMNS, ROWS).data);
    const still = last !== null && !differs(last, now); // not in the middle of a movement
    last = now;
    if (still && differs(kept, now)) {
      kept = now;
      void jpeg(video).then((made) => made && onPicture(made));
    }
  };
  const timer = setInterval(look, 1000);
  return () => {
    clearInterval(timer);
    video.srcObject = null;
  };
}

async function jpeg(video: HTMLVideoElement): Promise<Blob | null> {
  const scale = Math.min(1, 1280 / video.videoWidth);
  const canvas = new OffscreenCanvas(Math.round(video.videoWidth * scale), Math.round(video.videoHeight * scale));
  canvas.getContext("2d")?.drawImage(video, 0, 0, canvas.width, canvas.height);
  return canvas.convertToBlob({ type: "image/jpeg", quality: 0.8 });
}
