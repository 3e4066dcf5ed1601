import type { Lane } from "../theme/theme";

/** The fill of a voice's lane, for an SVG's `defs`: told apart by pattern as well as by colour. */
export function LanePattern({ id, lane: { colour, pattern }, ground }: { id: string; lane: Lane; ground: string }) {
  return (
    <pattern id={id} width={4} height={4} patternUnits="userSpaceOnUse">
      <rect width={4} height={4} fill={pattern === "frame" ? ground : colour} />
      {pattern === "stripes" && <path d="M0 1H4" stroke={ground} strokeWidth={1.2} />}
      {pattern === "dots" && <circle cx={2} cy={2} r={0.9} fill={ground} />}
      {pattern === "cross" && <path d="M0 0L4 4M4 0L0 4" stroke={ground} strokeWidth={0.8} />}
    </pattern>
  );
}
