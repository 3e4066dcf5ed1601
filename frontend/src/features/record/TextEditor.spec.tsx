import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test, vi } from "vitest";

import { TextEditor } from "./TextEditor";

afterEach(cleanup);

function open(kept: boolean) {
  const onKeep = vi.fn(() => Promise.resolve(kept));
  const onEnd = vi.fn();
  render(<TextEditor label="Words" text="Send the times." onKeep={onKeep} onEnd={onEnd} />);
  return { onKeep, onEnd, field: screen.getByLabelText("Words"), user: userEvent.setup() };
}

test("Enter keeps what was typed", async () => {
  const { onKeep, onEnd, field, user } = open(true);
  await user.type(field, " Today.{Enter}");
  expect(onKeep).toHaveBeenCalledWith("Send the times. Today.");
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
