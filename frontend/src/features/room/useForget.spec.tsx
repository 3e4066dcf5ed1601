// @vitest-environment jsdom
import { act, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { GRACE, useForget } from "./useForget";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

function desk(held: number) {
  const cut = vi.fn((_start: number, _end: number) => Promise.resolve(true));
  const server = { held };
  const hook = renderHook(() => useForget({ now: () => 100, held: () => server.held, cut }));
  act(() => hook.result.current.forget());
  return { cut, server, hook };
}

describe("the last minute", () => {
  it("is removed a moment after it was asked for", () => {
    const { cut, hook } = desk(100);
    expect(hook.result.current.stretch).toEqual({ start: 40, end: 100 });
    act(() => void vi.advanceTimersByTime(GRACE - 1));
    expect(cut).not.toHaveBeenCalled();
    act(() => void vi.advanceTimersByTime(1));
    expect(cut).toHaveBeenCalledExactlyOnceWith(40, 100);
    expect(hook.result.current.stretch).toBeNull();
  });

  it("is kept where somebody thinks better of it", () => {
    const { cut, hook } = desk(100);
    act(() => hook.result.current.keep());
    act(() => void vi.advanceTimersByTime(GRACE * 2));
    hook.unmount();
    expect(cut).not.toHaveBeenCalled();
  });

  it("waits for sound that has not arrived", () => {
    const { cut, server } = desk(90);
    act(() => void vi.advanceTimersByTime(GRACE * 3));
    expect(cut).not.toHaveBeenCalled();
    server.held = 100.4;
    act(() => void vi.advanceTimersByTime(500));
    expect(cut).toHaveBeenCalledExactlyOnceWith(40, 100);
  });

  it("is removed at once when the view is left", () => {
    const { cut, hook } = desk(100);
    hook.unmount();
    expect(cut).toHaveBeenCalledExactlyOnceWith(40, 100);
  });

  it("is asked for once, however often the button is pressed", () => {
    const { cut, hook } = desk(100);
    act(() => hook.result.current.forget());
    act(() => void vi.advanceTimersByTime(GRACE));
    expect(cut).toHaveBeenCalledTimes(1);
  });
});
