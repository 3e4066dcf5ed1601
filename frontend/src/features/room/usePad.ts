import { useCallback, useEffect, useReducer, useRef } from "react";

import { body, client, sentenceOf } from "../../api/client";
import { useNotice } from "../../app/notices";
import { between, padReducer } from "./pad";
import type { Note } from "./types";

const PAUSE = 600; // milliseconds after the last key before a paragraph is sent

/** A person's notes: written here at once, sent soon after, kept until the server has them. */
export function usePad(meetingId: string, fromServer: Note[], now: () => number) {
  const notice = useNotice();
  const [notes, act] = useReducer(padReducer, fromServer);
  const latest = useRef(notes);
  const touched = useRef(new Map<string, number>());
  const timers = useRef(new Map<string, ReturnType<typeof setTimeout>>());
  useEffect(() => {
    latest.current = notes;
  }, [notes]);
  useEffect(() => act({ type: "server", notes: fromServer, touched: new Set(touched.current.keys()) }), [fromServer]);

  const send = useCallback(
    async (id: string) => {
      const note = latest.current.find((n) => n.id === id);
      const stamp = touched.current.get(id);
      if (!note || stamp === undefined) return;
      const { text, at, position, private: own } = note;
      try {
        await body(
          client.PUT("/api/meetings/{meeting_id}/room/notes/{note_id}", {
            params: { path: { meeting_id: meetingId, note_id: id } },
            body: { text, at, position, private: own },
          }),
        );
        if (touched.current.get(id) === stamp) touched.current.delete(id);
      } catch (error) {
        const status = (error as { status?: number }).status ?? 0;
        if (status && status < 500) notice({ text: sentenceOf(error), severity: "error" });
        else
          timers.current.set(
            id,
            setTimeout(() => void send(id), 2000),
          ); // the server is away: it stays here meanwhile
      }
    },
    [meetingId, notice],
  );

  const touch = useCallback(
    (id: string, wait = PAUSE) => {
      touched.current.set(id, performance.now());
      clearTimeout(timers.current.get(id));
      timers.current.set(
        id,
        setTimeout(() => void send(id), wait),
      );
    },
    [send],
  );

  const add = useCallback(
    (after: string | null, text = ""): string => {
      const index = after === null ? latest.current.length - 1 : latest.current.findIndex((n) => n.id === after);
      const position = between(latest.current[index]?.position, latest.current[index + 1]?.position);
      const note: Note = { id: crypto.randomUUID(), text, at: Math.max(0, now()), position, private: false };
      touched.current.set(note.id, performance.now());
      act({ type: "add", note });
      return note.id;
    },
    [now],
  );

  const write = useCallback(
    (id: string, text: string) => {
      act({ type: "write", id, text });
      touch(id);
    },
    [touch],
  );

  const keepPrivate = useCallback(
    (id: string, own: boolean) => {
      act({ type: "keep", id, private: own });
      touch(id, 50);
    },
    [touch],
  );

  const restore = useCallback(
    (note: Note) => {
      act({ type: "add", note });
      touch(note.id, 50);
    },
    [touch],
  );

  const remove = useCallback(
    (id: string) => {
      const note = latest.current.find((n) => n.id === id);
      if (note?.text.trim())
        notice({ text: "The note was taken off the pad.", severity: "info", action: { label: "Take back", run: () => restore(note) } });
      clearTimeout(timers.current.get(id));
      touched.current.delete(id);
      act({ type: "remove", id });
      void body(
        client.DELETE("/api/meetings/{meeting_id}/room/notes/{note_id}", { params: { path: { meeting_id: meetingId, note_id: id } } }),
      ).catch(() => undefined);
    },
    [meetingId, notice, restore],
  );

  return { notes, add, write, keepPrivate, remove };
}

export type PadActions = ReturnType<typeof usePad>;
