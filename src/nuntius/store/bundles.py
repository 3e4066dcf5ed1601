"""Whole meetings as bundles: gathered from rows and files, and made into a meeting again."""

from pathlib import Path
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.formats import bundle_shapes as b
from nuntius.core.formats.bundle import BundleUnreadable
from nuntius.core.formats.bundle_shapes import Bundle
from nuntius.core.rooms import RoomState
from nuntius.core.templates.shipped import SHIPPED
from nuntius.core.templates.template import read_template, template_json
from nuntius.store.errors import Conflict
from nuntius.store.files import FileStore
from nuntius.store.minutes import get_minutes
from nuntius.store.models import (
    AgendaRow,
    Break,
    Consent,
    EvidenceRow,
    Excerpt,
    LineRow,
    MarkRow,
    Meeting,
    MinutesRow,
    NoteRow,
    Person,
    Recording,
    Room,
    Speaker,
    StillPicture,
    TurnRow,
    User,
)  # fmt: skip
from nuntius.store.notes import notes_of
from nuntius.store.people import first_named
from nuntius.store.rooms import room_of
from nuntius.store.templates import choices, save_template, template_of
from nuntius.store.transcripts import speakers_of, turns_of

RECORDING_FIELDS = ("name", "is_text", "duration", "spans")
LINE_FIELDS = (
    "kind", "place", "chapter", "text", "person_text", "owner", "due", "due_said", "state", "answer", "why", "doubts", "thrown_out", "progress", "remark", "set_by_person",
)  # fmt: skip
EVIDENCE_FIELDS = ("of_answer", "turn", "first", "last", "start", "end", "quote")
MINUTES_FIELDS = (
    "made_at",
    "source",
    "length",
    "sections",
    "detailed",
    "fine",
    "remark",
    "coverage",
    "gaps",
    "chapters",
)
EXCERPT_FIELDS = ("title", "note", "label", "speakers", "start", "end", "quote")
NOTE_FIELDS = ("text", "at", "position", "private")
MARK_FIELDS = ("label", "text", "start", "end")
ITEM_FIELDS = ("title", "planned", "begun", "ended")
BREAK_FIELDS = ("kind", "at", "seconds", "by", "made_at")


def bundle_of(session: Session, files: FileStore, user: User, meeting: Meeting) -> tuple[Bundle, dict[str, Path]]:
    """A whole meeting as `user` may see it (others' notes left out), and the files it names by their path in it.

    Raises Conflict before there is a transcript.
    """
    turns = turns_of(session, meeting.id)
    if not turns:
        raise Conflict("There is no transcript to download yet. Wait until the work is done.")
    labels = {speaker.id: speaker.label for speaker in speakers_of(session, meeting.id)}
    recording = session.scalar(select(Recording).where(Recording.meeting_id == meeting.id))
    paths: dict[str, Path] = {}
    made = {
        "meeting": _meeting(session, meeting),
        "recording": _recording(files, recording, paths) if recording and recording.digest else None,
        "voices": _voices(session, meeting),
        "turns": [
            {"voice": labels[t.speaker_id], "cue": t.cue, "words": t.words, "person_words": t.person_words}
            for t in turns
        ],
        "minutes": _minutes(get_minutes(session, meeting.id)),
        "excerpts": _rows(session, Excerpt, meeting, EXCERPT_FIELDS, Excerpt.start),
        "notes": [_fields(note, NOTE_FIELDS) for note in notes_of(session, user, meeting.id)],
        "marks": _rows(session, MarkRow, meeting, MARK_FIELDS, MarkRow.start),
        "agenda": _rows(session, AgendaRow, meeting, ITEM_FIELDS, AgendaRow.number),
        "breaks": _rows(session, Break, meeting, BREAK_FIELDS, Break.at),
        "pictures": [
            {"at": picture.at, "file": _file(files, picture.digest, f"pictures/{number:04d}", paths)}
            for number, picture in enumerate(_pictures(session, meeting), 1)
        ],
        "consent": _consent(session, meeting),
    }
    return Bundle.model_validate(made), paths


def _meeting(session: Session, meeting: Meeting) -> dict[str, object]:
    choice = template_of(session, meeting)
    return {
        "title": meeting.title,
        "kind": meeting.kind,
        "starts_at": meeting.starts_at,
        "time_zone": meeting.time_zone,
        "people": [person.label for person in meeting.people],
        "template": None if choice.id is None else template_json(choice.template),
    }


def _recording(files: FileStore, recording: Recording, paths: dict[str, Path]) -> dict[str, object]:
    ending = "".join(c for c in Path(recording.name).suffix if c.isascii() and (c.isalnum() or c == "."))[:10]
    file = _file(files, recording.digest, f"sound/recording{ending}", paths)
    return {**_fields(recording, RECORDING_FIELDS), "file": file}


def _file(files: FileStore, digest: str, name: str, paths: dict[str, Path]) -> dict[str, object]:
    paths[name] = files.path(digest)
    return {"path": name, "size": paths[name].stat().st_size, "sha256": digest}


def _voices(session: Session, meeting: Meeting) -> list[dict[str, object]]:
    people = dict(session.execute(select(Person.id, Person.label)).tuples().all())
    rows = speakers_of(session, meeting.id)
    return [{"label": row.label, "person": people.get(row.person_id) if row.person_id else None} for row in rows]


def _minutes(minutes: MinutesRow | None) -> dict[str, object] | None:
    if minutes is None:
        return None
    lines = [
        {
            **_fields(line, LINE_FIELDS),
            "chapter": min(line.chapter, max(0, len(minutes.chapters) - 1)),  # fewer may have been made since
            "checked": line.checked_by is not None,
            "by_hand": line.made_by is not None,
            "evidence": [_fields(each, EVIDENCE_FIELDS) for each in line.evidence],
        }
        for line in minutes.lines
    ]
    return {**_fields(minutes, MINUTES_FIELDS), "lines": lines}


def _pictures(session: Session, meeting: Meeting) -> list[StillPicture]:
    query = select(StillPicture).where(StillPicture.meeting_id == meeting.id).order_by(StillPicture.at)
    return list(session.scalars(query))


def _consent(session: Session, meeting: Meeting) -> dict[str, object] | None:
    room = room_of(session, meeting.id)
    if room is None:
        return None
    here = select(Person.label).where(Person.user_id == room.announced_by)
    by = session.scalar(here) if room.announced_by else room.announced_elsewhere or None
    agreed = select(Person.label, Consent.at).join(Person, Person.id == Consent.person_id)
    rows = session.execute(agreed.where(Consent.meeting_id == meeting.id).order_by(Person.label)).tuples()
    return {"announced_at": room.announced_at, "announced_by": by, "agreed": rows.all()}


def _rows(
    session: Session, table: Any, meeting: Meeting, fields: tuple[str, ...], *order: Any
) -> list[dict[str, object]]:
    """The named fields of all rows of a meeting."""
    query = select(table).where(table.meeting_id == meeting.id).order_by(*order, table.id)
    return [_fields(row, fields) for row in session.scalars(query)]


def _fields(row: object, names: tuple[str, ...]) -> dict[str, object]:
    return {name: getattr(row, name) for name in names}


def keep_bundle(session: Session, user: User, meeting: Meeting, recording: Recording, bundle: Bundle) -> None:
    """Makes `meeting` the one that a bundle holds; its files are in the store already. What a person ticked is ticked by `user`."""
    _keep_meeting(session, user, meeting, bundle)
    people = {name: first_named(session, meeting.workspace_id, name) for name in _named(bundle)}
    if bundle.recording:
        for name in RECORDING_FIELDS:
            setattr(recording, name, getattr(bundle.recording, name))
        recording.digest = bundle.recording.file.sha256
        recording.spans = list(bundle.recording.spans) if bundle.recording.spans else None
    speakers = {
        voice.label: Speaker(
            meeting_id=meeting.id, label=voice.label, person_id=people[voice.person].id if voice.person else None
        )
        for voice in bundle.voices
    }
    session.add_all(speakers.values())
    session.flush()
    session.add_all(
        TurnRow(
            meeting_id=meeting.id,
            number=number,
            speaker_id=speakers[turn.voice].id,
            cue=turn.cue,
            words=[list(word) for word in turn.words],
            person_words=None if turn.person_words is None else [list(word) for word in turn.person_words],
        )
        for number, turn in enumerate(bundle.turns)
    )
    if bundle.minutes:
        session.add(_minutes_row(user, meeting, bundle.minutes))
    _keep_rest(session, user, meeting, bundle)
    if bundle.consent:
        _keep_consent(session, meeting, bundle.consent, people)
    session.flush()


def _keep_meeting(session: Session, user: User, meeting: Meeting, bundle: Bundle) -> None:
    kept = bundle.meeting
    if kept.starts_at.tzinfo is None:
        raise BundleUnreadable("the time at which the meeting began has no offset")
    meeting.title, meeting.starts_at, meeting.time_zone = kept.title, kept.starts_at, kept.time_zone
    meeting.people = [first_named(session, meeting.workspace_id, name) for name in dict.fromkeys(kept.people)]
    meeting.kind = kept.kind if kept.kind in SHIPPED else meeting.kind
    meeting.template_id = None
    if kept.template is not None:
        name = read_template(kept.template).name.lower()
        same = next((c for c in choices(session, user.workspace_id) if c.template.name.lower() == name), None)
        meeting.template_id = (same or save_template(session, user, None, kept.template)).id


def _named(bundle: Bundle) -> set[str]:
    agreed = [name for name, _ in bundle.consent.agreed] if bundle.consent else []
    return {*(voice.person for voice in bundle.voices if voice.person), *agreed}


def _minutes_row(user: User, meeting: Meeting, kept: b.KeptMinutes) -> MinutesRow:
    values = kept.model_dump(include=set(MINUTES_FIELDS))
    values |= {name: [list(each) for each in getattr(kept, name)] for name in ("sections", "gaps")}
    lines = [
        LineRow(
            number=number,
            checked_by=user.id if line.checked else None,
            made_by=user.id if line.by_hand else None,
            evidence=[EvidenceRow(**each.model_dump()) for each in line.evidence],
            **line.model_dump(include=set(LINE_FIELDS)),
        )
        for number, line in enumerate(kept.lines)
    ]
    return MinutesRow(meeting_id=meeting.id, lines=lines, **values)


def _keep_rest(session: Session, user: User, meeting: Meeting, bundle: Bundle) -> None:
    mine = {"meeting_id": meeting.id, "user_id": user.id}
    session.add_all(Excerpt(**mine, **each.model_dump()) for each in bundle.excerpts)
    session.add_all(NoteRow(**mine, **each.model_dump()) for each in bundle.notes)
    session.add_all(MarkRow(**mine, **each.model_dump()) for each in bundle.marks)
    session.add_all(Break(meeting_id=meeting.id, **each.model_dump()) for each in bundle.breaks)
    session.add_all(StillPicture(meeting_id=meeting.id, at=p.at, digest=p.file.sha256) for p in bundle.pictures)
    session.add_all(
        AgendaRow(meeting_id=meeting.id, number=number, **each.model_dump())
        for number, each in enumerate(bundle.agenda)
    )


def _keep_consent(session: Session, meeting: Meeting, kept: b.KeptConsent, people: dict[str, Person]) -> None:
    """What another Nuntius says of consent: brought in, not verified, and by nobody who has an account here."""
    session.add(
        Room(
            meeting_id=meeting.id,
            state=RoomState.STOPPED,
            announced_at=kept.announced_at,
            announced_elsewhere=kept.announced_by or "",
            drafted=True,
        )
    )
    session.add_all(
        Consent(meeting_id=meeting.id, person_id=people[name].id, ticked_by=None, at=at) for name, at in kept.agreed
    )
