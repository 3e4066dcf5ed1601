"""What a sentence names as the next subject, what chapters are called, and the forest that finds their boundaries."""

from datetime import date

import numpy as np
import pytest

from nuntius.core.language.en.parse import sentences
from nuntius.core.language.en.subject_named import subject_named
from nuntius.core.minutes import chapters
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.chapters import BOUNDARY_FEATURES, boundary_features, find_chapters
from nuntius.core.minutes.forest import LEAF, forest_of
from nuntius.core.minutes.line import MeetingFacts
from nuntius.core.minutes.scene import scene
from nuntius.core.minutes.segmentation import boundaries
from nuntius.core.minutes.titles import titles
from tests.help import talk

PEOPLE = frozenset({"gordon", "pike", "nasreen"})


@pytest.mark.parametrize(
    ("said", "named"),
    [
        ("Payment.", "Payment"),
        ("So, glass.", "glass"),
        ("And the summer party.", "summer party"),
        ("The guarantee, then.", "guarantee"),
        ("Visiting.", "Visiting"),
        ("Your old ovens, by the way.", "old ovens"),
        ("Item two, the head's report.", "head's report"),
        ("Item three is the roof.", "roof"),
        ("Can I ask about the queue?", "queue"),
        ("What about the new pipe?", "new pipe"),
        ("Gordon, the hedge.", "hedge"),
        ("Good, the hedge.", "hedge"),
        ("One more thing, the fuel.", "fuel"),
        ("One more thing the fuel.", "fuel"),
        ("The other thing is the roof, I think we all know it.", ""),
        ("Understood, Gordon.", ""),
        ("Okay, Gordon.", ""),
        ("Good instinct.", ""),
        ("Tuesday.", ""),
        ("The rack's forty.", ""),
        ("I'll send you the drawing.", ""),
        ("Three things, the date, the loans and the whale.", ""),
        ("", ""),
    ],
)
def test_a_subject_is_named_before_anything_is_said_of_it(said: str, named: str) -> None:
    found = sentences(talk(("A", said)), (said,)) if said else ()
    assert (subject_named(found[0], PEOPLE) if found else "") == named


class TestTitles:
    ROWS = (
        ("Ann Lowe", "Good morning everybody, is the kettle on?"),
        ("Ben Hart", "It is, and it is loud."),
        ("Ann Lowe", "So, the slipway. How far has the rail moved?"),
        ("Ben Hart", "Fourteen millimetres, and it moves more in the cold."),
        ("Ann Lowe", "Payment. We pay a third when they start."),
        ("Ben Hart", "And the rest when the boats are back in the water."),
        ("Ann Lowe", "Back to the slipway. Who asks the yard?"),
        ("Ben Hart", "I will ask the yard tomorrow."),
        ("Ann Lowe", "Anything else? No? Same time next week."),
    )
    SEGMENTATION = ([0, 2, 4, 6, 8], [1, 3, 5, 7, 8])

    def told(self, agenda: tuple[str, ...] = ()) -> list[str]:
        facts = MeetingFacts(date(2026, 10, 6), ("Ann Lowe", "Ben Hart"), agenda)
        return titles(scene(talk(*self.ROWS), facts), *self.SEGMENTATION)

    def test_they_are_what_people_said_and_none_stands_twice(self) -> None:
        assert self.told() == ["Opening", "Slipway", "Payment", "Slipway, again", "Any other business"]

    def test_an_item_of_the_agenda_goes_by_its_own_words(self) -> None:
        assert self.told(("Repair of the slipway", "Payments"))[2] == "Payments"

    def test_a_meeting_of_one_chapter_is_no_opening(self) -> None:
        made = make_minutes(talk(*self.ROWS[2:4]), MeetingFacts(date(2026, 10, 6)))
        assert [chapter.title for chapter in made.chapters] != ["Opening"]

    def test_a_measure_is_no_subject_and_a_short_form_keeps_its_capitals(self) -> None:
        rows = (
            ("Ann Lowe", "It is forty pence a litre, and that is pence we do not have for diesel."),
            ("Ben Hart", "Forty pence, and the diesel is up two pence again."),
            ("Ann Lowe", "When do we hold the AGM? The AGM has to be in spring."),
            ("Ben Hart", "The AGM was in March last year."),
        )
        facts = MeetingFacts(date(2026, 10, 6), ("Ann Lowe", "Ben Hart"))
        assert titles(scene(talk(*rows), facts), [0, 2], [1, 3]) == ["Opening", "AGM"]
        assert titles(scene(talk(("Ann Lowe", "Hello."), *rows), facts), [0, 1, 3], [0, 2, 4])[1:] == ["Diesel", "AGM"]


class TestForest:
    STUMP = {
        "sign": [1, LEAF, LEAF],
        "most": [0.5, 0, 0],
        "left": [1, -1, -1],
        "right": [2, -1, -1],
        "likely": [0.5, 0.1, 0.9],
    }
    LEAVES = {"sign": [LEAF], "most": [0], "left": [-1], "right": [-1], "likely": [0.3]}
    ROWS = np.array([[9, 0.5], [0, 0.6]], np.float32)

    def test_a_tree_goes_left_up_to_its_value(self) -> None:
        np.testing.assert_allclose(forest_of([self.STUMP]).of(self.ROWS), [0.1, 0.9])

    def test_a_forest_is_the_mean_of_its_trees(self) -> None:
        np.testing.assert_allclose(forest_of([self.STUMP, self.LEAVES]).of(self.ROWS), [0.2, 0.6])

    def test_no_rows(self) -> None:
        assert forest_of([self.LEAVES]).of(self.ROWS[:0]).shape == (0,)


ROUND = (
    ("Noor Aziz", "Right, a short round. Petra."),
    ("Petra Lund", "Yesterday I sanded the deck, and the primer is on."),
    ("Noor Aziz", "And today?"),
    ("Petra Lund", "The second coat, if it stays dry until noon."),
    ("Noor Aziz", "Wilf."),
    ("Wilf Sandys", "The winch is worn, I had the cover off on Friday."),
    ("Noor Aziz", "How bad is it?"),
    ("Wilf Sandys", "It would not hold more than a ton, so I would leave it."),
)


def test_a_round_is_seen_where_the_floor_goes_to_the_next_who_is_called() -> None:
    said = talk(*ROUND)
    features = boundary_features(scene(said, MeetingFacts(date(2026, 5, 18), said.speakers)))
    calls = features[:, BOUNDARY_FEATURES.index("calls who holds it")]
    assert int(calls.argmax()) == 4 and calls[4] == pytest.approx(1.0)
    assert features[5, BOUNDARY_FEATURES.index("takes it from the leader")] > 0.9


def test_who_holds_the_floor_is_reported_of_one_voice_too() -> None:
    said = talk(("Noor Aziz", "The deck is sanded."), ("Noor Aziz", "The primer is on."))
    features = boundary_features(scene(said, MeetingFacts(date(2026, 5, 18), said.speakers)))
    assert not features[:, BOUNDARY_FEATURES.index("how much is held")].any()


class TestHowMany:
    """Chapters begin at the turns that are likeliest together, given how long chapters usually are."""

    @staticmethod
    def opened(likely: list[float], turns: int = 60, fine: bool = False) -> list[int]:
        rows = [("Ann Lowe" if n % 2 else "Ben Hart", f"The pump number {n} is running well.") for n in range(turns)]
        scene_of_talk = scene(talk(*rows), MeetingFacts(date(2026, 10, 6), ("Ann Lowe", "Ben Hart")))
        values = np.zeros(turns, np.float32)
        values[: len(likely)] = likely
        return [chapter.first for chapter in find_chapters(scene_of_talk, values, fine)]

    def test_a_weak_sign_opens_one_where_the_chapter_is_long_enough(self) -> None:
        assert self.opened([0.0] * 20 + [0.3] + [0.0] * 19 + [0.3]) == [0, 20, 40]
        assert self.opened([0.0] * 20 + [0.9] + [0.0] * 5 + [0.3], 34) == [0, 20]

    def test_strong_features_open_one_each(self) -> None:
        assert self.opened([0.0] * 20 + [0.9] + [0.0] * 9 + [0.9]) == [0, 20, 30]

    def test_two_side_by_side_are_one(self) -> None:
        assert self.opened([0.0] * 20 + [0.9, 0.85]) == [0, 20]

    def test_neither_no_sign_nor_a_short_talk_opens_one(self) -> None:
        assert self.opened([0.0] * 300, 300) == [0]
        assert self.opened([0.0, 0.3, 0.3, 0.3], 4) == [0]

    def test_finer_chapters_are_more(self) -> None:
        features = ([0.0] * 7 + [0.5]) * 10
        assert len(self.opened(features, 80, fine=True)) > len(self.opened(features, 80))

    def test_a_talk_of_one_subject_stays_whole(self) -> None:
        assert self.opened([0.005] * 60) == [0]

    @pytest.mark.parametrize(("agenda", "first"), [((), [0]), (("Pump house", "Pump"), [0, 20])])
    def test_what_is_named_again_but_was_still_spoken_of_opens_none(
        self, agenda: tuple[str, ...], first: list[int], monkeypatch: pytest.MonkeyPatch
    ) -> None:
        monkeypatch.setattr(
            chapters, "titles_of", lambda _, boundaries, ends: ["Pump house", "Pump"][: len(boundaries)]
        )
        said = talk(*(("Ann Lowe" if n % 2 else "Ben Hart", f"The pump number {n} is running.") for n in range(40)))
        likely = np.zeros(40, np.float32)
        likely[20] = 0.9
        found = find_chapters(scene(said, MeetingFacts(date(2026, 10, 6), agenda=agenda)), likely)
        assert [chapter.first for chapter in found] == first

    def test_a_long_talk_is_not_cut_to_pieces(self) -> None:
        assert len(self.opened([0.3] * 240, 240)) <= 1 + 4 + 240 / 30

    @pytest.mark.parametrize("hours", [1, 4, 8])
    def test_a_very_long_talk_has_as_many_as_it_may(self, hours: int) -> None:
        likely = np.random.default_rng(hours).beta(0.3, 2.0, 340 * hours).astype(np.float32)
        most = 4 + len(likely) / 30
        assert 0.7 * most <= len(boundaries(likely)) <= most
        assert len(boundaries(likely, fine=True)) > len(boundaries(likely))
