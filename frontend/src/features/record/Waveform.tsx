import { Box, useTheme } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState, type MouseEvent } from "react";

import { ApiProblem } from "../../api/client";
import type { Position } from "./position";

const STEP = 3; // pixels between two bars

/** Largest peak of each of `count` equal parts, 0 to 1. */
export function bars(peaks: Uint8Array, count: number): number[] {
  return Array.from({ length: count }, (_, i) => {
    const [from, to] = [Math.floor((i * peaks.length) / count), Math.max(1, Math.ceil(((i + 1) * peaks.length) / count))];
    let most = 0;
    for (let k = from; k < to; k += 1) most = Math.max(most, peaks[k] ?? 0);
    return most / 255;
  });
}

/** The waveform; pressing it goes there. */
export function Waveform({
  meetingId,
  duration,
  position,
  onSeek,
}: {
  meetingId: string;
  duration: number;
  position: Position;
  onSeek: (seconds: number) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [width, setWidth] = useState(0);
  const theme = useTheme();
  const { data } = useQuery({
    queryKey: ["peaks", meetingId],
    queryFn: async () => {
      const response = await fetch(`/api/meetings/${meetingId}/peaks`);
      if (!response.ok) throw new ApiProblem(response.status, "The waveform could not be opened.");
      return new Uint8Array(await response.arrayBuffer());
    },
    staleTime: Infinity,
  });
  useEffect(() => {
    if (!canvas.current) return;
    const observer = new ResizeObserver(([entry]) => entry && setWidth(Math.floor(entry.contentRect.width)));
    observer.observe(canvas.current);
    return () => observer.disconnect();
  }, []);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!canvas.current || !context || !width) return;
    const scale = window.devicePixelRatio || 1;
    const height = 28;
    canvas.current.width = width * scale;
    canvas.current.height = height * scale;
    const heights = data ? bars(data, Math.floor(width / STEP)) : [];
    const draw = () => {
      context.setTransform(scale, 0, 0, scale, 0, 0);
      context.clearRect(0, 0, width, height);
      const now = (position.get() / Math.max(1, duration)) * width;
      heights.forEach((h, i) => {
        context.fillStyle = i * STEP < now ? theme.palette.primary.main : theme.palette.divider;
        const tall = Math.max(1.5, h * height);
        context.fillRect(i * STEP, (height - tall) / 2, 1.8, tall);
      });
      context.fillStyle = theme.palette.error.main;
      context.fillRect(now, 0, 1.5, height);
    };
    draw();
    return position.listen(draw);
  }, [data, duration, position, theme, width]);
  const press = (event: MouseEvent) => {
    const rect = event.currentTarget.getBoundingClientRect();
    onSeek(((event.clientX - rect.left) / rect.width) * duration);
  };
  return (
    <Box
      component="canvas"
      ref={canvas}
      onClick={press}
      aria-hidden
      sx={{ width: "100%", height: 28, cursor: "pointer", display: "block" }}
    />
  );
}
