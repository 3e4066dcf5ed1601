const STEPS = ["kB", "MB", "GB", "TB"];
const STEP = 1024; // as the limits of the server are counted

/** A number of bytes in words: "12 kB", "3.4 GB". */
export function size(bytes: number): string {
  let value = bytes / STEP;
  let step = 0;
  while (value >= 1000 && step < STEPS.length - 1) {
    value /= STEP;
    step += 1;
  }
  return `${step === 0 ? Math.ceil(value) : value.toFixed(1)} ${STEPS[step]}`;
}
