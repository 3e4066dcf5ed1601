// @vitest-environment node
import { expect, test } from "vitest";

import { fingerprint, missing, PART, partCount, partDigest } from "./parts";

test("only what is not held is sent", () => {
  expect(missing(PART * 3 + 1, [0, 2])).toEqual([1, 3]);
  expect(missing(0, [])).toEqual([]);
  expect(partCount(PART)).toBe(1);
});

test("a part's digest is its SHA-256 (FIPS 180-4 example for “abc”)", async () => {
  const { digest } = await partDigest(new Blob(["abc"]), 0);
  expect(digest).toBe("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
});

test("the same content has the same fingerprint, other content another", async () => {
  const [a, b, c] = await Promise.all([new Blob(["one"]), new Blob(["one"]), new Blob(["two"])].map((file) => fingerprint(file)));
  expect(a).toBe(b);
  expect(a).not.toBe(c);
});
