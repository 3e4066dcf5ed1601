"""What has happened so far."""

from nuntius.core.live.brief import brief
from nuntius.core.transcript.transcript import Transcript
from tests.core.live.samples import FACTS, ROWS
from tests.help import talk


class TestBrief:
    def test_before_there_is_enough_it_says_nothing(self) -> None:
        assert not brief(talk(*ROWS[:2]), FACTS, "Maren Tull").ready
        assert not brief(Transcript((), 0.0), FACTS, "Maren Tull").ready

    def test_decisions_actions_and_the_readers_name_are_reported_with_their_passages(self) -> None:
        transcript = talk(*ROWS, pace=1.5)
        made = brief(transcript, FACTS, "Maren Tull")
        assert made.ready
        assert any("six forty" in each.text for each in made.decided)
        assert any(each.text.startswith("Ines Carvell: Ring the nurses") for each in made.promised)
        assert any("Friday" in each.text for each in made.promised)
        assert [each.text.split(":")[0] for each in made.named] == ["Douglas Hale"]
        everything = [*made.so_far, *made.recent, *made.decided, *made.promised, *made.named]
        assert everything and all(each.evidence for each in everything)
        assert made.subjects[0].turn == 0

    def test_an_action_that_nobody_took_says_so(self) -> None:
        made = brief(talk(*ROWS, pace=1.5), FACTS, "Priya Nand")
        assert any(each.nobody and "yards" in each.text for each in made.promised)
        assert made.named == ()
