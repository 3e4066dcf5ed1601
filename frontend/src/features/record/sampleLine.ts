import type { Line } from "./types";

/** A line for specs: an open action that rests on nothing, with what is given in its place. */
export const sampleLine = (part: Partial<Line> = {}): Line => ({
  id: 1,
  kind: "action",
  text: `line ${part.id ?? 1}`,
  heard: null,
  owner: [],
  due: null,
  due_said: null,
  state: "open",
  answer: null,
  place: 0,
  chapter: 0,
  topic: "",
  checked: false,
  progress: "open",
  remark: "",
  set_by_person: [],
  by_hand: false,
  thrown_out: null,
  why: "",
  doubts: [],
  evidence: [],
  ...part,
});

/** Words that a line rests on, spoken from `start` to `end` seconds in a turn. */
export const samplePassage = (turn: number, start: number, end: number, quote = ""): Line["evidence"][number] => ({
  turn,
  first: 0,
  last: 0,
  start,
  end,
  quote,
  of_answer: false,
});
