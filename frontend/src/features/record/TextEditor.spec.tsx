// @vitest-environment jsdom
import { cleanup, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test, vi } from "vitest";

import { TextEditor } from "./TextEditor";
import type { Kept } from "./useRecord";

afterEach(cleanup);

function open(kept: Kept) {
  const onKeep = vi.fn(() => Promise.resolve(kept));
  const onEnd = vi.fn();
  render(<TextEditor label="Words" text="Send the times." onKeep={onKeep} onEnd={onEnd} />);
  return { onKeep, onEnd, field: screen.getByLabelText("Words"), user: userEvent.setup() };
}

test("Enter keeps what was typed", async () => {
  const { onKeep, onEnd, field, user } = open(true);
  await user.type(field, " Today.{Enter}");
  expect(onKeep).toHaveBeenCalledWith("Send the times. Today.", "Send the times.");
  expect(onEnd).toHaveBeenCalledOnce();
});

test("Esc leaves the text as it was", async () => {
  const { onKeep, onEnd, field, user } = open(true);
  await user.type(field, " Today.{Escape}");
  expect(onKeep).not.toHaveBeenCalled();
  expect(onEnd).toHaveBeenCalledOnce();
});

test("it stays open with the words in it when they could not be kept", async () => {
  const { onEnd, field, user } = open(false);
  await user.type(field, " Today.{Enter}");
  expect(onEnd).not.toHaveBeenCalled();
  expect((field as HTMLTextAreaElement).value).toBe("Send the times. Today.");
});

test("while the text is being kept it takes no keys, and takes them again when it was not", async () => {
  const { onKeep, field, user } = open(false);
  let answer: (kept: Kept) => void = () => {};
  onKeep.mockReturnValueOnce(
    new Promise((resolve) => {
      answer = resolve;
    }),
  );
  await user.type(field, " Today.{Enter}");
  expect(document.activeElement).toBe(document.body);
  answer(false);
  await waitFor(() => expect(document.activeElement).toBe(field));
});

test("what somebody else wrote meanwhile is shown, and one's own words are kept only when asked again", async () => {
  const { onKeep, onEnd, field, user } = open({ theirs: "Send them by noon.", message: "Tobias has changed this." });
  await user.type(field, " Today.{Enter}");
  expect(onEnd).not.toHaveBeenCalled();
  expect(screen.getByText("Send them by noon.")).toBeTruthy();
  onKeep.mockResolvedValueOnce(true);
  await user.click(screen.getByRole("button", { name: "Keep mine" }));
  expect(onKeep).toHaveBeenLastCalledWith("Send the times. Today.", "Send them by noon.");
  expect(onEnd).toHaveBeenCalledOnce();
});

test("theirs can be taken", async () => {
  const { onKeep, onEnd, field, user } = open({ theirs: "Send them by noon.", message: "Tobias has changed this." });
  await user.type(field, " Today.{Enter}");
  await user.click(screen.getByRole("button", { name: "Take theirs" }));
  expect(onKeep).toHaveBeenCalledOnce();
  expect(onEnd).toHaveBeenCalledOnce();
});
