import { useSyncExternalStore } from "react";

/** Where the sound is, in seconds; sent to whoever listens without drawing the whole page again. */
export interface Position {
  get: () => number;
  set: (seconds: number) => void;
  listen: (listener: () => void) => () => void;
}

export function createPosition(): Position {
  let now = 0;
  const listeners = new Set<() => void>();
  return {
    get: () => now,
    set: (seconds) => {
      if (seconds === now) return;
      now = seconds;
      listeners.forEach((listener) => listener());
    },
    listen: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
  };
}

/** What `read` makes of the position; draws again only when that changes. */
export function usePosition<T extends string | number | boolean>(position: Position, read: (seconds: number) => T): T {
  return useSyncExternalStore(position.listen, () => read(position.get()));
}
