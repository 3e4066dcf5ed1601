"""From stored rows to what goes over the wire."""

from collections import Counter
from collections.abc import Collection, Sequence
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from nuntius.core.floor import floor_of
from nuntius.core.jobs import GOING_ON, JobState
from nuntius.core.minutes.topic_label import topic_label
from nuntius.core.naming import name_votes
from nuntius.core.speech.certainty import certainties
from nuntius.core.speech.diarizer import Span
from nuntius.core.templates.shipped import shipped
from nuntius.jobs.work import plan_of
from nuntius.store.accounts import account_names
from nuntius.store.jobs import ahead_of
from nuntius.store.listing import Facts, facts_of
from nuntius.store.minutes import get_minutes
from nuntius.store.models import Change, Job, LineRow, Meeting, MinutesRow, Recording, Speaker, TurnRow, Upload, User
from nuntius.store.notes import marks_of
from nuntius.store.rooms import room_of
from nuntius.store.templates import template_of
from nuntius.store.transcripts import load_transcript, names_of, speakers_of, turns_of, with_names
from nuntius.store.undoable import Touched, edit_of, touched
from nuntius.store.uploads import beside, held_parts
from nuntius.web import record_schemas as rec
from nuntius.web import schemas as s
from nuntius.web.room_facts import breaks_out, consent_out, marks_out, pictures_out


def job_out(session: Session, job: Job, recording: Recording | None) -> s.JobOut:
    roles = beside(session, job.meeting_id) if job.state in GOING_ON else ()
    ahead = ahead_of(session, [job.id]) if job.state == JobState.WAITING else {}
    return _job(job, recording, roles, ahead.get(job.id))


def _job(job: Job, recording: Recording | None, roles: Collection[str], ahead: int | None) -> s.JobOut:
    plan = plan_of(job, recording, roles) if recording else ()
    return s.JobOut(
        id=job.id,
        meeting_id=job.meeting_id,
        kind=job.kind,
        state=job.state,
        step=job.step,
        steps=[step.name for step in plan],
        progress=round(job.progress, 4),
        remaining=job.remaining,
        error=job.error,
        ahead=ahead,
        put_away=job.put_away,
    )


def upload_out(session: Session, upload: Upload, same: Meeting | None = None) -> s.UploadOut:
    return _upload(upload, held_parts(session, upload), same)


def _upload(upload: Upload, held: list[int], same: Meeting | None = None) -> s.UploadOut:
    return s.UploadOut(
        id=upload.id,
        name=upload.name,
        size=upload.size,
        part_size=upload.part_size,
        held=held,
        meeting_id=upload.meeting_id,
        same_as=same.id if same else None,
        same_title=same.title if same else None,
    )


def meeting_out(session: Session, meeting: Meeting, user: User) -> s.MeetingOut:
    return meetings_out(session, [meeting], user)[0]


def meetings_out(session: Session, meetings: Sequence[Meeting], user: User) -> list[s.MeetingOut]:
    """Meetings as lists show them to `user`, in a fixed number of statements."""
    facts = facts_of(session, meetings)
    return [_meeting(meeting, facts, user) for meeting in meetings]


def _meeting(meeting: Meeting, facts: Facts, user: User) -> s.MeetingOut:
    recording, job, upload = (
        facts.recordings.get(meeting.id),
        facts.jobs.get(meeting.id),
        facts.arriving.get(meeting.id),
    )
    lines, unchecked = facts.lines.get(meeting.id, (0, 0))
    kind = facts.templates.get(meeting.template_id or 0) or shipped(meeting.kind).name
    return s.MeetingOut(
        id=meeting.id,
        title=meeting.title,
        kind=kind,
        starts_at=meeting.begun,
        time_zone=meeting.time_zone,
        people=[person.label for person in meeting.people],
        runner=meeting.runner_id == user.id,
        duration=recording.duration if recording else None,
        job=_job(job, recording, facts.roles.get(meeting.id, ()), facts.ahead.get(job.id)) if job else None,
        upload=_upload(upload, facts.held[upload.id]) if upload else None,
        unchecked=unchecked,
        lines=lines,
        room=facts.rooms.get(meeting.id),
    )


def recording_of(session: Session, meeting: Meeting) -> Recording | None:
    """The recording of a meeting, where there is one."""
    return session.scalar(select(Recording).where(Recording.meeting_id == meeting.id))


def record_out(session: Session, meeting: Meeting, user: User) -> rec.RecordOut:
    recording = recording_of(session, meeting)
    speakers, turns, names = (
        speakers_of(session, meeting.id),
        turns_of(session, meeting.id),
        names_of(session, meeting.id),
    )
    spans = [(a, b, v) for a, b, v in recording.spans or []] if recording else []
    used = {row.speaker_id for row in turns}
    speakers = [speaker for speaker in speakers if speaker.id in used]
    labels = {speaker.id: speaker.label for speaker in speakers}
    heard = spans or [(_words(t)[0][1], _words(t)[-1][2], labels[t.speaker_id]) for t in turns if _words(t)]
    floor = floor_of([(a, b, v) for a, b, v in heard], recording.duration or 0.0 if recording else 0.0)
    ids = {speaker.label: speaker.id for speaker in speakers}
    undo, redo = _undoable(session, meeting, user)
    minutes, room = get_minutes(session, meeting.id), room_of(session, meeting.id)
    return rec.RecordOut(
        meeting=meeting_out(session, meeting, user),
        recording=_recording_out(recording) if recording else None,
        voices=_voices(speakers, names, floor.shares),
        turns=[_turn_out(row) for row in turns[:WINDOW]],
        total_turns=len(turns),
        spans=[(a, b, ids[v]) for a, b, v in heard if v in ids],
        doubts=_doubts(turns, labels, spans, ids),
        silence=floor.silence,
        minutes=minutes_out(minutes, names, template_of(session, meeting).key) if minutes else None,
        breaks=breaks_out(session, meeting.id),
        marks=marks_out(marks_of(session, meeting.id), account_names(session), user),
        pictures=pictures_out(session, meeting.id),
        consent=consent_out(session, meeting, room) if room else None,
        can_undo=undo,
        can_redo=redo,
    )


def turns_out(session: Session, meeting: Meeting, first: int) -> rec.TurnsOut:
    """A window of turns."""
    where = TurnRow.meeting_id == meeting.id
    rows = session.scalars(select(TurnRow).where(where).order_by(TurnRow.number).offset(first).limit(WINDOW))
    total = session.scalar(select(func.count()).select_from(TurnRow).where(where)) or 0
    return rec.TurnsOut(turns=[_turn_out(row) for row in rows], total=total)


WINDOW = 500  # turns that come at once


def changed_out(session: Session, meeting: Meeting, user: User, change: Change | None) -> rec.ChangedOut:
    """What a change touches: the names of voices, the turns, the line, or the minutes where it is more than a line."""
    names = names_of(session, meeting.id)
    seen = touched(edit_of(change)) if change else Touched()
    line = session.get(LineRow, seen.line) if seen.line is not None else None
    minutes = get_minutes(session, meeting.id) if seen.minutes else None
    turns = [session.get(TurnRow, turn) for turn in seen.turns]
    undo, redo = _undoable(session, meeting, user)
    return rec.ChangedOut(
        names=[
            rec.NamedVoice(id=v.id, name=names[v.label], named=v.person_id is not None)
            for v in speakers_of(session, meeting.id)
        ],
        turns=[_turn_out(row) for row in turns if row is not None],
        restructured=seen.restructured,
        lines=[line_out(line, names, _chapters(session, line))] if line else [],
        minutes=minutes_out(minutes, names, template_of(session, meeting).key) if minutes else None,
        can_undo=undo,
        can_redo=redo,
    )


def _chapters(session: Session, line: LineRow) -> tuple[str, ...]:
    """Titles of the chapters of the minutes that a line stands in."""
    return tuple(c["title"] for c in session.get_one(MinutesRow, line.minutes_id).chapters)


def _undoable(session: Session, meeting: Meeting, user: User) -> tuple[bool, bool]:
    """Whether this person can take something back, and do something again."""
    query = select(Change.undone).where(Change.meeting_id == meeting.id, Change.user_id == user.id).distinct()
    found = set(session.scalars(query))
    return False in found, True in found


def _words(row: TurnRow) -> list[Any]:
    return row.words if row.person_words is None else row.person_words


def _recording_out(recording: Recording) -> rec.RecordingOut:
    return rec.RecordingOut(
        name=recording.name,
        duration=recording.duration,
        is_text=recording.is_text,
        has_sound=recording.playback_digest is not None,
        has_original=bool(recording.digest),
        has_picture=recording.has_picture,
        loudness=recording.loudness,
        peak=recording.peak,
        broken=recording.broken,
    )


def _turn_out(row: TurnRow) -> rec.TurnOut:
    heard = " ".join(word[0] for word in row.words) if row.person_words is not None else None
    return rec.TurnOut.model_construct(number=row.number, voice=row.speaker_id, words=_words(row), heard=heard)


def _doubts(
    turns: list[TurnRow], labels: dict[int, str], spans: list[tuple[float, float, str]], ids: dict[str, int]
) -> list[rec.DoubtOut]:
    """The turns of which it is unsure who spoke, or in which several did."""
    said = [(labels[row.speaker_id], [(start + end) / 2 for _, start, end, _ in _words(row)]) for row in turns]
    found = certainties(said, [Span(*span) for span in spans])
    return [
        rec.DoubtOut(turn=row.number, unsure=each.doubtful, over=[ids[voice] for voice in each.over if voice in ids])
        for row, each in zip(turns, found, strict=True)
        if each.doubtful or each.over
    ]


def _voices(speakers: list[Speaker], names: dict[str, str], shares: dict[str, float]) -> list[rec.VoiceOut]:
    return [
        rec.VoiceOut(
            id=speaker.id,
            label=speaker.label,
            name=names[speaker.label],
            named=speaker.person_id is not None,
            share=round(shares.get(speaker.label, 0.0), 4),
        )
        for speaker in speakers
    ]


def suggestions_out(session: Session, meeting: Meeting, speaker: Speaker) -> rec.SuggestionsOut:
    """The people that a voice may be: those the talk points to first, then the rest."""
    people = [person.label for person in meeting.people]
    named = {name for label, name in names_of(session, meeting.id).items() if name != label}
    votes = name_votes(load_transcript(session, meeting.id, named=False), tuple(people)) if people else {}
    ranked = sorted(people, key=lambda name: -votes.get(speaker.label, Counter())[name])
    return rec.SuggestionsOut(names=[name for name in ranked if name not in named])


def minutes_out(row: MinutesRow, names: dict[str, str], template: str) -> rec.MinutesOut:
    return rec.MinutesOut(
        source=row.source,
        length=row.length,
        template=template,
        sections=[rec.SectionOut(title=title, layout=layout) for title, layout in row.sections],
        detailed=row.detailed,
        fine=row.fine,
        remark=row.remark,
        coverage=row.coverage,
        gaps=[(a, b) for a, b in row.gaps],
        chapters=[rec.ChapterOut(title=c["title"], start=c["start"], end=c["end"]) for c in row.chapters],
        lines=[line_out(line, names, tuple(c["title"] for c in row.chapters)) for line in row.lines],
    )


def line_out(line: LineRow, names: dict[str, str], chapters: tuple[str, ...] = ()) -> rec.LineOut:
    text = with_names(line.text, names)
    title = chapters[line.chapter] if line.chapter < len(chapters) else ""
    return rec.LineOut(
        id=line.id,
        kind=line.kind,
        text=line.person_text or text,
        heard=text if line.person_text else None,
        owner=[names.get(owner, owner) for owner in line.owner],
        due=line.due,
        due_said=line.due_said,
        state=line.state,
        answer=with_names(line.answer, names) if line.answer else None,
        place=line.place,
        chapter=line.chapter,
        topic=topic_label(line.kind, line.person_text or text, title, len(chapters)),
        checked=line.checked_by is not None,
        progress=line.progress,
        remark=line.remark,
        set_by_person=line.set_by_person,
        by_hand=line.made_by is not None,
        thrown_out=line.thrown_out,
        why=line.why,
        doubts=line.doubts,
        evidence=[
            rec.EvidenceOut(
                turn=e.turn, first=e.first, last=e.last, start=e.start, end=e.end, quote=e.quote, of_answer=e.of_answer
            )
            for e in line.evidence
        ],
    )
