"""A person's notes as lines of the minutes: their own words, with the talk around them as evidence."""

import re

import numpy as np
from numpy.typing import NDArray

from nuntius.core.language.vectors import vectors
from nuntius.core.minutes.line import Line, LineKind, LineState, Note
from nuntius.core.minutes.scene import Scene

BEFORE, AFTER = 40.0, 15.0  # seconds around the moment a note was begun in which its passage is looked for
ALIKE = 0.30  # cosine above which a turn in that time is what the note speaks of
ALIKE_ELSEWHERE = 0.5  # the same of a turn at any other time


def note_lines(scene: Scene) -> list[Line]:
    """A line for each note, word for word; none where nobody has spoken at all.

    What nobody said stays as a remark of its author, beside the moment at which it was written.
    """
    notes = [note for note in scene.facts.notes if plain(note.text)]
    if not notes or not scene.sentences:
        return []
    begun = np.array([scene.transcript.turns[s.turn].words[s.first].start for s in scene.sentences])
    return [_line(scene, note, begun) for note in notes]


def plain(text: str) -> str:
    """A note without the features of its layout: list dashes, asterisks of bold type."""
    return re.sub(r"\*\*(.+?)\*\*", r"\1", re.sub(r"^\s*[-*]\s+", "", text.strip())).strip()


def _line(scene: Scene, note: Note, begun: NDArray[np.float64]) -> Line:
    """`begun` are the seconds at which the sentences begin."""
    spoken_of = _alike(scene, note, begun)
    turns = sorted({_spoken_at(scene, note.at)} | ({spoken_of} if spoken_of is not None else set()))
    why = "a person's own remark" if spoken_of is None else "a person's note"
    evidence = tuple(scene.whole(turn) for turn in turns)
    return Line(LineKind.NOTE, plain(note.text), evidence, owner=(note.author,), state=LineState.SETTLED, why=why)


def _spoken_at(scene: Scene, at: float) -> int:
    """The turn being spoken at `at`, else the last one begun before it, else the first."""
    return max((n for n, turn in enumerate(scene.transcript.turns) if turn.start <= at), default=0)


def _alike(scene: Scene, note: Note, begun: NDArray[np.float64]) -> int | None:
    """The turn that comes nearest to a note in meaning, around the moment of the note, else anywhere; None if none does."""
    alike = scene.vectors @ vectors([plain(note.text)])[0]
    near = np.where((begun >= note.at - BEFORE) & (begun <= note.at + AFTER), alike, -1.0)
    for likeness, least in ((near, ALIKE), (alike, ALIKE_ELSEWHERE)):
        if likeness.max() >= least:
            return scene.sentences[int(likeness.argmax())].turn
    return None
