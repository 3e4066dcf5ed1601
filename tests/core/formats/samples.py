"""What several tests of this folder share."""

from nuntius.core.formats.markdown import WrittenLine, WrittenMinutes
from nuntius.core.minutes.line import Layout, LineKind, LineState
from nuntius.core.transcript.transcript import in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import spread

TALK = in_order(
    [
        Turn("Ines Achterberg", spread("The lower rail has moved <14> millimetres & more.", 1.0, 4.5)),
        Turn("Douglas", spread("I'll have it measured by Friday.", 5.0, 7.25)),
    ]
)


MINUTES = WrittenMinutes(
    "Winter timetable",
    ("Tuesday 3 November 2026", "There: Ines Achterberg, Douglas"),
    0.96,
    (
        WrittenLine(
            LineKind.ACTION, "Have the rail measured", ("Douglas",), "Fri 6 Nov 2026", "by Friday", LineState.OPEN, "", True, ("0:05",),
            0, 0, "Douglas", "2026-11-06", (5.0,), id=11,
        ),
        WrittenLine(LineKind.ACTION, "Ask the bakery", (), "", "", LineState.OPEN, "", False, ("0:01",), 0, 0, "", "", (1.0,), id=12),
        WrittenLine(LineKind.QUESTION, "Who pays?", (), "", "", LineState.OPEN, "", False, ("0:01",), 1, 0, "", "", (1.0,)),
        WrittenLine(LineKind.DECISION, "Close the slipway", (), "", "", LineState.SUPERSEDED, "Keep it open", False, ("0:05",), 1),
    ),
    (("Actions", Layout.PLAIN), ("The rest", Layout.PLAIN)),
    ("Slipway",),
    "http://nuntius.example/meetings/abc",
)  # fmt: skip

WRITTEN = WrittenMinutes(
    "Boats & <b>slipways</b>",
    ("Tuesday 6 October",),
    0.969,
    (
        WrittenLine(
            LineKind.ACTION,
            "Ask <two> yards",
            ("Ines",),
            "Fri 9 Oct 2026",
            "Friday",
            LineState.OPEN,
            "",
            False,
            ("24:41",),
            0,
            0,
        ),
        WrittenLine(
            LineKind.ACTION, "Book the crane", (), "", "", LineState.OPEN, "", False, ("25:00",), 0, 1, topic="Signing"
        ),
        WrittenLine(
            LineKind.QUESTION, "Who may sign?", (), "", "", LineState.OPEN, "", False, ("33:08",), 1, 1, "Maren"
        ),
        WrittenLine(
            LineKind.DECISION,
            "January\x00",
            (),
            "",
            "",
            LineState.SUPERSEDED,
            "",
            False,
            ("18:20",),
            1,
            0,
            topic="Slipway",
        ),
    ),
    (("Actions", Layout.PLAIN), ("What was said", Layout.CHAPTER)),
    ("Slipway", "Signing"),
)
