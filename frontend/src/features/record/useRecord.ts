import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useRef } from "react";

import { ApiProblem, bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { fetchRecord, whole } from "../../shared/fetchRecord";
import { useInTurn } from "../../shared/useInTurn";
import { minutesAwaited } from "./awaited";
import type { Changed, Reason, RecordData, Shape } from "./types";

/** Whether a change was kept; or, where somebody else changed the same meanwhile, what stands there now. */
export type Kept = boolean | { theirs: string; message: string };

const FOLLOW_AFTER = 1200; // milliseconds without a further change after which the minutes follow the turns

/** The record with what a change touched put in its place. */
export function merged(record: RecordData, changed: Changed): RecordData {
  const names = new Map(changed.names.map((voice) => [voice.id, voice]));
  const turns = new Map(changed.turns.map((turn) => [turn.number, turn]));
  const minutes = changed.minutes ?? record.minutes;
  const lines = new Map(changed.lines.map((line) => [line.id, line]));
  return {
    ...record,
    voices: record.voices.map((voice) => ({ ...voice, ...names.get(voice.id) })),
    turns: turns.size ? record.turns.map((old) => turns.get(old.number) ?? old) : record.turns,
    minutes: minutes && lines.size ? { ...minutes, lines: minutes.lines.map((old) => lines.get(old.id) ?? old) } : minutes,
    can_undo: changed.can_undo,
    can_redo: changed.can_redo,
  };
}

/** A record and everything that can be set right in it; each change can be taken back. */
export function useRecord(meetingId: string) {
  const queries = useQueryClient();
  const notice = useNotice();
  const inTurn = useInTurn();
  const key = useMemo(() => ["record", meetingId], [meetingId]);
  const query = useQuery({
    queryKey: key,
    queryFn: () => fetchRecord(meetingId),
    staleTime: 60_000,
    // minutes of a meeting that has just ended come a moment later, and no job tells of them
    refetchInterval: (q) => (q.state.data?.meeting.room === "stopped" && minutesAwaited(q.state.data) ? 1000 : false),
  });

  const carry = useCallback(
    (change: () => Promise<Changed>, inForm?: (sentence: string) => void): Promise<Kept> =>
      inTurn(async () => {
        try {
          const changed = await change();
          const reading = queries.isFetching({ queryKey: key, exact: true }) > 0; // and may have been read before the change
          queries.setQueryData<RecordData>(key, (old) => old && merged(old, changed));
          if (changed.restructured || reading) {
            await queries.refetchQueries({ queryKey: key, exact: true });
            if (changed.restructured) follow.current();
          }
          void queries.invalidateQueries({ queryKey: ["meetings"] });
          void queries.invalidateQueries({ queryKey: ["actions"] });
          return true;
        } catch (error) {
          if (error instanceof ApiProblem && error.theirs !== null) {
            void queries.invalidateQueries({ queryKey: key, exact: true });
            return { theirs: error.theirs, message: error.message };
          }
          if (inForm) inForm(sentenceOf(error));
          else notice({ text: sentenceOf(error), severity: "error" });
          return false;
        }
      }),
    [inTurn, key, notice, queries],
  );

  /** The minutes follow the turns: they are written again when others said what, unless more is being set right already. */
  const follow = useRef<() => void>(() => undefined);
  const waiting = useRef(0);
  follow.current = () => {
    window.clearTimeout(waiting.current);
    waiting.current = window.setTimeout(() => void remake({}, true), FOLLOW_AFTER);
  };

  const actions = useMemo(() => {
    const meeting_id = meetingId;
    return {
      /** Who a voice may be, the likeliest first. */
      suggest: async (speaker_id: number): Promise<string[]> =>
        (
          await bodyAs(
            "SuggestionsOut",
            client.GET("/api/meetings/{meeting_id}/voices/{speaker_id}/suggestions", { params: { path: { meeting_id, speaker_id } } }),
          )
        ).names,
      undo: () => carry(() => bodyAs("ChangedOut", client.POST("/api/meetings/{meeting_id}/undo", { params: { path: { meeting_id } } }))),
      redo: () => carry(() => bodyAs("ChangedOut", client.POST("/api/meetings/{meeting_id}/redo", { params: { path: { meeting_id } } }))),
      nameVoice: (speaker_id: number, name: string | null) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.PUT("/api/meetings/{meeting_id}/voices/{speaker_id}", { params: { path: { meeting_id, speaker_id } }, body: { name } }),
          ),
        ),
      correctTurn: (number: number, text: string, was: string | null) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.PUT("/api/meetings/{meeting_id}/turns/{number}", { params: { path: { meeting_id, number } }, body: { text, was } }),
          ),
        ),
      giveWords: (number: number, voice: number | null, first = 0, last: number | null = null) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.PUT("/api/meetings/{meeting_id}/turns/{number}/voice", {
              params: { path: { meeting_id, number } },
              body: { voice, first, last },
            }),
          ),
        ),
      splitTurn: (number: number, at: number) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.POST("/api/meetings/{meeting_id}/turns/{number}/split", { params: { path: { meeting_id, number } }, body: { at } }),
          ),
        ),
      joinTurns: (number: number) =>
        carry(() =>
          bodyAs("ChangedOut", client.POST("/api/meetings/{meeting_id}/turns/{number}/join", { params: { path: { meeting_id, number } } })),
        ),
      mergeVoices: (speaker_id: number, into: number) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.POST("/api/meetings/{meeting_id}/voices/{speaker_id}/merge", {
              params: { path: { meeting_id, speaker_id } },
              body: { into },
            }),
          ),
        ),
      editLine: (line_id: number, text: string, was: string | null) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.PUT("/api/meetings/{meeting_id}/lines/{line_id}", { params: { path: { meeting_id, line_id } }, body: { text, was } }),
          ),
        ),
      addLine: (body: Schemas["LineNew"], inForm?: (sentence: string) => void) =>
        carry(
          () => bodyAs("ChangedOut", client.POST("/api/meetings/{meeting_id}/lines", { params: { path: { meeting_id } }, body })),
          inForm,
        ),
      changeLine: (line_id: number, body: Partial<Schemas["LinePatch"]>, inForm?: (sentence: string) => void) =>
        carry(
          () =>
            bodyAs(
              "ChangedOut",
              client.PATCH("/api/meetings/{meeting_id}/lines/{line_id}", {
                params: { path: { meeting_id, line_id } },
                body: body as Schemas["LinePatch"], // what is not given stays
              }),
            ),
          inForm,
        ),
      joinLines: (line_id: number, other: number) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.POST("/api/meetings/{meeting_id}/lines/{line_id}/join", { params: { path: { meeting_id, line_id } }, body: { other } }),
          ),
        ),
      splitLine: (line_id: number, first: string, second: string) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.POST("/api/meetings/{meeting_id}/lines/{line_id}/split", {
              params: { path: { meeting_id, line_id } },
              body: { first, second },
            }),
          ),
        ),
      restoreVersion: (version_id: number, line: number | null) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.POST("/api/meetings/{meeting_id}/versions/{version_id}/restore", {
              params: { path: { meeting_id, version_id } },
              body: { line },
            }),
          ),
        ),
      takeBack: (change_id: number) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.POST("/api/meetings/{meeting_id}/history/{change_id}/take-back", { params: { path: { meeting_id, change_id } } }),
          ),
        ),
      throwOut: (line_id: number, reason: Reason | null) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.PUT("/api/meetings/{meeting_id}/lines/{line_id}/thrown", {
              params: { path: { meeting_id, line_id } },
              body: { reason },
            }),
          ),
        ),
      putRight: (term: string, heard: string, right: boolean) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.POST("/api/meetings/{meeting_id}/misheard", { params: { path: { meeting_id } }, body: { term, heard, right } }),
          ),
        ),
      tickLine: (line_id: number, checked: boolean) =>
        carry(() =>
          bodyAs(
            "ChangedOut",
            client.PUT("/api/meetings/{meeting_id}/lines/{line_id}/tick", { params: { path: { meeting_id, line_id } }, body: { checked } }),
          ),
        ),
    };
  }, [carry, meetingId]);

  const remake = useCallback(
    (shape: Shape = {}, quiet = false) =>
      inTurn(async () => {
        try {
          await bodyAs(
            "MeetingOut",
            client.POST("/api/meetings/{meeting_id}/minutes", {
              params: { path: { meeting_id: meetingId } },
              body: { length: null, template: null, detailed: null, fine: null, ...shape },
            }),
          );
          await queries.refetchQueries({ queryKey: key, exact: true }); // with its job, which may be done by now
          void queries.invalidateQueries({ queryKey: ["meetings"] });
          void queries.invalidateQueries({ queryKey: ["suggestion", meetingId] });
          if (!quiet) notice({ text: "The minutes are written again; what you changed, ticked or threw out stays so.", severity: "info" });
        } catch (error) {
          notice({ text: sentenceOf(error), severity: "error" });
        }
      }),
    [inTurn, key, meetingId, notice, queries],
  );

  const cut = useCallback(
    (start: number, end: number): Promise<boolean> =>
      inTurn(async () => {
        try {
          queries.setQueryData(
            key,
            await whole(
              await bodyAs(
                "RecordOut",
                client.POST("/api/meetings/{meeting_id}/cut", { params: { path: { meeting_id: meetingId } }, body: { start, end } }),
              ),
            ),
          );
          void queries.invalidateQueries({ queryKey: ["meetings"] });
          void queries.invalidateQueries({ queryKey: ["actions"] });
          return true;
        } catch (error) {
          notice({ text: sentenceOf(error), severity: "error" });
          return false;
        }
      }),
    [inTurn, key, meetingId, notice, queries],
  );

  const diarizeAgain = useCallback(
    async (people: number | null): Promise<boolean> => {
      try {
        await bodyAs(
          "MeetingOut",
          client.POST("/api/meetings/{meeting_id}/voices/again", { params: { path: { meeting_id: meetingId } }, body: { people } }),
        );
        await queries.refetchQueries({ queryKey: key, exact: true });
        return true;
      } catch (error) {
        notice({ text: sentenceOf(error), severity: "error" });
        return false;
      }
    },
    [key, meetingId, notice, queries],
  );

  const reload = useCallback(() => void queries.invalidateQueries({ queryKey: key, exact: true }), [key, queries]);
  const minutesFollow = useCallback(() => follow.current(), []);
  return { query, ...actions, remake, cut, diarizeAgain, reload, minutesFollow };
}

export type RecordActions = Omit<ReturnType<typeof useRecord>, "query">;
