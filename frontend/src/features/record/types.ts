import type { Schemas } from "../../api/client";

export type RecordData = Schemas["RecordOut"];
export type Line = Schemas["LineOut"];
export type Turn = Schemas["TurnOut"];
export type Voice = Schemas["VoiceOut"];
export type Doubt = Schemas["DoubtOut"];
export type Mark = Schemas["MarkOut"];
export type Evidence = Schemas["EvidenceOut"];
export type Length = NonNullable<RecordData["minutes"]>["length"];
/** What minutes are to be: whatever is not named stays as it is. */
export type Shape = Partial<Schemas["NewShape"]>;
export type Reason = NonNullable<Schemas["ThrowOut"]["reason"]>;
export type Changed = Schemas["ChangedOut"];

/** A stretch of time that is lit, in seconds. */
export interface Stretch {
  start: number;
  end: number;
}

export const turnStart = (turn: Turn): number => turn.words[0]?.[1] ?? 0;
export const turnEnd = (turn: Turn): number => turn.words[turn.words.length - 1]?.[2] ?? 0;
export const turnText = (turn: Turn): string => turn.words.map((word) => word[0]).join(" ");
