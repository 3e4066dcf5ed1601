import { useCallback, useState } from "react";

/** Sizes of the live text in rem, and whether it is set in black on white (or white on black). */
const SIZES = [0.9, 1, 1.2, 1.45, 1.8, 2.3];
const KEY = "nuntius.live-text";

interface TextLook {
  step: number;
  contrast: boolean;
}

function kept(): TextLook {
  try {
    const look = JSON.parse(localStorage.getItem(KEY) ?? "") as TextLook;
    return { step: Math.min(SIZES.length - 1, Math.max(0, look.step)), contrast: look.contrast };
  } catch {
    return { step: 1, contrast: false };
  }
}

/** How large and how strong the live text is, remembered on this computer. */
export function useTextSize(plus = 0) {
  const [look, setLook] = useState(kept);
  const change = useCallback((next: TextLook) => {
    localStorage.setItem(KEY, JSON.stringify(next));
    setLook(next);
  }, []);
  const index = Math.min(SIZES.length - 1, look.step + plus);
  return {
    rem: SIZES[index] ?? 1,
    contrast: look.contrast,
    larger: () => change({ ...look, step: Math.min(SIZES.length - 1, look.step + 1) }),
    smaller: () => change({ ...look, step: Math.max(0, look.step - 1) }),
    toggleContrast: () => change({ ...look, contrast: !look.contrast }),
  };
}

export type TextSize = ReturnType<typeof useTextSize>;
