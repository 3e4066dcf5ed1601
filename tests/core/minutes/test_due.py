"""Days by which an action is due: found where they are named, and none where only something else is dated."""

from datetime import date

import pytest

from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.days_named import in_sentence
from nuntius.core.minutes.line import Line, MeetingFacts
from nuntius.core.minutes.scene import scene
from tests.help import talk

TUESDAY = date(2026, 10, 6)
PEOPLE = ("Maren Tull", "Tobias Pryce", "Ines Carvell", "Douglas Hale")
MAREN, TOBIAS, INES, _ = PEOPLE


def actions(*rows: tuple[str, str]) -> list[Line]:
    lines = make_minutes(talk(*rows), MeetingFacts(TUESDAY, PEOPLE)).lines
    return [line for line in lines if line.kind == "action"]


@pytest.mark.parametrize(
    ("rows", "due"),
    [
        (  # asked for and answered behind the action
            (
                (MAREN, "I can do the new times. When do you need them?"),
                (TOBIAS, "Thursday would be great."),
                (MAREN, "Okay, Thursday."),
            ),
            date(2026, 10, 8),
        ),
        (  # a bare day in the rest of the turn
            ((MAREN, "I'll write to the yard about the price. So that's, what, Wednesday night."),),
            date(2026, 10, 7),
        ),
        (  # what `before then` refers to
            (
                (MAREN, "The permit runs out on the thirtieth. Somebody has to renew it before then."),
                (TOBIAS, "I'll renew it."),
            ),
            date(2026, 10, 30),
        ),
        (((MAREN, "I'll ring the yard right after this."),), date(2026, 10, 6)),
        (((MAREN, "The yard's shut at lunch, so I'll ring them at nine."),), date(2026, 10, 6)),
        (((MAREN, "I'll text the yard by three."),), date(2026, 10, 6)),
        (((MAREN, "I'll send you the link to the chart in a minute."),), date(2026, 10, 6)),
        (((MAREN, "I'll write to the yard before I go."),), date(2026, 10, 6)),
        (((MAREN, "I'll ring the yard when we're off the phone."),), date(2026, 10, 6)),
        (  # a weekday after the day that was named
            (
                (MAREN, "Friday, first thing?"),
                (TOBIAS, "Seven, then. And you'll have the report by the Tuesday after."),
            ),
            date(2026, 10, 13),
        ),
        (((MAREN, "You'll have the abstract the Friday before, the sixteenth."),), date(2026, 10, 16)),
        (((MAREN, "It's the sixth, so I'll price the ropes by the thirtieth."),), date(2026, 10, 30)),
        (  # when others begin
            (
                (MAREN, "I'll ask for the two spare lamps."),
                (TOBIAS, "And when do they start?"),
                (INES, "The tenth of November, they say."),
            ),
            None,
        ),
        (((MAREN, "The trustees are on the twentieth, so I'll write to the yard the day after."),), date(2026, 10, 21)),
        (  # `by` goes before `on`
            ((MAREN, "I'll send the yard the drawing on the phone or by Friday in the post."),),
            date(2026, 10, 9),
        ),
        (  # when it is begun
            ((MAREN, "I'll do the late boat myself from Monday."),),
            date(2026, 10, 12),
        ),
        (  # for the month in which they meet again
            (
                (INES, "I'd want to see figures before we say yes."),
                (MAREN, "I'll work out the wages for November."),
                (INES, "With the pension in it."),
                (MAREN, "Yes. Is there anything else?"),
                (TOBIAS, "Nothing from the boats."),
                (INES, "The tenth of November, then, ten o'clock."),
            ),
            date(2026, 11, 10),
        ),
        (  # to the next meeting
            (
                (INES, "The tide tables are wrong in November, all of them."),
                (MAREN, "I know. They were printed in spring."),
                (INES, "By whom?"),
                (TOBIAS, "By the harbour office. And that was everything from me, I think."),
                (MAREN, "Good. Next meeting's the thirteenth, same time. I'll bring the new chart."),
            ),
            date(2026, 10, 13),
        ),
    ],
)
def test_a_day_is_found_beside_the_action(rows: tuple[tuple[str, str], ...], due: date) -> None:
    assert actions(*rows)[0].due == due


@pytest.mark.parametrize(
    ("said", "due"),
    [
        ("If you order by Friday I can have the rails here on the nineteenth.", date(2026, 10, 19)),
        ("I can do it if I get the Monday off.", None),
        ("Ring the yard, and if they don't want it by Friday it's ours.", None),
    ],
)
def test_a_day_of_a_condition_is_not_the_task_s(said: str, due: date | None) -> None:
    talked = scene(talk((MAREN, said)), MeetingFacts(TUESDAY, PEOPLE))
    found = in_sentence(talked, talked.sentences[0])
    assert (found.day if found else None) == due


def test_what_another_brings_is_not_due_when_they_meet() -> None:
    lines = actions(
        (TOBIAS, "I'll order the tester tonight, it's here before the next one."),
        (MAREN, "And I'll ring the man with the fan, and ask him to bring it by."),
        (INES, "So the next one is this Saturday, the tenth, half past one."),
    )
    assert [line.due for line in lines if "the fan" in line.text] == [None]


def test_a_bare_day_lies_in_the_month_that_was_just_named() -> None:
    (action,) = actions(
        (MAREN, "Ines, will you write the questions?"),
        (INES, "Happy to. When does the newsletter go out?"),
        (TOBIAS, "The eleventh of December. So I'd want them by the fourth."),
    )
    assert action.due == date(2026, 12, 4)


@pytest.mark.parametrize(
    "said",
    [
        "I'll put the price on the first page.",
        "I'll take the first-year seminar.",
        "I'll do the tea on Wednesdays from now on.",
        "I'll ring the school, but not on a Tuesday.",
    ],
)
def test_what_is_counted_or_comes_every_week_is_no_day(said: str) -> None:
    assert [line.due for line in actions((MAREN, said), (TOBIAS, "Good."))] == [None]


def test_a_heading_that_is_a_day_dates_nothing() -> None:
    lines = actions(
        (MAREN, "I'll tell the baker about the bread."),
        (TOBIAS, "The Saturday. The bride's mother has rung four times since ten this morning."),
    )
    assert lines[0].due is None


@pytest.mark.parametrize(
    ("said", "again"),
    [
        (
            ("Same again on the twentieth of October, five o'clock?", "Yes, the twentieth."),
            "Tuesday 20 October at five o'clock",
        ),
        (
            ("When shall we do this again, November?", "The first Thursday in November, that's the fifth."),
            "Thursday 5 November",
        ),
        (
            ("So shall we talk in a fortnight, same time?", "That'd be the twentieth. Good."),
            "Tuesday 20 October, same time",
        ),
        (  # the day that took the place of another, and the hour behind it
            (
                "Shall we talk again? The tenth of November?",
                "I'm burying somebody on the tenth. The thirteenth, same hour.",
                "Half past ten.",
            ),
            "Friday 13 November at half past ten",
        ),
        (  # which the others repeat, before they speak of another day
            ("So we speak on the thirteenth of November?", "The thirteenth, at nine.", "Tomorrow, then."),
            "Friday 13 November at nine o'clock",
        ),
        (("So we meet again in a month, the third of November. Here?", "Here."), "Tuesday 3 November, here"),
        (("Next meeting's the sixth, ten o'clock.", "Good."), "Friday 6 November at ten o'clock"),  # and not today
        (("Shall we speak again tonight? At eight?", "At eight."), "Tuesday 6 October at eight o'clock"),
        (  # the hour at which they part is not the next one's
            ("Nearly ten to six. Next meeting's the third of November, same place.", "Right."),
            "Tuesday 3 November, same place",
        ),
    ],
)
def test_when_they_meet_again_is_written_as_a_day(said: tuple[str, ...], again: str) -> None:
    talked = [(PEOPLE[n % 3], f"The pump number {n} is running well.") for n in range(12)]
    parting = [(PEOPLE[n % 2], words) for n, words in enumerate(said)]
    lines = make_minutes(talk(*talked, *parting), MeetingFacts(TUESDAY, PEOPLE)).lines
    assert [line.text for line in lines if line.kind == "decision"] == [f"Next meeting: {again}."]
