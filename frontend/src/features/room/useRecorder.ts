import { useCallback, useEffect, useMemo, useRef, useState } from "react";

import { body, client, csrfToken, sentenceOf } from "../../api/client";
import { useNotice } from "../../app/notices";
import { persist } from "../../shared/persist";
import { useLeaveWarning } from "../../shared/useLeaveWarning";
import { warningOf, type Level, type Warning } from "./capture/level";
import { openPartStore, type KeptRun } from "./capture/partStore";
import { Recorder, type RecorderServer } from "./capture/recorder";
import type { Waiting } from "./capture/sender";
import type { Source } from "./capture/source";
import { meetingSecond, pageClock, type Recorded } from "./clock";
import type { RoomState } from "./roomState";

/** Milliseconds after which a recording that broke off is not taken up again unasked. */
const FRESH = 5 * 60_000;

export type RecorderState = "idle" | "starting" | "recording" | "paused" | "stopping";

/** Recording from this page: its state, levels, what waits to be sent, and what can be done. */
export interface RecorderView {
  state: RecorderState;
  level: Level | null;
  warning: Warning;
  waiting: Waiting;
  /** What this page has recorded of the meeting; null where another one records. */
  recorded: Recorded | null;
  error: string;
  /** A recording by this browser that broke off and can be gone on with. */
  broken: KeptRun | null;
  start: (source: Source, deviceId: string, takeOver?: boolean) => Promise<void>;
  pause: () => Promise<void>;
  resume: () => Promise<void>;
  stop: () => Promise<void>;
}

const NOTHING: Waiting = { parts: 0, away: false, trouble: "", refused: "" };

/** Who this browser is to the server: the same after a crash, so that it may go on with its recording. */
function recorderId(): string {
  const kept = localStorage.getItem("nuntius.recorder");
  if (kept) return kept;
  const made = crypto.getRandomValues(new Uint8Array(16)).reduce((text, byte) => text + byte.toString(16).padStart(2, "0"), "");
  localStorage.setItem("nuntius.recorder", made);
  return made;
}

const PICTURES = "nuntius.pictures";

/** Whether still pictures of a shared screen are kept: a choice of this computer. */
export const keepsPictures = (): boolean => localStorage.getItem(PICTURES) !== "no";
export const setKeepsPictures = (on: boolean): void => localStorage.setItem(PICTURES, on ? "yes" : "no");

export function useRecorder(meetingId: string, room: RoomState | null): RecorderView {
  const notice = useNotice();
  const [state, setState] = useState<RecorderState>("idle");
  const [levels, setLevels] = useState<Level[]>([]);
  const [waiting, setWaiting] = useState(NOTHING);
  const [recorded, setRecorded] = useState<Recorded | null>(null);
  const [error, setError] = useState("");
  const [broken, setBroken] = useState<KeptRun | null>(null);
  const recorder = useRef<Recorder | null>(null);
  const unlock = useRef<(() => void) | null>(null);
  const letGo = useCallback(() => {
    unlock.current?.();
    unlock.current = null;
  }, []);
  const last = useRef<{ source: Source; deviceId: string }>({ source: "microphone", deviceId: "" });
  const roomRef = useRef(room);
  const ended = useRef(false);
  useEffect(() => {
    roomRef.current = room;
  }, [room]);

  const server = useMemo(() => makeServer(meetingId, recorderId()), [meetingId]);
  const listener = useMemo(
    () => ({
      level: (level: Level) => setLevels((old) => [...old.slice(-31), level]),
      waiting: setWaiting,
      seconds: (seconds: number) => setRecorded({ seconds, at: pageClock() }),
      lost: () =>
        setError("The sound has gone: the microphone was unplugged, or sharing was ended. Pause, then go on with another source."),
    }),
    [],
  );

  const ready = useMemo(
    () => openPartStore().then((store) => new Recorder(meetingId, store, server, listener)),
    [listener, meetingId, server],
  );
  useEffect(() => {
    let gone = false;
    ended.current = false;
    recorder.current = null;
    if (!meetingId) return;
    setError("");
    setBroken(null);
    setWaiting(NOTHING);
    setRecorded(null);
    ready
      .then(async (made) => {
        if (gone) return;
        recorder.current = made;
        const run = (await lockFree(meetingId)) ? await made.recover() : undefined;
        if (run?.active && !gone) setBroken(run);
      })
      .catch((problem: unknown) => setError(sentenceOf(problem)));
    return () => {
      gone = true;
    };
  }, [meetingId, ready]);
  useEffect(
    () => () => {
      letGo();
      recorder.current?.close();
    },
    [letGo],
  );

  const fail = useCallback((problem: unknown, next: RecorderState) => {
    setError(sentenceOf(problem));
    setState(next);
  }, []);

  const start = useCallback(
    async (source: Source, deviceId: string, takeOver = false) => {
      setError("");
      setState("starting");
      last.current = { source, deviceId };
      try {
        const made = await ready;
        unlock.current ??= await lock(meetingId); // after a pause it is held still
        setLevels([]);
        await made.start(source, deviceId, { already: roomRef.current?.speech.duration ?? 0, takeOver, pictures: keepsPictures() });
        setBroken(null);
        setState("recording");
      } catch (problem) {
        letGo();
        fail(problem, "idle");
      }
    },
    [fail, letGo, meetingId, ready],
  );

  const pause = useCallback(async () => {
    try {
      setState("paused");
      setLevels([]);
      await recorder.current?.pause();
    } catch (problem) {
      fail(problem, "paused");
    }
  }, [fail]);

  const resume = useCallback(() => start(last.current.source, last.current.deviceId), [start]);

  const stop = useCallback(async () => {
    setState("stopping");
    try {
      await recorder.current?.stop();
      letGo();
      setState("idle");
    } catch (problem) {
      fail(problem, "stopping");
    }
  }, [fail, letGo]);

  // Somebody else, or a long silence, ended the recording: let go of the microphone.
  const roomState = room?.board.state;
  useEffect(() => {
    if (roomState !== "stopped" || ended.current) return;
    ended.current = true;
    if (state === "recording" || state === "paused") {
      recorder.current?.close();
      letGo();
      setState("idle");
      notice({ text: "The recording has ended.", severity: "info" });
    }
  }, [letGo, notice, roomState, state]);

  // A recording that broke off a moment ago goes on by itself, so that as little as possible is missed.
  useEffect(() => {
    if (!broken || state !== "idle" || roomState !== "recording") return;
    if (broken.source === "microphone" && Date.now() - broken.at < FRESH) {
      setBroken(null);
      notice({ text: "The recording had broken off and goes on.", severity: "info" });
      void start(broken.source, broken.deviceId);
    }
  }, [broken, notice, roomState, start, state]);

  useEffect(() => {
    if (state === "idle") setRecorded(null); // what another page records meanwhile counts from then on
  }, [state]);

  useWakeLock(state === "recording");
  useLeaveWarning(state === "recording" || state === "starting" || waiting.parts > 4);
  return {
    state,
    level: levels[levels.length - 1] ?? null,
    warning: warningOf(levels),
    waiting,
    recorded,
    error: error || waiting.refused,
    broken: roomState === "recording" || roomState === "paused" ? broken : null,
    start,
    pause,
    resume,
    stop,
  };
}

function makeServer(meetingId: string, recorder: string): RecorderServer {
  const path = { meeting_id: meetingId };
  const base = `/api/meetings/${meetingId}/room`;
  const head = () => ({ "X-CSRF-Token": csrfToken(), "X-Recorder": recorder, "Content-Type": "application/octet-stream" });
  return {
    begin: async (source, take_over) =>
      (
        await body(
          client.POST("/api/meetings/{meeting_id}/room/runs", { params: { path }, body: { recorder, source, take_over, all_sent: true } }),
        )
      ).number,
    put: async (part, digest, earliest) => {
      const begun: Record<string, string> = part.begun === null ? {} : { "X-Begun": String(part.begun) };
      const response = await fetch(`${base}/runs/${part.run}/parts/${part.number}`, {
        method: "PUT",
        body: part.data,
        headers: { ...head(), ...begun, "X-Part-SHA256": digest, "X-Earliest": String(earliest) },
      });
      const answer = (await response.json().catch(() => ({}))) as { detail?: string; held?: number };
      return { status: response.status, detail: answer.detail ?? "This sound could not be sent.", held: answer.held };
    },
    pause: (run, parts) =>
      body(
        client.POST("/api/meetings/{meeting_id}/room/runs/{run}/pause", {
          params: { path: { ...path, run } },
          body: { recorder, parts, all_sent: false },
        }),
      ),
    stop: async (run, parts, all_sent) =>
      (
        await persist(() =>
          body(
            client.POST("/api/meetings/{meeting_id}/room/runs/{run}/stop", {
              params: { path: { ...path, run } },
              body: { recorder, parts, all_sent },
            }),
          ),
        )
      ).state === "stopping",
    picture: (at, jpeg) =>
      persist(() => fetch(`${base}/pictures`, { method: "POST", body: jpeg, headers: { ...head(), "X-At": String(at) } })),
  };
}

/** Holds the recording of a meeting for this tab; throws when another tab of this browser has it. */
async function lock(meetingId: string): Promise<() => void> {
  if (!("locks" in navigator)) return () => undefined;
  return new Promise((resolve, reject) => {
    void navigator.locks.request(`nuntius-room-${meetingId}`, { ifAvailable: true }, (held) => {
      if (!held) {
        reject(new Error("Another tab of this browser records this meeting. Go back to it, or close it first."));
        return;
      }
      return new Promise<void>((release) => resolve(release));
    });
  });
}

async function lockFree(meetingId: string): Promise<boolean> {
  if (!("locks" in navigator)) return true;
  const held = (await navigator.locks.query()).held ?? [];
  return !held.some((each) => each.name === `nuntius-room-${meetingId}`);
}

/** Keeps the screen of a phone awake, since a sleeping page hears nothing. */
function useWakeLock(active: boolean): void {
  useEffect(() => {
    if (!active || !("wakeLock" in navigator)) return;
    let held: WakeLockSentinel | null = null;
    const ask = () => {
      if (document.visibilityState === "visible")
        navigator.wakeLock.request("screen").then(
          (lock) => {
            held = lock;
          },
          () => undefined,
        );
    };
    ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      document.removeEventListener("visibilitychange", ask);
      void held?.release();
    };
  }, [active]);
}

/** The second of the meeting that is now, drawn again twice a second. */
export function useSeconds(room: RoomState | null, recorded: Recorded | null): number {
  const [clock, setClock] = useState(pageClock);
  useEffect(() => {
    const timer = setInterval(() => setClock(pageClock()), 500);
    return () => clearInterval(timer);
  }, []);
  return room ? meetingSecond(room, recorded, Math.max(clock, room.at, recorded?.at ?? 0)) : 0;
}
