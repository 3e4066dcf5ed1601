"""Notes and marks of those who were there, as lines of the minutes."""

from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import Length, MeetingFacts, Note
from tests.core.live.samples import FACTS, ROWS
from tests.help import talk


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

        def is_key_point(marks: tuple[tuple[float, float], ...]) -> bool:
            minutes = make_minutes(transcript, MeetingFacts(FACTS.day, FACTS.people, marks=marks), Length.SHORT)
            return any("kettle" in line.text for line in minutes.lines)

        assert not is_key_point(())
        assert is_key_point(((kettle.start, kettle.end),))
