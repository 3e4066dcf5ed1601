"""Templates: what is read, where lines go, the kinds that only some of them ask for, and which one is suggested."""

import json
from datetime import date
from typing import Any

import pytest

from nuntius.core.errors import TemplateUnusable
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import Length, MeetingFacts, Minutes
from nuntius.core.series import series_of
from nuntius.core.templates.shipped import SHIPPED, shipped
from nuntius.core.templates.suggest import suggest
from nuntius.core.templates.template import REST, Section, Template, read_template, template_json
from nuntius.core.transcript.transcript import Transcript
from tests.help import ROOT, talk

DAY = date(2026, 10, 6)


def minutes(transcript: Transcript, template: Template, **more: Any) -> Minutes:
    return make_minutes(transcript, MeetingFacts(DAY, transcript.speakers), Length.STANDARD, template, **more)


def told(made: Minutes, title: str) -> list[str]:
    place = [name for name, _ in made.sections].index(title)
    return [line.text for line in made.lines if line.place == place]


CREW = talk(
    ("Maren Tull", "So, the pontoon. The inspector found twelve loose planks on it last week."),
    ("Ines Carvell", "I'll get a quote for the planks from the yard by Friday."),
    ("Maren Tull", "Thank you, Ines. And the slipway, shall we close it for two days in November?"),
    ("Tobias Pryce", "Yes, agreed, two days in November."),
    ("Maren Tull", "Good, then the slipway is closed for two days in November."),
    ("Tobias Pryce", "The pontoons at Hollin Bay are in a better state, I looked at them on Sunday."),
)


DEMO = ROOT / "demo/winter-timetable.truth.json"
DIVIDED = talk(*((turn["speaker"], turn["text"]) for turn in json.loads(DEMO.read_text())["turns"]))


class TestReading:
    @pytest.mark.parametrize("name", SHIPPED)
    def test_what_is_shipped_is_read_back_as_it_was(self, name: str) -> None:
        assert read_template(template_json(SHIPPED[name])) == SHIPPED[name]

    @pytest.mark.parametrize(
        ("body", "told"),
        [
            ({"name": "", "sections": [{"title": "A", "kinds": ["note"]}]}, "needs a name"),
            ({"name": "X", "sections": []}, "at least one section"),
            ({"name": "X", "sections": [{"title": " ", "kinds": ["note"]}]}, "needs a title"),
            ({"name": "X", "sections": [{"title": "A"}]}, "takes nothing yet"),
            ({"name": "X", "sections": [{"title": "A", "kinds": ["gossip"]}]}, "“gossip”"),
            ({"name": "X", "sections": [{"title": "A", "kinds": ["sought"]}]}, "“sought”"),
            ({"name": "X", "sections": [{"title": "A", "kinds": ["note"], "most": 0}]}, "between 1 and 500"),
            ({"name": "X", "sections": [{"title": "A", "words": ["b"]}, {"title": "a", "words": ["c"]}]}, "“a”"),
            ({"name": "X", "length": "epic", "sections": [{"title": "A", "kinds": ["note"]}]}, "“epic”"),
            ({"name": "X" * 300, "sections": [{"title": "A", "kinds": ["note"]}]}, "300 characters"),
            ({"name": "X", "labels": ["l"] * 10, "sections": [{"title": "A", "kinds": ["note"]}]}, "at most 9 labels"),
        ],
    )
    def test_what_is_wrong_is_said(self, body: dict[str, Any], told: str) -> None:
        with pytest.raises(TemplateUnusable, match=told):
            read_template(body)


class TestSections:
    def test_what_was_decided_or_promised_is_never_left_out(self) -> None:
        made = minutes(CREW, Template("bare", (Section("Key points", ("key_point",)),)))
        kinds = {line.kind for line in made.lines if made.sections[line.place][0] == REST}
        assert kinds == {"decision", "action"}

    def test_a_section_with_words_of_its_own_finds_them_in_any_form(self) -> None:
        made = minutes(CREW, Template("own", (Section("The pontoon", words=("pontoon",)),)))
        assert [text.split()[-1] for text in told(made, "The pontoon")] == ["pontoon.", "Sunday."]

    def test_a_section_of_one_voice_holds_that_voice_alone(self) -> None:
        section = Section("Tobias on the pontoon", words=("pontoon",), voices=("Tobias Pryce",))
        made = minutes(CREW, Template("own", (section,)))
        assert len(told(made, "Tobias on the pontoon")) == 1
        assert "Hollin Bay" in told(made, "Tobias on the pontoon")[0]

    def test_the_first_section_that_takes_a_line_has_it_and_no_more_than_it_holds(self) -> None:
        sections = (Section("Planks", ("action",), words=("planks",)), Section("Actions", ("action",)))
        made = minutes(CREW, Template("own", sections))
        assert "planks" in told(made, "Planks")[0]
        assert not any("planks" in text for text in told(made, "Actions"))
        narrow = minutes(CREW, Template("own", (Section("Said", ("key_point", "decision", "action"), most=1),)))
        assert len(told(narrow, "Said")) == 1

    def test_the_same_talk_and_template_give_the_same_minutes(self) -> None:
        assert minutes(CREW, shipped("committee")) == minutes(CREW, shipped("committee"))

    def test_a_chapter_in_more_detail_has_at_least_what_it_had(self) -> None:
        plain, more = (
            minutes(DIVIDED, shipped("general meeting")),
            minutes(DIVIDED, shipped("general meeting"), detailed=frozenset([0])),
        )
        assert len(more.lines) > len(plain.lines)
        assert more.detailed == frozenset([0])

    def test_finer_chapters_divide_what_they_divide_otherwise(self) -> None:
        usual, finer = (minutes(DIVIDED, shipped("general meeting"), fine=fine) for fine in (False, True))
        assert len(finer.chapters) > len(usual.chapters) > 1
        assert {chapter.first for chapter in usual.chapters} <= {chapter.first for chapter in finer.chapters}
        assert (usual.fine, finer.fine) == (False, True)


class TestKinds:
    def test_figures_come_with_what_they_are_of(self) -> None:
        made = minutes(CREW, shipped("committee"))
        assert told(made, "Figures")[0].startswith("12 loose planks: ")

    def test_a_bare_figure_comes_with_its_question(self) -> None:
        asked = talk(
            ("A", "How many passengers did we carry in September?"), ("B", "Four thousand two hundred."), ("A", "Good.")
        )
        (figure,) = told(minutes(asked, shipped("committee")), "Figures")
        assert "4200" in figure and "How many passengers" in figure

    def test_needs_and_objections_are_met_or_stay_open(self) -> None:
        call = talk(
            ("Client", "We need the ramp before the first of May, because the coach parties come then."),
            ("Yard", "You'll have the ramp in the last week of April, that's no problem."),
            ("Client", "And I'm worried about the paint, last time it came off after one winter."),
            ("Yard", "Shall we look at the drawing of the hinge first?"),
            ("Client", "All right, the hinge."),
        )
        made = [line for line in minutes(call, shipped("client call")).lines if line.kind == "need"]
        assert [(line.text.split(":")[0], line.state) for line in made] == [("Need", "settled"), ("Objection", "open")]
        assert made[0].answer is not None and "last week of April" in made[0].answer.text
        assert made[1].answer is None

    def test_a_procedure_is_reported_in_its_order_with_its_warnings(self) -> None:
        lesson = talk(
            ("Douglas", "First you open the cooling valve, all the way."),
            ("Priya", "Okay."),
            ("Douglas", "Then you check the oil on the long stick."),
            ("Douglas", "Never start the engine with the hatch open."),
            ("Priya", "My brother had a boat like this one."),
        )
        made = minutes(lesson, shipped("training"))
        steps = told(made, "Steps")
        assert [text.split()[-1] for text in steps] == ["way.", "stick.", "open."]
        assert steps[2].startswith("Take care: ")

    def test_what_one_does_is_a_step_and_what_is_so_is_none(self) -> None:
        lesson = talk(
            ("Douglas", "You spin the winch and you look at the gap here."),
            ("Priya", "Okay. It's lovely, this winch."),
            ("Douglas", "If it's too far left you tighten the right bolt."),
            ("Douglas", "Then it's half past eight and the first boat is in."),
            ("Douglas", "You know my brother Ted, he never forgot a bolt."),
        )
        assert told(minutes(lesson, shipped("training")), "Steps") == [
            "You spin the winch and you look at the gap here.",
            "If it's too far left you tighten the right bolt.",
        ]

    def test_who_offers_is_not_who_asks(self) -> None:
        call = talk(
            ("Yard", "We need to see the hull, or we don't send anybody."),
            ("Yard", "I can do the hull for nine thousand, and you'll have it by May."),
            ("Client", "I'd want it done before the regatta, by the same people."),
            ("Yard", "Same people, we can do that."),
        )
        made = [line for line in minutes(call, shipped("client call")).lines if line.kind == "need"]
        assert [(line.owner, line.state) for line in made] == [(("Client",), "settled")]

    def test_who_was_named_leads_to_every_place(self) -> None:
        made = [line for line in minutes(CREW, shipped("committee")).lines if line.kind == "named"]
        assert [line.text for line in made] == ["Ines Carvell was named once, by Maren Tull."]
        assert made[0].turns == {2}

    def test_a_figure_that_surprised_is_a_turning_point(self) -> None:
        surprised = talk(
            ("Maren", "The new engine comes to forty thousand pounds."),
            ("Ines", "Forty thousand? That's more than we expected."),
            ("Maren", "It is what the yard says."),
        )
        (point,) = told(minutes(surprised, shipped("committee")), "Turning points")
        assert point.startswith("A figure surprised: ") and "40,000" in point


class TestUnwanted:
    def test_what_was_thrown_out_of_the_series_is_not_offered_again(self) -> None:
        made = minutes(CREW, shipped("general meeting"))
        line = next(each for each in made.lines if each.kind == "action")
        facts = MeetingFacts(DAY, CREW.speakers, unwanted=(("action", line.text), ("decision", "something else")))
        again = make_minutes(CREW, facts, Length.STANDARD, shipped("general meeting"))
        assert line.text in [each.text for each in made.lines if each.kind == "action"]
        assert line.text not in [each.text for each in again.lines if each.kind == "action"]
        assert [e.text for e in again.lines if e.kind == "decision"] == [
            e.text for e in made.lines if e.kind == "decision"
        ]

    @pytest.mark.parametrize(
        "title", ["Crew meeting, 6 October", "Crew meeting 13 Oct", "crew meeting (week 42)", "Crew meeting 2026-10-20"]
    )
    def test_titles_that_differ_by_dates_are_one_series(self, title: str) -> None:
        assert series_of(title) == "crew meeting"

    def test_a_title_of_dates_alone_is_no_series(self) -> None:
        assert series_of("6 October 2026") == ""


class TestSuggestion:
    def test_the_title_comes_first(self) -> None:
        found = suggest("Committee of the harbour, May", CREW)
        assert found is not None and found.kind == "committee" and "Committee" in found.because

    def test_votes_point_to_a_committee(self) -> None:
        found = suggest(
            "Tuesday", talk(*[("A", "All in favour of the motion then, please raise your hand now for it.")] * 7)
        )
        assert found is not None and found.kind == "committee"

    def test_nothing_is_suggested_where_nothing_points_anywhere(self) -> None:
        assert suggest("Tuesday", CREW) is None


class TestOtherLanguages:
    """A talk in a language whose rules are not known gives less, never nonsense."""

    TALK = talk(
        *[
            (f"Stimme {'AB'[n % 2]}", text)
            for n, text in enumerate(
                [
                    "Guten Morgen, wir sprechen heute zuerst über den neuen Fahrplan für den Winter.",
                    "Der Fahrplan sieht vor, dass die erste Fähre um sechs Uhr vierzig nicht mehr fährt.",
                    "Vier Fahrgäste nehmen im Mittel diese Fähre, und der Fahrplan kostet sechzig Liter am Tag.",
                    "Ich rufe bis Freitag das Hafenamt wegen der neuen Zeiten im Fahrplan an.",
                    "Gut, dann ist der Fahrplan so beschlossen und wir schreiben ihn an die Tür.",
                    "Jetzt zur Helling, die untere Schiene der Helling hat sich um vierzehn Millimeter bewegt.",
                    "Die Helling muss vor dem Winter repariert werden, sonst trägt die Schiene das Schiff nicht.",
                    "Zwei Werften haben für die Reparatur der Helling ein Angebot geschickt.",
                    "Die Werft in Bergen ist billiger, sie kann die Schiene der Helling aber erst im Januar richten.",
                    "Dann warten wir bis Januar mit der Helling und mieten bis dahin einen Kran.",
                ]
            )
        ]
    )

    def test_lines_are_said_word_for_word_and_a_sentence_says_what_is_missing(self) -> None:
        made = minutes(self.TALK, shipped("general meeting"))
        assert "not seem to be in English" in made.remark
        assert {line.kind for line in made.lines} == {"key_point"}
        for line in made.lines:
            assert line.text in self.TALK.turns[min(line.turns)].text
        assert 0 < made.coverage.share <= 1

    def test_chapters_cover_the_talk_and_are_named_by_its_own_words(self) -> None:
        chapters = minutes(self.TALK, shipped("general meeting")).chapters
        finer = minutes(self.TALK, shipped("general meeting"), fine=True).chapters
        assert len(finer) >= len(chapters)
        assert [c.first for c in chapters[1:]] == [c.last + 1 for c in chapters[:-1]]
        said = " ".join(turn.text for turn in self.TALK.turns).lower()
        assert all(word.lower() in said for chapter in chapters for word in chapter.title.split(", "))

    def test_english_talk_and_short_talk_are_not_taken_for_another_language(self) -> None:
        assert minutes(CREW, shipped("general meeting")).remark == ""
        assert minutes(talk(("A", "Fahrplan, Helling, Kran.")), shipped("general meeting")).remark == ""


def test_a_reversed_decision_leads_to_what_was_decided_instead() -> None:
    turned = talk(
        ("Maren", "So we repair the slipway in November, agreed?"),
        ("Ines", "Yes, agreed, we repair the slipway in November."),
        ("Maren", "Good. What does the rail weigh?"),
        ("Tobias", "About two tons, with the bolts."),
        ("Ines", "And the crane takes three."),
        ("Maren", "The crane is ours until Easter."),
        ("Tobias", "The yard is full in November, they have just written."),
        ("Maren", "Then we repair the slipway in January instead, agreed?"),
        ("Ines", "Agreed, January."),
    )
    decisions = [line for line in minutes(turned, shipped("general meeting")).lines if line.kind == "decision"]
    (gone,) = [line for line in decisions if line.state == "superseded"]
    assert gone.answer is not None and "January" in gone.answer.text
    assert {p.turn for p in gone.answer.evidence} == {7}
