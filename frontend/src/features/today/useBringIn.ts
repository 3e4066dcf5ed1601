import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";

import { body, client, sentenceOf, type Schemas } from "../../api/client";
import { fingerprint } from "./parts";
import { useUploads } from "./uploads";

type Upload = Schemas["UploadOut"];

/** A chosen file: read first, then recognised as known, half brought in, or new. */
export interface Chosen {
  file: File;
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

/** Bringing in a recording: choose, describe, send. */
export function useBringIn(onResumed: (meetingId: string) => void) {
  const queries = useQueryClient();
  const { send } = useUploads();
  const [chosen, setChosen] = useState<Chosen | null>(null);

  const choose = useCallback(async (file: File) => {
    setChosen({ file, read: 0, upload: null, error: "" });
    try {
      const print = await fingerprint(file, (read) => setChosen((c) => c && c.file === file ? { ...c, read } : c));
      const upload = await body(client.POST("/api/uploads", { body: { name: file.name.slice(-255), size: file.size, fingerprint: print } }));
      if (upload.meeting_id) {
        setChosen(null);
        void send(file, upload, upload.meeting_id);
        onResumed(upload.meeting_id);
        return;
      }
      setChosen((c) => c && c.file === file ? { ...c, upload } : c);
    } catch (error) {
      const unreadable = error instanceof DOMException ? "This file cannot be read any more. Choose it again." : sentenceOf(error);
      setChosen((c) => c && c.file === file ? { ...c, error: unreadable } : c);
    }
  }, [onResumed, send]);

  const submit = useCallback(async (details: Details): Promise<string> => {
    if (!chosen?.upload) throw new Error("The file is still being read. Wait a moment.");
    const meeting = await body(client.POST("/api/meetings", { body: {
      title: details.title,
      kind: "general meeting", template: details.template,
      starts_at: new Date(details.startsAt).toISOString(),
      time_zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      people: details.people,
      upload_id: chosen.upload.id,
      voices: details.voices,
    } }));
    void send(chosen.file, chosen.upload, meeting.id);
    setChosen(null);
    await queries.invalidateQueries({ queryKey: ["meetings"] });
    await queries.invalidateQueries({ queryKey: ["people"] });
    return meeting.id;
  }, [chosen, queries, send]);

  return { chosen, choose, submit, close: () => setChosen(null) };
}
