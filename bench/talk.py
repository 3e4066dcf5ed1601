"""Long talk to measure on: the invented meetings of `training/`, one after the other, none of them twice.

Talk that is repeated would flatter the figures, for what was read once is remembered.
"""

import sys
from pathlib import Path

sys.path.append(str(Path(__file__).parents[1] / "training"))

import annotated
from nuntius.core.formats.reading import read_transcript
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import spread

AN_HOUR = 8700  # words; eight hours are about what there is
PACE = AN_HOUR / 3600  # words a second


def talk(words: int) -> Transcript:
    """So many words of talk, to the end of a turn. Raises ValueError where there are not as many."""
    turns: list[Turn] = []
    clock = 0.0
    folders = (annotated.MEETINGS, annotated.ASKED, annotated.UNSEEN)
    for meeting in (each for folder in folders for each in annotated.meetings(folder)):
        for turn in read_transcript(annotated.captions(meeting).encode()).turns:
            if clock * PACE >= words:
                return in_order(turns)
            end = clock + len(turn.words) / PACE
            turns.append(Turn(turn.speaker, spread(turn.text, clock, end - 0.2)))
            clock = end
    raise ValueError(f"the meetings hold {clock * PACE:.0f} words, not {words}")
