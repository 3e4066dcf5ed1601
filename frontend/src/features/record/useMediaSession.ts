import { useEffect } from "react";

import type { Player } from "./usePlayer";

const STEP = 10; // seconds that the keys of a headset or of a lock screen go back and on

/** Lets the lock screen of a phone and the keys of a headset play, pause and jump (W3C Media Session). */
export function useMediaSession(player: Player, title: string, duration: number): void {
  useEffect(() => {
    if (!("mediaSession" in navigator)) return;
    const session = navigator.mediaSession;
    session.metadata = new MediaMetadata({ title, artist: "Nuntius" });
    session.playbackState = player.playing ? "playing" : "paused";
    const by = (seconds: number) => player.seek(Math.min(duration, player.position.get() + seconds));
    const handlers: [MediaSessionAction, MediaSessionActionHandler][] = [
      [
        "play",
        () => {
          if (!player.playing) player.toggle();
        },
      ],
      [
        "pause",
        () => {
          if (player.playing) player.toggle();
        },
      ],
      ["seekbackward", (details) => by(-(details.seekOffset ?? STEP))],
      ["seekforward", (details) => by(details.seekOffset ?? STEP)],
      [
        "seekto",
        (details) => {
          if (details.seekTime !== undefined) player.seek(details.seekTime);
        },
      ],
    ];
    for (const [action, handler] of handlers) session.setActionHandler(action, handler);
    return () => {
      for (const [action] of handlers) session.setActionHandler(action, null);
    };
  }, [duration, player, title]);
}
