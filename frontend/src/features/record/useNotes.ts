import { useQuery, useQueryClient } from "@tanstack/react-query";

import { body, client, sentenceOf, type Schemas } from "../../api/client";
import { useNotice } from "../../app/notices";
import { WORTH_KEEPING } from "../../shared/markLabels";
import { clock } from "../../shared/times";
import type { Mark, RecordData } from "./types";

export type Note = Schemas["NoteOut"];

/** The place of a paragraph among those by their moment: behind the last one that was written of an earlier moment. */
export function positionAt(notes: readonly Note[], at: number): number {
  const before = notes.filter((note) => note.at <= at).map((note) => note.position);
  const behind = notes.filter((note) => note.at > at).map((note) => note.position);
  if (!before.length && !behind.length) return 1;
  if (!behind.length) return Math.max(...before) + 1;
  if (!before.length) return Math.min(...behind) - 1;
  return (Math.max(...before) + Math.min(...behind)) / 2;
}

/** Marks on a record, set and removed at any moment of it. `onChanged` hears of what the minutes have to follow. */
function useMarks(meetingId: string, onChanged: () => void) {
  const queries = useQueryClient();
  const marked = ({ marks }: Schemas["MarksOut"]) => {
    queries.setQueryData<RecordData>(["record", meetingId], (old) => old && { ...old, marks });
    onChanged();
  };
  const path = (mark_id: string) => ({ params: { path: { meeting_id: meetingId, mark_id } } });
  return {
    mark: async ({ id, label, start, end, text }: Pick<Mark, "id" | "label" | "start" | "end" | "text">) =>
      marked(await body(client.PUT("/api/meetings/{meeting_id}/marks/{mark_id}", { ...path(id), body: { label, start, end, text } }))),
    unmark: async (id: string) => marked(await body(client.DELETE("/api/meetings/{meeting_id}/marks/{mark_id}", path(id)))),
  };
}

/** One's own notes and the marks on a record: written, changed and removed at any moment of it. */
export function useNotes(meetingId: string, onChanged: () => void) {
  const queries = useQueryClient();
  const key = ["notes", meetingId];
  const query = useQuery({
    queryKey: key,
    queryFn: () => body(client.GET("/api/meetings/{meeting_id}/notes", { params: { path: { meeting_id: meetingId } } })),
    staleTime: 0,
  });
  const noted = (answer: Schemas["NotesOut"]) => {
    queries.setQueryData(key, answer);
    onChanged();
  };
  const path = (note_id: string) => ({ params: { path: { meeting_id: meetingId, note_id } } });
  return {
    query,
    keep: async ({ id, text, at, position, private: own }: Note) =>
      noted(
        await body(client.PUT("/api/meetings/{meeting_id}/notes/{note_id}", { ...path(id), body: { text, at, position, private: own } })),
      ),
    drop: async (note: Note) => noted(await body(client.DELETE("/api/meetings/{meeting_id}/notes/{note_id}", path(note.id)))),
    ...useMarks(meetingId, onChanged),
  };
}

/** Marks a moment at one press, with a way back. */
export function useQuickMark(meetingId: string, onChanged: () => void): (seconds: number) => Promise<void> {
  const { mark, unmark } = useMarks(meetingId, onChanged);
  const notice = useNotice();
  return async (seconds) => {
    const id = crypto.randomUUID();
    const tried = (work: Promise<void>) => work.catch((problem: unknown) => notice({ text: sentenceOf(problem), severity: "error" }));
    await tried(
      mark({ id, label: WORTH_KEEPING, start: seconds, end: seconds, text: "" }).then(() =>
        notice({
          text: `Marked “${WORTH_KEEPING}” at ${clock(seconds)}.`,
          severity: "info",
          action: { label: "Take back", run: () => void tried(unmark(id)) },
        }),
      ),
    );
  };
}
