"""Compilations: passages of meetings in titled sections, one's own; and the listening digest, which makes one."""

from dataclasses import dataclass

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from nuntius.core.montage.digest import Highlight, digest
from nuntius.core.montage.montage import Clip, Part
from nuntius.store.clips import source_of
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.excerpts import LONGEST
from nuntius.store.files import FileStore
from nuntius.store.meetings import get_meeting
from nuntius.store.minutes import get_minutes
from nuntius.store.models import Compilation, CompiledPassage, Meeting, MinutesRow, User

MOST_SECTIONS, MOST_PASSAGES, MOST_COMPILATIONS = 60, 300, 300
DIGEST = "Listening digest: "
UNTITLED = "Without a title"


@dataclass(frozen=True, slots=True)
class Wanted:
    """A passage as it is asked for, in seconds of its meeting."""

    meeting_id: str
    title: str
    start: float
    end: float


@dataclass(frozen=True, slots=True)
class WantedSection:
    title: str
    passages: tuple[Wanted, ...]


def compilations_of(session: Session, user: User) -> list[Compilation]:
    """One's own, the newest first."""
    query = select(Compilation).where(Compilation.user_id == user.id).order_by(Compilation.id.desc())
    return list(session.scalars(query))


def get_compilation(session: Session, user: User, compilation_id: int) -> Compilation:
    """One's own. Raises NotFound."""
    found = session.get(Compilation, compilation_id)
    if found is None or found.user_id != user.id:
        raise NotFound()
    return found


def keep_compilation(
    session: Session, user: User, compilation_id: int | None, title: str, spoken: bool, sections: list[WantedSection]
) -> Compilation:
    """Writes a compilation, new or again. Raises NotFound for a meeting of others, Conflict for what cannot be kept."""
    title = " ".join(title.split())
    if not title or len(title) > 200:
        raise Conflict("A compilation has a title of at most 200 characters.")
    if len(sections) > MOST_SECTIONS or sum(len(each.passages) for each in sections) > MOST_PASSAGES:
        raise Conflict(f"A compilation holds at most {MOST_SECTIONS} sections and {MOST_PASSAGES} passages.")
    if compilation_id is None and len(compilations_of(session, user)) >= MOST_COMPILATIONS:
        raise Conflict(f"There are {MOST_COMPILATIONS} compilations already. Remove one that is no longer used.")
    for meeting_id in {each.meeting_id for section in sections for each in section.passages}:
        get_meeting(session, user, meeting_id)
    row = Compilation(user_id=user.id) if compilation_id is None else get_compilation(session, user, compilation_id)
    row.title, row.spoken, row.sections = title, spoken, [" ".join(each.title.split())[:200] for each in sections]
    row.passages = [
        _passage(number, position, wanted)
        for number, section in enumerate(sections)
        for position, wanted in enumerate(section.passages)
    ]
    session.add(row)
    session.flush()
    return row


def _passage(section: int, position: int, wanted: Wanted) -> CompiledPassage:
    if not 0 <= wanted.start < wanted.end or wanted.end - wanted.start > LONGEST:
        raise Conflict("A passage has a beginning before its end and is at most half an hour long.")
    title = " ".join(wanted.title.split())[:200] or UNTITLED
    return CompiledPassage(
        meeting_id=wanted.meeting_id,
        section=section,
        position=position,
        title=title,
        start=wanted.start,
        end=wanted.end,
    )


def remove_compilation(session: Session, user: User, compilation_id: int) -> None:
    """Takes a compilation away; its meetings stay as they are. Raises NotFound."""
    session.delete(get_compilation(session, user, compilation_id))


def forget_passages(session: Session, meeting_id: str, start: float, end: float, titles: set[str]) -> None:
    """Takes out the passages that touch a stretch which is removed for good.

    What is left loses its title where that is one of `titles`: texts of lines and chapters that the stretch was in.
    """
    passages = CompiledPassage.meeting_id == meeting_id
    query = select(Compilation).where(Compilation.passages.any(passages))
    for row in session.scalars(query):
        row.sections = ["" if title in titles else title for title in row.sections]
        for each in row.passages:
            if each.title[:200] in titles:
                each.title = UNTITLED
    session.execute(delete(CompiledPassage).where(passages, CompiledPassage.start < end, CompiledPassage.end > start))


def parts_of(session: Session, files: FileStore, user: User, row: Compilation) -> tuple[Part, ...]:
    """A compilation with the sound of its passages, and what is said in them.

    Passages of meetings that are not open to one any more are left out. Raises Conflict where one has no sound.
    """
    known = {each.meeting_id: None for each in row.passages}
    sources = {meeting_id: source_of(session, files, user, meeting_id) for meeting_id in known}
    sections: list[list[Clip]] = [[] for _ in row.sections]
    for each in row.passages:
        source = sources[each.meeting_id]
        if source is not None:
            sections[each.section].append(source.clip(each.title, each.start, each.end))
    return tuple(Part(title, tuple(clips)) for title, clips in zip(row.sections, sections, strict=True) if clips)


def make_digest(session: Session, user: User, meeting: Meeting, minutes: float) -> Compilation:
    """A compilation of a meeting's most important passages, `minutes` long at most. Raises Conflict before there are any."""
    written = get_minutes(session, meeting.id)
    chosen = digest(_highlights(written), minutes * 60) if written else []
    if written is None or not chosen:
        raise Conflict("There are no minutes yet from which a digest could be made.")
    titles = {number: chapter["title"] for number, chapter in enumerate(written.chapters)}
    sections = [
        WantedSection(
            titles.get(chapter, ""),
            tuple(Wanted(meeting.id, c.title, c.start, c.end) for c in chosen if c.chapter == chapter),
        )
        for chapter in dict.fromkeys(each.chapter for each in chosen)
    ]
    return keep_compilation(session, user, None, f"{DIGEST}{meeting.title}"[:200], True, sections)


def _highlights(minutes: MinutesRow) -> list[Highlight]:
    return [
        Highlight(
            line.kind,
            line.state,
            line.chapter,
            (line.person_text or line.text)[:200],
            tuple((each.start, each.end) for each in line.evidence),
        )
        for line in minutes.lines
        if line.thrown_out is None
    ]
