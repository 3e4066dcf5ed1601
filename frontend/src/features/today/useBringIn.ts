import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";

import { body, client, sentenceOf, type Schemas } from "../../api/client";
import { fingerprint } from "./parts";
import { guessedRoles, leading, type Role } from "./roles";
import { useUploads } from "./uploads";

type Upload = Schemas["UploadOut"];

/** A chosen file: read first, then recognised as known, half brought in, or new; and what it is. */
export interface Chosen {
  file: File;
  role: Role;
  read: number;
  upload: Upload | null;
  error: string;
}

export interface Details {
  title: string;
  template: string;
  startsAt: string;
  people: string[];
  voices: number | null;
}

/** Bringing in a recording, alone or with its transcript and chat: choose, describe, send. */
export function useBringIn(onResumed: (meetingId: string) => void) {
  const queries = useQueryClient();
  const { send } = useUploads();
  const [chosen, setChosen] = useState<Chosen[]>([]);

  const change = useCallback(
    (file: File, part: Partial<Chosen>) => setChosen((all) => all.map((each) => (each.file === file ? { ...each, ...part } : each))),
    [],
  );
  const leaveOut = useCallback((file: File) => setChosen((all) => all.filter((each) => each.file !== file)), []);

  const choose = useCallback(
    async (files: readonly File[]) => {
      const roles = guessedRoles(files.map((file) => file.name));
      setChosen(files.map((file, i) => ({ file, role: roles[i] ?? "recording", read: 0, upload: null, error: "" })));
      const resumed = new Map<string, { file: File; upload: Upload }[]>();
      for (const file of files) {
        try {
          const print = await fingerprint(file, (read) => change(file, { read }));
          const upload = await body(
            client.POST("/api/uploads", { body: { name: file.name.slice(-255), size: file.size, fingerprint: print } }),
          );
          if (upload.meeting_id) {
            resumed.set(upload.meeting_id, [...(resumed.get(upload.meeting_id) ?? []), { file, upload }]);
            leaveOut(file);
          } else change(file, { upload });
        } catch (error) {
          change(file, {
            error: error instanceof DOMException ? "This file cannot be read any more. Choose it again." : sentenceOf(error),
          });
        }
      }
      for (const [meetingId, rest] of resumed) {
        void send(rest, meetingId);
        onResumed(meetingId);
      }
    },
    [change, leaveOut, onResumed, send],
  );

  const submit = useCallback(
    async (details: Details): Promise<string> => {
      const ready = chosen.flatMap((each) => (each.upload ? [{ ...each, upload: each.upload }] : []));
      const first = ready[leading(ready.map((each) => each.role))];
      if (!first || ready.length < chosen.length) throw new Error("The file is still being read. Wait a moment.");
      const others = ready.filter((each) => each !== first);
      const meeting = await body(
        client.POST("/api/meetings", {
          body: {
            title: details.title,
            kind: "general meeting",
            template: details.template,
            starts_at: new Date(details.startsAt).toISOString(),
            time_zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
            people: details.people,
            upload_id: first.upload.id,
            beside: others.map((each) => ({
              upload_id: each.upload.id,
              role: each.role === "chat" ? ("chat" as const) : ("transcript" as const),
            })),
            voices: details.voices,
          },
        }),
      );
      void send([first, ...others], meeting.id);
      setChosen([]);
      await queries.invalidateQueries({ queryKey: ["meetings"] });
      await queries.invalidateQueries({ queryKey: ["people"] });
      return meeting.id;
    },
    [chosen, queries, send],
  );

  return { chosen, choose, change, leaveOut, submit, close: () => setChosen([]) };
}
