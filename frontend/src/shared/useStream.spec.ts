import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { follow, type Surroundings } from "./useStream";

class Source extends EventTarget {
  readyState = 1;
  close() {
    this.readyState = 2;
  }
}

function surroundings() {
  const opened: Source[] = [];
  let changed = () => {};
  const page = { hidden: false };
  const made: Surroundings = {
    open: () => {
      const source = new Source();
      opened.push(source);
      return source as unknown as EventSource;
    },
    hidden: () => page.hidden,
    onVisibility: (then) => {
      changed = then;
      return () => {
        changed = () => {};
      };
    },
  };
  return {
    opened,
    made,
    show: (shown: boolean) => {
      page.hidden = !shown;
      changed();
    },
  };
}

describe("follow", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal("EventSource", { CLOSED: 2 });
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it("hands the data of each event over by its name", () => {
    const { opened, made } = surroundings();
    const seen: string[] = [];
    follow("/x", { job: (data) => seen.push(data) }, made);
    opened[0]!.dispatchEvent(new MessageEvent("job", { data: "1" }));
    opened[0]!.dispatchEvent(new MessageEvent("other", { data: "2" }));
    expect(seen).toEqual(["1"]);
  });

  it("holds no connection while the page is hidden", () => {
    const { opened, made, show } = surroundings();
    follow("/x", {}, made);
    show(false);
    expect(opened.map((source) => source.readyState)).toEqual([2]);
    show(true);
    expect(opened.map((source) => source.readyState)).toEqual([2, 1]);
  });

  it("asks again some time after a refusal, but leaves a break to the browser", () => {
    const { opened, made } = surroundings();
    follow("/x", {}, made);
    opened[0]!.readyState = 0;
    opened[0]!.dispatchEvent(new Event("error"));
    vi.advanceTimersByTime(60_000);
    expect(opened).toHaveLength(1);
    opened[0]!.readyState = 2;
    opened[0]!.dispatchEvent(new Event("error"));
    vi.advanceTimersByTime(10_000);
    expect(opened).toHaveLength(2);
  });

  it("ends for good", () => {
    const { opened, made, show } = surroundings();
    const end = follow("/x", {}, made);
    opened[0]!.readyState = 2;
    opened[0]!.dispatchEvent(new Event("error"));
    end();
    show(true);
    vi.advanceTimersByTime(60_000);
    expect(opened).toHaveLength(1);
  });
});
