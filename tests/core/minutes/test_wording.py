"""From what is said to what is written: nothing is lost, tasks are tasks, and nobody speaks of `I`."""

import pytest

from nuntius.core.language.en.numbers import in_digits
from nuntius.core.language.en.parse import sentences
from nuntius.core.minutes import tasks
from nuntius.core.minutes.quoting import attributed
from nuntius.core.minutes.wording import clean, faithful, resolution, ruled, third_person
from tests.help import talk


def test_cleaning_takes_fillers_and_false_starts_only() -> None:
    assert clean("So, um, the tides are, the tides are wrong in, er, November") == "The tides are wrong in November."
    assert clean("Well, no, we do not pay for forty-two panes, you know.") == "We do not pay for 42 panes."
    assert clean("All right, we leave that open.") == "We leave that open."
    assert clean("Hum, we leave that open.") == "We leave that open."


def test_a_changed_number_or_negation_is_not_faithful() -> None:
    assert faithful("The rail moved 14 mm.", "The rail moved fourteen mm")
    assert not faithful("The rail moved 40 mm.", "The rail moved fourteen mm")
    assert not faithful("We repair it.", "We don't repair it")


def test_first_person_becomes_the_name() -> None:
    assert third_person("I need 14 degrees at night.", "Tobias") == "Tobias needs 14 degrees at night."
    assert third_person("I think I said so and I meant it.", "Tobias") == "I think I said so and I meant it."


def test_a_task_keeps_nothing_of_a_day_that_is_given_in_two_ways() -> None:
    told = "Send round the agenda the week before, so on the fifth of June."
    assert tasks.undated(told, "the fifth of June") == "Send round the agenda."


@pytest.mark.parametrize(
    ("said", "written"),
    [
        ("No towel rails, then.", "No towel rails."),
        ("October it is, then [May is full].", "October it is [May is full]."),
        ("Please don't shower up there till Friday.", "Don't shower up there till Friday."),
        ("Leave it shut, please.", "Leave it shut."),
        ("Not before then.", "Not before then."),
        ("Oak, yes [Should I order the oak or the pine].", "Oak [Should I order the oak or the pine]."),
        ("First and third, good.", "First and third."),
        ("Four to one, then, grey-green.", "Four to one, then, grey-green."),
    ],
)
def test_a_decision_has_nothing_that_belongs_to_speech_alone(said: str, written: str) -> None:
    assert ruled(said) == written


@pytest.mark.parametrize(
    ("said", "written"),
    [
        ("I have to take that to the head.", "Tobias has to take that to the head."),
        ("I'm on the floor myself on Thursday.", "Tobias: I'm on the floor myself on Thursday."),
        ("If it isn't done by March I print the rest.", "Tobias: If it isn't done by March I print the rest."),
        ("We print the rest.", "We print the rest."),
    ],
)
def test_what_does_not_go_in_the_third_person_is_quoted(said: str, written: str) -> None:
    assert attributed(said, "Tobias") == written


@pytest.mark.parametrize(
    ("said", "written"),
    [
        ("Seven thousand nine, with the roof.", "Seven thousand nine, with the roof."),  # 7900 to many
        ("Seven thousand and nine bolts.", "7009 bolts."),
        ("Two metres forty, flat bottom.", "2.40 metres, flat bottom."),
        ("The till's three euros twenty over.", "The till's 3.20 euros over."),
        ("They're nine to twelve years old.", "They're 9 to 12 years old."),
        ("It takes one or twelve.", "It takes one or 12."),
        ("Six of the ten checks, seven out of ten.", "6 of the 10 checks, 7 out of 10."),
        ("Six hundred and forty-two pounds thirty.", "642.30 pounds."),
        ("A hundred pounds fifty.", "100.50 pounds."),
        ("It's a hundred and four point five.", "It's 104.5."),
        ("A hundred and forty thousand, two hundred and six pounds.", "140,206 pounds."),
        ("From nineteen seventy-four to eighty-one.", "From 1974 to 81."),
        ("It was nineteen or twenty.", "It was 19 or 20."),
        ("Nineteen fifty a head.", "Nineteen fifty a head."),
        ("In twenty twenty-six.", "In 2026."),
    ],
)
def test_a_number_is_written_as_it_was_meant(said: str, written: str) -> None:
    assert in_digits(said) == written


@pytest.mark.parametrize(
    ("said", "written"),
    [
        ("I move that it is repaired, and that we borrow the rest.", "It is repaired, and we borrow the rest."),
        ("What about eight new ones?", "Eight new ones."),
        ("So we leave it another fortnight?", "We leave it another fortnight."),
        ("We were late again?", ""),
        ("Every fortnight, I think, not every month.", "Every fortnight, not every month."),
        ("I suggest we drop the 6.40 and keep the 7.10, anybody against?", "Drop the 6.40 and keep the 7.10."),
        ("forget November we repair the slipway in January instead", "We repair the slipway in January instead."),
        ("Let's not wait for the county.", "Do not wait for the county."),
        ("Shall we fill it this week?", "Fill it this week."),
        ("Can we agree nobody answers messages after seven?", "Nobody answers messages after seven."),
        ("We won't be taking on any new students, I'm afraid.", "We won't be taking on any new students."),
        ("How about Wednesday at ten?", "Wednesday at 10."),
        ("What about the night watch?", ""),
        ("Which one is it?", ""),
        ("How about we take the old gate off and hang the new one?", "Take the old gate off and hang the new one."),
        ("How about this: they pay half now and half in May.", "They pay half now and half in May."),
        ("What I'd suggest is we mend the pipe first.", "Mend the pipe first."),
        ("What I'm hearing, and stop me if I'm wrong, is mend it now.", "Mend it now."),
        ("What we'd like is, if it isn't dry by May, the rent stops.", "If it isn't dry by May, the rent stops."),
        ("Proposal: a concert in the shed, with a hat.", "A concert in the shed, with a hat."),
    ],
)
def test_a_decision_is_written_without_the_words_that_proposed_it(said: str, written: str) -> None:
    assert resolution(said) == written


@pytest.mark.parametrize(
    ("said", "written"),
    [
        ("No cars on the grass.", "No cars on the grass."),
        ("So no juniors on it without somebody at the bottom.", "No juniors on it without somebody at the bottom."),
        ("No, we don't do that.", "We don't do that."),
        ("I'll let you know with the quote.", "I'll let you know with the quote."),
        ("It's, you know, a boat.", "It's a boat."),
        ("So do I.", "So do I."),
        ("Which evening was the best?", "Which evening was the best?"),
        ("What's sort of?", "What's sort of?"),
        (". Um, is it minus?", "Is it minus?"),
        ("-5 degrees at night.", "-5 degrees at night."),
        ("Take it off forty, forty's in for paint.", "Take it off 40, 40's in for paint."),
    ],
)
def test_no_negation_and_no_verb_is_lost(said: str, written: str) -> None:
    assert clean(said) == written


@pytest.mark.parametrize(
    ("task", "written"),
    [
        ("Get old Pratt, he owes me a marrow.", "Get old Pratt."),
        ("Do a new quote, you'll have it on Thursday.", "Do a new quote."),
        ("Ring them, the yard and the shop.", "Ring them, the yard and the shop."),
        ("Go, it's late.", "Go, it's late."),
        ("Do the tags, this time without string.", "Do the tags, this time without string."),
    ],
)
def test_what_is_explained_behind_a_task_is_left_out(task: str, written: str) -> None:
    assert tasks.without_aside(task) == written


@pytest.mark.parametrize(
    ("task", "said", "written"),
    [
        ("Look in the rules and tell Maren on Thursday.", "Thursday", "Look in the rules and tell Maren."),
        ("Do it tomorrow.", "tomorrow", "Do it tomorrow."),
        ("Write the report this afternoon.", "this afternoon", "Write the report this afternoon."),
        ("Put it in on Thursday with the rest.", "Thursday", "Put it in on Thursday with the rest."),
        ("Write to the hirers by the end of the month.", "end of the month", "Write to the hirers."),
        ("Do the Thursday and the Friday.", "the Friday", "Do the Thursday and the Friday."),
        ("Do a cold soup at night, all this week.", "this week", "Do a cold soup at night."),
        ("Put it on the door, from the first of May.", "first of May", "Put it on the door, from the first of May."),
        ("Put the order in this week.", "this week", "Put the order in."),
        ("Sign the cash sheet before you go in.", "tomorrow", "Sign the cash sheet before you go in."),
    ],
)
def test_the_day_at_the_end_of_a_task_stands_beside_it(task: str, said: str, written: str) -> None:
    assert tasks.undated(task, said) == written


def test_a_condition_stays_with_its_task() -> None:
    sentence = "If it's time and a half I'll stay as well."
    assert tasks.under_condition("Stay as well.", sentence) == "Stay as well, if it's time and a half."


@pytest.mark.parametrize(
    ("task", "said", "owner", "written"),
    [
        ("Order them, Ines.", "Order them, Ines.", "Ines Carvell", "Order them."),
        (
            "Ring him, Ines, and if he's out it's ours.",
            "Ring him, Ines, and if he's out it's ours.",
            "Ines Carvell",
            "Ring him.",
        ),
        ("Book the coach, then.", "I'll book the coach, then.", "Tobias Pryce", "Book the coach."),
        ("Have it ready by then.", "I'll have it ready by then.", "Tobias Pryce", "Have it ready by then."),
        (
            "Ines is writing to him this afternoon.",
            "Ines is writing to him this afternoon.",
            "Ines Carvell",
            "Write to him this afternoon.",
        ),
        ("Ines sees their chairman.", "Ines sees their chairman.", "Ines Carvell", "See their chairman."),
        ("I'm sending the lot off.", "I'm sending the lot off.", "Tobias Pryce", "Send the lot off."),
        ("Tobias needs the list.", "Tobias needs the list.", "Tobias Pryce", "Tobias needs the list."),
        ("Please the chairwoman.", "I'll please the chairwoman.", "Tobias Pryce", "Please the chairwoman."),
        (
            "Look at it and then I'll phone her.",
            "I'll look at it and then I'll phone her.",
            "Tobias Pryce",
            "Look at it and then phone her.",
        ),
    ],
)
def test_a_task_is_written_in_the_infinitive(task: str, said: str, owner: str, written: str) -> None:
    transcript = talk(("Tobias Pryce", said))
    (sentence,) = sentences(transcript, tuple(turn.text for turn in transcript.turns))
    assert tasks.finished(task, sentence, (owner,), {"ines", "tobias"}) == written


def test_a_word_is_not_cut_for_ending_like_an_assent() -> None:
    transcript = talk(("Tobias Pryce", "I'll ask him whether he'd come and look."))
    (sentence,) = sentences(transcript, tuple(turn.text for turn in transcript.turns))
    assert tasks.task(sentence, requested=False) == "Ask him whether he'd come and look."


def test_what_somebody_will_have_is_for_the_speaker_to_bring() -> None:
    transcript = talk(("Tobias Pryce", "You'll have both offers from me on Friday."))
    (sentence,) = sentences(transcript, tuple(turn.text for turn in transcript.turns))
    assert tasks.task(sentence, requested=False) == "Let you have both offers on Friday."


@pytest.mark.parametrize(
    ("said", "written"),
    [
        (
            "I'm taking the loan papers in on Wednesday, and they'll want your final figures.",
            "Take the loan papers in on Wednesday, and they'll want your final figures.",
        ),
        ("The steam goes out through the roof, and I owe you a drawing of it.", "Give you a drawing of it."),
        ("You'll all get a running order from me next week.", "Let everybody have a running order next week."),
    ],
)
def test_what_is_done_or_owed_is_the_task_and_not_what_others_want(said: str, written: str) -> None:
    transcript = talk(("Tobias Pryce", said))
    (sentence,) = sentences(transcript, (said,))
    assert tasks.task(sentence, requested=False) == written
