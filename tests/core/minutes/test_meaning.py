"""What is meant by a reply, an offer or an order, on which day somebody is where it is done, and what `do that` is."""

from datetime import date

import pytest

from nuntius.core.minutes.scene import scene
from nuntius.core.minutes.subjects import subject_of
from tests.core.minutes.samples import DOUGLAS, FACTS, INES, MAREN, TOBIAS, TUESDAY, Row, of
from tests.help import talk


@pytest.mark.parametrize(
    ("rows", "owner", "text"),
    [
        pytest.param(
            (
                (MAREN, "Should we write to the shops about the late boxes?"),
                (TOBIAS, "I would."),
                (MAREN, "I'll do that, then."),
            ),
            (MAREN,),
            "Write to the shops about the late boxes.",
            id="what was asked is what is done",
        ),
        pytest.param(
            (
                (MAREN, "Should we write to the harbour master? I think we should."),
                (TOBIAS, "I'd be glad to do that. By hand."),
            ),
            (TOBIAS,),
            "Write to the harbour master.",
            id="glad to",
        ),
        pytest.param(
            ((MAREN, "Ines, could you send me the list of the moorings?"), (INES, "Yes. I'll do that tonight.")),
            (INES,),
            "Send [Maren] the list of the moorings.",
            id="for whoever asked",
        ),
        pytest.param(
            ((INES, "Do I order the ropes or do you?"), (MAREN, "You order them and send me the bill.")),
            (INES,),
            "Order them [the ropes] and send [Maren] the bill.",
            id="you do it",
        ),
        pytest.param(
            (
                (MAREN, "And could you send me the bills, Tobias? A year of them."),
                (TOBIAS, "I've got them by the day. You'll get them tonight."),
            ),
            (TOBIAS,),
            "Send [Maren] the bills.",
            id="you'll get them",
        ),
        pytest.param(
            (
                (MAREN, "Somebody has to count the life jackets before the inspection."),
                (INES, "We could do it tonight, it's a quiet one."),
                (MAREN, "Would you? You'd save my life."),
            ),
            (INES,),
            "Count the life jackets before the inspection.",
            id="what we could do is welcomed",
        ),
        pytest.param(
            (
                (MAREN, "Send the boy down to first aid this morning, please, and tell him I said so."),
                (TOBIAS, "He's on lates."),
                (MAREN, "Then at two."),
                (TOBIAS, "Okay."),
            ),
            (TOBIAS,),
            "Send the boy down to first aid this morning, please, and tell him Maren said so.",
            id="taken a little later",
        ),
        pytest.param(
            ((MAREN, "Douglas, you get the lock and you put it on the gate."), (DOUGLAS, "I'll have it on by Friday.")),
            (DOUGLAS,),
            "Get the lock and put it on the gate.",
            id="and you put it on",
        ),
    ],
)
def test_what_is_taken_on_is_written_as_it_was_meant(rows: tuple[Row, ...], owner: tuple[str, ...], text: str) -> None:
    assert [(line.owner, line.text) for line in of("action", *rows)] == [(owner, text)]


@pytest.mark.parametrize(
    "rows",
    [
        pytest.param(
            (
                (MAREN, "Is somebody moving that? No ferry on Fridays from January?"),
                (TOBIAS, "I'll move it."),
                (INES, "Seconded."),
            ),
            id="a motion",
        ),
        pytest.param(
            ((MAREN, "And somebody book the big room."), (TOBIAS, "Booked it already."), (MAREN, "You're a star.")),
            id="done already",
        ),
        pytest.param(
            (
                (MAREN, "We've got forty-five in the plan."),
                (INES, "I can stretch it by one if I have to."),
                (MAREN, "Good."),
            ),
            id="if I have to",
        ),
        pytest.param(
            ((MAREN, "And if she says no to the post?"), (INES, "Then I ring the other one, with no hard feelings.")),
            id="what would be done then",
        ),
        pytest.param(
            ((MAREN, "Tobias, do you want to go?"), (TOBIAS, "Yeah. So on Friday the seat map worked.")), id="the floor"
        ),
        pytest.param(
            ((MAREN, "I can lend you Marta. I need her back for the goods in."), (TOBIAS, "Perfect.")),
            id="what one needs back",
        ),
        pytest.param(
            ((MAREN, "From now on nobody goes up the mast in the morning till it's been walked."), (TOBIAS, "Fine.")),
            id="a rule for all",
        ),
    ],
)
def test_what_nobody_has_to_do(rows: tuple[Row, ...]) -> None:
    assert [line.text for line in of("action", *rows)] == []


def test_a_reply_that_promises_something_else_takes_nothing() -> None:
    rows = (
        (TOBIAS, "I'll get the letter to the parents out. You'll want to see it, I expect."),
        (MAREN, "Send it round to us before it goes."),
        (INES, "And I'll find a grandmother."),
    )
    assert {line.owner for line in of("action", *rows) if "letter" in line.text or "Send" in line.text} == {(TOBIAS,)}


@pytest.mark.parametrize(
    ("rows", "due"),
    [
        pytest.param(
            (
                (MAREN, "Ines, you're in there on Thursday, aren't you? Could you find out what they do at the counter?"),
                (INES, "I can. I'll put it in the channel."),
            ),
            date(2026, 10, 8),
            id="you're in there",
        ),
        pytest.param(
            (
                (MAREN, "I'll ask the harbour master about the lamp."),
                (TOBIAS, "He won't like it."),
                (MAREN, "I'm seeing him tomorrow about the other thing."),
            ),
            date(2026, 10, 7),
            id="I'm seeing him",
        ),
        pytest.param(((TOBIAS, "I'm in Hull on Monday. I'll send Petra."),), date(2026, 10, 12), id="who is sent instead"),
        pytest.param(
            ((MAREN, "Demo on Friday, three o'clock. Who's showing the quay?"), (INES, "I'll show it.")),
            date(2026, 10, 9),
            id="the day of an event right before",
        ),
        pytest.param(
            ((MAREN, "Is the crane confirmed?"), (TOBIAS, "I'll ring the driver again when we're out of here.")),
            TUESDAY,
            id="when we're out of here",
        ),
        pytest.param(
            ((MAREN, "I'll ask upstairs for two more people. They'll say one."), (MAREN, "One more thing. Christmas. I want the holidays in early this year.")),
            None,
            id="a feast that is a heading",
        ),
        pytest.param(
            ((MAREN, "All right, Tuesday it is. The twentieth. I'll tell the paper, and I'll tell them it was me."),),
            None,
            id="the day that was settled",
        ),
        pytest.param(((MAREN, "He'll wonder."), (TOBIAS, "I'll tell the man it's Monday.")), None, id="what is told"),
        pytest.param(
            (
                (MAREN, "Who fills in the form for the grant?"),
                (TOBIAS, "I will. I like a form."),
                (MAREN, "When would we need your quote by, Ines?"),
                (INES, "The nineteenth."),
            ),
            None,
            id="the day of something else",
        ),
    ],
)  # fmt: skip
def test_the_day_is_when_somebody_is_there_and_not_what_is_said_of_another(
    rows: tuple[Row, ...], due: date | None
) -> None:
    assert of("action", *rows)[0].due == due


def test_a_list_for_next_time_is_due_when_they_meet_again() -> None:
    rows = (
        (TOBIAS, "I'll make a list of what is still likely to come. The door handles, for instance."),
        (MAREN, "Could we have that list for next time?"),
        (TOBIAS, "It'll be out with the notes."),
        (MAREN, "Next Monday, eight o'clock."),
    )
    assert of("action", *rows)[0].due == date(2026, 10, 12)
    assert [line.text for line in of("decision", *rows)] == ["Next meeting: Monday 12 October at eight o'clock."]


def test_assent_that_names_its_conditions_keeps_its_words() -> None:
    rows = (
        (INES, "The classes would boil sea water in the yard, with a pan and a gas ring."),
        (MAREN, "Fine by me, in the yard, with a bucket of sand."),
        (INES, "Good."),
    )
    assert [line.text for line in of("decision", *rows)] == ["Maren: Fine by me, in the yard, with a bucket of sand."]


def test_a_chapter_is_called_by_its_subject_and_not_by_the_word_for_a_list() -> None:
    made = scene(talk((MAREN, "Problems. The drain. Tobias, that's you."), (TOBIAS, "We've found one.")), FACTS)
    assert subject_of(made, 0) == "drain"
