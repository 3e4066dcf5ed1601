import { expect, test } from "vitest";

import { guessedRoles, leading, whyNot } from "./roles";

test("what each file is, by its name", () => {
  expect(guessedRoles(["call.mp4", "call.vtt", "call.txt"])).toEqual(["recording", "transcript", "chat"]);
  expect(guessedRoles(["Chat of 6 October.txt", "minutes.m4a"])).toEqual(["chat", "recording"]);
  expect(guessedRoles(["talk.txt"])).toEqual(["transcript"]);
  expect(guessedRoles(["talk.txt", "more.TXT"])).toEqual(["transcript", "chat"]);
  expect(guessedRoles(["a.zip", "unnamed"])).toEqual(["bundle", "recording"]);
});

test("the meeting is made from the recording, else from the transcript", () => {
  expect(leading(["chat", "transcript", "recording"])).toBe(2);
  expect(leading(["chat", "transcript"])).toBe(1);
});

test("files that cannot be one meeting are told", () => {
  expect(whyNot(["recording", "transcript", "chat"])).toBe("");
  expect(whyNot(["recording", "recording"])).toContain("two recordings");
  expect(whyNot(["transcript", "transcript"])).toContain("two transcripts");
  expect(whyNot(["chat"])).toContain("needs the recording");
  expect(whyNot(["bundle", "recording"])).toContain("by itself");
});
