import { useCallback, useEffect, useMemo, useRef, useState } from "react";

import { createPosition, type Position } from "./position";
import { skipTo } from "./silences";
import type { Stretch } from "./types";

export const SPEEDS = [0.75, 1, 1.25, 1.5, 1.75, 2, 2.5];

/** The speed after or before this one. */
export function nextSpeed(speed: number, step: 1 | -1): number {
  const at = SPEEDS.indexOf(speed) + step;
  return SPEEDS[Math.min(SPEEDS.length - 1, Math.max(0, at))] ?? 1;
}

/** The sound: where it is, playing, jumping, its speed. */
export interface Player {
  position: Position;
  playing: boolean;
  speed: number;
  skipping: boolean;
  failed: boolean;
  /** Puts the sound element in the player's hands. */
  attach: (element: HTMLMediaElement | null) => void;
  toggle: () => void;
  seek: (seconds: number) => void;
  /** Plays one passage and stops behind it, or from a moment on when it has no end. */
  play: (from: number, until?: number) => void;
  setSpeed: (speed: number) => void;
  setSkipping: (on: boolean) => void;
  /** The stretch that is played again and again. */
  looping: Stretch | null;
  loop: (stretch: Stretch | null) => void;
}

export function usePlayer(quiet: Stretch[]): Player {
  const element = useRef<HTMLMediaElement | null>(null);
  const until = useRef<number | null>(null);
  const position = useMemo(createPosition, []);
  const [playing, setPlaying] = useState(false);
  const [failed, setFailed] = useState(false);
  const [speed, setSpeedState] = useState(1);
  const [skipping, setSkipping] = useState(false);
  const [looping, setLooping] = useState<Stretch | null>(null);

  const attach = useCallback(
    (next: HTMLMediaElement | null) => {
      element.current = next;
      if (!next) return;
      next.preservesPitch = true;
      next.onplay = () => setPlaying(true);
      next.onpause = () => setPlaying(false);
      next.onseeked = () => position.set(next.currentTime);
      next.ontimeupdate = () => position.set(next.currentTime);
      next.onerror = () => setFailed(true);
    },
    [position],
  );

  useEffect(() => {
    if (!playing) return;
    let frame = 0;
    const tick = () => {
      const sound = element.current;
      if (sound) {
        if (until.current !== null && sound.currentTime >= until.current) {
          sound.pause();
          until.current = null;
        }
        if (looping && until.current === null && (sound.currentTime >= looping.end || sound.currentTime < looping.start - 0.5))
          sound.currentTime = looping.start;
        const further = skipping && until.current === null ? skipTo(quiet, sound.currentTime) : null;
        if (further !== null && further > sound.currentTime + 0.1) sound.currentTime = further;
        position.set(sound.currentTime);
      }
      frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [looping, playing, position, quiet, skipping]);

  useEffect(() => {
    if (element.current) element.current.playbackRate = speed;
  }, [speed]);

  return useMemo(() => {
    const seek = (seconds: number) => {
      until.current = null;
      position.set(Math.max(0, seconds));
      if (element.current) element.current.currentTime = Math.max(0, seconds);
    };
    const start = () => {
      if (!element.current) return;
      element.current.playbackRate = speed;
      void element.current.play().catch(() => setPlaying(false));
    };
    return {
      position,
      playing,
      speed,
      skipping,
      failed,
      attach,
      seek,
      setSkipping,
      setSpeed: setSpeedState,
      looping,
      loop: (stretch: Stretch | null) => {
        setLooping(stretch);
        if (!stretch) return;
        seek(stretch.start);
        start();
      },
      toggle: () => {
        until.current = null;
        if (element.current?.paused) start();
        else element.current?.pause();
      },
      play: (from: number, end?: number) => {
        seek(from);
        until.current = end ?? null;
        start();
      },
    };
  }, [attach, failed, looping, playing, position, skipping, speed]);
}
