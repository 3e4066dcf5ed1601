import { createContext, use, useCallback, useEffect, useMemo, useState, type ReactNode } from "react";

import type { RoomState } from "./roomState";
import { useRecorder, type RecorderView } from "./useRecorder";
import { useRoom, type RoomActions } from "./useRoom";

/** The room that is open or recorded on this page; a recording goes on while other views are looked at. */
export interface Host {
  meetingId: string;
  room: RoomState | null;
  error: unknown;
  retry: () => void;
  recorder: RecorderView;
  actions: RoomActions;
  open: (meetingId: string) => void;
  leave: (meetingId: string) => void;
}

const HostContext = createContext<Host | null>(null);

/** Holds the room above the views, so that leaving its view does not end a recording. */
export function RoomHost({ children }: { children: ReactNode }) {
  const [meetingId, setMeetingId] = useState("");
  const { query, state, actions } = useRoom(meetingId);
  const room = state?.board.meeting.id === meetingId ? state : null;
  const recorder = useRecorder(meetingId, room);
  const busy = recorder.state !== "idle" || recorder.waiting.parts > 0;
  const open = useCallback((next: string) => setMeetingId((old) => (busy && old ? old : next)), [busy]);
  const leave = useCallback((old: string) => setMeetingId((now) => (now === old && !busy ? "" : now)), [busy]);
  const value = useMemo(
    () => ({ meetingId, room, error: query.error, retry: () => void query.refetch(), recorder, actions, open, leave }),
    [actions, leave, meetingId, open, query, recorder, room],
  );
  return <HostContext value={value}>{children}</HostContext>;
}

export function useHost(): Host {
  const host = use(HostContext);
  if (!host) throw new Error("no room host above this view");
  return host;
}

/** Opens a room for as long as its view is shown. */
export function useOpenRoom(meetingId: string): Host {
  const host = useHost();
  const { open, leave } = host;
  useEffect(() => {
    open(meetingId);
  }, [meetingId, open]);
  useEffect(() => () => leave(meetingId), [leave, meetingId]);
  return host;
}
