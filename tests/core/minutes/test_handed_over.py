"""How tasks pass from one voice to another: shares of one sentence, plans that wait for a yes, and the days they name."""

from datetime import date, time

import pytest

from nuntius.core.minutes.line import Line, MeetingFacts
from tests.core.minutes import samples
from tests.core.minutes.samples import DOUGLAS, INES, MAREN, PEOPLE, TOBIAS, TUESDAY, Row

AT_NINE = MeetingFacts(TUESDAY, PEOPLE, begun=time(9, 0))


def of(kind: str, *rows: Row) -> list[Line]:
    return samples.of(kind, *rows, facts=AT_NINE)


@pytest.mark.parametrize(
    ("rows", "owner", "text", "due"),
    [
        pytest.param(
            ((MAREN, "Who looks after the desk then?"), (INES, "I was going to ask Priya from the office."), (MAREN, "Do, and tell me if she says no.")),
            (INES,), "Ask Priya from the office.", None, id="a plan that waits for a yes",
        ),
        pytest.param(
            ((MAREN, "Douglas, get us fifty padlocks for the lockers."), (DOUGLAS, "On what card?"), (MAREN, "Mine.")),
            (DOUGLAS,), "Get us 50 padlocks for the lockers.", None, id="a detail is asked after",
        ),
        pytest.param(
            ((TOBIAS, "We've a chair for stairs. I could have the chair brought over."), (MAREN, "Could you have it here tomorrow?"),
             (TOBIAS, "Tomorrow's a push. Saturday."), (MAREN, "Saturday, then.")),
            (TOBIAS,), "Have the chair brought over.", date(2026, 10, 10), id="a day that is too soon",
        ),
        pytest.param(
            ((MAREN, "Could you do the list of who carries what, Ines?"), (INES, "I could, but I'd need to know the days."),
             (MAREN, "Thursday and Friday next week."), (INES, "Then it's with you on Monday.")),
            (INES,), "Do the list of who carries what.", date(2026, 10, 12), id="with you by a day",
        ),
        pytest.param(
            ((MAREN, "Can somebody explain to the crew what to say until it's fixed?"), (TOBIAS, "I'm sitting with them at two anyway, leave it with me.")),
            (TOBIAS,), "Explain to the crew what to say until it's fixed.", TUESDAY, id="seen at an hour of today",
        ),
        pytest.param(
            ((MAREN, "Would you find out whether the shops agree and tell me?"), (INES, "We've a breakfast on Friday. You'll know by noon.")),
            (INES,), "Find out whether the shops agree and tell [Maren].", date(2026, 10, 9), id="you'll know",
        ),
        pytest.param(
            ((MAREN, "Tobias, you film the ramp, on your phone, nothing grand."), (TOBIAS, "I'm at my mother's on Sunday."), (INES, "I can do that.")),
            (INES,), "Film the ramp, on [Tobias's] phone, nothing grand.", None, id="another stands in",
        ),
        pytest.param(
            ((TOBIAS, "The hall is free on the Saturday."), (MAREN, "Ines, you book the hall then."), (INES, "It's as good as booked. I'll confirm in the morning.")),
            (INES,), "Book the hall.", date(2026, 10, 7), id="as good as booked",
        ),
        pytest.param(
            ((MAREN, "Could I have that film of the slipway?"), (TOBIAS, "It's big, but I can put it on the server. This afternoon?"), (MAREN, "This afternoon's ideal.")),
            (TOBIAS,), "Put it [the film] on the server.", TUESDAY, id="may I have it",
        ),
        pytest.param(
            ((INES, "The lake takes a deposit for the summer camp. I'll book the lake, shall I?"), (MAREN, "Please.")),
            (INES,), "Book the lake.", None, id="shall I",
        ),
        pytest.param(
            ((TOBIAS, "I could mention the post to the woman at the climbing wall."), (MAREN, "Do mention it.")),
            (TOBIAS,), "Mention the post to the woman at the climbing wall.", None, id="do mention it",
        ),
        pytest.param(
            ((TOBIAS, "The bookkeeper has the wages. I'll ask the bookkeeper to mail the wages list."), (MAREN, "By Friday, could she?"), (TOBIAS, "That should work.")),
            (TOBIAS,), "Ask the bookkeeper to mail the wages list.", date(2026, 10, 9), id="by Friday, could she",
        ),
        pytest.param(
            ((MAREN, "You've each had the booklet. Read chapter three by Thursday, there's a test."), (TOBIAS, "And if I've got seven?")),
            (TOBIAS, INES, DOUGLAS), "Read chapter three.", date(2026, 10, 8), id="told to each",
        ),
    ],
)  # fmt: skip
def test_who_takes_it_and_by_when(rows: tuple[Row, ...], owner: tuple[str, ...], text: str, due: date | None) -> None:
    assert [(line.owner, line.text, line.due) for line in of("action", *rows)] == [(owner, text, due)]


def test_one_sentence_shares_out_what_is_to_be_done() -> None:
    rows = (
        (TOBIAS, "The card of the boat was blocked."),
        (MAREN, "I'll have the card unblocked this morning and then, Tobias, you order four springs."),
        (TOBIAS, "Four springs, will do."),
    )
    assert [(line.owner, line.due) for line in of("action", *rows)] == [((MAREN,), TUESDAY), ((TOBIAS,), None)]


@pytest.mark.parametrize(
    ("rows", "found"),
    [
        pytest.param(
            ((MAREN, "The strap is missing. I'll order the strap first thing in the morning, and Ines, count the dressings and send me a list."),
             (INES, "I'm at the station on Thursday."), (MAREN, "Thursday's fine.")),
            [((MAREN,), date(2026, 10, 7)), ((INES,), date(2026, 10, 8))], id="and somebody else by name",
        ),
        pytest.param(
            ((MAREN, "The strimmer's leaking. Put a tag on the strimmer and I'll have a look after lunch."), (TOBIAS, "Right you are.")),
            [((TOBIAS,), None), ((MAREN,), TUESDAY)], id="the day is that of the second part",
        ),
        pytest.param(
            ((INES, "I had a bad September."), (TOBIAS, "Take a week off."), (MAREN, "I'll fill in the form, you both sign the form, and it has to be at the office by the thirtieth."), (INES, "Sure."), (TOBIAS, "Okay.")),
            [((MAREN,), None), ((TOBIAS, INES), date(2026, 10, 30))], id="both of the others",
        ),
        pytest.param(
            ((MAREN, "Write me a bad draft by next Wednesday, and I'll tell you it's good."), (INES, "A bad one I can do.")),
            [((INES,), date(2026, 10, 14))], id="what is only told",
        ),
        pytest.param(
            ((MAREN, "Who'd ring the two new people? I can't before Friday."), (TOBIAS, "I don't mind.")),
            [((TOBIAS,), None)], id="does not mind",
        ),
        pytest.param(
            ((TOBIAS, "We have no worms left for the lawn."), (MAREN, "Order one pack. It's going to be wet soon, that's what they like."), (TOBIAS, "Will do.")),
            [((TOBIAS,), None)], id="the weather is nobody's promise",
        ),
        pytest.param(
            ((MAREN, "Send the offer to me by eight, I'm asleep after that."), (TOBIAS, "By eight.")),
            [((TOBIAS,), None)], id="the hour is said again",
        ),
        pytest.param(
            ((MAREN, "I'd like to know what the shoe shop pays. Ask the shoe shop, Tobias."), (TOBIAS, "All right, I'll go in on Saturday."),
             (MAREN, "Saturday's too late."), (TOBIAS, "Thursday morning, before it goes off.")),
            [((TOBIAS,), date(2026, 10, 8))], id="too late",
        ),
        pytest.param(
            ((MAREN, "Somebody has to brief the volunteers. Who briefs them?"), (INES, "You do, Douglas, at five, in the hall."), (DOUGLAS, "Right.")),
            [((DOUGLAS,), None)], id="you do",
        ),
        pytest.param(
            ((INES, "The friends have their evening soon. Somebody could go and ask the friends."), (TOBIAS, "They hide when I come in."), (INES, "I'll go, they don't know me yet.")),
            [((INES,), None)], id="goes oneself",
        ),
        pytest.param(
            ((MAREN, "We're down to four small masks."), (INES, "I've ordered twenty masks, they'll be here on Saturday."), (MAREN, "Good.")),
            [], id="ordered already",
        ),
        pytest.param(
            ((TOBIAS, "I'll be there at seven to let the glaziers in."), (MAREN, "Perfect.")),
            [((TOBIAS,), None)], id="there to let them in",
        ),
        pytest.param(
            ((MAREN, "Make me a bigger letter for the stage, Ines. Could you have it by the run this afternoon?"), (INES, "Sure.")),
            [((INES,), TUESDAY)], id="could you have it by then",
        ),
        pytest.param(
            ((INES, "She fed once and fell asleep. I'll sit with the mother for the next feed. When's that?"), (MAREN, "About nine.")),
            [((INES,), date(2026, 10, 7))], id="an hour that is asked for",
        ),
        pytest.param(
            ((INES, "Could I see it? I'll send you a link. Don't put your real name in, it's public."), (MAREN, "I'll be careful.")),
            [((INES,), None)], id="what is not to be done",
        ),
    ],
)  # fmt: skip
def test_whose_share_is_which(rows: tuple[Row, ...], found: list[tuple[tuple[str, ...], date | None]]) -> None:
    assert [(line.owner, line.due) for line in of("action", *rows)] == found


def test_what_whoever_is_last_does_is_a_rule_for_all() -> None:
    rows = (
        (MAREN, "Whoever's last locks the drug cupboard, please, it was open again on Sunday."),
        (INES, "That was me."),
    )
    assert [line.why for line in of("decision", *rows)] == ["a rule for all"]


def test_the_end_of_the_talk_takes_no_decision_with_it() -> None:
    rows = (
        (TOBIAS, "Who's got the key to the chemicals? It wasn't on the hook."),
        (MAREN, "Me. Nobody takes that key home, and that includes me."),
        (INES, "Noted."),
        (MAREN, "Anything else? Off we go then."),
    )
    assert [line.text for line in of("decision", *rows)] == ["Maren: Nobody takes that key home, and that includes me."]


def test_a_condition_gives_each_voice_a_day_of_its_own() -> None:
    rows = (
        (MAREN, "When can we have the new sign?"),
        (TOBIAS, "If Ines gets me the final sizes by Friday, I'll put it up on the fifteenth."),
        (INES, "Friday's okay."),
    )
    found = {line.owner: line.due for line in of("action", *rows)}
    assert found == {(INES,): date(2026, 10, 9), (TOBIAS,): date(2026, 10, 15)}


def test_an_order_that_is_passed_on_is_not_taken_by_whoever_passes_it_on() -> None:
    rows = (
        (INES, "Do the quick repair of the ramp."),
        (MAREN, "Yeah. Quick one today?"),
        (TOBIAS, "Not today, there's the survey. I'll do the repair tomorrow morning."),
    )
    assert [line.owner for line in of("action", *rows)] == [(TOBIAS,)]


@pytest.mark.parametrize(
    ("rows", "due"),
    [
        pytest.param(((TOBIAS, "I'll ring them first thing."),), date(2026, 10, 7), id="first thing"),
        pytest.param(((INES, "I'll swap you Wednesday for my Sunday, Tobias."), (TOBIAS, "Deal.")), None, id="swapped"),
        pytest.param(
            ((INES, "I'll send a man round in the last week of October."), (MAREN, "I'm in on the Tuesday and the Thursday."), (INES, "I'll make it the Tuesday.")),
            date(2026, 10, 27), id="a day of that week",
        ),
        pytest.param(
            ((INES, "I can tell you on the fifteenth of December, not before."), (TOBIAS, "Then I write to the members on the sixteenth.")),
            date(2026, 12, 16), id="a day of that month",
        ),
        pytest.param(
            ((INES, "Let me take a sample off the tank. The lab's four days. So if I take it this afternoon, Monday."),),
            TUESDAY, id="done before it is known",
        ),
    ],
)  # fmt: skip
def test_which_day_is_meant(rows: tuple[Row, ...], due: date | None) -> None:
    assert of("action", *rows)[-1].due == due


@pytest.mark.parametrize(
    "rows",
    [
        pytest.param(((MAREN, "I can live with a grey box if it's the same size."), (INES, "Good.")), id="live with"),
        pytest.param(
            ((MAREN, "Can you both see the sheet?"), (TOBIAS, "Yes."), (INES, "Yep.")), id="whether it is seen"
        ),
        pytest.param(((INES, "I'm away soon. I go on the seventh."), (MAREN, "Lovely.")), id="when somebody leaves"),
        pytest.param(
            ((INES, "The return's due on the fifteenth and I'm missing the readings."), (MAREN, "Ah.")), id="is due"
        ),
    ],
)
def test_what_is_nobody_s_task(rows: tuple[Row, ...]) -> None:
    assert [line.text for line in of("action", *rows)] == []


def test_what_is_done_at_once_is_marked_so() -> None:
    (line,) = of("action", (MAREN, "I'll order two bins now, on my phone. That's done."), (INES, "Oh, good."))
    assert (line.state, line.why) == ("superseded", "done in the meeting")


def test_a_vote_is_reported_with_what_was_voted_on_and_how_it_went() -> None:
    rows = (
        (TOBIAS, "I'd go for the new freezer with the doors."),
        (MAREN, "All those in favour of the new freezer. Three. Douglas?"),
        (DOUGLAS, "I'll abstain. I think the old one's got a year in it."),
        (MAREN, "Carried, then, with one abstention."),
    )
    assert [line.text for line in of("decision", *rows)] == ["The new freezer – Carried, then, with one abstention."]
