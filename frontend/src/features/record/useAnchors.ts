import { useCallback, useLayoutEffect, useState, type RefObject } from "react";

/** Heights at which the chosen line and its first lit turn stand beside the spine; null when out of sight. */
export function useAnchors(frame: RefObject<HTMLElement | null>, selected: number | null, lit: readonly { start: number }[]) {
  const [ys, setYs] = useState<{ line: number | null; turn: number | null }>({ line: null, turn: null });
  const measure = useCallback(() => {
    const line = place(frame.current, selected === null ? null : `[data-line="${selected}"]`);
    const turn = place(frame.current, lit.length ? "[data-lit]" : null);
    setYs((old) => (old.line === line && old.turn === turn ? old : { line, turn }));
  }, [frame, lit, selected]);
  useLayoutEffect(() => {
    const frameId = requestAnimationFrame(measure);
    const later = setTimeout(measure, 250); // once more, when the panes have scrolled into place
    return () => {
      cancelAnimationFrame(frameId);
      clearTimeout(later);
    };
  }, [measure]);
  return { ...ys, measure };
}

function place(frame: HTMLElement | null, selector: string | null): number | null {
  const found = selector && frame ? frame.querySelector(selector) : null;
  if (!found || !frame) return null;
  const [inner, outer] = [found.getBoundingClientRect(), frame.getBoundingClientRect()];
  const y = Math.round(inner.top + Math.min(14, inner.height / 2) - outer.top);
  return y < 0 || y > outer.height ? null : y;
}
