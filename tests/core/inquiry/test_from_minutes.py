"""Questions about what minutes hold are answered by their lines, and only those."""

from datetime import date

import pytest

from nuntius.core.inquiry.from_minutes import SHOWN, answer_from_lines, answered, decided_on
from nuntius.core.inquiry.inquire import NOTHING, Reply
from nuntius.core.minutes.line import Answer, Line, LineKind, LineState, MeetingFacts, Passage
from nuntius.core.minutes.settling import MEETS_AGAIN, PUT_TO_ALL
from tests.help import talk

PEOPLE = ("Maren Tull", "Tobias Pryce", "Ines Carvell")
MAREN, TOBIAS, INES = PEOPLE


def at(turn: int) -> tuple[Passage, ...]:
    return (Passage(turn, 0, 3),)


LINES = (
    Line(LineKind.DECISION, "The slipway is repaired in January.", at(2), state=LineState.SETTLED, why="settled"),
    Line(LineKind.DECISION, "A second pump is bought – three to one.", at(4), state=LineState.SETTLED, why=PUT_TO_ALL),
    Line(LineKind.DECISION, "The siren is left till spring.", at(5), state=LineState.OPEN, why="settled"),
    Line(LineKind.DECISION, "The slipway is repaired in November.", at(1), state=LineState.SUPERSEDED, why="settled"),
    Line(LineKind.DECISION, "Next meeting: Tuesday 13 October, here.", at(9), state=LineState.SETTLED, why=MEETS_AGAIN),
    Line(LineKind.ACTION, "Ring the yard.", at(3), owner=(TOBIAS,), due=date(2026, 10, 9)),
    Line(LineKind.ACTION, "Write to the nurses.", at(6), owner=(MAREN, INES)),
    Line(LineKind.ACTION, "Ask two yards.", at(7)),
    Line(LineKind.ACTION, "Empty the shed.", at(3), owner=(TOBIAS,), state=LineState.SUPERSEDED),
    Line(
        LineKind.QUESTION,
        "How heavy is the heron?",
        at(8),
        state=LineState.SETTLED,
        answer=Answer("Eleven tons.", at(8)),
    ),
    Line(LineKind.QUESTION, "May the school come?", at(8), state=LineState.OPEN),
    Line(LineKind.KEY_POINT, "The rail has moved 14 mm.", at(2), state=LineState.SETTLED),
    Line(
        LineKind.NEED,
        "Need: a heavier board.",
        at(4),
        state=LineState.SETTLED,
        answer=Answer("Met: done again.", at(5)),
    ),
)


def told(question: str, asker: str = MAREN, within: frozenset[int] | None = None) -> Reply | None:
    return answer_from_lines(lambda: LINES, question, PEOPLE, asker, within)


@pytest.mark.parametrize(
    ("question", "answer"),
    [
        ("What was decided?", "The slipway is repaired in January.\nA second pump is bought – three to one.\nThe siren is left till spring."),
        ("what did we agree on in the end", "The slipway is repaired in January.\nA second pump is bought – three to one.\nThe siren is left till spring."),
        ("What was voted on?", "A second pump is bought – three to one."),
        ("Who was against?", "A second pump is bought – three to one."),
        ("What was put off?", "The siren is left till spring."),
        ("When do we meet again?", "Next meeting: Tuesday 13 October, here."),
        ("When's the next meeting?", "Next meeting: Tuesday 13 October, here."),
        ("What is still open?", "May the school come?"),
        ("What is left for me to do?", "Maren Tull, Ines Carvell: Write to the nurses."),
        ("What do I have to do?", "Maren Tull, Ines Carvell: Write to the nurses."),
        ("What did Tobias promise?", "Tobias Pryce: Ring the yard (by Friday 9 October)."),
        ("What does Ines Carvell need to do?", "Maren Tull, Ines Carvell: Write to the nurses."),
        ("What has to be done?", "Tobias Pryce: Ring the yard (by Friday 9 October).\nMaren Tull, Ines Carvell: Write to the nurses.\nNobody yet: Ask two yards."),
        ("Who has to do what?", "Tobias Pryce: Ring the yard (by Friday 9 October).\nMaren Tull, Ines Carvell: Write to the nurses.\nNobody yet: Ask two yards."),
        ("What did the client want, and was it met?", "Need: a heavier board. Met: done again."),
    ],
)  # fmt: skip
def test_lines_answer_what_is_asked_of_the_minutes(question: str, answer: str) -> None:
    reply = told(question)
    assert reply is not None and reply.found
    assert reply.text == answer
    assert reply.evidence


@pytest.mark.parametrize(
    "question",
    [
        "What was decided about the rents?",
        "What decisions were made on the rents?",
        "What did Tobias promise the yard?",
        "How heavy is the heron?",
        "What did Kasimir promise?",
        "What does the pump do?",
        "Who was against the siren?",
        "When do the trustees meet next?",
        "",
    ],
)
def test_what_asks_for_more_is_left_to_the_passages(question: str) -> None:
    assert told(question) is None


def test_what_was_decided_about_a_subject_is_answered_by_the_decision_that_rests_on_the_passages_found() -> None:
    facts = MeetingFacts(date(2026, 10, 6), PEOPLE)
    said = talk(
        (MAREN, "Now the slipway. The rail has moved fourteen millimetres since spring."),
        (TOBIAS, "I would not haul anything over nine tons on it."),
        (MAREN, "Then let's repair the slipway in January. Anybody against? No. Agreed."),
        (INES, "Next, the tickets. Shall we sell them on the boat as well from May?"),
        (TOBIAS, "Yes, fine by me."),
        (MAREN, "Good, so from May we sell tickets on the boat. That's settled."),
        (INES, "And I'll paint the hut on Friday."),
    )
    about_slipway = answered(said, facts, "What was decided about the slipway?")
    assert about_slipway.found and "January" in about_slipway.text and "May" not in about_slipway.text
    about_tickets = answered(said, facts, "What did we decide about selling tickets?")
    assert about_tickets.found and "May" in about_tickets.text and "January" not in about_tickets.text
    assert {5} <= {p.turn for p in about_tickets.evidence}
    assert answered(said, facts, "Which decisions were taken about the slipway?").text == about_slipway.text
    of_ines = answered(said, facts, "What was decided about the tickets?", within=frozenset({3, 6}))
    assert {p.turn for p in of_ines.evidence} <= {3, 6}
    facts_only = decided_on(lambda: LINES, "How heavy is the heron?", NOTHING)
    assert facts_only == NOTHING


def test_against_alone_is_no_count_of_votes() -> None:
    beside = Line(LineKind.DECISION, "The dinghy goes against the north wall.", at(1), state=LineState.SETTLED)
    assert answer_from_lines(lambda: [beside], "Who was against?", PEOPLE) == NOTHING


def test_minutes_without_such_a_line_say_so_where_no_passage_would_do() -> None:
    assert answer_from_lines(lambda: LINES[5:6], "What was decided?", PEOPLE) == NOTHING
    assert answer_from_lines(lambda: LINES[5:6], "When do we meet again?", PEOPLE) is None
    assert answer_from_lines(lambda: LINES[5:6], "When’s the next meeting?", PEOPLE) is None
    assert told("What is left for me to do?", asker="Douglas Hale") == NOTHING  # who was not there


def test_only_lines_of_a_stretch_answer_for_it_and_by_its_passages() -> None:
    reply = told("What was decided?", within=frozenset({4, 6}))
    assert reply is not None
    assert reply.text == "A second pump is bought – three to one."
    assert {p.turn for p in reply.evidence} == {4}


def test_of_many_lines_the_rest_is_counted() -> None:
    many = [Line(LineKind.ACTION, f"Paint boat {n}.", at(n), owner=(TOBIAS,)) for n in range(SHOWN + 3)]
    reply = answer_from_lines(lambda: many, "What has to be done?", PEOPLE)
    assert reply is not None
    assert reply.text.endswith("\nAnd 3 more in the minutes.")
    assert len(reply.evidence) == SHOWN


def test_minutes_are_made_only_for_a_question_about_them() -> None:
    def never() -> list[Line]:
        raise AssertionError("made without need")

    assert answer_from_lines(never, "How heavy is the heron?", PEOPLE) is None


def test_a_talk_is_asked_before_it_has_minutes() -> None:
    facts = MeetingFacts(date(2026, 10, 6), PEOPLE)
    said = talk((MAREN, "Tobias, will you ring the yard by Friday?"), (TOBIAS, "I will."), ("Speaker 4", "Good."))
    assert (
        answered(said, facts, "What does Tobias have to do?").text
        == "Tobias Pryce: Ring the yard (by Friday 9 October)."
    )
    assert answered(said, facts, "What is left for me to do?", asker=INES) == NOTHING
    assert not answered(talk(), facts, "What was decided?").found
