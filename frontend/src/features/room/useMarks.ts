import { useCallback, useEffect, useRef, useState } from "react";

import { typing, useKeys } from "../../app/keys";
import { useNotice } from "../../app/notices";
import { WORTH_KEEPING } from "../../shared/markLabels";
import { clock } from "../../shared/times";
import type { RoomActions } from "./useRoom";

/** Milliseconds a digit is held before it marks a stretch. */
const HELD = 600;

/** Marks by key and by button: `m` for the moment, a digit for a label, a digit held for a stretch. */
export function useMarks(labels: readonly string[], now: () => number, actions: RoomActions, active: boolean) {
  const notice = useNotice();
  const down = useRef<{ key: string; at: number; moment: number } | null>(null);
  const [stretch, setStretch] = useState<string | null>(null);

  const mark = useCallback(
    (label: string, start: number, end: number) => {
      const id = crypto.randomUUID();
      const sent = actions.mark(id, label, start, end); // where the server is away it hears of it later
      notice({
        text: `Marked “${label}” at ${clock(start)}.`,
        severity: "info",
        action: { label: "Take back", run: () => void sent.then((done) => done && actions.removeMark(id)) },
      });
    },
    [actions, notice],
  );
  const markNow = useCallback((label: string) => mark(label, now(), now()), [mark, now]);

  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const label = labels[Number(event.key) - 1];
      if (
        !active ||
        !label ||
        event.repeat ||
        event.ctrlKey ||
        event.altKey ||
        event.metaKey ||
        typing(event.target) ||
        document.querySelector("[role=dialog]")
      )
        return;
      down.current = { key: event.key, at: now(), moment: performance.now() };
      setTimeout(() => {
        if (down.current?.key === event.key) setStretch(label);
      }, HELD);
    };
    const release = (event: KeyboardEvent) => {
      const held = down.current;
      if (!held || held.key !== event.key) return;
      down.current = null;
      setStretch(null);
      const label = labels[Number(event.key) - 1];
      if (label) mark(label, held.at, performance.now() - held.moment > HELD ? now() : held.at);
    };
    document.addEventListener("keydown", press);
    document.addEventListener("keyup", release);
    return () => {
      document.removeEventListener("keydown", press);
      document.removeEventListener("keyup", release);
    };
  }, [active, labels, mark, now]);

  useKeys(
    "Marks",
    active
      ? [
          { key: "m", label: "Mark what was just said", run: () => markNow(WORTH_KEEPING) },
          ...labels.map((label, i) => ({ key: String(i + 1), label: `Mark as “${label}”; hold for a stretch`, run: () => undefined })),
        ]
      : [],
  );
  return { markNow, stretch };
}
