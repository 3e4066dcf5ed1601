"""A meeting of four, and the lines that its minutes have of a kind."""

from datetime import date

from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import Line, MeetingFacts
from tests.help import talk

TUESDAY = date(2026, 10, 6)
PEOPLE = ("Maren Tull", "Tobias Pryce", "Ines Carvell", "Douglas Hale")
MAREN, TOBIAS, INES, DOUGLAS = PEOPLE
FACTS = MeetingFacts(TUESDAY, PEOPLE)
Row = tuple[str, str]


def of(kind: str, *rows: Row, facts: MeetingFacts = FACTS) -> list[Line]:
    """Lines of this kind in the minutes of (speaker, words) rows."""
    return [line for line in make_minutes(talk(*rows), facts).lines if line.kind == kind]
