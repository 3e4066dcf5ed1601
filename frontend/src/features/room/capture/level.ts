/** dBFS below which a second holds no speech worth recording; common practice, no source. */
const SILENT = -60;
/** dBFS of speech that is hard to understand afterwards; common practice, no source. */
const QUIET = -45;
/** Full scale is reached at this size; 16-bit sound cannot be louder. */
const CLIPPED = 0.985;
/** Seconds that the warnings look back. */
const WINDOW = 8;

/** Level of one piece of sound: root mean square and peak, both in dBFS (-100 at least). */
export interface Level {
  rms: number;
  peak: number;
}

export function dbfs(value: number): number {
  return Math.max(-100, 20 * Math.log10(Math.max(value, 1e-5)));
}

export function levelOf(samples: Float32Array): Level {
  let sum = 0;
  let peak = 0;
  for (const sample of samples) {
    sum += sample * sample;
    peak = Math.max(peak, Math.abs(sample));
  }
  return { rms: dbfs(Math.sqrt(sum / Math.max(1, samples.length))), peak: dbfs(peak) };
}

export type Warning = "silent" | "quiet" | "clipping" | null;

/** What is wrong with the levels of the last seconds (two a second), if anything; null before there are enough. */
export function warningOf(levels: readonly Level[]): Warning {
  const recent = levels.slice(-WINDOW * 2);
  if (recent.filter((level) => level.peak >= dbfs(CLIPPED)).length >= 2) return "clipping";
  if (recent.length < WINDOW) return null;
  const loudest = Math.max(...recent.map((level) => level.rms));
  if (loudest < SILENT) return "silent";
  return loudest < QUIET ? "quiet" : null;
}

export const WARNINGS: Record<Exclude<Warning, null>, string> = {
  silent: "Nothing is heard. Check that this is the right microphone and that it is not muted.",
  quiet: "It is very quiet. Move the microphone nearer, or choose another one.",
  clipping: "It is too loud and distorts. Move the microphone away, or turn it down.",
};
