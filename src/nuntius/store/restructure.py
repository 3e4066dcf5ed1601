"""Turns and voices set right: split, joined, given to another voice, voices made one; each can be taken back."""

from dataclasses import replace
from itertools import pairwise

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from nuntius.store.changes import change_together
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.models import Change, LineRow, Meeting, MinutesRow, Recording, Speaker, TurnRow, User
from nuntius.store.transcripts import speaker_of
from nuntius.store.turn_pieces import words_of
from nuntius.store.undoable import Field, FieldSet, Piece, Step, TurnsReplaced, piece_of


def give_words(
    session: Session,
    user: User,
    meeting: Meeting,
    number: int,
    voice: int | None,
    first: int = 0,
    last: int | None = None,
) -> Change:
    """Gives words `first` to `last` of a turn to another voice, a new one where `voice` is None.

    What stands before and behind them stays with the voice it had. Raises NotFound, Conflict.
    """
    turn = _turn(session, meeting, number)
    words = words_of(turn)
    last = len(words) - 1 if last is None else last
    if not 0 <= first <= last < len(words):
        raise Conflict("Choose words of one turn. The turn may have been changed meanwhile.")
    to = _new_voice(session, meeting) if voice is None else speaker_of(session, meeting, voice)
    if to.id == turn.speaker_id:
        raise Conflict(f"These words are {to.label}'s already.")
    pieces = _cut(session, turn, [cut for cut in (first, last + 1) if 0 < cut < len(words)])
    at = 1 if first else 0
    pieces[at] = replace(pieces[at], speaker_id=to.id)
    steps: list[Step] = [TurnsReplaced(meeting.id, number, (piece_of(turn),), tuple(pieces))]
    steps += _spans_given(session, meeting, words[first][1], words[last][2], turn.speaker_id, to)
    return change_together(session, user, meeting, steps)


def split_turn(session: Session, user: User, meeting: Meeting, number: int, at: int) -> Change:
    """Makes two turns of one; word `at` opens the second. Raises NotFound, Conflict."""
    turn = _turn(session, meeting, number)
    if not 0 < at < len(words_of(turn)):
        raise Conflict("A turn is split before one of its words, but not before its first.")
    pieces = tuple(_cut(session, turn, [at]))
    return change_together(session, user, meeting, [TurnsReplaced(meeting.id, number, (piece_of(turn),), pieces)])


def join_turns(session: Session, user: User, meeting: Meeting, number: int) -> Change:
    """Makes one turn of a turn and the next; it has the voice of the first. Raises NotFound."""
    one, two = _turn(session, meeting, number), _turn(session, meeting, number + 1)
    words = [*one.words, *two.words]
    changed = one.person_words is not None or two.person_words is not None
    whole = replace(piece_of(one), words=words, person_words=[*words_of(one), *words_of(two)] if changed else None)
    steps: list[Step] = [TurnsReplaced(meeting.id, number, (piece_of(one), piece_of(two)), (whole,))]
    if one.speaker_id != two.speaker_id:
        said = words_of(two)
        steps += _spans_given(
            session, meeting, said[0][1], said[-1][2], two.speaker_id, session.get_one(Speaker, one.speaker_id)
        )
    return change_together(session, user, meeting, steps)


def merge_voices(session: Session, user: User, meeting: Meeting, voice: int, into: int) -> Change:
    """Says that two voices are one: all that `voice` said becomes that of `into`. Raises NotFound, Conflict."""
    gone, stays = speaker_of(session, meeting, voice), speaker_of(session, meeting, into)
    if gone.id == stays.id:
        raise Conflict("Choose two different voices.")
    rows = session.scalars(select(TurnRow).where(TurnRow.meeting_id == meeting.id, TurnRow.speaker_id == gone.id))
    steps = [FieldSet(Field.TURN_VOICE, row.id, gone.id, stays.id) for row in rows]
    steps += _owners_given(session, meeting, gone.label, stays.label)
    recording = session.scalar(select(Recording).where(Recording.meeting_id == meeting.id))
    if recording is not None and recording.spans:
        after = [[a, b, stays.label if label == gone.label else label] for a, b, label in recording.spans]
        steps.append(FieldSet(Field.SPANS, recording.id, recording.spans, after))
    return change_together(session, user, meeting, steps)


def _cut(session: Session, turn: TurnRow, cuts: list[int]) -> list[Piece]:
    """A turn in pieces; each cut is the number of a word, as the turn reads now. The first keeps the row."""
    last_id = session.scalar(select(func.max(TurnRow.id))) or 0
    read = words_of(turn)
    boundaries = [0, *cuts, len(read)]
    times = [read[cut][1] for cut in cuts]
    pieces = []
    for place, (first, last) in enumerate(pairwise(boundaries)):
        low, high = times[place - 1] if place else -1.0, times[place] if place < len(times) else 1e12
        heard = (
            [w for w in turn.words if low <= (w[1] + w[2]) / 2 < high]
            if turn.person_words is not None
            else read[first:last]
        )
        mine = read[first:last] if turn.person_words is not None else None
        piece = replace(piece_of(turn), words=heard or read[first:last], person_words=mine)
        pieces.append(piece if place == 0 else replace(piece, id=last_id + place))
    return pieces


def _spans_given(
    session: Session, meeting: Meeting, start: float, end: float, giver: int, to: Speaker
) -> list[FieldSet]:
    """The floor with what a voice spoke between two times as another's."""
    recording = session.scalar(select(Recording).where(Recording.meeting_id == meeting.id))
    if recording is None or not recording.spans:
        return []
    label, after = session.get_one(Speaker, giver).label, []
    for a, b, voice in recording.spans:
        if voice != label or b <= start or a >= end:
            after.append([a, b, voice])
            continue
        parts = [(a, min(b, start), label), (max(a, start), min(b, end), to.label), (max(a, end), b, label)]
        after += [[x, y, v] for x, y, v in parts if y > x]
    return [FieldSet(Field.SPANS, recording.id, recording.spans, after)]


def _owners_given(session: Session, meeting: Meeting, gone: str, stays: str) -> list[FieldSet]:
    query = select(LineRow).join(MinutesRow, MinutesRow.id == LineRow.minutes_id)
    lines = session.scalars(query.where(MinutesRow.meeting_id == meeting.id))
    return [
        FieldSet(
            Field.OWNER,
            line.id,
            line.owner,
            list(dict.fromkeys(stays if each == gone else each for each in line.owner)),
        )
        for line in lines
        if gone in line.owner
    ]


def _turn(session: Session, meeting: Meeting, number: int) -> TurnRow:
    turn = session.scalar(select(TurnRow).where(TurnRow.meeting_id == meeting.id, TurnRow.number == number))
    if turn is None:
        raise NotFound()
    return turn


def _new_voice(session: Session, meeting: Meeting) -> Speaker:
    count = session.scalar(select(func.count(Speaker.id)).where(Speaker.meeting_id == meeting.id)) or 0
    taken = set(session.scalars(select(Speaker.label).where(Speaker.meeting_id == meeting.id)))
    label = next(f"New voice {n}" for n in range(1, count + 2) if f"New voice {n}" not in taken)
    speaker = Speaker(meeting_id=meeting.id, label=label)
    session.add(speaker)
    session.flush()
    return speaker
