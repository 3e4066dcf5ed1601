import { useTheme } from "@mui/material";
import type { Ref } from "react";

import type { Schemas } from "../../api/client";
import { LanePattern } from "../../shared/LanePattern";
import { clock } from "../../shared/times";
import { lane } from "../../theme/theme";
import { initials } from "../record/initials";
import { pieces } from "./bars";

const WIDE = 760; // pixels of the drawing
const LABEL = 190;
const ROW = 26;
const BAR = 18;
const LEGEND = 30;

/** The floor over time and by chapter: a bar a part, a pattern and initials a voice. */
export function Chart({ floor, ref, onSeek }: { floor: Schemas["FloorOut"]; ref: Ref<SVGSVGElement>; onSeek: (seconds: number) => void }) {
  const theme = useTheme();
  const names = floor.voices.map((voice) => voice.voice);
  const rows = [...floor.over_time, ...floor.chapters];
  const [ink, soft, ground] = [theme.palette.text.primary, theme.palette.text.secondary, theme.palette.background.default];
  const top = (i: number) => LEGEND + 22 + i * ROW + (i >= floor.over_time.length ? ROW + 8 : 0);
  const height = top(rows.length) + 8;
  return (
    <svg
      ref={ref}
      viewBox={`0 0 ${WIDE} ${height}`}
      width="100%"
      style={{ maxWidth: WIDE, minWidth: 560, display: "block", fontFamily: theme.typography.fontFamily }}
      role="group"
      aria-label="The floor over time and by chapter"
    >
      <defs>
        {names.map((name, i) => (
          <LanePattern key={name} id={`floor-${i}`} lane={lane(theme.palette.mode, i)} ground={ground} />
        ))}
      </defs>
      <rect width={WIDE} height={height} fill={ground} />
      {names.slice(0, 6).map((name, i) => (
        <g key={name} transform={`translate(${i * 125} 4)`}>
          <rect width={16} height={16} fill={`url(#floor-${i})`} stroke={lane(theme.palette.mode, i).colour} />
          <text x={22} y={13} fontSize={12} fill={ink}>
            {name.length > 14 ? `${name.slice(0, 13)}…` : name}
          </text>
        </g>
      ))}
      <text x={0} y={LEGEND + 12} fontSize={12} fontWeight={700} fill={soft}>
        Over time
      </text>
      {floor.chapters.length > 0 && (
        <text x={0} y={top(floor.over_time.length) - 8} fontSize={12} fontWeight={700} fill={soft}>
          By chapter
        </text>
      )}
      {rows.map((slice, i) => {
        const label = slice.title || `${clock(slice.start)} to ${clock(slice.end)}`;
        return (
          <g key={i} transform={`translate(0 ${top(i)})`}>
            <text x={0} y={13} fontSize={12} fill={ink}>
              {label.length > 29 ? `${label.slice(0, 28)}…` : label}
              <title>{label}</title>
            </text>
            <rect x={LABEL} width={WIDE - LABEL - 1} height={BAR} fill="none" stroke={soft} strokeWidth={0.6} />
            {pieces(slice).map(({ voice, from, to }) => (
              <g
                key={voice}
                role="button"
                tabIndex={0}
                style={{ cursor: "pointer" }}
                aria-label={`${names[voice]}, ${label}: hear it`}
                onClick={() => onSeek(slice.start)}
                onKeyDown={(e) => (e.key === "Enter" || e.key === " ") && onSeek(slice.start)}
              >
                <title>{`${names[voice]}: ${Math.round(slice.seconds[voice] ?? 0)} s of ${Math.round(slice.end - slice.start)} s`}</title>
                <rect
                  x={LABEL + from * (WIDE - LABEL - 1)}
                  width={Math.max(1, (to - from) * (WIDE - LABEL - 1))}
                  height={BAR}
                  fill={`url(#floor-${voice})`}
                  stroke={lane(theme.palette.mode, voice).colour}
                  strokeWidth={0.8}
                />
                {to - from > 0.06 && (
                  <>
                    <rect x={LABEL + ((from + to) / 2) * (WIDE - LABEL - 1) - 10} y={3} width={20} height={12} fill={ground} />
                    <text x={LABEL + ((from + to) / 2) * (WIDE - LABEL - 1)} y={13} textAnchor="middle" fontSize={10} fill={ink}>
                      {initials(names[voice] ?? "", names)}
                    </text>
                  </>
                )}
              </g>
            ))}
          </g>
        );
      })}
    </svg>
  );
}
