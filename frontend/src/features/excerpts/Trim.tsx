import { Box, Slider, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";

import { fetchRecord } from "../../shared/fetchRecord";
import { clock } from "../../shared/times";
import { AROUND, snapped, stepped, wordsBetween } from "./trimming";

interface Props {
  meetingId: string;
  around: { start: number; end: number };
  start: number;
  end: number;
  onTrim: (start: number, end: number) => void;
}

/** The ends of a passage drawn over the words around it; they stop at the boundary of a word. */
export function Trim({ meetingId, around, start, end, onTrim }: Props) {
  const record = useQuery({ queryKey: ["record", meetingId], queryFn: () => fetchRecord(meetingId), staleTime: 60_000 });
  const [from, to] = [Math.max(0, around.start - AROUND), around.end + AROUND];
  const words = useMemo(() => wordsBetween(record.data?.turns.flatMap((turn) => turn.words) ?? [], from, to), [from, record.data, to]);
  const [drawn, setDrawn] = useState<[number, number] | null>(null);
  const [a, b] = drawn ?? [start, end];
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const first = box.current?.querySelector<HTMLElement>("[data-inside]");
    if (box.current && first) box.current.scrollTop = first.offsetTop - box.current.offsetTop - 24; // the passage itself in sight
  }, [words]);
  return (
    <Box sx={{ gridColumn: "1 / -1", minWidth: 0 }}>
      <Box
        ref={box}
        role="group"
        aria-label="Words around the passage"
        tabIndex={0}
        sx={{ maxHeight: 96, overflowY: "auto", fontSize: "0.9rem", lineHeight: 1.45, overflowWrap: "anywhere" }}
      >
        {words.map((word, i) => {
          const inside = (word[1] + word[2]) / 2 >= a && (word[1] + word[2]) / 2 < b;
          return (
            <Box
              key={i}
              component="span"
              data-inside={inside || undefined}
              sx={{ color: inside ? "text.primary" : "text.secondary", bgcolor: inside ? "wash" : undefined }}
            >
              {word[0]}{" "}
            </Box>
          );
        })}
        {record.isPending && (
          <Typography variant="body2" color="textSecondary">
            Opening the words around it …
          </Typography>
        )}
      </Box>
      <Box sx={{ px: 1.25 }}>
        <Slider
          size="small"
          min={from}
          max={to}
          step={0.05}
          value={[a, b]}
          getAriaLabel={(i) => (i ? "End of the passage" : "Beginning of the passage")}
          valueLabelDisplay="auto"
          valueLabelFormat={(v) => clock(v)}
          getAriaValueText={(v) => clock(v)}
          onChange={(event, value) => {
            const [x, y] = value as [number, number];
            if (!event.type.startsWith("key") && event.type !== "change") return setDrawn([x, y]);
            const next = x !== a ? [stepped(words, a, "start", x > a ? 1 : -1), b] : [a, stepped(words, b, "end", y > b ? 1 : -1)];
            if (next[1]! > next[0]!) onTrim(next[0]!, next[1]!);
          }}
          onChangeCommitted={(_, value) => {
            if (!drawn) return;
            const [x, y] = value as [number, number];
            const trimmed = [x === start ? x : snapped(words, x, "start"), y === end ? y : snapped(words, y, "end")] as const;
            setDrawn(null);
            if (trimmed[1] > trimmed[0]) onTrim(trimmed[0], trimmed[1]);
          }}
        />
      </Box>
    </Box>
  );
}
