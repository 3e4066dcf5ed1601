import { useCallback, useEffect, useRef, useState } from "react";

import { useNotice } from "../../app/notices";
import { clock } from "../../shared/times";

export const MINUTE = 60; // seconds that are forgotten
export const GRACE = 6000; // milliseconds in which it can be thought better of
const LOOK = 500; // milliseconds between two looks whether the sound has arrived

/** A stretch that is about to be removed for good, in seconds. */
export interface Forgetting {
  start: number;
  end: number;
}

interface Forget {
  now: () => number;
  /** Seconds of sound that the server holds. */
  held: () => number;
  cut: (start: number, end: number) => Promise<boolean>;
}

/**
 * Removes the last minute for good, a moment after it was asked for, so that a wrong press does no harm. What has not
 * arrived yet cannot be removed, so the sound of it is waited for; a view that is left does not wait.
 */
export function useForget({ now, held, cut }: Forget) {
  const notice = useNotice();
  const [stretch, setStretch] = useState<Forgetting | null>(null);
  const pending = useRef<Forgetting | null>(null);
  const latest = useRef({ held, cut });
  useEffect(() => {
    latest.current = { held, cut };
  }, [cut, held]);

  const remove = useCallback(() => {
    const due = pending.current;
    pending.current = null;
    if (!due) return;
    void latest.current.cut(due.start, due.end).then((done) => {
      if (done) notice({ text: `${clock(due.start)} to ${clock(due.end)} is removed for good.`, severity: "info" });
    });
  }, [notice]);
  const set = useCallback((next: Forgetting | null) => {
    pending.current = next;
    setStretch(next);
  }, []);
  const forget = useCallback(() => {
    if (!pending.current) set({ start: Math.max(0, now() - MINUTE), end: now() });
  }, [now, set]);
  const keep = useCallback(() => set(null), [set]);

  useEffect(() => {
    if (!stretch) return;
    let timer = setTimeout(function look() {
      if (latest.current.held() < stretch.end) {
        timer = setTimeout(look, LOOK);
        return;
      }
      remove();
      setStretch(null);
    }, GRACE);
    return () => clearTimeout(timer);
  }, [remove, stretch]);
  useEffect(() => remove, [remove]); // when the view is left
  return { stretch, forget, keep };
}
