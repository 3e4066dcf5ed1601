"""How tasks are given and taken on in talk, and which words settle a matter."""

from datetime import date

import numpy as np
import pytest

from nuntius.core.language.en.names import Roster
from nuntius.core.minutes.actions import find_actions
from nuntius.core.minutes.decisions import find_decisions
from nuntius.core.minutes.scene import scene
from nuntius.core.naming import sure_names
from tests.core.minutes.samples import DOUGLAS, FACTS, INES, MAREN, PEOPLE, TOBIAS, TUESDAY, Row, of
from tests.help import talk


@pytest.mark.parametrize(
    ("rows", "owner", "due", "words"),
    [
        pytest.param(
            (
                (TOBIAS, "I could ask the chandler about an advert, I'm in there all the time."),
                (MAREN, "Would you? It's seventy for half a page."),
                (TOBIAS, "Sure. I'm there on Friday."),
            ),
            (TOBIAS,),
            date(2026, 10, 9),
            "chandler",
            id="an offer that is taken up",
        ),
        pytest.param(
            ((MAREN, "Ines, will you tell the agent to order the new ramp?"), (INES, "First thing tomorrow.")),
            (INES,),
            date(2026, 10, 7),
            "agent",
            id="a day is an answer",
        ),
        pytest.param(
            (
                (MAREN, "Ines, could you ask two yards for a price?"),
                (INES, "Two yards, fine. By when?"),
                (MAREN, "End of next week."),
            ),
            (INES,),
            date(2026, 10, 16),
            "yards",
            id="assent behind what is repeated, and a day that is asked for",
        ),
        pytest.param(
            ((MAREN, "Douglas, you'll let the harbour master know about the buoy?"), (DOUGLAS, "Yes, this afternoon.")),
            (DOUGLAS,),
            TUESDAY,
            "buoy",
            id="a request without being asked as one",
        ),
        pytest.param(
            (
                (MAREN, "Tobias, a first draft of the timetable by the sixteenth?"),
                (TOBIAS, "I'm on the Hull boat on the sixteenth. Could it be the twentieth?"),
                (MAREN, "The twentieth, but not later."),
                (TOBIAS, "Okay."),
            ),
            (TOBIAS,),
            date(2026, 10, 20),
            "timetable",
            id="the day is moved",
        ),
        pytest.param(
            (
                (MAREN, "So who's going to ring the printer about the tickets?"),
                (INES, "Not me, I've got the accounts up to here."),
                (MAREN, "No. Okay, give it to me."),
            ),
            (MAREN,),
            None,
            "printer",
            id="whoever asked takes it",
        ),
        pytest.param(
            (
                (MAREN, "Who brings the list of life jackets up to date before the twentieth?"),
                (INES, "I can do that with Douglas."),
                (DOUGLAS, "Yep."),
            ),
            (INES, DOUGLAS),
            date(2026, 10, 20),
            "list",
            id="two do it together",
        ),
        pytest.param(
            ((MAREN, "Then Ines puts the new times on the board today."), (INES, "Will do.")),
            (INES,),
            TUESDAY,
            "board",
            id="said of somebody who agrees",
        ),
        pytest.param(
            ((MAREN, "One more thing. Could everybody send me their hours by Friday?"), (INES, "Mm.")),
            (TOBIAS, INES, DOUGLAS),
            date(2026, 10, 9),
            "hours",
            id="asked of all",
        ),
        pytest.param(
            ((MAREN, "Good. And send Tobias the spare keys."), (INES, "And send Tobias the spare keys, yes.")),
            (INES,),
            None,
            "keys",
            id="an order that is said again",
        ),
        pytest.param(
            (
                (MAREN, "Could you draft something for the passengers? Half a page."),
                (INES, "I could. When by?"),
                (MAREN, "End of November?"),
                (INES, "I want it off my desk. End of the month."),
            ),
            (INES,),
            date(2026, 10, 31),
            "half a page",
            id="what and when come behind it",
        ),
        pytest.param(
            (
                (MAREN, "The regatta is on the twenty-fourth. We need a float for the till."),
                (MAREN, "Can you sort that yourself, Ines?"),
                (INES, "I'll go to the bank on the Thursday."),
            ),
            (INES,),
            date(2026, 10, 22),
            "bank",
            id="the day in the week that is spoken of",
        ),
        pytest.param(
            (
                (MAREN, "Nobody told the harbour office. Who's ringing them?"),
                (DOUGLAS, "Me. This afternoon, before they shut."),
            ),
            (DOUGLAS,),
            TUESDAY,
            "harbour office",
            id="me",
        ),
        pytest.param(
            ((MAREN, "I'd like the ramp painted and the rail fixed next week."), (INES, "Fine, next week.")),
            (INES,),
            date(2026, 10, 16),
            "rail",
            id="what one would like done",
        ),
        pytest.param(
            (
                (MAREN, "Ben can't. Tobias, you do the new form?"),
                (TOBIAS, "I do the new form. When does it have to go out?"),
                (MAREN, "By Friday."),
            ),
            (TOBIAS,),
            date(2026, 10, 9),
            "form",
            id="you do it",
        ),
        pytest.param(
            (
                (
                    MAREN,
                    "I was going to print the posters this week, but the price has to go on, so I'll print them now.",
                ),
                (INES, "When would they be up?"),
                (MAREN, "Say, the twelfth? That's next Monday."),
            ),
            (MAREN,),
            date(2026, 10, 12),
            "print",
            id="what was meant to be done and will be done otherwise",
        ),
        pytest.param(
            ((INES, "Let me ask the boarding school. I'd know by Friday."), (MAREN, "Good.")),
            (INES,),
            date(2026, 10, 9),
            "Ask the boarding school",
            id="let me",
        ),
        pytest.param(
            ((INES, "I'll be writing you a card each. Give me till Monday for that."), (MAREN, "Thanks.")),
            (INES,),
            date(2026, 10, 12),
            "Write you a card",
            id="a task that will be going on, and the time it needs",
        ),
        pytest.param(
            (
                (MAREN, "Would you go through the boxes before the assessor comes?"),
                (INES, "So I'd better do it tomorrow and Friday."),
            ),
            (INES,),
            date(2026, 10, 9),
            "tomorrow",
            id="two days: done by the later",
        ),
        pytest.param(
            ((MAREN, "I'll look at the valve on the first of every month."), (INES, "Good.")),
            (MAREN,),
            None,
            "valve",
            id="again and again",
        ),
    ],
)
def test_how_a_task_is_taken_on(rows: tuple[Row, ...], owner: tuple[str, ...], due: date | None, words: str) -> None:
    (line,) = of("action", *rows)
    assert (line.owner, line.due) == (owner, due)
    assert words in line.text


def test_a_task_names_whoever_it_is_for() -> None:
    (line,) = of(
        "action", (MAREN, "Who does the letter go to?"), (INES, "Mrs Frayne at the college. I'll mail you her address.")
    )
    assert line.text == "Mail [Maren] her address."
    (line,) = of(
        "action", (MAREN, "Ines, could you send me the numbers on them?"), (INES, "Sure, I'll photograph them.")
    )
    assert line.text.startswith("Send [Maren] the numbers")


def test_a_task_names_the_one_who_is_called_and_not_who_spoke_before() -> None:
    (line,) = of(
        "action", (MAREN, "The pier is open again."), (INES, "Tobias, I'll send you the new list of boats tonight.")
    )
    assert "[Tobias]" in line.text


def test_one_sentence_gives_each_of_two_people_a_task() -> None:
    lines = of(
        "action",
        (MAREN, "Tobias, raise the order for the ropes today and I'll approve it before lunch."),
        (TOBIAS, "Right."),
    )
    assert [line.owner for line in lines] == [(TOBIAS,), (MAREN,)]
    assert "approve" not in lines[0].text.lower()


def test_a_task_that_says_only_do_it_is_given_what_it_refers_to() -> None:
    (line,) = of(
        "action",
        (MAREN, "The registration form for the school trip swallows every apostrophe. Tobias, can you mend that?"),
        (TOBIAS, "I'll mend that by tomorrow night."),
    )
    assert line.owner == (TOBIAS,)
    assert line.due == date(2026, 10, 7)
    assert "apostrophe" in line.text


@pytest.mark.parametrize(
    "rows",
    [
        pytest.param(
            ((MAREN, "We've got no van."), (TOBIAS, "I could ask my brother."), (MAREN, "No need, leave it.")),
            id="waved away",
        ),
        pytest.param(
            ((INES, "The farmer wants somebody to fetch the goat every night."), (TOBIAS, "Every night?")),
            id="another's wish",
        ),
        pytest.param(
            ((INES, "Flour goes up by eleven per cent on Friday."), (MAREN, "I see.")), id="a price that rises"
        ),
        pytest.param(((INES, "They say three weeks, then it is here."), (MAREN, "Good.")), id="what others say"),
        pytest.param(((INES, "Let me ask you something."), (MAREN, "Yes.")), id="let me ask you"),
        pytest.param(((INES, "I can mostly see your elbow on this camera today."), (MAREN, "Sorry.")), id="no task"),
        pytest.param(
            ((TOBIAS, "I could do a Tuesday, I've got my bronze."), (MAREN, "Bless you, no.")),
            id="an offer that is refused",
        ),
        pytest.param(
            ((MAREN, "Vera goes on the twentieth, can you live with that?"), (INES, "I can live with that.")),
            id="consent",
        ),
        pytest.param(
            (
                (MAREN, "Next meeting. Two weeks today would be the twentieth."),
                (TOBIAS, "I'm draining pipes on the twentieth."),
                (MAREN, "The twenty-first, then."),
            ),
            id="why a day will not do",
        ),
        pytest.param(
            (
                (INES, "I met him at the chandler's and he swears he'll have it taken away by Christmas."),
                (MAREN, "Ha."),
            ),
            id="what another is said to have promised",
        ),
        pytest.param(
            ((MAREN, "Can everybody hear me?"), (INES, "Yes, loud and clear.")), id="asked of all, and no task"
        ),
        pytest.param(
            ((INES, "I'd propose that we paint the whole roof."), (TOBIAS, "I'll second that.")), id="a motion"
        ),
        pytest.param(
            ((TOBIAS, "And if the cheese is cut bigger?"), (INES, "Then it's wet and it goes off by Christmas.")),
            id="what would come of something",
        ),
        pytest.param(
            ((INES, "Call if you need me, I'll be in the next room."), (TOBIAS, "Thanks.")), id="being somewhere"
        ),
        pytest.param(
            (
                (INES, "Forget November I would soon pay for the lifts we repair the slipway in January instead."),
                (MAREN, "All right, January."),
            ),
            id="what is settled in words that ran together",
        ),
        pytest.param(((INES, "If you sign by the thirtieth I can take five per cent off."),), id="on a condition"),
    ],
)
def test_what_sounds_like_a_task_and_is_none(rows: tuple[Row, ...]) -> None:
    assert of("action", *rows) == []


def test_a_task_settles_nothing() -> None:
    rows = (
        (MAREN, "I suggest we drop the six forty from the first of November. Anybody against?"),
        (INES, "No, fine by me. Agreed, but somebody should tell the nurses personally."),
        (TOBIAS, "Fine."),
    )
    assert not any("nurses" in line.text for line in of("decision", *rows))


def test_thanks_are_no_order() -> None:
    lines = of(
        "action",
        (INES, "My daughter has her concert on Wednesday."),
        (MAREN, "Thank you Ines."),
        (INES, "By Friday then."),
    )
    assert not any("Thank" in line.text for line in lines)
    lines = of("action", (INES, "I'll swap with you on Wednesday, Douglas."), (DOUGLAS, "Don, thank you Ines."))
    assert not any("thank" in line.text for line in lines)


@pytest.mark.parametrize(
    ("rows", "due"),
    [
        ((INES, "I'll have the spare bin moved over this week."), date(2026, 10, 9)),
        ((INES, "I'll ring the insurer in the morning."), date(2026, 10, 7)),
        ((INES, "I'll have the trailer looked at in the last week of October."), date(2026, 10, 31)),
        ((INES, "I'll book all the hotels by mid November."), date(2026, 11, 15)),
        ((INES, "I'll write to the council a fortnight today."), date(2026, 10, 20)),
        ((INES, "I'll take the pictures over, so um, the Monday after. The nineteenth."), date(2026, 10, 19)),
        ((INES, "Saturday at ten. I'll fetch the fridge with the van."), date(2026, 10, 10)),
        ((INES, "They said to come back in March. I'll ask the tourist board again then."), date(2027, 3, 31)),
        ((INES, "I'll buy ten pairs of gloves at lunch tomorrow."), date(2026, 10, 7)),
        ((INES, "I'll give the supplier a ring. And I'm off Thursday and Friday, don't forget."), None),
        ((INES, "I'll book the coach. They hold it till the fifteenth."), date(2026, 10, 15)),
        ((INES, "I'll put it in the book on my way out."), TUESDAY),
        ((INES, "I'll take the boxes up now, it's only six."), TUESDAY),
        ((INES, "I'll clean the pump every evening from now on."), None),
        ((INES, "I'll look whether the hall is free when I'm home."), TUESDAY),
        ((INES, "I'll have all the forms back by Easter."), date(2027, 3, 28)),
        ((INES, "We talk on Wednesday evenings, I'll send you the answer on Thursday."), date(2026, 10, 8)),
    ],
)
def test_the_day_of_a_task(rows: Row, due: date | None) -> None:
    assert [line.due for line in of("action", rows)] == [due]


@pytest.mark.parametrize(
    ("rows", "words"),
    [
        pytest.param(
            ((MAREN, "From now on nobody goes up the mast alone, whoever it is."), (TOBIAS, "Fair enough.")),
            "mast",
            id="a rule for all",
        ),
        pytest.param(
            (
                (INES, "Under the blue light the grey on the deck looks like porridge. We could try a brown."),
                (TOBIAS, "Brown would kill the coats."),
                (MAREN, "Leave it grey and change the light."),
                (INES, "Okay, grey."),
            ),
            "Leave it grey",
            id="an order to nobody in particular",
        ),
        pytest.param(
            (
                (INES, "I'd put tags on the bicycles, and they go to the charity after a month."),
                (TOBIAS, "Then tags from the first of November, and they're taken away on the first of December."),
                (MAREN, "Everybody content? Good."),
            ),
            "tags",
            id="then",
        ),
        pytest.param(
            (
                (INES, "Do we lease the scanners, or new batteries for the old ones?"),
                (TOBIAS, "New batteries, the housings are fine."),
                (MAREN, "Batteries, then, and we talk about leasing when these fall apart."),
                (INES, "Okay by me."),
            ),
            "batteries",
            id="a thing, then",
        ),
        pytest.param(
            (
                (MAREN, "And a shed for the bicycles? We'd said we'd think about a new shed."),
                (TOBIAS, "With what money?"),
                (MAREN, "Fair. Not this year then."),
            ),
            "this year",
            id="not now",
        ),
        pytest.param(
            (
                (TOBIAS, "It depends on the wind on Sunday, the forecast isn't out."),
                (MAREN, "If it's over force five we stay in, otherwise we go."),
                (INES, "Makes sense."),
            ),
            "force five",
            id="one thing or else another",
        ),
        pytest.param(
            (
                (TOBIAS, "We could open in December or in January."),
                (INES, "I'd rather open in January, December's mad."),
                (MAREN, "January. That makes sense."),
            ),
            "January",
            id="what one would rather do",
        ),
    ],
)
def test_words_that_settle_a_subject(rows: tuple[Row, ...], words: str) -> None:
    (line,) = of("decision", *rows)
    assert words.lower() in line.text.lower()
    assert line.state == "settled"


def test_two_subjects_settled_one_behind_the_other_are_two_decisions() -> None:
    lines = of(
        "decision",
        (INES, "So, grey or white for the railings? Hands."),
        (TOBIAS, "Grey."),
        (DOUGLAS, "White. Put me down as the one against."),
        (MAREN, "Three to one, then, grey for the railings."),
        (INES, "Another thing. I'm on a train the whole of Tuesday, could we make it Wednesday at ten?"),
        (TOBIAS, "Wednesday's good."),
        (DOUGLAS, "Fine."),
    )
    assert len(lines) == 2
    assert "grey" in lines[0].text.lower()
    assert lines[1].text == "Make it Wednesday at 10."


def test_a_voice_that_speaks_of_somebody_is_another() -> None:
    heard = talk(
        ("Speaker 1", "Tobias, what did you bring?"),
        ("Speaker 2", "Ginger biscuits."),
        ("Speaker 3", "Lovely."),
        ("Speaker 1", "I can do the list with Maren."),
        ("Speaker 3", "Yep."),
    )
    names = sure_names(heard, (MAREN, TOBIAS, INES))
    assert names == {"Speaker 1": INES, "Speaker 2": TOBIAS, "Speaker 3": MAREN}


def test_when_to_meet_again_is_the_day_agreed_in_the_end() -> None:
    rows = [(MAREN, f"The jetty has {number} boards that are rotten.") for number in range(20, 44)]
    lines = of(
        "decision",
        *rows,
        (MAREN, "So, next meeting. Two weeks today would be the twentieth."),
        (TOBIAS, "I'm draining pipes on the twentieth."),
        (MAREN, "Twenty-first? Same time."),
        (TOBIAS, "That works."),
        (MAREN, "The twenty-first it is."),
    )
    assert lines[-1].text == "Next meeting: Wednesday 21 October, same time."
    assert max(each.turn for each in lines[-1].evidence) == len(rows) + 4


def test_a_complaint_is_no_rule_for_all() -> None:
    rows = ((INES, "What's the rule, actually?"), (TOBIAS, "It's in the handbook. Nobody reads the handbook."))
    assert not any("Nobody" in line.text for line in of("decision", *rows))


@pytest.mark.parametrize(
    ("said", "name"),
    [("Thanks, Mr Hale.", DOUGLAS), ("Captain Carvell, could you sign?", INES), ("Mrs Nobody was there.", None)],
)
def test_people_are_called_by_title_and_surname(said: str, name: str | None) -> None:
    assert Roster.of(PEOPLE, ()).addressee(said) == name


def test_a_title_is_no_first_name() -> None:
    roster = Roster.of(("Dr Simone Achebe", "Dr Lars Vikander"), ())
    assert [name for name, _ in roster.find("Simone and Lars")] == ["Dr Simone Achebe", "Dr Lars Vikander"]


def test_whoever_is_presented_is_the_next_new_voice() -> None:
    heard = talk(
        ("Speaker 1", "Good morning, Maren, good morning, Tobias. I'm Ines, and with me is Douglas."),
        ("Speaker 2", "Hello."),
        ("Speaker 3", "Maren, I run the front desk, and this is Mr Pryce."),
        ("Speaker 4", "Fire away."),
    )
    names = sure_names(heard, PEOPLE)
    assert names == {"Speaker 1": INES, "Speaker 2": DOUGLAS, "Speaker 3": MAREN, "Speaker 4": TOBIAS}


def test_what_somebody_needs_is_worded_as_the_task_that_is_taken_on() -> None:
    rows = (
        (DOUGLAS, "The harbour office needs the new times."),
        (TOBIAS, "I'll send them over tomorrow morning."),
        (MAREN, "Thanks."),
    )
    (line,) = of("action", *rows)
    assert line.text.startswith("Send them [the new times] over")


def test_what_one_can_only_do_settles_nothing() -> None:
    rows = ((INES, "We need two new ones, or we can only take 48 people instead of 50."), (TOBIAS, "Right."))
    assert of("decision", *rows) == []


def test_how_many_subjects_there_are_settles_none() -> None:
    assert not of("decision", (MAREN, "From me, two things. The new girl starts on Monday."), (INES, "Good."))


def test_who_can_not_on_that_day_has_taken_nothing() -> None:
    made = of(
        "action",
        (MAREN, "I've got Wednesday the eighteenth clear. Would you join us there?"),
        (TOBIAS, "Not on the eighteenth, sadly. I've got the builders at the new shop."),
    )
    assert not made


def test_a_remark_does_not_say_what_a_task_is_about() -> None:
    (action,) = of(
        "action",
        (MAREN, "The new form chokes on an apostrophe in a name."),
        (INES, "That's my whole family, then."),
        (MAREN, "Can you mend it, Tobias?"),
        (TOBIAS, "Yes, by tomorrow morning."),
    )
    assert action.text.startswith("Mend it [The new form chokes")


def test_what_happens_every_time_is_no_task_however_likely_it_seems() -> None:
    rows = (
        (TOBIAS, "I can ask the workshop whether they could do one day in July. I'll send you an answer by Monday."),
        (DOUGLAS, "Please do, that is really the main point for us."),
        (MAREN, "And it must work when the network is down. It goes down every time the wind is in the northwest."),
    )
    made = scene(talk(*rows), FACTS)
    found = find_actions(made, np.full(len(made.sentences), 0.3, np.float32))
    assert {line.owner for line in found} == {(TOBIAS,)}


def test_a_plain_no_to_a_question_is_no_decision_however_likely_it_seems() -> None:
    rows = (
        (TOBIAS, "So she can't come out at all?"),
        (DOUGLAS, "Not on our rail, no. Hired lifts are 750 pounds each, and we would need three before Christmas."),
    )
    made = scene(talk(*rows), FACTS)
    likely = np.array([0.9 * sentence.text.startswith("Not on") for sentence in made.sentences], np.float32)
    assert find_decisions(made, likely) == []


def test_who_is_to_swap_with_somebody_is_reported_with_whom() -> None:
    (action,) = of(
        "action",
        (INES, "What about the night watch on Wednesday?"),
        (TOBIAS, "My daughter has her concert on Wednesday. Could somebody swap the watch with me?"),
        (DOUGLAS, "I could do Wednesday."),
    )
    assert action.text.startswith("Swap the watch with [Tobias]")


def test_what_somebody_must_do_is_reported_with_what_it_is() -> None:
    actions = of(
        "action",
        (INES, "By the sixth. Who has the logbooks?"),
        (TOBIAS, "I have the heron's, the curlew's was on the chart table and now it isn't."),
        (DOUGLAS, "Don't look at me, I only read comics."),
        (INES, "Somebody needs to find it please. We can't show up without it."),
        (DOUGLAS, "Hm."),
        (
            INES,
            "It stays on the board without a name. What about the night watch? We said Tobias takes it on Wednesday.",
        ),
        (TOBIAS, "My daughter has her concert on Wednesday. Could somebody swap with me?"),
        (DOUGLAS, "I could do Wednesday if you take my Friday."),
    )
    find = next(line for line in actions if line.why == "nobody took it")
    assert find.text.startswith("Find it [") and ("logbooks" in find.text or "curlew" in find.text)
    assert find.owner == () and find.due is None
    assert any(line.text.startswith("Swap with [Tobias]") for line in actions)


def test_please_is_no_part_of_a_task() -> None:
    (asked,) = of("action", (INES, "Tobias, could you send me the list of boats please?"), (TOBIAS, "Sure, tomorrow."))
    assert asked.text == "Send [Ines] the list of boats."


def test_that_a_task_has_nobody_yet_is_no_decision_beside_it() -> None:
    rows = (
        (MAREN, "Who's going to get prices for the steel? We want at least two yards to quote."),
        (TOBIAS, "Not me, I'm on the boats all month."),
        (DOUGLAS, "Hm, let's see who has time."),
        (MAREN, "All right, we leave that open for now. Somebody has to ask two yards, though."),
    )
    assert [line.why for line in of("action", *rows)] == ["nobody took it"]
    assert of("decision", *rows) == []


def test_an_answer_with_its_question_is_not_repeated_as_key_point() -> None:
    rows = (
        (INES, "The annual inspection, when exactly is that?"),
        (TOBIAS, "The ninth of November at ten in the morning."),
        (INES, "The surveyor wants the logbooks of both boats three days earlier."),
    )
    (question,) = of("question", *rows)
    assert question.answer is not None and "of November" in question.answer.text
    assert not [line for line in of("key_point", *rows) if line.text.startswith("The annual inspection, when")]


@pytest.mark.parametrize(
    ("rows", "owner", "text"),
    [
        pytest.param(
            (
                (TOBIAS, "I could ask the makers what a new switch costs."),
                (DOUGLAS, "They'll want the earth."),
                (MAREN, "Ask them anyway."),
            ),
            (TOBIAS,),
            "Ask the makers what a new switch costs.",
            id="an offer that is told in its own words, behind a remark",
        ),
        pytest.param(
            (
                (TOBIAS, "The form for the harbour office has nineteen pages. I can do it by the end of the month."),
                (MAREN, "Would you, Tobias? Bless you."),
            ),
            (TOBIAS,),
            "Do it by the end of the month",
            id="welcomed by name",
        ),
        pytest.param(
            ((INES, "They've been told the old times. I'll have to tell the schools."),),
            (INES,),
            "Tell the schools.",
            id="what somebody will have to do",
        ),
        pytest.param(
            ((INES, "And I'll have the office go through the invoices of January. All of them."),),
            (INES,),
            "Have the office go through the invoices of January.",
            id="what somebody will have others do",
        ),
        pytest.param(
            ((MAREN, "There's only one copy of the log."), (INES, "Then I scan the log, first thing.")),
            (INES,),
            "Scan the log",
            id="taken on in the present",
        ),
        pytest.param(
            (
                (INES, "I've got the first half of the story."),
                (TOBIAS, "And I've got the other half."),
                (MAREN, "Could you send me your reports, both of you?"),
                (INES, "I'll send mine tonight."),
                (TOBIAS, "And mine by Friday."),
            ),
            (INES, TOBIAS),
            "Send",
            id="asked of both",
        ),
    ],
)
def test_more_ways_to_take_a_task(rows: tuple[Row, ...], owner: tuple[str, ...], text: str) -> None:
    found = of("action", *rows)
    assert any(line.text.startswith(text) and set(line.owner) == set(owner) for line in found), found


@pytest.mark.parametrize(
    "rows",
    [
        ((TOBIAS, "They'll tell me by the end of October whether the fund pays."),),
        ((INES, "I was in the middle of the count and I thought, I'll do it when it's done, and then I forgot."),),
        ((MAREN, "Somebody has got to be able to turn the pump on, of course."), (TOBIAS, "Of course.")),
        ((MAREN, "Can everybody do Mondays from now on?"), (TOBIAS, "Yes, I can do Mondays.")),
        ((MAREN, "And in the end, would you do it again?"), (TOBIAS, "Yes, I'd do the same again.")),
        ((MAREN, "Who tells them about the fish in the microwave?"), (INES, "I'll leave that for somebody braver.")),
        ((MAREN, "Hands, please, so that Tobias can count the votes."), (DOUGLAS, "Yes, four.")),
        (
            (MAREN, "Right, then I suggest we drop the early boat from the first of November. Anybody against?"),
            (TOBIAS, "No, fine."),
        ),
        (
            (INES, "The county wants an answer by the end of the month."),
            (MAREN, "Okay, by the end of the month."),
        ),
        ((TOBIAS, "We need a separate line for the pump."), (INES, "Yes, we do.")),
        ((INES, "Could you not just do the bad third of the floor?"), (TOBIAS, "I could. You'd see the line.")),
        ((TOBIAS, "They know my reports."), (MAREN, "That's exactly what I need."), (TOBIAS, "Good.")),
    ],
)
def test_nobody_takes_anything_on(rows: tuple[Row, ...]) -> None:
    assert of("action", *rows) == []


def test_one_more_task_behind_the_one_that_was_asked_for() -> None:
    rows = (
        (MAREN, "Tobias, could you say it to them, on Monday, in the round?"),
        (TOBIAS, "I will. And I'll say sorry to the printer, I owe her that."),
    )
    assert any(line.text == "Say sorry to the printer." for line in of("action", *rows))


def test_who_two_are_that_are_asked_together() -> None:
    rows = (
        (TOBIAS, "I've got a drill for the cement."),
        (INES, "You've got a toy."),
        (MAREN, "Could you two sort out the cement over lunch?"),
        (INES, "We'll try his toy."),
    )
    assert [set(line.owner) for line in of("action", *rows) if "cement" in line.text] == [{TOBIAS, INES}]


def test_what_everybody_is_to_make_is_a_task_of_all() -> None:
    (hours,) = of("action", (MAREN, "Could everybody make a list of their hours by Friday?"), (INES, "Sure."))
    assert set(hours.owner) == {TOBIAS, INES, DOUGLAS} and hours.text.startswith("Make a list of their hours")


def test_a_day_that_belongs_to_somebody_stays_in_the_task() -> None:
    (swap,) = of("action", (INES, "I'll do your morning if you'll do my Friday evening."), (TOBIAS, "Deal."))
    assert swap.text.endswith("Friday evening.")


def test_an_offer_that_became_a_task_is_no_decision_as_well() -> None:
    rows = (
        (MAREN, "A day each month is more than we can pay for."),
        (TOBIAS, "I see, I can ask the workshop whether they could do one day in July and August."),
        (MAREN, "Yes, please do, by Monday."),
    )
    assert [line.text for line in of("action", *rows)] == [
        "Ask the workshop whether they could do one day in July and August."
    ]
    assert of("decision", *rows) == []


def test_whoever_said_it_has_to_be_done_may_take_it() -> None:
    rows = (
        (MAREN, "Somebody has to write to the exam board, because of the rooms."),
        (INES, "Isn't that you?"),
        (MAREN, "It's me. I was hoping somebody would say it wasn't. I'll do it tomorrow."),
        (TOBIAS, "If it's dry by the start of November I could begin on the twentieth."),
    )
    (letter,) = (line for line in of("action", *rows) if "exam board" in line.text)
    assert letter.owner == (MAREN,) and letter.due == date(2026, 10, 7)


def test_an_offer_is_welcomed_with_then() -> None:
    rows = (
        (INES, "The society mixes the oil. I could ring the society, I know a girl who works there."),
        (MAREN, "Do you? Then ring them, by all means."),
    )
    assert any(line.owner == (INES,) and line.text.startswith("Ring the society") for line in of("action", *rows))


def test_a_ruling_stands_beside_the_task_that_follows_from_it() -> None:
    rows = (
        (INES, "Boat two's knocking again, above twelve hundred. What do we do until the yard has her?"),
        (TOBIAS, "Take boat one and keep boat two as the spare. Nothing over eleven hundred."),
        (INES, "That's what I'd do."),
        (MAREN, "So be it. Put it on the board so the night watch sees it."),
        (INES, "I'll write it in red."),
    )
    assert any("boat one" in line.text for line in of("decision", *rows))
    assert any("on the board" in line.text for line in of("action", *rows))
