import { useEffect, useRef } from "react";

const AGAIN = 10_000; // milliseconds after which a stream that was refused is asked for again

export type Handlers = Record<string, (data: string) => void>;

/** What a stream needs of the page: tests bring their own. */
export interface Surroundings {
  open: (address: string) => EventSource;
  hidden: () => boolean;
  onVisibility: (changed: () => void) => () => void;
}

const PAGE: Surroundings = {
  open: (address) => new EventSource(address),
  hidden: () => document.hidden,
  onVisibility: (changed) => {
    document.addEventListener("visibilitychange", changed);
    return () => document.removeEventListener("visibilitychange", changed);
  },
};

/**
 * Follows a stream of events while the page is seen, until the returned function is called.
 *
 * A page that is hidden holds no connection, since browsers open only six to one server; on its return the server sends
 * the whole state. A browser comes back by itself after a break, but not after a refusal: that is done here.
 */
export function follow(address: string, handlers: Handlers, page: Surroundings = PAGE): () => void {
  let source: EventSource | null = null;
  let waiting: ReturnType<typeof setTimeout> | undefined;
  const close = () => {
    clearTimeout(waiting);
    source?.close();
    source = null;
  };
  const open = () => {
    close();
    if (page.hidden()) return;
    const opened = page.open(address);
    source = opened;
    for (const [name, handle] of Object.entries(handlers))
      opened.addEventListener(name, (event: MessageEvent<string>) => handle(event.data));
    opened.addEventListener("error", () => {
      if (opened === source && opened.readyState === EventSource.CLOSED) waiting = setTimeout(open, AGAIN);
    });
  };
  const forget = page.onVisibility(open);
  open();
  return () => {
    forget();
    close();
  };
}

/** `follow` as long as the component is shown; an empty address follows nothing. */
export function useStream(address: string, handlers: Handlers): void {
  const latest = useRef(handlers);
  useEffect(() => {
    latest.current = handlers;
  });
  useEffect(() => {
    if (!address) return;
    return follow(
      address,
      Object.fromEntries(Object.keys(latest.current).map((name) => [name, (data: string) => latest.current[name]?.(data)])),
    );
  }, [address]);
}
