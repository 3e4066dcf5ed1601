"""Removing a stretch from a finished record for good: sound, words, lines, and every trace of them."""

import shutil
from pathlib import Path

import numpy as np
from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from nuntius.core.audio.decode import RATE
from nuntius.core.jobs import GOING_ON, JobKind
from nuntius.core.rooms import BreakKind
from nuntius.core.times import short_clock
from nuntius.core.transcript.word import Word
from nuntius.store.compilations import forget_passages
from nuntius.store.errors import Conflict
from nuntius.store.excerpts import forget_excerpts
from nuntius.store.exports import forget_exports
from nuntius.store.files import FileStore
from nuntius.store.jobs import create_job, latest_job
from nuntius.store.live import cut_lines
from nuntius.store.minutes import get_minutes
from nuntius.store.models import (
    Break,
    Change,
    Job,
    MarkRow,
    Meeting,
    MinutesRow,
    Recording,
    StillPicture,
    TurnRow,
    User,
)
from nuntius.store.notes import CHAT
from nuntius.store.removal import Leftovers
from nuntius.store.rooms import room_of
from nuntius.store.transcripts import packed, turns_of, unpacked
from nuntius.store.undoable import OF_LINE, TOGETHER, Field
from nuntius.store.uploads import beside
from nuntius.store.versions import forget_versions


def to_cut(session: Session, meeting: Meeting, start: float, end: float) -> tuple[Recording, float]:
    """The recording that a stretch is to be taken out of, and where the stretch ends.

    Raises Conflict where there is no sound, a picture, unfinished work, or no such stretch.
    """
    recording = session.scalar(select(Recording).where(Recording.meeting_id == meeting.id))
    job = latest_job(session, meeting.id)
    if recording is None or recording.working_digest is None or job is None or job.state in GOING_ON:
        raise Conflict("Wait until the work on the recording is done; then a stretch can be removed.")
    if recording.has_picture:
        raise Conflict(
            "Stretches of a recording with a picture cannot be removed yet. Cut the file and bring it in again."
        )
    end = min(end, recording.duration or 0.0)
    if not 0 <= start < end:
        raise Conflict("Choose a stretch within the recording, the first time before the second.")
    return recording, end


def silenced_copy(files: FileStore, recording: Recording, start: float, end: float) -> str:
    """A working copy with silence in place of the stretch; its digest."""
    with files.scratch(".pcm") as copy:
        shutil.copyfile(files.path(recording.working_digest or ""), copy)
        _silence(copy, round(start * RATE), round(end * RATE))
        return files.keep(copy)


def cut_record(
    session: Session, user: User, meeting: Meeting, recording: Recording, silenced: str, start: float, end: float
) -> tuple[Job, Leftovers]:
    """Takes `start` to `end` seconds out of a record; the job makes sound and minutes again without them.

    `silenced` is the working copy with silence in place of the stretch, so that all other times stay. What was made
    from the old one is left over and is to be dropped once this is committed.
    """
    old = {recording.digest, recording.working_digest, recording.playback_digest, recording.peaks_digest}
    recording.working_digest = silenced
    recording.digest, recording.playback_digest, recording.peaks_digest = "", None, None
    recording.spans = [
        (a, b, voice) for a0, b0, voice in recording.spans or [] for a, b in _outside(a0, b0, start, end) if b > a
    ]
    pictures = _cut_words(session, meeting, start, end)
    brought = _drop_beside(session, meeting)
    session.add(Break(meeting_id=meeting.id, kind=BreakKind.CUT, at=start, seconds=end - start, by=user.person.label))
    exports = forget_exports(session, meeting.id)
    leftovers = Leftovers(frozenset(digest for digest in old | pictures | brought | exports if digest))
    return create_job(session, meeting.id, None, JobKind.CUT), leftovers


def _drop_beside(session: Session, meeting: Meeting) -> set[str | None]:
    """A transcript and a chat that came with the recording hold the words, too: they go; their digests."""
    uploads = list(beside(session, meeting.id).values())
    for upload in uploads:
        session.delete(upload)
    session.flush()
    return {upload.digest for upload in uploads}


def _silence(path: Path, first: int, last: int) -> None:
    samples = np.memmap(path, "<i2", "r+")
    samples[first:last] = 0
    samples.flush()


def _outside(a: float, b: float, start: float, end: float) -> list[tuple[float, float]]:
    """What of `a` to `b` lies before `start` and after `end`."""
    if b <= start or a >= end:
        return [(a, b)]
    return [(a, min(b, start)), (max(a, end), b)]


def _cut_words(session: Session, meeting: Meeting, start: float, end: float) -> set[str | None]:
    """Takes the words out of turns, live lines and pictures, with the lines that rest on them and their history.

    The digests of the pictures.
    """
    for row in turns_of(session, meeting.id):
        words = unpacked(row.words)
        if words and words[0].start < end and start < words[-1].end:
            _forget(session, (Field.TURN,), row.id)
            row.words = packed(_kept(words, start, end))
            row.person_words = packed(_kept(unpacked(row.person_words), start, end)) if row.person_words else None
    minutes = get_minutes(session, meeting.id)
    titles = _titles_taken(minutes, start, end) if minutes else set()
    for line in list(minutes.lines) if minutes else []:
        if any(e.start < end and start < e.end for e in line.evidence):
            _forget(session, OF_LINE, line.id)
            titles |= {(line.person_text or line.text)[:200], line.text[:200]}
            session.delete(line)
    forget_passages(session, meeting.id, start, end, titles)
    session.execute(delete(TurnRow).where(TurnRow.meeting_id == meeting.id, TurnRow.words == []))
    pictures = cut_pictures(session, meeting.id, start, end)
    # these changes, and earlier minutes, hold words of their own: none of them can be taken back any more
    of_words = (TOGETHER, Field.LIVE, Field.LINE_SET, Field.LINE_ROW)
    session.execute(delete(Change).where(Change.meeting_id == meeting.id, Change.kind.in_(of_words)))
    forget_versions(session, meeting.id)
    written = (MarkRow.label == CHAT, MarkRow.start < end, MarkRow.end > start)
    session.execute(delete(MarkRow).where(MarkRow.meeting_id == meeting.id, *written))
    room = room_of(session, meeting.id)
    if room is not None:
        cut_lines(session, room, start, end)
    forget_excerpts(session, meeting.id, start, end)
    session.flush()
    return pictures


def cut_pictures(session: Session, meeting_id: str, start: float, end: float) -> set[str | None]:
    """Deletes the pictures of what was shown in a stretch; their digests.

    A picture stands for what is shown until the next one, so the one that a stretch begins in goes, too.
    """
    rows = list(
        session.scalars(select(StillPicture).where(StillPicture.meeting_id == meeting_id).order_by(StillPicture.at))
    )
    until = [*(row.at for row in rows[1:]), float("inf")]
    shown = [row for row, ends in zip(rows, until, strict=False) if row.at < end and start < ends]
    for row in shown:
        session.delete(row)
    return {row.digest for row in shown}


def _titles_taken(minutes: MinutesRow, start: float, end: float) -> set[str]:
    """Takes the titles off the chapters that a stretch was in, until the minutes are made again; the titles."""
    touched = [c for c in minutes.chapters if c["start"] < end and start < c["end"]]
    minutes.chapters = [
        c | {"title": f"From {short_clock(c['start'])}"} if c in touched else c for c in minutes.chapters
    ]
    return {c["title"] for c in touched}


def _kept(words: tuple[Word, ...], start: float, end: float) -> tuple[Word, ...]:
    return tuple(word for word in words if word.end <= start or word.start >= end)


def _forget(session: Session, fields: tuple[Field, ...], target: int) -> None:
    session.execute(delete(Change).where(Change.kind.in_(fields), Change.target == target))
