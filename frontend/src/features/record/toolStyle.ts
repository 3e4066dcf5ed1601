/** A small button at a turn, shown while the turn is pointed at; many are drawn while one scrolls, so they are plain. */
export const toolStyle = {
  opacity: { xs: 0.6, sm: 0 },
  width: 26,
  height: 26,
  ml: 0.5,
  float: "right",
  borderRadius: "50%",
  color: "text.secondary",
  "&:hover, &:focus-visible": { bgcolor: "action.hover" },
} as const;

/** A word of a sentence that can be pressed. */
export const linkStyle = {
  all: "unset",
  cursor: "pointer",
  fontVariantNumeric: "tabular-nums",
  textDecoration: "underline",
  textDecorationColor: "transparent",
  "&:hover": { textDecorationColor: "inherit" },
  "&:focus-visible": { outline: "2px solid", outlineColor: "primary.main" },
} as const;
