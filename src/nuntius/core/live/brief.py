"""The late-arrival brief: what has happened so far, for one who has just come in or lost the thread."""

import re
from dataclasses import dataclass

from nuntius.core.minutes import wording
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import Length, Line, LineKind, LineState, MeetingFacts, Minutes, Passage
from nuntius.core.minutes.scene import Scene, passage, scene
from nuntius.core.transcript.transcript import Transcript

LEAST_WORDS, LEAST_SECONDS = 60, 45.0  # of talk before anything is worth a brief
RECENT = 120.0  # seconds that "the last two minutes" reach back
MOST_SO_FAR, MOST_RECENT = 7, 5  # lines
SHORTEST = 5  # words of a sentence with some content


@dataclass(frozen=True, slots=True)
class Statement:
    """One line of a brief with the passages it rests on; `nobody` says that an action has no owner."""

    text: str
    evidence: tuple[Passage, ...]
    nobody: bool = False


@dataclass(frozen=True, slots=True)
class Subject:
    """A subject the talk came to, and its first turn."""

    title: str
    turn: int


@dataclass(frozen=True, slots=True)
class Brief:
    """What has been said so far. `ready` is False, and all else empty, before there is enough of it."""

    ready: bool
    so_far: tuple[Statement, ...] = ()
    recent: tuple[Statement, ...] = ()
    decided: tuple[Statement, ...] = ()
    promised: tuple[Statement, ...] = ()
    subjects: tuple[Subject, ...] = ()
    named: tuple[Statement, ...] = ()


def brief(transcript: Transcript, facts: MeetingFacts, reader: str) -> Brief:
    """A brief for `reader` from the talk so far; not ready below 60 words or 45 seconds of talk."""
    if transcript.word_count < LEAST_WORDS or transcript.turns[-1].end - transcript.turns[0].start < LEAST_SECONDS:
        return Brief(False)
    minutes, talk = make_minutes(transcript, facts, Length.SHORT), scene(transcript, facts)
    return Brief(
        True,
        _so_far(minutes),
        _recent(talk),
        tuple(
            _statement(line)
            for line in minutes.lines
            if line.kind == LineKind.DECISION and line.state != LineState.SUPERSEDED
        ),
        tuple(_statement(line) for line in minutes.lines if line.kind == LineKind.ACTION),
        tuple(Subject(chapter.title, chapter.first) for chapter in minutes.chapters),
        _named(talk, reader),
    )


def _so_far(minutes: Minutes) -> tuple[Statement, ...]:
    """What holds by now: notes, decisions and actions first, then key points, spread over the subjects."""
    standing = [line for line in minutes.lines if line.kind != LineKind.QUESTION and line.state != LineState.SUPERSEDED]
    firm = [line for line in standing if line.kind in (LineKind.NOTE, LineKind.DECISION, LineKind.ACTION)]
    rest = [line for line in standing if line not in firm]
    room = max(0, MOST_SO_FAR - len(firm[-MOST_SO_FAR:]))
    step = max(1, len(rest) // room) if room else 1
    chosen = [*firm[-MOST_SO_FAR:], *rest[::step][:room]]
    return tuple(_statement(line) for line in sorted(chosen, key=lambda line: min(line.evidence)))


def _statement(line: Line) -> Statement:
    nobody = line.kind == LineKind.ACTION and not line.owner
    owner = f"{', '.join(line.owner)}: " if line.kind == LineKind.ACTION and line.owner else ""
    due = f" (by {line.due_said.removeprefix('by ')})" if line.due_said else ""
    return Statement(f"{owner}{line.text}{due}", line.evidence, nobody)


def _recent(talk: Scene) -> tuple[Statement, ...]:
    """The sentences of the last two minutes with the most content, in the order of the talk."""
    turns = talk.transcript.turns
    since = turns[-1].end - RECENT
    standing = [
        s
        for s in talk.sentences
        if turns[s.turn].words[s.first].start >= since
        and len(s.text.split()) >= SHORTEST
        and not talk.backchannel[s.turn]
    ]
    nouns = {s: sum(t.pos in ("NOUN", "PROPN", "NUM") for t in s.tokens) for s in standing}
    chosen = sorted(standing, key=lambda s: -nouns[s])[:MOST_RECENT]
    return tuple(
        Statement(f"{s.speaker}: {wording.clean(s.text)}", (passage(s),))
        for s in sorted(chosen, key=lambda s: (s.turn, s.first))
    )


def _named(talk: Scene, reader: str) -> tuple[Statement, ...]:
    """Sentences of others in which the reader's first name or whole name is said."""
    first = re.escape(reader.split()[0]) if reader.split() else r"(?!)"
    name = re.compile(rf"\b{first}\b", re.I)
    return tuple(
        Statement(f"{s.speaker}: {wording.clean(s.text)}", (passage(s),))
        for s in talk.sentences
        if name.search(s.text) and s.speaker != reader
    )
