"""Who was named: the people of the meeting, with every place where somebody spoke of them."""

from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.line import Line, LineKind, LineState
from nuntius.core.minutes.scene import Scene, passage

MOST = 20  # places that a line leads to


def find_named(scene: Scene) -> list[Line]:
    """A line for each person whom others named, with the sentences."""
    places: dict[str, list[Sentence]] = {}
    for sentence in scene.sentences:
        for name, _ in scene.roster.find(sentence.text):
            if name != sentence.speaker:
                places.setdefault(name, []).append(sentence)
    return [
        Line(
            LineKind.NAMED,
            _told(name, found),
            tuple(map(passage, found[:MOST])),
            state=LineState.SETTLED,
            why="named by others",
        )
        for name, found in places.items()
    ]


def _told(name: str, found: list[Sentence]) -> str:
    speakers = list(dict.fromkeys(s.speaker for s in found))
    by = speakers[0] if len(speakers) == 1 else f"{', '.join(speakers[:-1])} and {speakers[-1]}"
    times = {1: "once", 2: "twice"}.get(len(found), f"{len(found)} times")
    return f"{name} was named {times}, by {by}."
