import type { PaletteMode } from "@mui/material";
import { createContext, use, useCallback, useEffect, useState } from "react";

interface Mode {
  mode: PaletteMode;
  toggle: () => void;
}

export const ModeContext = createContext<Mode>({ mode: "light", toggle: () => undefined });

const KEY = "nuntius.mode";
const wish = "(prefers-color-scheme: dark)";

function first(): PaletteMode {
  const kept = localStorage.getItem(KEY);
  if (kept === "light" || kept === "dark") return kept;
  return window.matchMedia(wish).matches ? "dark" : "light";
}

/** Light or dark: what was chosen here, else what the system wishes. */
export function useMode(): Mode {
  const [mode, setMode] = useState<PaletteMode>(first);
  const toggle = useCallback(() => setMode((m) => (m === "light" ? "dark" : "light")), []);
  useEffect(() => localStorage.setItem(KEY, mode), [mode]);
  return { mode, toggle };
}

export const useModeToggle = (): Mode => use(ModeContext);
