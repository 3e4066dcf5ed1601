import { Box, useTheme } from "@mui/material";
import { useEffect, useMemo, useRef, useState, type MouseEvent } from "react";

import { clock } from "../../shared/times";
import { lane } from "../../theme/theme";
import { initials } from "../record/initials";
import type { RoomState } from "./roomState";

const HEAD = 24;
const FOOT = 30;
const WIDTH = 150;
/** The axis covers at least this many seconds, so that the first minute does not fill it. */
const LEAST = 240;

/** The axis of time, growing downward to the line of now: who speaks, the agenda, notes and marks. */
export function RoomSpine({ room, seconds, onShow }: { room: RoomState; seconds: number; onShow: (at: number) => void }) {
  const { board, lines } = room;
  const theme = useTheme();
  const box = useRef<HTMLDivElement>(null);
  const [height, setHeight] = useState(500);
  useEffect(() => {
    if (!box.current) return;
    const observer = new ResizeObserver(([entry]) => entry && setHeight(entry.contentRect.height));
    observer.observe(box.current);
    return () => observer.disconnect();
  }, []);
  const span = Math.max(LEAST, seconds * 1.06);
  const y = (at: number) => HEAD + (at / span) * (height - HEAD - FOOT);
  const soft = theme.palette.text.secondary;
  const accent = theme.palette.primary.main;
  const width = Math.min(13, Math.max(5, 66 / Math.max(1, board.voices.length)));
  const column = new Map(board.voices.map((voice, i) => [voice.id, 38 + i * (width + 2)]));
  const names = board.voices.map((voice) => voice.name);
  const press = (event: MouseEvent) => {
    const top = event.currentTarget.getBoundingClientRect().top;
    onShow(Math.min(seconds, Math.max(0, ((event.clientY - top - HEAD) / (height - HEAD - FOOT)) * span)));
  };
  const floor = useMemo(() => lines.filter((line) => line.text && line.voice !== null), [lines]);
  const total = board.voices.reduce((sum, voice) => sum + voice.seconds, 0);
  const floorText = board.voices.map((v) => `${v.name} ${Math.round((v.seconds / Math.max(1, total)) * 100)} %`).join(", ");
  return (
    <Box
      ref={box}
      sx={{
        position: "relative",
        width: WIDTH,
        flex: "none",
        bgcolor: "channel",
        borderInline: 1,
        borderColor: "divider",
        overflow: "hidden",
      }}
    >
      <svg
        width={WIDTH}
        height={height}
        onClick={press}
        role="img"
        aria-label={`Time axis. Floor: ${floorText || "nobody yet"}.`}
        style={{ position: "absolute", inset: 0, cursor: "pointer", fontFamily: theme.typography.fontFamily }}
      >
        {board.voices.map((voice) => (
          <text key={voice.id} x={(column.get(voice.id) ?? 0) + width / 2} y={15} fontSize={10} fill={soft} textAnchor="middle">
            {initials(voice.name, names)}
          </text>
        ))}
        {floor.map((line) => {
          const index = board.voices.findIndex((voice) => voice.id === line.voice);
          return index < 0 ? null : (
            <rect
              key={line.number}
              x={column.get(line.voice ?? 0)}
              y={y(line.start)}
              width={width}
              height={Math.max(1.2, y(line.end) - y(line.start))}
              fill={lane(theme.palette.mode, index).colour}
              rx={1}
            />
          );
        })}
        {board.agenda.map((item, i) =>
          item.begun === null ? null : (
            <Bracket key={i} title={item.title} top={y(item.begun) + 1} bottom={y(item.ended ?? seconds) - 1} colour={soft} />
          ),
        )}
        {board.notes.map((note) => (
          <path key={note.id} d={`M2 ${y(note.at)} H13`} stroke={accent} strokeWidth={2} />
        ))}
        {board.marks.map((mark) => (
          <path
            key={mark.id}
            d={`M110 ${y(mark.start)} V${Math.max(y(mark.end), y(mark.start) + 5)}`}
            stroke={accent}
            strokeWidth={5}
            strokeLinecap="round"
          />
        ))}
        {board.breaks.map((each, i) => (
          <path key={i} d={`M34 ${y(each.at)} H116`} stroke={each.kind === "gap" ? theme.palette.error.main : soft} strokeDasharray="3 2" />
        ))}
        {board.pictures.map((picture) => (
          <rect key={picture.id} x={101} y={y(picture.at) - 3} width={5} height={6} fill="none" stroke={soft} />
        ))}
        {marksOfTime(span)
          .filter((at) => at <= seconds && (y(seconds) - y(at) > 6 || at === 0))
          .map((at) => (
            <text key={at} x={120} y={y(at) + 4} fontSize={10} fill={soft}>
              {clock(at)}
            </text>
          ))}
        <path d={`M0 ${y(seconds)} H${WIDTH}`} stroke={theme.palette.error.main} strokeWidth={1.4} />
        <text x={120} y={y(seconds) + 13} fontSize={10} fill={theme.palette.error.main}>
          now
        </text>
      </svg>
    </Box>
  );
}

function Bracket({ title, top, bottom, colour }: { title: string; top: number; bottom: number; colour: string }) {
  const middle = (top + bottom) / 2;
  const room = Math.floor((bottom - top) / 5.5);
  return (
    <>
      <path d={`M31 ${top} H26 V${Math.max(top, bottom)} H31`} fill="none" stroke={colour} />
      {room > 3 && (
        <text x={21} y={middle} fontSize={10} fill={colour} textAnchor="middle" transform={`rotate(-90 21 ${middle})`}>
          {title.length > room ? `${title.slice(0, room - 1)}…` : title}
        </text>
      )}
    </>
  );
}

function marksOfTime(span: number): number[] {
  const step = [60, 120, 300, 600, 900, 1800, 3600].find((s) => span / s <= 8) ?? 7200;
  return Array.from({ length: Math.floor(span / step) + 1 }, (_, i) => i * step);
}
