"""What settles a matter and what only sounds so; tasks of two in one breath."""

from datetime import date

import pytest

from tests.core.minutes.samples import DOUGLAS, INES, MAREN, TOBIAS, Row, of

BEFORE = (
    (MAREN, "How was the crossing?"),
    (TOBIAS, "Rough until the point, then it was calm."),
    (INES, "I was sick twice."),
) * 5


@pytest.mark.parametrize(
    "rows",
    [
        pytest.param(((MAREN, "We don't open on Fridays as it is."), (TOBIAS, "No, we never did.")), id="how it is"),
        pytest.param(((MAREN, "This Thursday's no good for me."), (TOBIAS, "What about you, Ines?")), id="a day that will not do"),
        pytest.param(((MAREN, "I've nobody for the Thursday."), (TOBIAS, "Oh dear.")), id="what is lacking"),
        pytest.param(((MAREN, "I had thought of asking the school."), (TOBIAS, "And?"), (MAREN, "The head wasn't keen.")), id="thought of"),
        pytest.param(((MAREN, "After Easter, when people are back."), (TOBIAS, "Mm.")), id="only when"),
        pytest.param(((MAREN, "Then the price. I'll say it as it is, we were a bit shocked."), (TOBIAS, "By which one?")), id="a heading"),
        pytest.param(((MAREN, "How many are left?"), (TOBIAS, "Three. And that's the last of them."), (MAREN, "I see.")), id="no hands"),
        pytest.param(((MAREN, "You never see them before ten."), (TOBIAS, "No, they sleep.")), id="never seen"),
        pytest.param(((MAREN, "Whatever happens, we'll be fine."), (TOBIAS, "You always say that.")), id="comfort"),
        pytest.param(((MAREN, "Don't decide anything now."), (TOBIAS, "No, I'd have to see it first.")), id="advice"),
    ],
)  # fmt: skip
def test_what_only_says_decides_nothing(rows: tuple[Row, ...]) -> None:
    assert of("decision", *rows) == []


@pytest.mark.parametrize(
    "said",
    [
        "Nobody's on that roof without a harness.",
        "Nobody's driving home after this on their own.",
        "You never open it with anybody in the room.",
        "Whatever happens, nobody stays behind because of money.",
        "Till it's mended, whoever's last out turns it off by hand.",
    ],
)
def test_what_nobody_does_is_a_rule(said: str) -> None:
    (line,) = of("decision", (MAREN, said), (TOBIAS, "I'd want that too."))
    assert (line.text, line.why) == (said, "a rule for all")


@pytest.mark.parametrize(
    ("rows", "text"),
    [
        (
            (
                (MAREN, "Who's for buying the van at Harmer's?"),
                (TOBIAS, "Me, obviously."),
                (MAREN, "Three. Against? Ines. And Douglas abstains. So we buy it."),
                (TOBIAS, "And don't pay more than three thousand three hundred."),
            ),
            "We buy it [Who's for buying the van at Harmer's].",
        ),
        (((MAREN, "All those for the amendment? Two. Against? Three. So it falls."),), "It falls [All those for the amendment]."),
    ],
)  # fmt: skip
def test_what_counted_hands_come_to_is_reported(rows: tuple[Row, ...], text: str) -> None:
    assert (text, "put to all") in [(line.text, line.why) for line in of("decision", *rows)]


def test_what_is_left_for_later_stands_beside_the_next_meeting() -> None:
    rows = (
        *BEFORE,
        (TOBIAS, "I'll ask old Pollard on Thursday whether the public may come, but don't print anything."),
        (MAREN, "We leave that till we hear from Pollard."),
        (INES, "Fine."),
        (MAREN, "Our next one's the seventeenth of November, after the grant's gone in. Here?"),
        (INES, "Here."),
    )
    left, again = of("decision", *rows)
    assert left.text.startswith("We leave that till we hear from Pollard")
    assert again.text == "Next meeting: Tuesday 17 November, here."


def test_both_who_are_asked_have_the_task_and_the_day() -> None:
    rows = (
        (INES, "The bottom gate's dragging, there's a stone under it."),
        (MAREN, "Then we drain it."),
        (INES, "Monday's quiet."),
        (MAREN, "Monday it is. Can you two do that?"),
        (TOBIAS, "Yep."),
    )
    (line,) = of("action", *rows)
    assert (line.owner, line.due) == ((TOBIAS, INES), date(2026, 10, 12))


def test_when_they_speak_again_is_found_without_the_word_meeting() -> None:
    rows = (
        *BEFORE,
        (MAREN, "The boxes collapsed when we picked them up."),
        (TOBIAS, "Then we make them of a heavier board, at our cost."),
        (MAREN, "That's kind of you."),
        (INES, "Shall we speak on Friday, when you've slept on it? Ten o'clock?"),
        (MAREN, "Friday at ten."),
    )
    assert "Next meeting: Friday 9 October at ten o'clock." in [line.text for line in of("decision", *rows)]


def test_a_next_meeting_said_by_another_day_is_found() -> None:
    rows = (
        *BEFORE,
        (MAREN, "The rails come in the spring."),
        (TOBIAS, "Good."),
        (MAREN, "When do we meet again?"),
        (INES, "Two weeks? The twentieth?"),
        (MAREN, "I'm in court on the twentieth. The day after, at nine."),
        (INES, "Fine."),
    )
    assert "Next meeting: Wednesday 21 October at nine o'clock." in [line.text for line in of("decision", *rows)]


def test_the_speakers_part_and_anothers_are_two_tasks() -> None:
    rows = (
        (MAREN, "Go home, Tobias. I'll do the pony and you move my eleven o'clock to the afternoon, Douglas."),
        (DOUGLAS, "Three of them can move."),
    )
    assert {(line.owner, line.text.split(" [")[0]) for line in of("action", *rows)} >= {
        ((MAREN,), "Do the pony."),
        ((DOUGLAS,), "Move Maren's 11 o'clock to the afternoon."),
    }


def test_two_who_are_named_in_a_row_have_a_task_each() -> None:
    rows = ((MAREN, "Tobias to chase the insurers, Ines to book the surveyor."), (TOBIAS, "Right."), (INES, "Yes."))
    assert [(line.owner, line.text) for line in of("action", *rows)] == [
        ((TOBIAS,), "Chase the insurers."),
        ((INES,), "Book the surveyor."),
    ]


def test_the_third_of_several_things_is_no_day() -> None:
    (first, second) = of(
        "action",
        (MAREN, "We want three prices for the rails."),
        (TOBIAS, "I'll get two from the yard."),
        (INES, "I'll find the third."),
    )
    assert (first.owner, first.due, second.owner, second.due) == ((TOBIAS,), None, (INES,), None)


@pytest.mark.parametrize(
    "said",
    [
        "Perfect, then we decide on the contract at the next meeting.",
        "Let's settle the contract in our next meeting, then.",
        "Then we vote on the contract at our next meeting.",
    ],
)
def test_what_is_to_be_decided_at_the_next_meeting_is_put_off(said: str) -> None:
    rows = ((MAREN, "The contract has three pages that nobody has read."), (TOBIAS, "I've read one of them."))
    (line,) = of("decision", *rows, (MAREN, said), (INES, "Fine by me."))
    assert line.state == "open"
