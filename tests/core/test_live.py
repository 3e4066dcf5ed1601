"""Live text: turns, voices, floor, agenda, marks, and what is carried over to the settled words."""

from datetime import date

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.audio.decode import RATE
from nuntius.core.language.cache import Kept
from nuntius.core.live.agenda import AgendaItem, suggested, time_left
from nuntius.core.live.brief import brief
from nuntius.core.live.carrying import Correction, corrected_turns, merged
from nuntius.core.live.floor import live_floor
from nuntius.core.live.line import LiveLine, VoicedLine
from nuntius.core.live.matching import matched
from nuntius.core.live.scripted import ScriptedLines
from nuntius.core.live.turns import live_transcript, split_at_voices, turn_start, voice_of
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import MeetingFacts, Note
from nuntius.core.speech.diarizer import Span, relabelled
from nuntius.core.templates.shipped import SHIPPED, shipped
from nuntius.core.transcript.transcript import Transcript
from nuntius.store.meetings import KINDS
from tests.help import talk


def said(*rows: tuple[float, float, str | None, str]) -> list[VoicedLine]:
    return [VoicedLine(n, LiveLine(a, b, text), voice) for n, (a, b, voice, text) in enumerate(rows, 1)]


LINES = said(
    (0.0, 2.0, "Voice A", "Good morning everybody."),
    (2.2, 5.0, "Voice A", "Three things today."),
    (5.2, 7.0, "Voice B", "I brought biscuits."),
    (12.0, 14.0, "Voice B", "And some tea."),
)


class TestTurns:
    def test_lines_of_one_voice_are_one_turn_until_it_pauses(self) -> None:
        made = live_transcript(LINES, 15.0)
        assert [(t.speaker, t.text) for t in made.turns] == [
            ("Voice A", "Good morning everybody. Three things today."),
            ("Voice B", "I brought biscuits."),
            ("Voice B", "And some tea."),
        ]

    def test_a_line_without_a_voice_yet_goes_to_the_voice_before_it(self) -> None:
        made = live_transcript(said((0, 2, "Voice B", "One."), (2.1, 3, None, "Two.")), 3.0)
        assert [t.text for t in made.turns] == ["One. Two."]

    def test_a_persons_words_stand_before_the_machines(self) -> None:
        line = VoicedLine(1, LiveLine(0.0, 2.0, "wrong"), None, "right words")
        assert live_transcript([line], 2.0).turns[0].text == "right words"

    def test_nothing_said_is_an_empty_transcript(self) -> None:
        assert live_transcript([], 3.0).turns == ()

    def test_a_mark_begins_with_the_turn_being_spoken(self) -> None:
        assert turn_start(LINES, 4.0) == 0.0
        assert turn_start(LINES, 6.0) == 5.2
        assert turn_start(LINES, 13.0) == 12.0
        assert turn_start([], 9.0) == 9.0
        untold = said((0, 2, None, "One."), (2.1, 4, None, "Two."))
        assert turn_start(untold, 3.0) == 2.1


class TestVoices:
    SPANS = [Span(0.0, 5.0, "Voice A"), Span(4.5, 9.0, "Voice B")]

    def test_a_line_belongs_to_the_voice_that_speaks_most_of_it(self) -> None:
        assert voice_of(LiveLine(4.0, 8.0, "x"), self.SPANS) == "Voice B"
        assert voice_of(LiveLine(9.5, 10.0, "x"), self.SPANS) == "Voice B"
        assert voice_of(LiveLine(20.0, 21.0, "x"), self.SPANS) is None

    def test_a_line_in_which_one_voice_answers_another_comes_in_pieces(self) -> None:
        line = LiveLine(0.0, 6.0, "And who may sign it? Is it Maren alone, or the board? I do not know.")
        spans = [Span(0.0, 4.6, "Voice A"), Span(4.7, 6.0, "Voice B")]
        made = split_at_voices(line, spans)
        assert [(piece.text, voice) for piece, voice in made] == [
            ("And who may sign it? Is it Maren alone, or the board?", "Voice A"),
            ("I do not know.", "Voice B"),
        ]
        assert made[0][0].start == 0.0 and made[1][0].end == pytest.approx(6.0)

    def test_a_short_sound_of_another_voice_makes_no_piece(self) -> None:
        line = LiveLine(0.0, 6.0, "one two three four five six")
        spans = [Span(0.0, 6.0, "Voice A"), Span(2.0, 2.4, "Voice B")]
        assert split_at_voices(line, spans) == [(line, "Voice A")]
        assert split_at_voices(line, []) == []
        assert split_at_voices(LiveLine(0.0, 3.0, "one"), [Span(0, 1.5, "A"), Span(1.5, 3, "B")]) != []

    @given(st.lists(st.tuples(st.floats(0, 9), st.floats(0.1, 5), st.sampled_from("AB")), max_size=6))
    def test_pieces_hold_every_word_in_order(self, rows: list[tuple[float, float, str]]) -> None:
        line = LiveLine(1.0, 8.0, "one two. three four, five six? seven eight nine ten")
        made = split_at_voices(line, [Span(a, a + b, v) for a, b, v in rows])
        assert not made or " ".join(piece.text for piece, _ in made) == line.text

    def test_voices_keep_their_names_by_the_time_in_which_both_speak(self) -> None:
        before = [Span(0, 10, "Voice A"), Span(10, 20, "Voice B")]
        after = [Span(0, 9.5, "Voice B"), Span(10.2, 20, "Voice A"), Span(30, 40, "Voice C")]
        names = matched(before, after)
        assert names == {"Voice B": "Voice A", "Voice A": "Voice B", "Voice C": "Voice C"}
        assert [s.voice for s in relabelled(after, names)] == ["Voice A", "Voice B", "Voice C"]

    def test_a_new_voice_takes_no_name_that_is_in_use(self) -> None:
        names = matched([Span(0, 5, "Voice C")], [Span(0, 5, "Voice A"), Span(6, 7, "Voice C")])
        assert names["Voice A"] == "Voice C"
        assert names["Voice C"] not in {"Voice C"}

    @given(st.lists(st.tuples(st.integers(0, 50), st.integers(1, 9), st.sampled_from("ABC")), max_size=12))
    def test_names_are_never_given_twice(self, rows: list[tuple[int, int, str]]) -> None:
        spans = [Span(float(a), float(a + b), f"Voice {v}") for a, b, v in sorted(rows)]
        names = matched(spans[::2], spans)
        assert len(set(names.values())) == len(names) == len({s.voice for s in spans})


class TestCarrying:
    def test_the_persons_edit_is_made_in_the_better_recognisers_words(self) -> None:
        heard = "to buy us could you send them over".split()
        written = "Tobias could you send them over".split()
        settled = "Toby us, could you send them over please?".split()
        assert " ".join(merged(heard, written, settled)) == "Tobias could you send them over please?"

    def test_what_the_person_left_alone_comes_from_the_better_recogniser(self) -> None:
        heard, written = "the hair in ways eleven tons".split(), "the hair in weighs eleven tons".split()
        assert (
            " ".join(merged(heard, written, "the Heron ways eleven tonnes".split())) == "the Heron weighs eleven tonnes"
        )

    def test_words_taken_out_stay_out(self) -> None:
        assert merged("a b secret c".split(), "a b c".split(), "a b secret c d".split()) == ["a", "b", "c", "d"]

    @given(
        st.lists(st.sampled_from("a b c d".split()), max_size=8),
        st.lists(st.sampled_from("a b c x".split()), max_size=8),
    )
    def test_same_words_heard_twice_give_exactly_what_was_written(self, heard: list[str], written: list[str]) -> None:
        assert merged(heard, written, heard) == written

    def test_a_correction_finds_its_turn_by_time_and_leaves_the_others(self) -> None:
        transcript = talk(("A", "good morning to you all"), ("B", "the hair in is eleven tons"), ("A", "right"))
        start, end = transcript.turns[1].start, transcript.turns[1].end
        made = corrected_turns(
            transcript,
            [Correction(start - 0.2, end + 0.1, "the hair in is eleven tonnes", "the Heron is eleven tonnes")],
        )
        assert list(made) == [1]
        assert " ".join(word.text for word in made[1]) == "the Heron is eleven tons"
        assert made[1][0].start == pytest.approx(start)

    def test_a_correction_of_what_was_not_heard_again_is_left_out(self) -> None:
        assert corrected_turns(talk(("A", "one two")), [Correction(50, 52, "x", "y")]) == {}
        assert corrected_turns(Transcript((), 0.0), [Correction(0, 2, "x", "y")]) == {}


class TestFloor:
    def test_it_says_who_holds_the_floor_since_when(self) -> None:
        floor = live_floor(LINES[:2], 6.0)
        assert (floor.holder, floor.held) == ("Voice A", 6.0)
        assert floor.seconds == {"Voice A": pytest.approx(4.8)}

    def test_nobody_holds_it_after_a_silence(self) -> None:
        assert live_floor(LINES, 30.0).holder is None
        assert live_floor(LINES, 30.0, speaking=True).holder == "Voice B"

    def test_the_longest_stretch_is_unbroken_speech_not_all_of_it(self) -> None:
        floor = live_floor(LINES, 15.0)
        assert floor.longest == {"Voice A": 5.0, "Voice B": 2.0}
        assert floor.last_heard["Voice B"] == 14.0

    def test_an_empty_floor(self) -> None:
        assert live_floor([], 5.0).holder is None


class TestAgenda:
    ITEMS = (AgendaItem("Winter timetable", 600, 0.0), AgendaItem("Slipway repair", 900), AgendaItem("School contract"))

    def test_time_left_runs_below_zero(self) -> None:
        assert time_left(self.ITEMS[0], 700.0) == -100.0
        assert time_left(self.ITEMS[1], 700.0) is None
        assert time_left(AgendaItem("X", 60, 10.0, 40.0), 700.0) == 30.0

    def test_the_item_that_is_talked_of_is_suggested(self) -> None:
        lines = said((600, 604, "A", "Next, the slipway. The repair has to wait."))
        assert suggested(self.ITEMS, 0, lines, 605.0) == 1
        assert suggested(self.ITEMS, 1, lines, 605.0) is None
        assert suggested(self.ITEMS, 0, lines, 900.0) is None

    def test_reading_the_agenda_out_suggests_nothing(self) -> None:
        lines = said(
            (1, 5, "A", "Three things: the timetable, the slipway repair and the school contract."),
            (6, 8, "B", "Fine."),
        )
        assert suggested(self.ITEMS, 0, lines, 9.0) is None

    def test_nothing_is_suggested_between_two_that_fit_alike(self) -> None:
        lines = said((1, 2, "A", "The school contract and the slipway repair."))
        assert suggested(self.ITEMS, 0, lines, 3.0) is None


def test_every_kind_of_meeting_has_labels_for_marks() -> None:
    assert set(SHIPPED) == set(KINDS) and all(each.labels for each in SHIPPED.values())
    assert shipped("something else") == shipped("general meeting")


class TestScripted:
    def test_lines_grow_word_by_word_and_settle_at_their_end(self) -> None:
        engine = ScriptedLines([LiveLine(1.0, 3.0, "one two three four"), LiveLine(4.0, 5.0, "five")])
        second = np.zeros(RATE, np.float32)
        assert engine.hear(second).partial is None
        grown = engine.hear(second).partial
        assert grown is not None and grown.text == "one two three"
        assert [line.text for line in engine.hear(second).settled] == ["one two three four"]
        assert engine.hear(second).settled == ()
        partial = engine.hear(second[: RATE // 2]).partial
        assert partial is not None and partial.text == "five"
        assert [line.text for line in engine.finish().settled] == ["five"]


ROWS = (
    ("Maren Tull", "Good morning. Three things today, the timetable, the slipway and the school contract."),
    ("Ines Carvell", "The six forty boat carried four people on average in September."),
    ("Maren Tull", "Then I suggest we drop the six forty from November and keep the seven ten. Anybody against?"),
    ("Tobias Pryce", "No, agreed."),
    ("Ines Carvell", "I'll ring the nurses by Friday."),
    ("Maren Tull", "Good. Somebody has to ask two yards for a price, but we leave that open for now."),
    (
        "Douglas Hale",
        "The lower rail has moved fourteen millimetres since the spring, Maren, so nothing heavy on it please.",
    ),
)
FACTS = MeetingFacts(date(2026, 10, 6), ("Maren Tull", "Ines Carvell", "Tobias Pryce", "Douglas Hale"))


class TestBrief:
    def test_before_there_is_enough_it_says_nothing(self) -> None:
        assert not brief(talk(*ROWS[:2]), FACTS, "Maren Tull").ready
        assert not brief(Transcript((), 0.0), FACTS, "Maren Tull").ready

    def test_decisions_actions_and_the_readers_name_are_reported_with_their_passages(self) -> None:
        transcript = talk(*ROWS, pace=1.5)
        told = brief(transcript, FACTS, "Maren Tull")
        assert told.ready
        assert any("six forty" in each.text for each in told.decided)
        assert any(each.text.startswith("Ines Carvell: Ring the nurses") for each in told.promised)
        assert any("Friday" in each.text for each in told.promised)
        assert [each.text.split(":")[0] for each in told.named] == ["Douglas Hale"]
        everything = [*told.so_far, *told.recent, *told.decided, *told.promised, *told.named]
        assert everything and all(each.evidence for each in everything)
        assert told.subjects[0].turn == 0

    def test_an_action_that_nobody_took_says_so(self) -> None:
        told = brief(talk(*ROWS, pace=1.5), FACTS, "Priya Nand")
        assert any(each.nobody and "yards" in each.text for each in told.promised)
        assert told.named == ()


class TestNotes:
    def test_a_note_stands_first_in_its_own_words_with_the_talk_around_it(self) -> None:
        transcript = talk(*ROWS)
        at = transcript.turns[6].start + 2
        facts = MeetingFacts(FACTS.day, FACTS.people, notes=(Note("- Careful: **lower rail**!", at, "Maren Tull"),))
        minutes = make_minutes(transcript, facts)
        (note,) = [line for line in minutes.lines if line.kind == "note"]
        assert note.text == "Careful: lower rail!"
        assert note.owner == ("Maren Tull",)
        assert 6 in note.turns

    def test_a_note_taken_late_still_finds_what_it_speaks_of(self) -> None:
        transcript = talk(*ROWS)
        at = transcript.turns[5].start + 1
        facts = MeetingFacts(FACTS.day, FACTS.people, notes=(Note("Ines rings the nurses", at, "Maren Tull"),))
        (note,) = [line for line in make_minutes(transcript, facts).lines if line.kind == "note"]
        assert 4 in note.turns

    def test_what_nobody_said_stays_as_a_remark_beside_its_moment(self) -> None:
        transcript = talk(*ROWS)
        notes = (Note("Buy a birthday cake for Priya", transcript.turns[2].start + 1, "Maren Tull"),)
        minutes = make_minutes(transcript, MeetingFacts(FACTS.day, FACTS.people, notes=notes))
        (note,) = [line for line in minutes.lines if line.kind == "note"]
        assert (note.why, note.turns) == ("a person's own remark", {2})

    def test_a_note_written_when_all_was_over_finds_what_it_speaks_of(self) -> None:
        transcript = talk(*ROWS)
        notes = (Note("The lower rail has moved 14 mm since spring", transcript.duration + 600, "Maren Tull"),)
        (note,) = [
            line
            for line in make_minutes(transcript, MeetingFacts(FACTS.day, FACTS.people, notes=notes)).lines
            if line.kind == "note"
        ]
        assert note.why == "a person's note"
        assert len(ROWS) - 1 in note.turns

    def test_a_mark_makes_its_sentence_a_key_point(self) -> None:
        plain = ("Ines Carvell", "The kettle in the crew room is rather old.")
        rows = (
            *ROWS,
            plain,
            *(("Tobias Pryce", f"We need {n} new ropes for {n} boats before the winter.") for n in range(3, 9)),
        )
        transcript = talk(*rows)
        kettle = transcript.turns[len(ROWS)]

        def told(marks: tuple[tuple[float, float], ...]) -> bool:
            minutes = make_minutes(transcript, MeetingFacts(FACTS.day, FACTS.people, marks=marks), "short")
            return any("kettle" in line.text for line in minutes.lines)

        assert not told(())
        assert told(((kettle.start, kettle.end),))


def test_results_are_kept_by_their_text_and_the_oldest_go() -> None:
    asked: list[list[str]] = []

    def upper(texts: list[str]) -> list[str]:
        asked.append(texts)
        return [text.upper() for text in texts]

    kept: Kept[str, str] = Kept(2)
    assert kept(["a", "b", "a"], upper) == ["A", "B", "A"]
    assert kept(["b", "c"], upper) == ["B", "C"]
    assert kept(["a"], upper) == ["A"]
    assert asked == [["a", "b"], ["c"], ["a"]]
    assert kept([], upper) == []
