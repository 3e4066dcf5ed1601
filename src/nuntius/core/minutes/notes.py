"""A person's notes as lines of the minutes: their own words, with the talk around them as evidence."""

import re

from nuntius.core.language.vectors import vectors
from nuntius.core.minutes.line import Line, Note
from nuntius.core.minutes.scene import Scene

BEFORE, AFTER = 40.0, 15.0  # seconds around the moment a note was begun in which its passage is looked for
ALIKE = 0.30  # cosine above which a turn in that time is what the note speaks of


def note_lines(scene: Scene) -> list[Line]:
    """A line for each note, word for word; none where nobody has spoken at all."""
    notes = [note for note in scene.facts.notes if plain(note.text)]
    if not notes or not scene.sentences:
        return []
    return [_line(scene, note) for note in notes]


def plain(text: str) -> str:
    """A note without the signs of its layout: list dashes, asterisks of bold type."""
    return re.sub(r"\*\*(.+?)\*\*", r"\1", re.sub(r"^\s*[-*]\s+", "", text.strip())).strip()


def _line(scene: Scene, note: Note) -> Line:
    turns = sorted({_spoken_at(scene, note.at), *_alike(scene, note)})
    evidence = tuple(scene.whole(turn) for turn in turns)
    return Line("note", plain(note.text), evidence, owner=(note.author,), state="settled", why="a person's note")


def _spoken_at(scene: Scene, at: float) -> int:
    """The turn being spoken at `at`, else the last one begun before it, else the first."""
    return max((n for n, turn in enumerate(scene.transcript.turns) if turn.start <= at), default=0)


def _alike(scene: Scene, note: Note) -> list[int]:
    """The turn around the moment of the note that comes nearest to it in meaning, if any comes near."""
    near = [
        (i, s)
        for i, s in enumerate(scene.sentences)
        if note.at - BEFORE <= scene.transcript.turns[s.turn].words[s.first].start <= note.at + AFTER
    ]
    if not near:
        return []
    alike = scene.vectors[[i for i, _ in near]] @ vectors([plain(note.text)])[0]
    best = int(alike.argmax())
    return [near[best][1].turn] if alike[best] >= ALIKE else []
