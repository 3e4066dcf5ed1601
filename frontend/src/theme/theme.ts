import { createTheme, type PaletteMode, type Theme } from "@mui/material/styles";

/** Reading text; everything else is set in `PLAIN`. */
export const SERIF = '"Literata", Georgia, serif';
const PLAIN = '"Atkinson Hyperlegible", system-ui, sans-serif';

const LIGHT = {
  ground: "#FBFAF6",
  paper: "#FFFFFF",
  ink: "#1E2A2F",
  soft: "#56646A",
  rule: "#DAD7CC",
  accent: "#1F7A6C",
  wash: "#E3EFEA",
  alarm: "#B93E27",
  heed: "#7A5B14",
  channel: "#F5F3EB",
};
const DARK = {
  ground: "#151B1E",
  paper: "#1B2327",
  ink: "#E9E6DC",
  soft: "#A3B0B3",
  rule: "#354046",
  accent: "#6CC2B2",
  wash: "#1F3A36",
  alarm: "#F08A73",
  heed: "#D9B878",
  channel: "#192024",
};

declare module "@mui/material/styles" {
  interface Palette {
    /** Ground behind marked passages, and behind the spine. */
    wash: string;
    channel: string;
  }
  interface PaletteOptions {
    wash?: string;
    channel?: string;
  }
}

/** The whole look of the application, light or dark. */
export function makeTheme(mode: PaletteMode): Theme {
  const c = mode === "light" ? LIGHT : DARK;
  return createTheme({
    palette: {
      mode,
      primary: { main: c.accent, contrastText: mode === "light" ? "#FFFFFF" : "#10201D" },
      error: { main: c.alarm },
      warning: { main: c.heed },
      info: { main: c.accent },
      background: { default: c.ground, paper: c.paper },
      text: { primary: c.ink, secondary: c.soft },
      divider: c.rule,
      wash: c.wash,
      channel: c.channel,
    },
    shape: { borderRadius: 5 },
    typography: {
      fontFamily: PLAIN,
      fontSize: 14,
      h1: { fontFamily: SERIF, fontSize: "1.6rem", fontWeight: 600 },
      h2: { fontFamily: SERIF, fontSize: "1.2rem", fontWeight: 600, lineHeight: 1.35 },
      h3: { fontSize: "0.82rem", fontWeight: 700, letterSpacing: "0.02em" },
      button: { textTransform: "none", fontWeight: 700 },
    },
    components: {
      MuiButton: { defaultProps: { disableElevation: true } },
      MuiPaper: { defaultProps: { variant: "outlined" } },
      MuiTooltip: { defaultProps: { enterDelay: 500, describeChild: true } },
      MuiCssBaseline: {
        styleOverrides: {
          "*:focus-visible": { outline: `2px solid ${c.accent}`, outlineOffset: "2px" },
          "@media (prefers-reduced-motion: reduce)": {
            "*, *::before, *::after": { animationDuration: "0.01ms !important", transitionDuration: "0.01ms !important" },
          },
        },
      },
    },
  });
}

/** Ground of a voice's lane and the pattern that tells it apart without colour. */
export interface Lane {
  colour: string;
  pattern: "full" | "stripes" | "dots" | "frame" | "cross";
}

const LIGHT_LANES = ["#1E2A2F", "#1F7A6C", "#8A6D3B", "#5A6F9B", "#8B4B62", "#5E7A2E"];
const DARK_LANES = ["#E9E6DC", "#6CC2B2", "#CFAF74", "#9DB2DC", "#D695AB", "#AECB78"];
const PATTERNS: Lane["pattern"][] = ["full", "stripes", "dots", "frame", "cross"];

/** The lane of the voice with this number; after all pairs of colour and pattern they come again. */
export function lane(mode: PaletteMode, number: number): Lane {
  const colours = mode === "light" ? LIGHT_LANES : DARK_LANES;
  return {
    colour: colours[number % colours.length] ?? "#000000",
    pattern: PATTERNS[(number + Math.floor(number / colours.length)) % PATTERNS.length] ?? "full",
  };
}
