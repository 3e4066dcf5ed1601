"""What several tests of this folder share."""

from datetime import date

from nuntius.core.live.line import LiveLine, VoicedLine
from nuntius.core.minutes.line import MeetingFacts


def said(*rows: tuple[float, float, str | None, str]) -> list[VoicedLine]:
    return [VoicedLine(n, LiveLine(a, b, text), voice) for n, (a, b, voice, text) in enumerate(rows, 1)]


LINES = said(
    (0.0, 2.0, "Voice A", "Good morning everybody."),
    (2.2, 5.0, "Voice A", "Three things today."),
    (5.2, 7.0, "Voice B", "I brought biscuits."),
    (12.0, 14.0, "Voice B", "And some tea."),
)


ROWS = (
    ("Maren Tull", "Good morning. Three things today, the timetable, the slipway and the school contract."),
    ("Ines Carvell", "The six forty boat carried four people on average in September."),
    ("Maren Tull", "Then I suggest we drop the six forty from November and keep the seven ten. Anybody against?"),
    ("Tobias Pryce", "No, agreed."),
    ("Ines Carvell", "I'll ring the nurses by Friday."),
    ("Maren Tull", "Good. Somebody has to ask two yards for a price, but we leave that open for now."),
    (
        "Douglas Hale",
        "The lower rail has moved fourteen millimetres since the spring, Maren, so nothing heavy on it please.",
    ),
)


FACTS = MeetingFacts(date(2026, 10, 6), ("Maren Tull", "Ines Carvell", "Tobias Pryce", "Douglas Hale"))
