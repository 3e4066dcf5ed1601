import type { Schemas } from "../../api/client";

export type Board = Schemas["Board"];
export type Speech = Schemas["Speech"];
export type LiveLine = Schemas["LiveLineOut"];
export type LiveVoice = Schemas["LiveVoiceOut"];
export type Mark = Schemas["MarkOut"];
export type Note = Schemas["NoteOut"];
export type Break = Schemas["BreakOut"];
export type Brief = Schemas["BriefOut"];
export type Agenda = Schemas["AgendaOut"];
