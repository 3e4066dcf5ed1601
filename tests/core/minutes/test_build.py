"""Minutes from talk: what must be in them, what must not, and the proof of each line."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from nuntius.core.errors import TranscriptEmpty
from nuntius.core.formats.json_ import minutes_json
from nuntius.core.inquiry.inquire import inquire, turns_within
from nuntius.core.language import vectors
from nuntius.core.language.cache import Kept
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import Answer, Coverage, Length, Line, LineKind, MeetingFacts, Minutes, Passage
from nuntius.core.minutes.needs import find_needs
from nuntius.core.minutes.scene import scene
from nuntius.core.minutes.settling import told_next
from nuntius.core.minutes.wording import clean
from nuntius.core.naming import CALLED, name_votes, sure_names
from nuntius.core.templates.shipped import shipped
from nuntius.core.transcript.transcript import Transcript
from tests.help import talk

TUESDAY = date(2026, 10, 6)
PEOPLE = ("Maren Tull", "Tobias Pryce", "Ines Carvell", "Douglas Hale")
MAREN, TOBIAS, INES, DOUGLAS = PEOPLE


def made(*rows: tuple[str, str]) -> tuple[Transcript, Minutes]:
    transcript = talk(*rows)
    return transcript, make_minutes(transcript, MeetingFacts(TUESDAY, PEOPLE))


def of(kind: str, *rows: tuple[str, str]) -> list[Line]:
    return [line for line in made(*rows)[1].lines if line.kind == kind]


def test_a_request_that_is_taken_belongs_to_whoever_takes_it() -> None:
    (line,) = of(
        "action",
        (MAREN, "Tobias, could you send the harbour office the new times?"),
        (TOBIAS, "Sure. They'll have them tomorrow morning."),
    )
    assert line.owner == (TOBIAS,)
    assert line.due == date(2026, 10, 7)
    assert line.text == "Send the harbour office the new times."
    assert line.turns >= {0, 1}


def test_a_commitment_with_its_date_as_said() -> None:
    (line,) = of("action", (INES, "The nurses should hear it from us. I'll ring both of the nurses by Friday."))
    assert (line.owner, line.due, line.due_said) == ((INES,), date(2026, 10, 9), "Friday")
    assert line.text.startswith("Ring both of the nurses")


def test_what_nobody_takes_is_shown_as_nobodys() -> None:
    lines = of(
        "action",
        (MAREN, "Somebody has to ask two yards for a price."),
        (TOBIAS, "Not me, I am on the boats."),
        (DOUGLAS, "Hmm."),
    )
    assert [(line.owner, line.due) for line in lines] == [((), None)]


@pytest.mark.parametrize(
    "said",
    [
        "If I were younger I'd swim across.",
        "I was going to paint the fence.",
        "I'll be honest, I love that boat.",
        "I think it's lovely.",
        "I sent the letter yesterday.",
        "See you next Tuesday.",
    ],
)
def test_no_action_from_what_is_none(said: str) -> None:
    assert of("action", (DOUGLAS, said), (MAREN, "Right.")) == []


def test_a_refused_request_is_no_action() -> None:
    assert (
        of("action", (MAREN, "Douglas, could you come to the yard on Thursday?"), (DOUGLAS, "No, I can't, I'm at sea."))
        == []
    )


def test_an_offer_that_is_waved_away_is_no_action() -> None:
    assert (
        of("action", (TOBIAS, "I'll ring the hire firm about the lamps."), (MAREN, "No, leave it, it'll keep.")) == []
    )


def test_a_proposal_with_assent_is_a_decision_and_rests_on_both() -> None:
    lines = of(
        "decision",
        (MAREN, "I suggest we drop the early boat from November and keep the late one. Anybody against?"),
        (TOBIAS, "No. Fine by me."),
        (INES, "Agreed."),
    )
    assert len(lines) == 1
    assert lines[0].turns >= {0, 1}
    assert lines[0].state == "settled"


def test_questions_with_answers_and_those_left_open() -> None:
    lines = of(
        "question",
        (MAREN, "How heavy is the ferry with full tanks?"),
        (DOUGLAS, "Eleven tonnes."),
        (MAREN, "And who may sign the school contract?"),
        (TOBIAS, "I have no idea."),
    )
    assert [line.state for line in lines] == ["settled", "open"]
    assert lines[0].answer is not None
    assert "11 tonnes" in lines[0].answer.text
    assert lines[1].answer is None


def test_every_line_rests_on_words_of_the_record() -> None:
    transcript, minutes = made(
        (MAREN, "Three things today: timetable, slipway, school."),
        (INES, "The early boat carried four people on average. The late one carried thirty-one."),
        (MAREN, "Then let's drop the early boat."),
        (TOBIAS, "Agreed."),
        (
            DOUGLAS,
            "The lower rail has moved fourteen millimetres since spring, so I would not haul anything over nine tonnes.",
        ),
    )
    shown = minutes_json(transcript, minutes)
    assert shown["lines"]
    for line in shown["lines"]:
        assert line["evidence"]
        for passage in line["evidence"]:
            turn = transcript.turns[int(passage["cue"]) - 1]
            assert passage["quote"] in turn.text
            assert turn.start - 0.001 <= passage["start"] < passage["end"] <= turn.end + 0.001
    assert 0 < shown["coverage"]["share"] <= 1
    assert minutes.chapters[0].first == 0
    assert minutes.chapters[-1].last == len(transcript.turns) - 1


def test_the_same_talk_gives_the_same_minutes_whatever_was_read_before(monkeypatch: pytest.MonkeyPatch) -> None:
    rows = [
        (MAREN, "Tobias, could you order five lamps?"),
        (TOBIAS, "Yes, by Friday."),
        (INES, "The pier needs light."),
        (MAREN, "And the ramp stays shut until the new rails are in, agreed?"),
        (INES, "Agreed."),
    ]

    def last_of(*talks: list[tuple[str, str]]) -> tuple[Transcript, Minutes]:
        scene.cache_clear()
        monkeypatch.setattr(vectors, "_kept", Kept(vectors.KEPT))
        return [made(*each) for each in talks][-1]

    assert last_of(rows) == last_of([(DOUGLAS, "Who has the keys of the boat shed?"), *rows[1:4]], rows)


def test_an_empty_transcript_has_no_minutes() -> None:
    with pytest.raises(TranscriptEmpty):
        make_minutes(Transcript((), 0.0), MeetingFacts(TUESDAY))


def test_short_minutes_leave_out_no_decision_and_no_task_and_little_else_stays() -> None:
    things = ("slipway", "timetable", "engine", "café", "ticket office", "winter boat", "lamp", "quay", "insurance")
    told = [
        row
        for number, thing in enumerate(things, 3)
        for row in (
            (TOBIAS, f"The {thing} cost us {number} thousand pounds more than last year, mostly because of the rails."),
            (MAREN, f"How long does the {thing} still last?"),
            (INES, f"Until the {number}th of November, and then the {thing} needs a new part from the yard."),
        )
    ]
    transcript = talk(*told, (MAREN, "Tobias, could you ask two yards?"), (TOBIAS, "Sure, I'll ask them by Friday."))
    short, standard = (
        make_minutes(transcript, MeetingFacts(TUESDAY, PEOPLE), each) for each in (Length.SHORT, Length.STANDARD)
    )
    assert len(short.lines) == 12 < len(standard.lines)
    promised = [line.text for line in standard.lines if line.kind in ("action", "decision")]
    assert promised and promised == [line.text for line in short.lines if line.kind in ("action", "decision")]
    detailed = make_minutes(transcript, MeetingFacts(TUESDAY, PEOPLE), Length.SHORT, detailed=frozenset({0}))
    first = [sum(line.chapter == 0 for line in each.lines) for each in (short, detailed)]
    assert first[1] > first[0], "a chapter that is wanted in more detail was cut"


def test_shorter_minutes_say_less() -> None:
    things = "ropes lamps sails paint engines fenders anchors radios pumps seats doors windows".split()
    rows = [
        (MAREN, f"The {thing} cost {n * 70} pounds and must come before the {n}th.")
        for n, thing in enumerate(things, 11)
    ]
    transcript = talk(*rows)
    sizes = [len(make_minutes(transcript, MeetingFacts(TUESDAY), length).lines) for length in Length]
    assert sizes == sorted(sizes)
    assert sizes[0] < sizes[2]


def test_names_of_voices_come_from_how_people_speak_to_each_other() -> None:
    transcript = talk(
        ("Speaker 1", "Tobias, how is the Heron?"),
        ("Speaker 2", "She runs clean."),
        ("Speaker 1", "Thank you, Tobias."),
        ("Speaker 1", "Ines, what about the crew?"),
        ("Speaker 3", "Two are ill."),
        ("Speaker 1", "Ines, can you find others?"),
        ("Speaker 3", "Yes."),
    )
    assert name_votes(transcript, PEOPLE)["Speaker 2"][TOBIAS] == 2 * CALLED
    assert sure_names(transcript, PEOPLE) == {"Speaker 2": TOBIAS, "Speaker 3": INES}


class TestInquiry:
    ROWS = (
        (MAREN, "The winter timetable begins on the first of November."),
        (DOUGLAS, "The lower rail of the slipway has moved fourteen millimetres since spring."),
        (MAREN, "How much are the hired lifts?"),
        (DOUGLAS, "Seven hundred and fifty pounds each."),
        (INES, "The bakery sends two hundred buns."),
    )

    def test_an_answer_comes_with_its_passages(self) -> None:
        reply = inquire(talk(*self.ROWS), MeetingFacts(TUESDAY, PEOPLE), "What do the hired lifts cost?")
        assert reply.found
        assert "750" in reply.text
        assert 3 in {p.turn for p in reply.evidence}

    def test_one_turn_of_a_short_talk_is_enough(self) -> None:
        said = talk(
            (MAREN, "Three things today. The winter timetable, the slipway and the school contract."),
            (TOBIAS, "Morning, I brought biscuits."),
            (MAREN, "Thank you, so the timetable, what do the numbers say?"),
            (INES, "Well, the 640 boat carried four people on average in September."),
            (TOBIAS, "Are those four the same every day?"),
            (INES, "Mostly, two nurses and two from the bakery. I asked them."),
            (MAREN, "Lovely, next the slipway."),
            (TOBIAS, "The lower rail has moved 14 millimetres since spring."),
            (INES, "How heavy is the heron?"),
            (TOBIAS, "Eleven tons with the tanks full."),
        )
        reply = inquire(said, MeetingFacts(TUESDAY, PEOPLE), "How many people did the early boat carry?")
        assert reply.found
        assert "four people" in reply.text

    def test_what_the_record_does_not_hold_is_said_so(self) -> None:
        reply = inquire(talk(*self.ROWS), MeetingFacts(TUESDAY, PEOPLE), "Which insurer covers the lighthouse museum?")
        assert not reply.found
        assert reply.evidence == ()
        assert reply.nearest  # what to look at instead

    def test_a_question_is_answered_though_none_of_its_words_was_said(self) -> None:
        reply = inquire(talk(*self.ROWS), MeetingFacts(TUESDAY, PEOPLE), "What quantity of bread rolls gets delivered?")
        assert reply.found
        assert "200 buns" in reply.text

    def test_a_question_can_be_put_to_one_voice_alone(self) -> None:
        spoken = talk(*self.ROWS)
        within = turns_within(spoken, MAREN)
        assert within == {0, 2}
        reply = inquire(spoken, MeetingFacts(TUESDAY, PEOPLE), "What do the hired lifts cost?", within)
        assert {p.turn for p in (*reply.evidence, *reply.nearest)} <= within

    def test_an_answer_by_one_voice_rests_on_nothing_that_another_said(self) -> None:
        spoken = talk(*self.ROWS)
        within = turns_within(spoken, DOUGLAS)
        reply = inquire(spoken, MeetingFacts(TUESDAY, PEOPLE), "What do the hired lifts cost?", within)
        assert reply.found
        assert {p.turn for p in reply.evidence} <= {1, 3}
        assert "750" in reply.text

    def test_a_question_can_be_put_to_a_stretch_of_time(self) -> None:
        spoken = talk(*self.ROWS)
        begin, end = spoken.turns[3].start, spoken.turns[3].end
        assert turns_within(spoken, start=begin, end=end) == {3}
        assert turns_within(spoken) is None


def test_a_task_for_somebody_else_is_written_as_a_task() -> None:
    (line,) = of("action", (MAREN, "Somebody else has to do the afternoon."), (TOBIAS, "Not me, I'm on the boats."))
    assert (line.text, line.owner) == ("Do the afternoon.", ())


def test_an_order_by_name_belongs_to_whoever_takes_it() -> None:
    (line,) = of("action", (MAREN, "Tobias, get a sketch to the yard this afternoon."), (TOBIAS, "Will do."))
    assert (line.text, line.owner) == ("Get a sketch to the yard this afternoon.", (TOBIAS,))


def test_a_request_agreed_to_in_the_same_turn_belongs_to_the_one_who_was_asked() -> None:
    lines = of("action", (MAREN, "Tobias, would you draw up a crew list for the school run? Yes, I can. Thank you."))
    assert [(line.text, line.owner) for line in lines] == [("Draw up a crew list for the school run.", (TOBIAS,))]


def test_what_was_done_while_the_meeting_ran_is_no_longer_open() -> None:
    (line,) = of(
        "action",
        (MAREN, "I'll text the harbour office about it now."),
        (TOBIAS, "Good."),
        (TOBIAS, "What about the crew rota for December?"),
        (MAREN, "Oh, she's come back to me, the slot is ours."),
    )
    assert (line.state, line.why) == ("superseded", "done in the meeting")


def test_what_moves_the_meeting_itself_on_is_no_action() -> None:
    assert not of("action", (MAREN, "I'll open the meeting, then I'll put it to the vote."), (TOBIAS, "Fine."))


def test_the_last_voice_left_is_the_last_person_left() -> None:
    transcript = talk(
        ("Speaker 1", "Tobias, is the boat back?"),
        ("Speaker 2", "It is."),
        ("Speaker 1", "Ines, the rota?"),
        ("Speaker 3", "Nearly done."),
    )
    assert sure_names(transcript, (MAREN, TOBIAS, INES)) == {
        "Speaker 1": MAREN,
        "Speaker 2": TOBIAS,
        "Speaker 3": INES,
    }


def test_an_answer_given_much_later_is_found() -> None:
    filler = [
        (f"{'Maren Ines'.split()[n % 2]}", f"Then there is the matter of the {word}, which can wait.")
        for n, word in enumerate("paint rope bell flag door lamp sign desk".split())
    ]
    late = talk(
        ("Maren", "How many passengers did the early boat carry in September?"),
        ("Ines", "I don't know, I'd have to look."),
        *filler,
        ("Ines", "I have looked: the early boat carried four hundred passengers in September."),
        ("Maren", "Thank you."),
    )
    made = make_minutes(late, MeetingFacts(TUESDAY, ("Maren Tull", "Ines Carvell")))
    (question,) = [line for line in made.lines if line.kind == "question"]
    assert question.state == "settled"
    assert question.answer is not None and "400" in question.answer.text


class TestNamesInRecognisedTalk:
    """Names as a recogniser writes them: misheard, and without the commas of address."""

    def named(self, *rows: tuple[str, str]) -> dict[str, str]:
        return sure_names(talk(*rows), PEOPLE)

    def test_a_misheard_name_is_still_an_address(self) -> None:
        found = self.named(
            ("Voice A", "Toby's not here. Inez, what do the numbers say?"),
            ("Voice B", "Four people on average."),
            ("Voice C", "Thanks, Inez."),
        )
        assert found == {"Voice B": INES}

    def test_an_address_without_a_comma_is_found(self) -> None:
        found = self.named(("Voice A", "Douglas you look tired."), ("Voice B", "I am, the engine kept me up."))
        assert found["Voice B"] == DOUGLAS

    def test_who_says_the_own_name_is_that_person(self) -> None:
        found = self.named(
            ("Voice A", "Good morning, this is Tobias."), ("Voice B", "Hello, Maren here."), ("Voice C", "Morning.")
        )
        assert (found["Voice A"], found["Voice B"]) == (TOBIAS, MAREN)

    def test_other_words_are_no_names(self) -> None:
        assert self.named(("Voice A", "Marine paint is dear. This is Tobermory paint."), ("Voice B", "It is.")) == {}


def test_a_task_asked_for_by_who_is_in_the_infinitive() -> None:
    _, minutes = made(("Maren", "So, the grant. Douglas, who fills in the form?"), ("Douglas", "I will, by Friday."))
    (action,) = [line for line in minutes.lines if line.kind == "action"]
    assert action.text == "Fill in the form."


class TestJoiningIn:
    """Tasks that a second voice takes a part in, and words that are no task."""

    def actions(self, *rows: tuple[str, str]) -> list[tuple[str, tuple[str, ...]]]:
        made = make_minutes(
            talk(*rows), MeetingFacts(date(2026, 10, 6), ("Maren Tull", "Tobias Pryce", "Ines Carvell"))
        )
        return [(line.text, line.owner) for line in made.lines if line.kind == "action"]

    def test_who_joins_in_owns_the_task_too(self) -> None:
        made = self.actions(
            ("Tobias Pryce", "I'll measure the rails of the slipway on Saturday at ten."),
            ("Ines Carvell", "I'll go with him."),
        )
        assert [owner for text, owner in made if "rails" in text] == [("Tobias Pryce", "Ines Carvell")]
        assert not any(text.startswith("Go with") for text, _ in made)

    def test_who_asks_or_refuses_does_not(self) -> None:
        made = self.actions(
            ("Tobias Pryce", "I'll measure the rails of the slipway on Saturday at ten."),
            ("Ines Carvell", "Can I come with you?"),
            ("Maren Tull", "No, I can't help you, sorry."),
        )
        assert [owner for text, owner in made if "rails" in text] == [("Tobias Pryce",)]


@pytest.mark.parametrize(
    "asked", ["Would Tuesday morning suit you?", "Are we complete?", "Was there anything else on this?", "Shall we talk in a fortnight?"]
)  # fmt: skip
def test_questions_by_which_a_meeting_is_run_are_left_out(asked: str) -> None:
    made = make_minutes(
        talk(
            ("Maren Tull", f"The hired lifts cost 750 pounds each. {asked}"),
            ("Tobias Pryce", "Yes, that is fine."),
            ("Ines Carvell", "Who pays for the lifts, the yard or the harbour office?"),
            ("Maren Tull", "The harbour office pays for the lifts."),
        ),
        MeetingFacts(date(2026, 10, 6)),
    )
    assert asked not in [line.text for line in made.lines if line.kind == "question"]


def test_what_is_read_with_a_question_goes_before_what_only_sounds_like_it(monkeypatch: pytest.MonkeyPatch) -> None:
    said = talk(
        (MAREN, "How many boats did the yard lift last year?"),
        (TOBIAS, "The yard lifts many boats in a year, all of them on the old crane."),
        (MAREN, "The weather was bad for lifting."),
        (TOBIAS, "Forty-one, by the book."),
        *((MAREN, f"Jetty {number} has to be painted.") for number in range(2, 9)),
    )
    facts = MeetingFacts(date(2026, 10, 6))
    read = np.full(len(scene(said, facts).sentences), -6.0, np.float32)
    read[3] = 6.0  # each turn is one sentence
    monkeypatch.setattr("nuntius.core.inquiry.inquire.answering", lambda talk, question, turns: read)
    reply = inquire(said, facts, "How many boats did the yard lift?")
    assert reply.found
    assert 3 in {passage.turn for passage in reply.evidence}
    assert "41" in reply.text


def test_what_an_answer_says_stands_once() -> None:
    proof = (Passage(0, 0, 3),)
    told = Line(
        LineKind.QUESTION, "How long?", proof, answer=Answer("Ten minutes, and then it's a sponge.", proof), place=3
    )
    again = Line(LineKind.KEY_POINT, "Ten minutes, and then it's a sponge.", proof, place=3)
    asked = replace(again, text="How long? Ten minutes, and then it's a sponge.")
    other, elsewhere = replace(again, text="Chicken waits."), replace(again, place=1)
    minutes = Minutes((told, again, asked, other, elsewhere), (), Coverage(1.0, ()))
    assert minutes.shown == (told, other, elsewhere)
    assert len(minutes.lines) == 5


def test_a_task_says_what_it_refers_to() -> None:
    line = of(
        "action",
        (INES, "My predecessor had the drawing of the badge."),
        (INES, "I'll ask him on Friday."),
        (MAREN, "Good."),
    )[0]
    assert line.text.startswith("Ask him")
    assert "[My predecessor had the drawing of the badge]" in line.text
    assert {passage.turn for passage in line.evidence} >= {0, 1}


def test_whom_a_task_speaks_of_is_a_person_that_was_named() -> None:
    line = of(
        "action",
        (MAREN, "Mrs Achterberg would know where the old chart is."),
        (TOBIAS, "Somewhere under the stairs, next to the flags."),
        (INES, "I'll ask her on Friday."),
        (MAREN, "Good."),
    )[0]
    assert "[Mrs Achterberg would know where the old chart is]" in line.text


def test_a_bare_answer_stands_with_its_question_where_no_section_takes_questions() -> None:
    rows = (
        (MAREN, "Morning, all of you. Is that the rain again?"),
        (INES, "It is."),
        (MAREN, "What did the yard's repair come to?"),
        (TOBIAS, "Fourteen thousand pounds for both rails."),
        (INES, "Oh."),
    )
    general = shipped("general meeting")
    sections = tuple(
        replace(section, kinds=kinds)
        for section in general.sections
        if (kinds := tuple(kind for kind in section.kinds if kind != "question"))
    )
    minutes = make_minutes(
        talk(*rows), MeetingFacts(TUESDAY, PEOPLE), Length.STANDARD, replace(general, sections=sections)
    )
    told = next(line for line in minutes.lines if "14,000" in line.text)
    assert told.text == "What did the yard's repair come to? 14,000 pounds for both rails."
    assert told.turns == {2, 3}


def test_what_an_action_says_is_no_key_point_as_well() -> None:
    _, minutes = made(
        (MAREN, "The slipway rails have moved fourteen millimetres since spring."),
        (TOBIAS, "I'll put a notice about the rails on the board by Friday."),
        (INES, "The winter boats need those rails before December."),
    )
    held = {p for line in minutes.lines if line.kind == "action" for p in line.evidence}
    assert held and not any(held & set(line.evidence) for line in minutes.lines if line.kind == "key_point")


def test_who_accepts_a_proposal_settles_what_was_proposed() -> None:
    lines = of(
        "decision",
        (TOBIAS, "What about eight new boats, and the yard takes the six old ones?"),
        (MAREN, "That's lovely, and it's two thousand six hundred. I can do that."),
        (TOBIAS, "Then we'll do that."),
        (INES, "Good."),
    )
    assert any(line.text.startswith("Eight new boats") for line in lines)


def test_a_vote_names_who_was_against() -> None:
    lines = of(
        "decision",
        (MAREN, "I propose that we have the camera, up to two hundred and fifty pounds. Seconder?"),
        (INES, "Me."),
        (MAREN, "In favour? Five. Against? Tobias. Carried."),
        (DOUGLAS, "I'll book him for next week."),
    )
    told = "Have the camera, up to 250 pounds – in favour: five. Against: Tobias. Carried."
    assert any(line.text == told for line in lines)


def test_what_is_ordered_and_taken_is_a_task_and_no_decision_as_well() -> None:
    _, minutes = made(
        (TOBIAS, "The sign on the quay is behind the ivy again."),
        (MAREN, "Then cut the ivy, Tobias, please, by Thursday."),
        (TOBIAS, "I'll do it on Thursday."),
        (INES, "Good."),
    )
    told = [(line.kind, line.text) for line in minutes.lines if line.kind in ("action", "decision")]
    assert [kind for kind, text in told if "ivy" in text] == ["action"]


def test_who_takes_the_round_is_reported_so() -> None:
    (line,) = of("action", (MAREN, "Next Tuesday I'm away, so Ines takes the round."), (INES, "Okay, I'll do that."))
    assert (line.owner, line.text) == ((INES,), "Take the round.")


def test_a_bare_number_stands_with_the_words_that_it_takes_up() -> None:
    lines = of(
        "decision",
        (INES, "With the loan for the rails we'd need twelve pounds a boat."),
        (DOUGLAS, "Eleven, and Tobias paints one time less."),
        (TOBIAS, "If I paint one time less you've got rust on the boats."),
        (MAREN, "Then twelve it is."),
        (INES, "Good."),
    )
    told = next(line for line in lines if line.text.startswith("12 it is"))
    assert told.text == "12 it is [With the loan for the rails we'd need 12 pounds a boat]."
    assert 0 in told.turns


def test_a_motion_is_minuted_with_its_vote() -> None:
    lines = of(
        "decision",
        (TOBIAS, "I move that we buy the old boat for twelve thousand pounds."),
        (INES, "Seconded."),
        (MAREN, "All those in favour? Four. Against? One. That's carried, four to one."),
        (INES, "Good."),
    )
    assert any(line.text == "Buy the old boat for 12,000 pounds – That's carried, four to one." for line in lines)


def test_what_a_client_asks_for_and_whether_it_is_met() -> None:
    transcript = talk(
        (INES, "The bride's mother would like everybody in one room."),
        (TOBIAS, "The barn has two rooms, and the hall has one."),
        (INES, "And could the rest be paid at the end of August?"),
        (TOBIAS, "I'd have to ask my sister, she does the books."),
        (INES, "I'd like to know what the weather does."),
        (TOBIAS, "Nobody knows what it does in June."),
        (INES, "I don't think they'll be happy with the old chairs."),
        (TOBIAS, "We'll bring you the new chairs, there are ninety of them."),
    )
    found = find_needs(scene(transcript, MeetingFacts(TUESDAY, PEOPLE)))
    assert [line.text.split(":")[0] for line in found] == ["Need", "Need", "Objection"]
    assert [line.state for line in found] == ["open", "open", "settled"]
    assert {line.owner for line in found} == {(INES,)}
    assert found[2].answer is not None
    assert "new chairs" in found[2].answer.text


def test_an_answer_is_made_of_nothing_but_its_passages(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("nuntius.core.inquiry.inquire.MOST", 2)  # fewer than the likeliest turns and what they answer
    rows: list[tuple[str, str]] = []
    for number in range(12):
        rows.append((MAREN, f"What does pump number {number} cost to repair?"))
        rows.append((TOBIAS, f"Repairing pump number {number} costs {number + 20} pounds."))
    transcript = talk(*rows)
    reply = inquire(transcript, MeetingFacts(TUESDAY, PEOPLE), "What does repairing a pump cost?")
    assert reply.found
    shown = " ".join(clean(transcript.turns[passage.turn].text) for passage in reply.evidence)
    told = [part.partition(": ")[2] or part for part in reply.text.split(". ")]
    assert told
    assert all(part.rstrip(".") in shown for part in told)


def test_a_vote_stands_with_its_motion_although_much_was_said_between() -> None:
    lines = of(
        "decision",
        (TOBIAS, "I move that we mend the sluice before Christmas and borrow five thousand from the county."),
        (INES, "Seconded."),
        (DOUGLAS, "And if they say no?"),
        (TOBIAS, "Then the old one has to hold."),
        (MAREN, "Put like that. All in favour? Three. Against? One. Carried."),
        (INES, "Good."),
    )
    assert any(line.text.startswith("Mend the sluice before Christmas") for line in lines)


def test_what_is_settled_in_so_many_words_is_reported_by_the_next() -> None:
    talked = scene(
        talk((MAREN, "Then that's that. Closed above the second floor from today."), (INES, "That's that.")),
        MeetingFacts(TUESDAY, PEOPLE),
    )
    told = [told_next(talked, sentence) for sentence in talked.sentences]
    assert [sentence and sentence.text for sentence in told] == [
        "Closed above the second floor from today.",
        None,
        None,
    ]
