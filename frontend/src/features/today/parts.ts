import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";

/** Bytes of a part; the server names the same size. */
export const PART = 4 * 1024 * 1024;

export function partCount(size: number): number {
  return Math.ceil(size / PART);
}

/** SHA-256 of one part, in hex. */
export async function partDigest(file: Blob, number: number): Promise<{ data: ArrayBuffer; digest: string }> {
  const data = await file.slice(number * PART, (number + 1) * PART).arrayBuffer();
  return { data, digest: bytesToHex(await digestOf(data)) };
}

/** The browser's own digest where the page is secure (HTTPS or this computer), many times faster than ours. */
async function digestOf(data: ArrayBuffer): Promise<Uint8Array> {
  return globalThis.isSecureContext ? new Uint8Array(await crypto.subtle.digest("SHA-256", data)) : sha256(new Uint8Array(data));
}

/**
 * What tells a file from others without reading it twice at once: SHA-256 over the digests of its parts.
 * `onProgress` hears the share read, 0 to 1.
 */
export async function fingerprint(file: Blob, onProgress: (share: number) => void = () => undefined): Promise<string> {
  const whole = sha256.create();
  const count = partCount(file.size);
  for (let number = 0; number < count; number += 1) {
    whole.update(new TextEncoder().encode((await partDigest(file, number)).digest));
    onProgress((number + 1) / count);
  }
  return bytesToHex(whole.digest());
}

/** The parts that still have to be sent. */
export function missing(size: number, held: readonly number[]): number[] {
  const there = new Set(held);
  return Array.from({ length: partCount(size) }, (_, number) => number).filter((number) => !there.has(number));
}
