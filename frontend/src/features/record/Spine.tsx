import { Box, useTheme } from "@mui/material";
import { memo, useEffect, useMemo, useRef, useState, type MouseEvent } from "react";

import { breakText } from "../../shared/breaks";
import { LanePattern } from "../../shared/LanePattern";
import { clock } from "../../shared/times";
import { lane } from "../../theme/theme";
import { initials } from "./initials";
import { usePosition, type Position } from "./position";
import type { Match } from "./search";
import type { RecordData, Stretch } from "./types";
import { turnStart } from "./types";

const HEAD = 24; // pixels above the first second
const FOOT = 10;

interface Props {
  record: RecordData;
  duration: number;
  position: Position;
  lit: readonly Stretch[];
  matches: readonly Match[];
  /** Where the chosen line and its passage stand, in pixels from the spine's top; null when out of sight. */
  lineY: number | null;
  turnY: number | null;
  narrow: boolean;
  onSeek: (seconds: number) => void;
}

/** The axis of time between minutes and transcript: floor, chapters, coverage, position. */
export const Spine = memo(function Spine({ record, duration, position, lit, matches, lineY, turnY, narrow, onSeek }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [height, setHeight] = useState(600);
  const theme = useTheme();
  useEffect(() => {
    if (!box.current) return;
    const observer = new ResizeObserver(([entry]) => entry && setHeight(entry.contentRect.height));
    observer.observe(box.current);
    return () => observer.disconnect();
  }, []);
  const width = narrow ? 64 : 150;
  const y = useMemo(() => (seconds: number) => HEAD + (seconds / Math.max(1, duration)) * (height - HEAD - FOOT), [duration, height]);
  const places = useMemo(() => layout(record.voices.length, narrow), [narrow, record.voices.length]);
  const label = useMemo(() => summary(record), [record]);
  const press = (event: MouseEvent) => {
    const top = event.currentTarget.getBoundingClientRect().top;
    onSeek(Math.min(duration, Math.max(0, ((event.clientY - top - HEAD) / (height - HEAD - FOOT)) * duration)));
  };
  const accent = theme.palette.primary.main;
  return (
    <Box
      ref={box}
      sx={{ position: "relative", width, flex: "none", bgcolor: "channel", borderInline: 1, borderColor: "divider", overflow: "hidden" }}
    >
      <svg
        width={width}
        height={height}
        onClick={press}
        role="img"
        aria-label={label}
        style={{ position: "absolute", inset: 0, cursor: "pointer", fontFamily: theme.typography.fontFamily }}
      >
        <Still record={record} duration={duration} y={y} places={places} narrow={narrow} />
        {matches.slice(0, 400).map((m, i) => {
          const at = record.turns[m.index];
          return (
            at && (
              <rect
                key={i}
                x={places.cover + places.coverWidth + 1}
                y={y(at.words[m.first]?.[1] ?? turnStart(at)) - 1}
                width={4}
                height={2}
                fill={theme.palette.warning.main}
              />
            )
          );
        })}
        {lit.map((s) => (
          <rect
            key={s.start}
            x={places.cover - 2}
            y={y(s.start)}
            width={places.coverWidth + 4}
            height={Math.max(3, y(s.end) - y(s.start))}
            fill={accent}
          />
        ))}
        {!narrow &&
          lineY !== null &&
          lit.map((s) => (
            <path
              key={s.start}
              d={`M0 ${lineY} C ${places.cover * 0.55} ${lineY} ${places.cover * 0.35} ${y((s.start + s.end) / 2)} ${places.cover - 2} ${y((s.start + s.end) / 2)}`}
              fill="none"
              stroke={accent}
              strokeWidth={1.3}
            />
          ))}
        {!narrow && turnY !== null && lit[0] && (
          <path
            d={`M${places.cover + places.coverWidth + 2} ${y((lit[0].start + lit[0].end) / 2)} C ${width - 6} ${y((lit[0].start + lit[0].end) / 2)} ${width - 18} ${turnY} ${width} ${turnY}`}
            fill="none"
            stroke={accent}
            strokeWidth={1.3}
          />
        )}
        <Now position={position} y={y} width={width} />
      </svg>
    </Box>
  );
});

interface Places {
  lanes: number;
  step: number;
  laneWidth: number;
  cover: number;
  coverWidth: number;
}

function layout(voices: number, narrow: boolean): Places {
  const lanes = narrow ? 6 : 34;
  const room = narrow ? 38 : 68;
  const step = Math.min(15, room / Math.max(1, voices));
  return { lanes, step, laneWidth: Math.max(2, step - 4), cover: narrow ? 50 : 108, coverWidth: 8 };
}

const Still = memo(function Still({
  record,
  duration,
  y,
  places,
  narrow,
}: {
  record: RecordData;
  duration: number;
  y: (s: number) => number;
  places: Places;
  narrow: boolean;
}) {
  const theme = useTheme();
  const { voices, minutes } = record;
  const number = new Map(voices.map((voice, i) => [voice.id, i]));
  const soft = theme.palette.text.secondary;
  const accent = theme.palette.primary.main;
  return (
    <>
      <defs>
        {voices.map((voice, i) => (
          <LanePattern key={voice.id} id={`lane-${i}`} lane={lane(theme.palette.mode, i)} ground={theme.palette.channel} />
        ))}
      </defs>
      {voices.map((voice, i) => (
        <text key={voice.id} x={places.lanes + i * places.step + places.laneWidth / 2} y={14} textAnchor="middle" fontSize={10} fill={soft}>
          <title>{`${voice.name}: ${Math.round(voice.share * 100)} % of the floor`}</title>
          {initials(
            voice.name,
            voices.map((v) => v.name),
          )}
        </text>
      ))}
      {record.spans.map(([start, end, voice], i) => {
        const at = number.get(voice) ?? 0;
        return (
          <rect
            key={i}
            x={places.lanes + at * places.step}
            y={y(start)}
            width={places.laneWidth}
            height={Math.max(1.2, y(end) - y(start) - 0.4)}
            fill={`url(#lane-${at})`}
            stroke={lane(theme.palette.mode, at).colour}
            strokeWidth={0.6}
          />
        );
      })}
      {!narrow &&
        minutes?.chapters.map((chapter, i) => {
          const [top, bottom] = [y(chapter.start) + 1, y(chapter.end) - 1];
          const room = Math.floor((bottom - top) / 5.6);
          const title = chapter.title.length > room ? `${chapter.title.slice(0, Math.max(0, room - 1))}…` : chapter.title;
          return (
            <g key={i}>
              <title>{`${chapter.title}, ${clock(chapter.start)} to ${clock(chapter.end)}`}</title>
              <path d={`M27 ${top} H22 V${bottom} H27`} fill="none" stroke={soft} />
              {room > 4 && (
                <text transform={`translate(15 ${(top + bottom) / 2}) rotate(-90)`} textAnchor="middle" fontSize={10} fill={soft}>
                  {title}
                </text>
              )}
            </g>
          );
        })}
      {minutes && (
        <g>
          <title>{`The minutes draw on ${Math.round(minutes.coverage * 100)} % of the talk`}</title>
          <rect x={places.cover} y={y(0)} width={places.coverWidth} height={y(duration) - y(0)} fill={accent} opacity={0.45} />
          {minutes.gaps.map(([start, end]) => (
            <rect
              key={start}
              x={places.cover}
              y={y(start)}
              width={places.coverWidth}
              height={Math.max(2, y(end) - y(start))}
              fill={theme.palette.channel}
              stroke={accent}
              strokeWidth={0.7}
            />
          ))}
        </g>
      )}
      {record.marks.map((mark) => (
        <path
          key={mark.id}
          d={`M${places.cover + places.coverWidth + 4} ${y(mark.start)} V${Math.max(y(mark.end), y(mark.start) + 5)}`}
          stroke={accent}
          strokeWidth={4}
          strokeLinecap="round"
        >
          <title>{`Marked “${mark.label}” by ${mark.by}`}</title>
        </path>
      ))}
      {record.breaks.map((each) => (
        <path
          key={`${each.kind}${each.at}`}
          d={`M${places.lanes - 2} ${y(each.at)} H${places.cover + places.coverWidth}`}
          stroke={each.kind === "gap" ? theme.palette.error.main : soft}
          strokeDasharray="3 2"
        >
          <title>{breakText(each)}</title>
        </path>
      ))}
      {record.pictures.map((picture) => (
        <rect key={picture.id} x={places.cover - 7} y={y(picture.at) - 3} width={5} height={6} fill="none" stroke={soft}>
          <title>{`Still picture at ${clock(picture.at)}`}</title>
        </rect>
      ))}
      {!narrow &&
        marks(duration).map((at) => (
          <text key={at} x={122} y={y(at) + 4} fontSize={10} fill={soft}>
            {clock(at)}
          </text>
        ))}
    </>
  );
});

function Now({ position, y, width }: { position: Position; y: (s: number) => number; width: number }) {
  const theme = useTheme();
  const at = usePosition(position, (seconds) => Math.round(y(seconds) * 2) / 2);
  return <path d={`M0 ${at} H${width}`} stroke={theme.palette.error.main} strokeWidth={1.2} />;
}

/** Round moments for the time scale, at most nine. */
function marks(duration: number): number[] {
  const step = [30, 60, 120, 300, 600, 900, 1800, 3600].find((s) => duration / s <= 8) ?? 7200;
  return Array.from({ length: Math.floor(duration / step) + 1 }, (_, i) => i * step).filter(
    (at) => duration - at > step * 0.15 || at === 0,
  );
}

function summary(record: RecordData): string {
  const floor = record.voices.map((v) => `${v.name} ${Math.round(v.share * 100)} %`).join(", ");
  return `Time axis. Floor: ${floor}. ${record.minutes ? `The minutes draw on ${Math.round(record.minutes.coverage * 100)} % of the talk.` : ""}`;
}
