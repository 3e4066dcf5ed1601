import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useReducer } from "react";

import { body, bodyAs, client, sentenceOf } from "../../api/client";
import { useNotice } from "../../app/notices";
import { persist } from "../../shared/persist";
import { useStream } from "../../shared/useStream";
import { pageClock } from "./clock";
import { roomReducer } from "./roomState";
import type { Board, LiveLine, Speech } from "./types";

/** A room as it is now and as it goes on, with everything a person can do in it; none for an empty `meetingId`. */
export function useRoom(meetingId: string) {
  const notice = useNotice();
  const queries = useQueryClient();
  const [state, act] = useReducer(roomReducer, null);
  const path = useMemo(() => ({ meeting_id: meetingId }), [meetingId]);
  const query = useQuery({
    queryKey: ["room", meetingId],
    queryFn: () => bodyAs("RoomOut", client.GET("/api/meetings/{meeting_id}/room", { params: { path } })),
    staleTime: Infinity,
    gcTime: 0,
    enabled: meetingId !== "",
  });
  useEffect(() => {
    if (query.data) act({ type: "all", room: query.data, at: pageClock() });
  }, [query.data]);

  const known = meetingId !== "" && !!query.data;
  useStream(known ? `/api/meetings/${meetingId}/room/events` : "", {
    board: (data) => act({ type: "board", board: JSON.parse(data) as Board }),
    lines: (data) => act({ type: "lines", lines: JSON.parse(data) as LiveLine[] }),
    speech: (data) => act({ type: "speech", speech: JSON.parse(data) as Speech, at: pageClock() }),
  });

  const stopped = state?.board.state === "stopped";
  useEffect(() => {
    if (stopped) void queries.invalidateQueries({ queryKey: ["meetings"] });
  }, [queries, stopped]);

  /** Carries something out; the answer, if it is a board, is shown at once. False, with a notice, when it failed. */
  const carry = useCallback(
    async (change: Promise<Board | null>): Promise<boolean> => {
      try {
        const board = await change;
        if (board) act({ type: "board", board });
        return true;
      } catch (error) {
        notice({ text: sentenceOf(error), severity: "error" });
        return false;
      }
    },
    [notice],
  );

  const actions = useMemo(() => {
    const params = { path };
    return {
      announce: (announced: boolean) =>
        carry(body(client.PUT("/api/meetings/{meeting_id}/room/announced", { params, body: { announced } }))),
      tickConsent: (person_id: number, agreed: boolean) =>
        carry(
          body(
            client.PUT("/api/meetings/{meeting_id}/room/consents/{person_id}", {
              params: { path: { ...path, person_id } },
              body: { agreed },
            }),
          ),
        ),
      addPerson: (name: string) => carry(body(client.POST("/api/meetings/{meeting_id}/room/people", { params, body: { name } }))),
      writeAgenda: (items: { title: string; planned: number | null }[]) =>
        carry(body(client.PUT("/api/meetings/{meeting_id}/room/agenda", { params, body: { items } }))),
      turnTo: (number: number | null, at: number) =>
        carry(body(client.PUT("/api/meetings/{meeting_id}/room/agenda/on", { params, body: { number, at } }))),
      choose: (silence_stop: number, floor_limit: number) =>
        carry(body(client.PUT("/api/meetings/{meeting_id}/room/choices", { params, body: { silence_stop, floor_limit } }))),
      keepOn: () => carry(body(client.POST("/api/meetings/{meeting_id}/room/keep-on", { params }))),
      finish: () => carry(body(client.POST("/api/meetings/{meeting_id}/room/finish", { params }))),
      mark: (mark_id: string, label: string, start: number, end: number, text = "") =>
        carry(
          persist(() =>
            body(
              client.PUT("/api/meetings/{meeting_id}/room/marks/{mark_id}", {
                params: { path: { ...path, mark_id } },
                body: { label, start, end, text },
              }),
            ),
          ),
        ),
      removeMark: (mark_id: string) =>
        carry(body(client.DELETE("/api/meetings/{meeting_id}/room/marks/{mark_id}", { params: { path: { ...path, mark_id } } }))),
      cut: async (start: number, end: number) =>
        carry(
          (async () => {
            const room = await bodyAs("RoomOut", client.POST("/api/meetings/{meeting_id}/room/cut", { params, body: { start, end } }));
            act({ type: "all", room, at: pageClock() });
            return null;
          })(),
        ),
      correct: async (line: number, text: string) =>
        carry(
          (async () => {
            const room = await bodyAs(
              "RoomOut",
              client.PUT("/api/meetings/{meeting_id}/room/lines/{line}", {
                params: { path: { ...path, line } },
                body: { text, was: null },
              }),
            );
            act({ type: "all", room, at: pageClock() });
            return null;
          })(),
        ),
      nameVoice: (speaker_id: number, name: string | null) =>
        carry(
          bodyAs(
            "ChangedOut",
            client.PUT("/api/meetings/{meeting_id}/voices/{speaker_id}", { params: { path: { ...path, speaker_id } }, body: { name } }),
          ).then(() => null),
        ),
      undo: () => carry(bodyAs("ChangedOut", client.POST("/api/meetings/{meeting_id}/undo", { params })).then(() => null)),
      joinCall: (link: string) => carry(body(client.POST("/api/meetings/{meeting_id}/room/line", { params, body: { link } }))),
      leaveCall: () => carry(body(client.DELETE("/api/meetings/{meeting_id}/room/line", { params }))),
    };
  }, [carry, path]);

  return { query, state, actions };
}

export type RoomActions = ReturnType<typeof useRoom>["actions"];
