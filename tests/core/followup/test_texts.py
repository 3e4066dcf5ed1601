"""Texts that follow a meeting: every item leads to a line, and nothing is in them that no line says."""

from datetime import date

import pytest

from nuntius.core.followup.texts import FollowupLine, Occasion, brief, checklist, handout, message
from nuntius.core.minutes.line import LineKind, LineState

OCCASION = Occasion("Winter timetable", "Tuesday 6 October", ("Ines Carvell", "Tobias Pryce"), "Maren Tull")
LINES = (
    FollowupLine(1, LineKind.DECISION, "The early boat is dropped.", state=LineState.SETTLED),
    FollowupLine(2, LineKind.DECISION, "The early boat stays.", state=LineState.SUPERSEDED),
    FollowupLine(3, LineKind.ACTION, "Ask two yards.", ("Ines Carvell",), date(2026, 10, 9)),
    FollowupLine(4, LineKind.ACTION, "Write to the school."),
    FollowupLine(5, LineKind.QUESTION, "Who may sign?"),
    FollowupLine(6, LineKind.QUESTION, "How many panes?", answer="Twelve.", state=LineState.SETTLED),
    FollowupLine(7, LineKind.RISK, "The rails may not hold another winter."),
    FollowupLine(8, LineKind.KEY_POINT, "The aim is a boat every hour."),
)


def texts(pieces: object) -> list[str]:
    return [piece.text for piece in pieces]  # type: ignore[attr-defined]


@pytest.mark.parametrize("manner", ["plain", "warm", "formal"])
@pytest.mark.parametrize("to_client", [False, True])
def test_a_message_says_what_holds_in_every_manner(manner: str, to_client: bool) -> None:
    made = message(OCCASION, LINES, manner, to_client)
    whole = "\n".join(texts(made))
    assert "Ines and Tobias" in whole and "Winter timetable" in whole and "Maren Tull" in whole
    assert "- Ines Carvell: Ask two yards, by Friday 9 October." in whole
    assert "- nobody yet: Write to the school." in whole
    assert "stays" not in whole, "what no longer holds was told"
    assert [piece.lines for piece in made if piece.text.startswith("- ")] == [(1,), (3,), (4,), (5,)]


def test_a_message_of_nothing_says_so() -> None:
    assert "Nothing was decided or promised." in texts(message(OCCASION, (), "plain"))


def test_a_checklist_goes_by_owner_and_ends_with_what_nobody_took() -> None:
    assert texts(checklist(OCCASION, LINES))[1:] == [
        "Ines Carvell:", "[ ] Ask two yards, by Friday 9 October.", "Nobody yet:", "[ ] Write to the school.",
    ]  # fmt: skip


def test_a_brief_has_all_its_parts_and_says_what_is_missing() -> None:
    made = texts(brief(OCCASION, LINES))
    assert made[made.index("Aim") + 1] == "- The aim is a boat every hour."
    assert made[made.index("Constraints") + 1] == "- The rails may not hold another winter."
    empty = texts(brief(OCCASION, ()))
    assert "The record names no aim." in empty
    assert empty.count("The record holds nothing for this part.") == 5


def test_a_handout_has_the_answers_first_and_then_what_stayed_open() -> None:
    assert texts(handout(OCCASION, LINES))[1:] == [
        "Questions and answers", "How many panes?\nTwelve.", "Questions that stayed open", "- Who may sign?",
    ]  # fmt: skip
