import { useEffect, useSyncExternalStore } from "react";

/** One key and what it does; `shown` is how the sheet writes it. */
export interface Key {
  key: string;
  label: string;
  run: () => void;
  shift?: boolean;
  ctrl?: boolean;
  shown?: string;
  /** Whether it goes before what has the focus, which would else take Space or Enter for itself. */
  over?: () => boolean;
}

interface Group {
  title: string;
  keys: Key[];
}

const groups = new Map<string, Group>();
const listeners = new Set<() => void>();
let snapshot: Group[] = [];

function changed(): void {
  snapshot = [...groups.values()];
  listeners.forEach((listener) => listener());
}

/** Whether the focus is in a field, where letters belong to the text. */
export function typing(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (isBox(target)) return false;
  return target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName);
}

/** Whether it is a box or a switch, which takes Space and no letters. */
function isBox(target: HTMLElement): boolean {
  return target instanceof HTMLInputElement && ["checkbox", "radio"].includes(target.type);
}

/** Whether Enter and Space belong to what has the focus. */
function pressable(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (isBox(target) || target.closest("button, a, [role=button], [role=menuitem], [role=option], [role=slider]") !== null)
  );
}

function onKeyDown(event: KeyboardEvent): void {
  if (event.defaultPrevented || event.altKey || event.metaKey || typing(event.target)) return;
  if (document.querySelector("[role=dialog]") && event.key !== "?") return;
  const taken = (event.key === " " || event.key === "Enter") && pressable(event.target);
  for (const group of [...groups.values()].reverse()) {
    const found = group.keys.find(
      (k) => k.key === event.key && !!k.ctrl === event.ctrlKey && (k.shift === undefined || k.shift === event.shiftKey),
    );
    if (found && (!taken || found.over?.())) {
      event.preventDefault();
      found.run();
      return;
    }
  }
}

/** Puts keys into the registry for as long as a view is shown; the sheet is made from it. */
export function useKeys(title: string, keys: Key[]): void {
  useEffect(() => {
    groups.set(title, { title, keys });
    changed();
  });
  useEffect(
    () => () => {
      groups.delete(title);
      changed();
    },
    [title],
  );
}

/** All keys that work now. */
export function useKeyGroups(): Group[] {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => snapshot,
  );
}

/** Listens once for the whole application. */
export function useKeyListener(): void {
  useEffect(() => {
    document.addEventListener("keydown", onKeyDown);
    return () => document.removeEventListener("keydown", onKeyDown);
  }, []);
}
