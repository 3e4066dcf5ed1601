"""How words are received: leave that is given, orders by a day, votes and options, and days that are not when a task is due."""

from datetime import date

import pytest

from tests.core.minutes.samples import DOUGLAS, INES, MAREN, TOBIAS, TUESDAY, Row, of


@pytest.mark.parametrize(
    ("rows", "owner", "text", "due"),
    [
        pytest.param(
            ((TOBIAS, "Could I take the old chart home and copy it out neatly?"), (MAREN, "As long as it's back on Friday.")),
            (TOBIAS,), "Take the old chart home and copy it out neatly.", date(2026, 10, 9), id="leave that is given",
        ),
        pytest.param(
            ((INES, "I'm in Bristol from the nineteenth."), (MAREN, "Then you pack your room on the eighteenth."), (INES, "All right, all right.")),
            (INES,), "Pack [Ines's] room.", date(2026, 10, 18), id="then you do it",
        ),
        pytest.param(
            ((TOBIAS, "My harness is in the car."), (MAREN, "It's no good in the car. Bring it to the store by tonight, please.")),
            (TOBIAS,), "Bring it to the store by tonight.", TUESDAY, id="told by a day",
        ),
        pytest.param(
            ((MAREN, "Tobias, can you have an advert for the mechanic out by the end of next week?"), (TOBIAS, "It's written, only the pay is missing.")),
            (TOBIAS,), "Have an advert for the mechanic out.", date(2026, 10, 16), id="asked by name and not refused",
        ),
        pytest.param(
            ((MAREN, "Could you write half a page about the helmets, Ines?"), (INES, "I'd be glad to.")),
            (INES,), "Write half a page about the helmets.", None, id="glad to",
        ),
        pytest.param(
            ((TOBIAS, "And the other three I'd just send a reminder about the rent."), (MAREN, "Do.")),
            (TOBIAS,), "Just send a reminder about the rent.", None, id="would just do",
        ),
        pytest.param(
            ((MAREN, "Right, what I'd like is that you each sew ten cuffs today."), (TOBIAS, "Ten. Okay.")),
            (TOBIAS, INES, DOUGLAS), "Sew 10 cuffs.", TUESDAY, id="each of you",
        ),
        pytest.param(
            ((MAREN, "Would you mind ringing the plumber?"), (TOBIAS, "Not at all.")),
            (TOBIAS,), "Ring the plumber.", None, id="would you mind",
        ),
        pytest.param(
            ((MAREN, "Would you mind bringing your ladder on Saturday?"), (TOBIAS, "Sure.")),
            (TOBIAS,), "Bring your ladder.", date(2026, 10, 10), id="bring is no form of its own",
        ),
        pytest.param(
            ((MAREN, "Who goes round and asks them?"), (TOBIAS, "I don't mind going round."), (INES, "I'll come with you.")),
            (TOBIAS, INES), "Go round and ask them.", None, id="who goes and asks",
        ),
        pytest.param(
            ((MAREN, "Ines and I will sleep on it and we'll tell you which by Friday."), (TOBIAS, "Good.")),
            (MAREN, INES), "Sleep on it and tell you which.", date(2026, 10, 9), id="two of them",
        ),
        pytest.param(
            ((MAREN, "So my report by the end of October, to be safe."), (TOBIAS, "If you could."), (MAREN, "Yes.")),
            (MAREN,), "Have the report ready.", date(2026, 10, 31), id="a thing by a day",
        ),
        pytest.param(
            ((MAREN, "How are you getting on with the accounts?"), (TOBIAS, "Nearly there. Give me another week.")),
            (TOBIAS,), "Finish the accounts.", date(2026, 10, 13), id="how far somebody is",
        ),
        pytest.param(
            ((MAREN, "Could I get your figures by Thursday?"), (TOBIAS, "No worries.")),
            (TOBIAS,), "Let [Maren] have the figures.", date(2026, 10, 8), id="could I get",
        ),
        pytest.param(
            ((MAREN, "I'd suggest you ask the harbour office before it goes out."), (TOBIAS, "Will do.")),
            (TOBIAS,), "Ask the harbour office before it goes out.", None, id="suggested to another",
        ),
        pytest.param(
            ((MAREN, "Put me down for the cake stall."), (TOBIAS, "I will.")),
            (MAREN,), "Take the cake stall.", None, id="put me down",
        ),
        pytest.param(
            ((MAREN, "The crew wants to know when they sail."), (TOBIAS, "I'll, um, tell the whole crew on Friday.")),
            (TOBIAS,), "Tell the whole crew.", date(2026, 10, 9), id="with a filler in it",
        ),
    ],
)  # fmt: skip
def test_who_is_to_do_what(rows: tuple[Row, ...], owner: tuple[str, ...], text: str, due: date | None) -> None:
    assert [(line.owner, line.text, line.due) for line in of("action", *rows)] == [(owner, text, due)]


@pytest.mark.parametrize(
    "rows",
    [
        pytest.param(((MAREN, "Tobias, you had the breathing sets out on Saturday."), (TOBIAS, "I did.")), id="past"),
        pytest.param(
            ((MAREN, "I'm Maren, I'll be running this on our side."), (TOBIAS, "Good morning.")), id="who is who"
        ),
        pytest.param(((MAREN, "I could kiss you both."), (INES, "A card will do."), (MAREN, "Good.")), id="enough"),
        pytest.param(
            ((MAREN, "What if the boy runs away again?"), (TOBIAS, "Then you ring me."), (MAREN, "Okay.")),
            id="what would be done then",
        ),
        pytest.param(
            ((MAREN, "Can you tell from the tides?"), (INES, "That's what I'm doing, but by hand it's two weeks.")),
            id="what is being done",
        ),
    ],
)
def test_what_nobody_takes_on(rows: tuple[Row, ...]) -> None:
    assert [line.text for line in of("action", *rows)] == []


@pytest.mark.parametrize(
    ("rows", "due"),
    [
        pytest.param(
            ((TOBIAS, "I'll check it, if I get it on the nineteenth I'll have it back on the twenty-first."),),
            date(2026, 10, 21), id="behind a condition",
        ),
        pytest.param(
            ((MAREN, "The party is on the fourth of November. I'll put in for the permit in January, they open on the tenth."),),
            date(2027, 1, 10), id="a month ahead of a day",
        ),
        pytest.param(
            ((INES, "I can dig the old mails out."), (MAREN, "Please do. Not now, though, next week's fine.")),
            date(2026, 10, 16), id="soon enough",
        ),
        pytest.param(
            ((MAREN, "So I'll send round what we said, and we talk again next Monday at two?"), (TOBIAS, "Monday at two.")),
            None, id="when they talk again",
        ),
        pytest.param(
            ((MAREN, "All right, fifteenth of November, frozen. I'll tell them."),), None, id="what is told",
        ),
        pytest.param(
            ((INES, "Somebody will have to do the Wednesday call."), (TOBIAS, "I'll do it.")), None, id="what it is called",
        ),
        pytest.param(
            ((MAREN, "Take the sample anyway, Tobias. I don't want to explain a gearbox to them in June."), (TOBIAS, "I'll take it.")),
            None, id="what is not wanted then",
        ),
        pytest.param(
            ((MAREN, "Show the letter to me before it goes, Tobias, please."), (TOBIAS, "You'll have it by noon.")),
            TUESDAY, id="by noon",
        ),
    ],
)  # fmt: skip
def test_when_it_is_due(rows: tuple[Row, ...], due: date | None) -> None:
    assert [line.due for line in of("action", *rows)] == [due]


def test_when_somebody_is_seen_says_when_they_are_asked() -> None:
    rows = (
        (MAREN, "Could you look it up before we shred anything?"),
        (INES, "I'll ask my cousin, she's a lawyer."),
        (MAREN, "By when do you think?"),
        (INES, "I see her on Sunday."),
    )
    assert [(line.owner, line.due) for line in of("action", *rows)] == [((INES,), date(2026, 10, 11))]


@pytest.mark.parametrize(
    ("rows", "text"),
    [
        pytest.param(
            (
                (MAREN, "For the meadow? Tobias, Ines, me. For the pool? Douglas. So it's the meadow, three to one."),
                (DOUGLAS, "I can live with it."),
            ),
            "It's the meadow, three to one.",
            id="counted",
        ),
    ],
)
def test_what_is_settled(rows: tuple[Row, ...], text: str) -> None:
    assert text in [line.text for line in of("decision", *rows)]


@pytest.mark.parametrize(
    "rows",
    [
        pytest.param(
            (
                (MAREN, "There's three ways. We mark what there is, or we let them sit it again, or we use the coursework."),
                (TOBIAS, "Okay, right."),
            ),
            id="ways that are open",
        ),
        pytest.param(
            (
                (MAREN, "Can you make us a shortlist of ten, Tobias?"),
                (TOBIAS, "When d'you want it by?"),
                (MAREN, "Wednesday week?"),
                (TOBIAS, "Wednesday week, fine."),
            ),
            id="only when a task is due",
        ),
        pytest.param(
            ((MAREN, "It's older than I am, it weighs a hundred kilos, and nobody uses it."), (TOBIAS, "I use it.")),
            id="what is so",
        ),
    ],
)  # fmt: skip
def test_what_settles_nothing(rows: tuple[Row, ...]) -> None:
    assert [line.text for line in of("decision", *rows)] == []
