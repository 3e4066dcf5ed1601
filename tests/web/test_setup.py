"""What a workspace has of its own, over the API: templates, vocabulary, ready questions, counts; and texts."""

from pathlib import Path
from typing import Any

import pytest

from tests.help import Desk

TALK = """WEBVTT

00:00:01.000 --> 00:00:06.000
<v Maren Tull>Inez, could you send the salt marsh office the new times?

00:00:06.500 --> 00:00:09.000
<v Ines Carvell>Sure. They'll have them tomorrow morning.

00:00:10.000 --> 00:00:15.000
<v Maren Tull>The hired lifts cost seven hundred and fifty pounds each.

00:00:15.500 --> 00:00:19.000
<v Ines Carvell>I'll ask the yard for a better price by Friday.

00:00:20.000 --> 00:00:23.000
<v Maren Tull>Thanks, Inez.
"""
OWN = {
    "name": "Boats",
    "sections": [{"title": "Tasks", "kinds": ["action"]}, {"title": "Lifts", "words": ["hired lift"]}],
    "labels": ["leak"],
    "agenda": ["The last week", "The next one"],
    "questions": ["Which boat is out?"],
    "length": "short",
}


@pytest.fixture
def meeting(desk: Desk, tmp_path: Path) -> str:
    return bring_in(desk, tmp_path, "Crew meeting, 6 October")


def bring_in(desk: Desk, folder: Path, title: str, talk: str = TALK) -> str:
    (folder / "talk.vtt").write_text(talk)
    made = desk.bring_in(folder / "talk.vtt", title, people=("Maren Tull", "Ines Carvell"))
    desk.work()
    return made


def sections(record: dict[str, Any]) -> dict[str, list[str]]:
    minutes = record["minutes"]
    return {
        s["title"]: [e["text"] for e in minutes["lines"] if e["place"] == n] for n, s in enumerate(minutes["sections"])
    }


class TestTemplates:
    def test_an_own_one_is_made_used_changed_and_removed(self, desk: Desk, meeting: str) -> None:
        made = desk.client.post("/api/templates", OWN).json
        assert made["key"] in [t["key"] for t in desk.client.get("/api/templates").json["templates"]]
        action = next(e for e in desk.record(meeting)["minutes"]["lines"] if e["kind"] == "action")
        desk.client.put(f"/api/meetings/{meeting}/lines/{action['id']}", {"text": "Ask the yard at Hollin Bay."})
        record = desk.remade(meeting, template=made["key"])
        assert (record["minutes"]["template"], record["meeting"]["kind"]) == (made["key"], "Boats")
        told = sections(record)
        assert "Ask the yard at Hollin Bay." in told["Tasks"], "what a person wrote was lost"
        assert [text for text in told["Lifts"] if "hired lifts" in text]
        assert "## Lifts (1)" in desk.client.get(f"/api/meetings/{meeting}/files/minutes.md").text

        changed = {**OWN, "sections": [{"title": "All tasks", "kinds": ["action"]}]}
        assert desk.client.put(f"/api/templates/{made['id']}", changed).status_code == 200
        assert "Ask the yard at Hollin Bay." in sections(desk.remade(meeting))["All tasks"]
        assert desk.client.send("DELETE", f"/api/templates/{made['id']}").status_code == 200
        assert desk.remade(meeting)["minutes"]["template"] == "committee"

    @pytest.mark.parametrize(
        ("body", "status", "told"),
        [
            ({**OWN, "name": "committee"}, 409, "called “committee” already"),
            ({**OWN, "sections": []}, 422, "at least one section"),
            ({**OWN, "sections": [{"title": "A", "kinds": ["gossip"]}]}, 422, "no kind of line"),
        ],
    )
    def test_one_that_cannot_be_used_is_refused_with_a_sentence(
        self, desk: Desk, body: Any, status: int, told: str
    ) -> None:
        response = desk.client.post("/api/templates", body)
        assert (response.status_code, told in response.json["detail"]) == (status, True)

    def test_a_template_that_is_not_there_changes_nothing(self, desk: Desk, meeting: str) -> None:
        assert desk.client.post(f"/api/meetings/{meeting}/minutes", {"template": "own-99"}).status_code == 404
        assert desk.client.put("/api/templates/99", OWN).status_code == 404
        assert desk.record(meeting)["minutes"]["template"] == "committee"

    def test_a_room_begins_with_the_standing_agenda_and_the_labels(self, desk: Desk) -> None:
        key = desk.client.post("/api/templates", OWN).json["key"]
        board = desk.client.post("/api/rooms", {"title": "Boats on Monday", "template": key}).json["board"]
        assert [item["title"] for item in board["agenda"]] == OWN["agenda"]
        assert board["labels"] == ["leak"]

    def test_another_template_is_suggested_by_the_title(self, desk: Desk, tmp_path: Path) -> None:
        call = bring_in(desk, tmp_path, "Client call with the coach firm")
        found = desk.client.get(f"/api/meetings/{call}/template").json
        assert found["key"] == "client call" and "Client" in found["because"]
        desk.remade(call, template="client call")
        assert desk.client.get(f"/api/meetings/{call}/template").json["key"] is None


class TestVocabulary:
    def test_only_names_of_those_who_were_there_are_listened_for(self, desk: Desk, meeting: str) -> None:
        there = desk.client.get(f"/api/meetings/{meeting}/people").json["people"]
        ines = next(each["id"] for each in there if each["name"].startswith("Ines"))
        assert [each["term"] for each in desk.misheard(meeting)] == ["Ines"]
        assert desk.client.send("DELETE", f"/api/meetings/{meeting}/people/{ines}").status_code == 200
        assert desk.misheard(meeting) == []

    def test_a_misheard_name_is_put_right_everywhere_and_taken_back(self, desk: Desk, meeting: str) -> None:
        desk.client.post("/api/setup/terms", {"text": "Saltmarsh"})
        address = f"/api/meetings/{meeting}/misheard"
        found = {(e["term"], e["heard"]): len(e["places"]) for e in desk.misheard(meeting)}
        assert found == {("Ines", "Inez"): 2, ("Saltmarsh", "salt marsh"): 1}

        changed = desk.client.post(address, {"term": "Saltmarsh", "heard": "salt marsh", "right": True}).json
        assert "the Saltmarsh office" in " ".join(w[0] for w in changed["turns"][0]["words"])
        assert "Saltmarsh" in str(changed["minutes"]) and "salt marsh office" not in str(
            [e["text"] for e in changed["minutes"]["lines"]]
        )
        changed = desk.client.post(address, {"term": "Ines", "heard": "Inez", "right": True}).json
        assert [turn["number"] for turn in changed["turns"]] == [0, 4]
        assert desk.misheard(meeting) == []

        undone = desk.client.post(f"/api/meetings/{meeting}/undo").json
        assert [turn["heard"] for turn in undone["turns"]][1] is None
        assert {e["known"] for e in desk.misheard(meeting)} == {True}, "the form was not remembered"

    def test_a_form_that_is_right_is_not_shown_again(self, desk: Desk, meeting: str) -> None:
        address = f"/api/meetings/{meeting}/misheard"
        desk.client.post(address, {"term": "Ines", "heard": "Inez", "right": False})
        assert desk.misheard(meeting) == []
        assert desk.record(meeting)["can_undo"] is False
        assert desk.client.post(address, {"term": "Ines", "heard": "Inez", "right": True}).status_code == 404

    def test_minutes_made_again_leave_what_was_put_right_to_be_taken_back(self, desk: Desk, meeting: str) -> None:
        desk.client.post(f"/api/meetings/{meeting}/misheard", {"term": "Ines", "heard": "Inez", "right": True})
        desk.remade(meeting, length="full")
        undone = desk.client.post(f"/api/meetings/{meeting}/undo")
        assert undone.status_code == 200
        assert [turn["number"] for turn in undone.json["turns"]] == [0, 4]

    def test_terms_are_added_once_and_removed(self, desk: Desk) -> None:
        desk.client.post("/api/setup/terms", {"text": "Heron", "heard": ["herron"]})
        (term,) = desk.client.post("/api/setup/terms", {"text": " heron ", "heard": ["Herron", "hair on"]}).json[
            "terms"
        ]
        assert (term["text"], term["heard"]) == ("heron", ["herron", "hair on"])
        assert desk.client.post("/api/setup/terms", {"text": "x" * 100}).status_code == 409
        assert desk.client.send("DELETE", f"/api/setup/terms/{term['id']}").json == {"terms": []}


class TestTrust:
    def test_what_people_did_is_counted_by_kind(self, desk: Desk, meeting: str) -> None:
        actions = [e for e in desk.record(meeting)["minutes"]["lines"] if e["kind"] == "action"]
        base = f"/api/meetings/{meeting}/lines"
        desk.client.put(f"{base}/{actions[0]['id']}/tick", {"checked": True})
        desk.client.put(f"{base}/{actions[1]['id']}/thrown", {"reason": "not said"})
        (told,) = [e for e in desk.client.get("/api/setup/trust").json["kinds"] if e["kind"] == "action"]
        assert (told["lines"], told["confirmed"], told["thrown_out"]) == (len(actions), 1, 1)
        assert told["reasons"] == [{"reason": "not said", "lines": 1}]

    def test_others_are_not_shown_the_counts_of_meetings_that_are_not_theirs(self, desk: Desk, meeting: str) -> None:
        tobias = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
        assert tobias.get("/api/setup/trust").json == {"kinds": []}

    def test_what_was_thrown_out_is_not_offered_in_the_next_meeting_of_the_series(
        self, desk: Desk, meeting: str, tmp_path: Path
    ) -> None:
        line = next(e for e in desk.record(meeting)["minutes"]["lines"] if "better price" in e["text"])
        desk.client.put(f"/api/meetings/{meeting}/lines/{line['id']}/thrown", {"reason": "does not matter"})
        following = bring_in(
            desk, tmp_path, "Crew meeting, 13 October", TALK + "\n00:00:24.000 --> 00:00:25.000\n<v Maren Tull>Bye.\n"
        )
        other = bring_in(desk, tmp_path, "Slipway", TALK + "\n00:00:24.000 --> 00:00:25.000\n<v Maren Tull>Good bye.\n")
        kinds = {
            m: [e["kind"] for e in desk.record(m)["minutes"]["lines"] if "better price" in e["text"]]
            for m in (following, other)
        }
        assert line["kind"] not in kinds[following]
        assert line["kind"] in kinds[other]


class TestTexts:
    @pytest.mark.parametrize("form", ["message", "client-message", "checklist", "brief", "handout"])
    def test_every_text_rests_on_lines_of_the_minutes(self, desk: Desk, meeting: str, form: str) -> None:
        text = desk.client.get(f"/api/meetings/{meeting}/texts/{form}?manner=warm").json
        assert text["subject"] == "Crew meeting, 6 October, Tuesday 6 October"
        known = {e["id"] for e in desk.record(meeting)["minutes"]["lines"]}
        assert {line for piece in text["pieces"] for line in piece["lines"]} <= known
        assert form == "handout" or any(piece["lines"] for piece in text["pieces"])

    def test_what_was_thrown_out_is_in_no_text(self, desk: Desk, meeting: str) -> None:
        line = next(e for e in desk.record(meeting)["minutes"]["lines"] if e["kind"] == "action")
        desk.client.put(f"/api/meetings/{meeting}/lines/{line['id']}/thrown", {"reason": "twice"})
        text = desk.client.get(f"/api/meetings/{meeting}/texts/checklist").json
        assert line["id"] not in [each for piece in text["pieces"] for each in piece["lines"]]

    def test_an_unknown_text_or_manner_is_refused(self, desk: Desk, meeting: str) -> None:
        assert desk.client.get(f"/api/meetings/{meeting}/texts/poem").status_code == 422
        assert desk.client.get(f"/api/meetings/{meeting}/texts/message?manner=rude").status_code == 422


def test_ready_questions_are_those_of_the_template_and_the_kept_ones(desk: Desk, meeting: str) -> None:
    desk.client.post("/api/setup/questions", {"text": "Who has the key?"})
    kept = desk.client.post("/api/setup/questions", {"text": "who has the key?"}).json["kept"]
    assert [each["text"] for each in kept] == ["Who has the key?"]
    found = desk.client.get(f"/api/meetings/{meeting}/questions").json
    assert "Who was against?" in found["template"] and found["kept"] == kept
    assert desk.client.post("/api/setup/questions", {"text": " "}).status_code == 409
    assert desk.client.send("DELETE", f"/api/setup/questions/{kept[0]['id']}").json["kept"] == []
