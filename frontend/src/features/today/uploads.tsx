import { useQueryClient } from "@tanstack/react-query";
import { createContext, use, useCallback, useMemo, useReducer, type ReactNode } from "react";

import { ApiProblem, body, client, csrfToken, sentenceOf, type Schemas } from "../../api/client";
import { useLeaveWarning } from "../../shared/useLeaveWarning";
import { missing, partDigest } from "./parts";

type Upload = Schemas["UploadOut"];

interface Chosen {
  file: File;
  upload: Upload;
}

/** A file on its way from this page. */
export interface Sending {
  meetingId: string;
  name: string;
  share: number;
  state: "sending" | "waiting" | "failed";
  error: string;
}

type Act = { type: "set"; sending: Sending } | { type: "end"; meetingId: string };

/** The files on their way, by meeting. */
export function sendingReducer(state: Record<string, Sending>, act: Act): Record<string, Sending> {
  if (act.type === "set") return { ...state, [act.sending.meetingId]: act.sending };
  return Object.fromEntries(Object.entries(state).filter(([meetingId]) => meetingId !== act.meetingId));
}

interface Uploads {
  sending: Record<string, Sending>;
  send: (files: readonly Chosen[], meetingId: string) => Promise<void>;
}

const UploadContext = createContext<Uploads>({ sending: {}, send: () => Promise.resolve() });
const TRIES = 30;
const LONGEST_PAUSE = 15_000; // milliseconds

/** Sends files in the background while the person goes on; a lost connection is waited out. */
export function UploadProvider({ children }: { children: ReactNode }) {
  const queries = useQueryClient();
  const [sending, act] = useReducer(sendingReducer, {});
  const send = useCallback(
    async (files: readonly Chosen[], meetingId: string) => {
      let name = files[0]?.file.name ?? "";
      const note = (share: number, state: Sending["state"] = "sending", error = "") =>
        act({ type: "set", sending: { meetingId, name, share, state, error } });
      const todo = files.flatMap((each) => missing(each.upload.size, each.upload.held).map((number) => ({ ...each, number })));
      const held = files.reduce((sum, each) => sum + each.upload.held.length, 0);
      const all = Math.max(1, todo.length + held);
      let done = held;
      note(done / all);
      try {
        for (const { file, upload, number } of todo) {
          name = file.name;
          await putPart(file, upload.id, number, () => note(done / all, "waiting"));
          done += 1;
          note(done / all);
        }
        await persist(
          () => body(client.POST("/api/meetings/{meeting_id}/begin", { params: { path: { meeting_id: meetingId } } })),
          () => note(1, "waiting"),
        );
        act({ type: "end", meetingId });
      } catch (error) {
        note(done / all, "failed", sentenceOf(error));
      }
      await queries.invalidateQueries({ queryKey: ["meetings"] });
      await queries.invalidateQueries({ queryKey: ["record", meetingId] });
    },
    [queries],
  );
  useLeaveWarning(Object.values(sending).some((s) => s.state !== "failed"));
  const value = useMemo(() => ({ sending, send }), [sending, send]);
  return <UploadContext value={value}>{children}</UploadContext>;
}

export const useUploads = (): Uploads => use(UploadContext);

async function putPart(file: File, id: string, number: number, onWait: () => void): Promise<void> {
  const { data, digest } = await partDigest(file, number);
  await persist(async () => {
    const response = await fetch(`/api/uploads/${id}/parts/${number}`, {
      method: "PUT",
      body: data,
      headers: { "X-CSRF-Token": csrfToken(), "X-Part-SHA256": digest, "Content-Type": "application/octet-stream" },
    }).catch(() => {
      throw new ApiProblem(0, "The connection is gone.");
    });
    if (!response.ok) {
      const problem = (await response.json().catch(() => ({}))) as { detail?: string };
      throw new ApiProblem(response.status, problem.detail ?? "This part of the file could not be sent.");
    }
  }, onWait);
}

/** Repeats what failed for want of a connection, with growing pauses; everything else is thrown. */
async function persist<T>(attempt: () => Promise<T>, onWait: () => void): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await attempt();
    } catch (error) {
      const passing = error instanceof ApiProblem && (error.status === 0 || error.status === 502 || error.status === 503);
      if (!passing || tries >= TRIES) throw error;
      onWait();
      await new Promise((resolve) => setTimeout(resolve, Math.min(LONGEST_PAUSE, 500 * 2 ** (tries - 1))));
    }
  }
}
