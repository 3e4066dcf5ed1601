"""What several tests of this folder share."""

from nuntius.core.formats.markdown import WrittenLine, WrittenMinutes
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
            "action", "Have the rail measured", ("Douglas",), "Fri 6 Nov 2026", "by Friday", "open", "", True, ("0:05",),
            0, 0, "Douglas", "2026-11-06", (5.0,),
        ),
        WrittenLine("action", "Ask the bakery", (), "", "", "open", "", False, ("0:01",), 0, 0, "", "", (1.0,)),
        WrittenLine("question", "Who pays?", (), "", "", "open", "", False, ("0:01",), 1, 0, "", "", (1.0,)),
        WrittenLine("decision", "Close the slipway", (), "", "", "superseded", "Keep it open", False, ("0:05",), 1),
    ),
    (("Actions", ""), ("The rest", "")),
    ("Slipway",),
    "http://nuntius.example/meetings/abc",
)  # fmt: skip

WRITTEN = WrittenMinutes(
    "Boats & <b>slipways</b>",
    ("Tuesday 6 October",),
    0.969,
    (
        WrittenLine(
            "action", "Ask <two> yards", ("Ines",), "Fri 9 Oct 2026", "Friday", "open", "", False, ("24:41",), 0, 0
        ),
        WrittenLine("action", "Book the crane", (), "", "", "open", "", False, ("25:00",), 0, 1, topic="Signing"),
        WrittenLine("question", "Who may sign?", (), "", "", "open", "", False, ("33:08",), 1, 1, "Maren"),
        WrittenLine("decision", "January\x00", (), "", "", "superseded", "", False, ("18:20",), 1, 0, topic="Slipway"),
    ),
    (("Actions", ""), ("What was said", "chapter")),
    ("Slipway", "Signing"),
)
