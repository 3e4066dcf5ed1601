"""Excerpts: kept, changed, removed."""

from sqlalchemy import delete
from sqlalchemy.orm import Session

from nuntius.core.montage.montage import Part
from nuntius.core.rights import Action
from nuntius.store.clips import source_of
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.files import FileStore
from nuntius.store.meetings import get_meeting
from nuntius.store.models import Excerpt, Meeting, User
from nuntius.store.rights import check, meeting_thing
from nuntius.store.transcripts import load_transcript

LONGEST = 30 * 60.0  # seconds of one excerpt
LONGEST_NOTE = 4000  # characters
MOST = 200  # excerpts of one file


def keep_excerpt(
    session: Session,
    user: User,
    meeting: Meeting,
    start: float,
    end: float,
    title: str,
    note: str = "",
    label: str = "",
) -> Excerpt:
    """Keeps what was said between two times (seconds). Raises Conflict where nothing was said, or too much is wanted."""
    words, speakers = _said(session, meeting, start, end)
    excerpt = Excerpt(meeting_id=meeting.id, user_id=user.id, start=start, end=end, quote=" ".join(words))
    excerpt.speakers = speakers
    _named(excerpt, title or _short(words), note, label)
    session.add(excerpt)
    session.flush()
    return excerpt


def change_excerpt(
    session: Session, user: User, excerpt_id: int, start: float, end: float, title: str, note: str, label: str
) -> Excerpt:
    """Gives an excerpt other words about it, or other ends. Raises NotFound, NotAllowed, Conflict."""
    excerpt, meeting = _to_change(session, user, excerpt_id)
    if (start, end) != (excerpt.start, excerpt.end):
        words, speakers = _said(session, meeting, start, end)
        excerpt.start, excerpt.end, excerpt.quote = start, end, " ".join(words)
        excerpt.speakers = speakers
    _named(excerpt, title, note, label)
    session.flush()
    return excerpt


def remove_excerpt(session: Session, user: User, excerpt_id: int) -> None:
    """Takes an excerpt away; what it was taken from stays. Raises NotFound, NotAllowed for one of others."""
    session.delete(_to_change(session, user, excerpt_id)[0])


def get_excerpt(session: Session, user: User, excerpt_id: int) -> tuple[Excerpt, Meeting]:
    """One excerpt with its meeting. Raises NotFound for one of others as for none."""
    excerpt = session.get(Excerpt, excerpt_id)
    if excerpt is None:
        raise NotFound()
    return excerpt, get_meeting(session, user, excerpt.meeting_id)


def _to_change(session: Session, user: User, excerpt_id: int) -> tuple[Excerpt, Meeting]:
    excerpt, meeting = get_excerpt(session, user, excerpt_id)
    check(user, Action.CHANGE_EXCERPT, meeting_thing(meeting, excerpt.user_id))
    return excerpt, meeting


def chosen_excerpts(session: Session, user: User, ids: list[int]) -> list[Excerpt]:
    """The excerpts with these numbers, in this order. Raises NotFound, Conflict."""
    if not 0 < len(ids) <= MOST:
        raise Conflict(f"Choose between one and {MOST} excerpts.")
    return [get_excerpt(session, user, each)[0] for each in ids]


def excerpt_part(session: Session, files: FileStore, user: User, ids: list[int]) -> Part:
    """The excerpts with these numbers, in this order, to be heard as one. Raises NotFound, Conflict for one without sound."""
    chosen = chosen_excerpts(session, user, ids)
    sources = {meeting_id: source_of(session, files, user, meeting_id) for meeting_id in {e.meeting_id for e in chosen}}
    found = ((sources[each.meeting_id], each) for each in chosen)
    return Part("", tuple(source.clip(each.title, each.start, each.end) for source, each in found if source))


def forget_excerpts(session: Session, meeting_id: str, start: float, end: float) -> None:
    """Removes the excerpts that touch a stretch which is removed for good."""
    session.execute(delete(Excerpt).where(Excerpt.meeting_id == meeting_id, Excerpt.start < end, Excerpt.end > start))


def _said(session: Session, meeting: Meeting, start: float, end: float) -> tuple[list[str], list[str]]:
    """Words whose middle lies between two times, and the labels of the voices."""
    if not 0 <= start < end or end - start > LONGEST:
        raise Conflict("An excerpt has a beginning before its end and is at most half an hour long.")
    words, speakers = [], []
    for turn in load_transcript(session, meeting.id, named=False).turns:
        inside = [word.text for word in turn.words if start <= word.middle < end]
        words += inside
        if inside and turn.speaker not in speakers:
            speakers.append(turn.speaker)
    if not words:
        raise Conflict("Nothing was said in this stretch. Choose another one.")
    return words, speakers


def _named(excerpt: Excerpt, title: str, note: str, label: str) -> None:
    title = " ".join(title.split())
    if not title or len(title) > 200 or len(note) > LONGEST_NOTE or len(label) > 60:
        raise Conflict("An excerpt has a title of at most 200 characters, a label of 60 and a note of 4,000.")
    excerpt.title, excerpt.note, excerpt.label = title, note.strip(), " ".join(label.split())


def _short(words: list[str]) -> str:
    """The first words as a title."""
    title = " ".join(words[:8])
    return title if len(words) <= 8 else f"{title.rstrip('.,;:')} …"
