"""The record over the API: set right, taken back, listened to, downloaded."""

from posixpath import normpath
from typing import Any

import pytest

from nuntius.core.formats.webvtt import read_webvtt
from nuntius.web import openapi
from tests.help import ROOT, Desk


def action(answer: dict[str, Any]) -> dict[str, Any]:
    """The action among the lines of a record, or of what a change touched."""
    lines = answer["minutes"]["lines"] if answer["minutes"] else answer["lines"]
    return next(line for line in lines if line["kind"] == "action")


def test_naming_a_voice_shows_everywhere_at_once(desk: Desk, meeting: str) -> None:
    record = desk.record(meeting)
    voice = next(v for v in record["voices"] if v["label"] == "Speaker 2")
    suggested = desk.client.get(f"/api/meetings/{meeting}/voices/{voice['id']}/suggestions").json["names"]
    assert suggested[0] == "Tobias Pryce"
    assert action(record)["owner"] == ["Speaker 2"]
    changed = desk.client.put(f"/api/meetings/{meeting}/voices/{voice['id']}", {"name": "Tobias Pryce"}).json
    assert action(changed)["owner"] == ["Tobias Pryce"]
    assert "Tobias Pryce" in desk.client.get(f"/api/meetings/{meeting}/files/minutes.md").text
    assert "<v Tobias Pryce>" in desk.client.get(f"/api/meetings/{meeting}/files/transcript.vtt").text
    assert action(desk.client.post(f"/api/meetings/{meeting}/undo").json)["owner"] == ["Speaker 2"]
    assert action(desk.client.post(f"/api/meetings/{meeting}/redo").json)["owner"] == ["Tobias Pryce"]


def test_a_new_name_becomes_a_person(desk: Desk, meeting: str) -> None:
    voice = desk.record(meeting)["voices"][0]
    desk.client.put(f"/api/meetings/{meeting}/voices/{voice['id']}", {"name": "Zoë Lindqvist"})
    assert "Zoë Lindqvist" in [p["name"] for p in desk.client.get("/api/people").json["people"]]


def test_a_corrected_turn_keeps_what_was_heard(desk: Desk, meeting: str) -> None:
    before = desk.record(meeting)["turns"][2]
    changed = desk.client.put(
        f"/api/meetings/{meeting}/turns/2", {"text": "The hired lifts cost eight hundred pounds each."}
    ).json
    assert " ".join(w[0] for w in changed["turns"][0]["words"]) == "The hired lifts cost eight hundred pounds each."
    assert changed["turns"][0]["words"][0] == before["words"][0]
    assert changed["turns"][0]["heard"] == " ".join(w[0] for w in before["words"])
    undone = desk.client.post(f"/api/meetings/{meeting}/undo").json
    assert (undone["turns"][0]["words"], undone["turns"][0]["heard"]) == (before["words"], None)


def test_lines_are_edited_ticked_and_taken_back_in_turn(desk: Desk, meeting: str) -> None:
    line = action(desk.record(meeting))
    base = f"/api/meetings/{meeting}/lines/{line['id']}"
    desk.client.put(base, {"text": "Send the  new times."})
    ticked = action(desk.client.put(f"{base}/tick", {"checked": True}).json)
    assert (ticked["text"], ticked["heard"], ticked["checked"]) == ("Send the new times.", line["text"], True)
    assert action(desk.client.post(f"/api/meetings/{meeting}/undo").json)["checked"] is False
    assert action(desk.client.post(f"/api/meetings/{meeting}/undo").json)["text"] == line["text"]
    last = desk.client.post(f"/api/meetings/{meeting}/undo")
    assert (last.status_code, last.json["detail"]) == (409, "There is nothing to take back.")
    desk.client.post(f"/api/meetings/{meeting}/redo")
    redone = action(desk.client.post(f"/api/meetings/{meeting}/redo").json)
    assert (redone["text"], redone["checked"]) == ("Send the new times.", True)


def test_minutes_made_again_keep_what_a_person_did(desk: Desk, meeting: str) -> None:
    line = action(desk.record(meeting))
    base = f"/api/meetings/{meeting}/lines/{line['id']}"
    desk.client.put(base, {"text": "Times to the harbour office."})
    desk.client.put(f"{base}/tick", {"checked": True})
    again = action(desk.remade(meeting))
    assert (again["text"], again["checked"]) == ("Times to the harbour office.", True)
    undone = desk.client.post(f"/api/meetings/{meeting}/undo").json
    assert action(undone)["checked"] is False


def test_a_line_that_was_thrown_out_stays_out_of_everything_until_taken_back(desk: Desk, meeting: str) -> None:
    line = action(desk.record(meeting))
    base = f"/api/meetings/{meeting}"
    shown = ("files/minutes.md", "files/minutes.json", "../actions")

    def where() -> list[str]:
        """The pages and files that tell the line."""
        return [path for path in shown if line["text"] in desk.client.get(normpath(f"{base}/{path}")).text]

    assert where() == list(shown)
    before = desk.record(meeting)["meeting"]["lines"]
    out = action(desk.client.put(f"{base}/lines/{line['id']}/thrown", {"reason": "said as a joke"}).json)
    assert out["thrown_out"] == "said as a joke"
    again = action(desk.remade(meeting))  # made again: not offered again
    assert (again["text"], again["thrown_out"]) == (line["text"], "said as a joke")
    assert where() == []
    assert desk.record(meeting)["meeting"]["lines"] == before - 1
    back = action(desk.client.post(f"{base}/undo").json)
    assert back["thrown_out"] is None
    assert where() == list(shown)


def test_a_reason_that_is_not_known_is_reported(desk: Desk, meeting: str) -> None:
    line = action(desk.record(meeting))
    told = desk.client.put(f"/api/meetings/{meeting}/lines/{line['id']}/thrown", {"reason": "because"})
    assert told.status_code == 422


def test_finer_chapters_are_kept_and_lose_what_was_said_of_the_others(desk: Desk, meeting: str) -> None:
    usual = desk.remade(meeting, detailed=[0])["minutes"]
    finer = desk.remade(meeting, fine=True)["minutes"]
    assert (usual["fine"], usual["detailed"]) == (False, [0])
    assert (finer["fine"], finer["detailed"]) == (True, [])
    assert len(finer["chapters"]) >= len(usual["chapters"])
    kept = desk.remade(meeting, detailed=[0])["minutes"]
    assert (kept["fine"], kept["detailed"]) == (True, [0])


def test_minutes_keep_the_length_that_was_chosen(desk: Desk, meeting: str) -> None:
    assert desk.record(meeting)["minutes"]["length"] == "standard"
    short = desk.remade(meeting, length="short")["minutes"]
    full = desk.remade(meeting, length="full")["minutes"]
    assert (short["length"], full["length"]) == ("short", "full")
    assert len(short["lines"]) <= len(full["lines"])
    assert desk.remade(meeting)["minutes"]["length"] == "full"
    assert desk.client.post(f"/api/meetings/{meeting}/minutes", {"length": "endless"}).status_code == 422


def test_one_person_does_not_take_back_what_another_did(desk: Desk, meeting: str) -> None:
    tobias = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
    with desk.installation.database.write() as session:
        from nuntius.store.models import Meeting, Person

        person = session.query(Person).filter(Person.user_id.is_not(None), Person.name == "Tobias Pryce").one()
        found = session.get_one(Meeting, meeting)
        found.people.append(person)
    line = action(desk.record(meeting))
    desk.client.put(f"/api/meetings/{meeting}/lines/{line['id']}", {"text": "Maren wrote this."})
    assert tobias.post(f"/api/meetings/{meeting}/undo").status_code == 409
    assert action(desk.record(meeting))["text"] == "Maren wrote this."


@pytest.mark.parametrize(
    "form",
    [
        "minutes.md",
        "minutes.json",
        "transcript.vtt",
        "transcript.srt",
        "transcript.json",
        "transcript.txt",
        "voices.rttm",
    ],
)
def test_every_file_can_be_taken_away(form: str, desk: Desk, meeting: str) -> None:
    response = desk.client.get(f"/api/meetings/{meeting}/files/{form}")
    assert response.status_code == 200
    assert "attachment" in response.headers["Content-Disposition"]
    assert len(response.text) > 80
    if form.endswith("vtt"):
        assert len(read_webvtt(response.text).turns) == 4


def test_every_line_leads_to_its_words(desk: Desk, meeting: str) -> None:
    record = desk.record(meeting)
    for line in record["minutes"]["lines"]:
        assert line["evidence"]
        for passage in line["evidence"]:
            turn = record["turns"][passage["turn"]]
            assert passage["quote"] in " ".join(w[0] for w in turn["words"])
            assert turn["words"][0][1] <= passage["start"] < passage["end"] <= turn["words"][-1][2] + 0.01


def test_the_record_answers_questions_or_says_that_it_cannot(desk: Desk, meeting: str) -> None:
    yes = desk.ask(f"/api/meetings/{meeting}/inquiry", "What do the hired lifts cost?")
    assert yes["found"]
    assert any("fifty pounds" in p["quote"] for p in yes["passages"])
    no = desk.ask(f"/api/meetings/{meeting}/inquiry", "Who is the lighthouse keeper's grandmother?")
    assert (no["found"], no["answer"], no["passages"]) == (False, None, [])


def test_what_is_asked_of_the_minutes_is_answered_from_their_lines_as_they_stand(desk: Desk, meeting: str) -> None:
    def ask(question: str) -> Any:
        return desk.ask(f"/api/meetings/{meeting}/inquiry", question)

    first = next(line for line in desk.record(meeting)["minutes"]["lines"] if line["kind"] == "action")
    told = ask("Who has to do what?")
    assert first["text"].rstrip(".") in told["answer"]
    assert told["passages"]
    line = f"/api/meetings/{meeting}/lines/{first['id']}"
    assert desk.client.put(line, {"text": "Thank the lifeboat crew."}).status_code == 200
    assert "Thank the lifeboat crew" in ask("Who has to do what?")["answer"]
    assert desk.client.put(f"{line}/thrown", {"reason": "said as a joke"}).status_code == 200
    assert "Thank the lifeboat crew" not in (ask("Who has to do what?")["answer"] or "")
    owner = next(
        each["owner"][0]
        for each in desk.record(meeting)["minutes"]["lines"]
        if each["kind"] == "action" and each["owner"] and not each["thrown_out"]
    )
    voice = next(each for each in desk.record(meeting)["voices"] if each["name"] == owner)
    desk.client.put(f"/api/meetings/{meeting}/voices/{voice['id']}", {"name": "Zoë Lindqvist"})
    assert "Zoë Lindqvist: " in ask("Who has to do what?")["answer"]
    assert ask("What did Zoë promise?")["answer"].startswith("Zoë Lindqvist: ")
    mine = ask("What is left for me to do?")
    owners = {
        name for each in desk.record(meeting)["minutes"]["lines"] if each["kind"] == "action" for name in each["owner"]
    }
    assert mine["found"] == ("Maren Tull" in owners)


def test_a_record_without_sound_says_so(desk: Desk, meeting: str) -> None:
    assert desk.record(meeting)["recording"]["has_sound"] is False
    assert desk.client.get(f"/api/meetings/{meeting}/sound").status_code == 404


def test_open_actions_come_by_due_date(desk: Desk, meeting: str) -> None:
    actions = desk.client.get("/api/meetings/actions").json["actions"]
    assert [a["due"] for a in actions] == ["2026-10-07", "2026-10-09"]


def test_the_openapi_file_and_the_types_made_from_it_are_current() -> None:
    kept = ROOT / "frontend/src/api/openapi.json"
    assert kept.read_text() == openapi.text()


def test_every_setting_is_in_the_readme() -> None:
    import re

    used = set(re.findall(r"NUNTIUS_[A-Z_]+", (ROOT / "src/nuntius/settings.py").read_text()))
    assert {name for name in used if name not in (ROOT / "README.md").read_text()} == set()


def test_the_floor_in_figures(desk: Desk, meeting: str) -> None:
    floor = desk.client.get(f"/api/meetings/{meeting}/floor").json
    assert sum(voice["share"] for voice in floor["voices"]) == pytest.approx(1)
    assert {voice["voice"]: voice["questions"] for voice in floor["voices"]}["Speaker 1"] == 1
    assert [part["title"] for part in floor["chapters"]] == [
        c["title"] for c in desk.record(meeting)["minutes"]["chapters"]
    ]
    assert floor["duration"] == pytest.approx(19.0)
    table = desk.client.get(f"/api/meetings/{meeting}/files/floor.csv").text.splitlines()
    assert table[0].startswith("voice,share,seconds") and len(table) == 1 + len(floor["voices"])


@pytest.mark.parametrize(
    ("form", "begins"),
    [
        ("minutes.docx", b"PK"),
        ("minutes.txt", b"Winter timetable"),
        ("transcript.docx", b"PK"),
        ("transcript.ttml", b"<?xml"),
        ("transcript.csv", b"turn,"),
        ("actions.csv", b"owner,"),
        ("actions.ics", b"BEGIN:VCALENDAR"),
        ("chapters.vtt", b"WEBVTT"),
        ("chapters.json", b"{"),
    ],
)
def test_every_file_is_what_it_says(desk: Desk, meeting: str, form: str, begins: bytes) -> None:
    answer = desk.client.get(f"/api/meetings/{meeting}/files/{form}")
    assert answer.status_code == 200
    assert answer.data.startswith(begins)
    assert form in answer.headers["Content-Disposition"]
