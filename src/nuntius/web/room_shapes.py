"""From the rows of a room to what goes over the wire."""

from collections.abc import Sequence

from sqlalchemy.orm import Session

from nuntius.core.audio.decode import RATE
from nuntius.core.live.agenda import suggested
from nuntius.core.live.floor import LiveFloor, live_floor
from nuntius.core.rooms import RoomState
from nuntius.store.accounts import account_names
from nuntius.store.capture import last_run
from nuntius.store.live import voiced
from nuntius.store.models import (
    LiveLineRow,
    Meeting,
    Room,
    Speaker,
    User,
    Workspace,
)
from nuntius.store.notes import marks_of, notes_of_all
from nuntius.store.rooms import agenda_items, agenda_of, may_record
from nuntius.store.templates import template_of
from nuntius.store.transcripts import names_of, speakers_of
from nuntius.web import room_schemas as r
from nuntius.web.room_facts import breaks_out, marks_out, note_out, pictures_out, there_out
from nuntius.web.shapes import meeting_out


def speech_out(room: Room) -> r.Speech:
    duration = room.held / RATE
    return r.Speech(
        state=room.state,
        duration=round(duration, 3),
        partial=room.partial,
        partial_start=room.partial_start,
        behind=round(max(0.0, duration - room.heard / RATE), 2),
        silent=round(max(0.0, room.heard / RATE - room.last_speech), 1),
    )


def line_out(row: LiveLineRow, voices: dict[str, int]) -> r.LiveLineOut:
    return r.LiveLineOut(
        number=row.number,
        start=round(row.start, 2),
        end=round(row.end, 2),
        text=row.text if row.person_text is None else row.person_text,
        heard=row.text if row.person_text is not None else None,
        voice=voices.get(row.voice) if row.voice else None,
    )


def voice_ids(session: Session, meeting_id: str) -> dict[str, int]:
    """Identifier of each voice by its label."""
    return {speaker.label: speaker.id for speaker in speakers_of(session, meeting_id)}


def board_out(session: Session, meeting: Meeting, room: Room, user: User, rows: Sequence[LiveLineRow]) -> r.Board:
    """The board for `user`; `rows` are all lines so far."""
    return boards_out(session, meeting, room, [user], rows)[0]


def boards_out(
    session: Session, meeting: Meeting, room: Room, users: Sequence[User], rows: Sequence[LiveLineRow]
) -> list[r.Board]:
    """The board for each of the users; what they all see is made once."""
    shared = _board(session, meeting, room, users[0], rows)
    notes = notes_of_all(session, [user.id for user in users], meeting.id)
    marks = marks_of(session, meeting.id)
    names = account_names(session)

    def own(user: User) -> r.Board:
        mine = {
            "runner": meeting.runner_id == user.id,
            "meeting": shared.meeting.model_copy(update={"runner": meeting.runner_id == user.id}),
            "marks": marks_out(marks, names, user),
            "notes": [note_out(note) for note in notes[user.id]],
        }
        return shared.model_copy(update=mine)

    return [own(user) for user in users]


def _board(session: Session, meeting: Meeting, room: Room, user: User, rows: Sequence[LiveLineRow]) -> r.Board:
    """The board as everybody in a room sees it, with the meeting as `user` sees it."""
    lines = [voiced(row) for row in rows if row.text or row.person_text]
    now = room.held / RATE
    floor = live_floor(lines, room.heard / RATE, bool(room.partial))
    workspace = session.get_one(Workspace, meeting.workspace_id)
    run = last_run(session, room)
    names = account_names(session)
    agenda = agenda_of(session, meeting.id)
    on = next((row.number for row in agenda if row.begun is not None and row.ended is None), None)
    recording = room.state in (RoomState.RECORDING, RoomState.STOPPING)
    voices = _voices(session, meeting, floor)
    return r.Board(
        meeting=meeting_out(session, meeting, user),
        state=room.state,
        runner=False,
        recorder=names.get(run.user_id) if run and recording else None,
        source=run.source if run else None,
        runs=run is not None,
        announcement=workspace.announcement,
        consent_needed=workspace.consent_needed,
        may_record=may_record(session, meeting, room),
        announced_at=room.announced_at,
        announced_by=names.get(room.announced_by) if room.announced_by else None,
        there=there_out(session, meeting),
        agenda=[r.AgendaOut(title=a.title, planned=a.planned, begun=a.begun, ended=a.ended) for a in agenda],
        suggested=suggested(agenda_items(agenda), on, lines, now) if recording else None,
        labels=list(template_of(session, meeting).template.labels),
        breaks=breaks_out(session, meeting.id),
        voices=voices,
        holder=next((v.id for v in voices if v.label == floor.holder), None),
        held=round(floor.held, 1),
        silence_stop=room.silence_stop,
        floor_limit=room.floor_limit,
        notes=[],
        marks=[],
        pictures=pictures_out(session, meeting.id),
        line_link=room.line_link,
        line_state=room.line_state,
    )


def _voices(session: Session, meeting: Meeting, floor: LiveFloor) -> list[r.LiveVoiceOut]:
    names = names_of(session, meeting.id)

    def out(speaker: Speaker) -> r.LiveVoiceOut:
        label = speaker.label
        return r.LiveVoiceOut(
            id=speaker.id,
            label=label,
            name=names[label],
            named=speaker.person_id is not None,
            seconds=round(floor.seconds.get(label, 0.0), 1),
            longest=round(floor.longest.get(label, 0.0), 1),
            last_heard=round(floor.last_heard.get(label, 0.0), 1),
        )

    return [out(speaker) for speaker in speakers_of(session, meeting.id) if speaker.label in floor.seconds]
