import { bodyAs, client, type Schemas } from "../api/client";

type Record = Schemas["RecordOut"];
type Turns = Schemas["TurnsOut"];

/** The record with the turns that did not come with it; `more` fetches some from a number on. */
export async function whole(record: Record, more = moreOf(record.meeting.id)): Promise<Record> {
  const turns = [...record.turns];
  while (turns.length > 0 && turns.length < record.total_turns) {
    const window = await more(turns.length);
    if (window.turns.length === 0) break;
    turns.push(...window.turns);
  }
  return { ...record, turns };
}

/** The whole record of a meeting: a bounded answer for each few hundred turns. */
export async function fetchRecord(meetingId: string): Promise<Record> {
  return whole(await bodyAs("RecordOut", client.GET("/api/meetings/{meeting_id}", { params: { path: { meeting_id: meetingId } } })));
}

function moreOf(meetingId: string): (first: number) => Promise<Turns> {
  return (first) =>
    bodyAs("TurnsOut", client.GET("/api/meetings/{meeting_id}/turns", { params: { path: { meeting_id: meetingId }, query: { first } } }));
}
