"""Notes and marks on a record over the API."""

from tests.help import Desk


def test_a_note_at_a_moment_becomes_part_of_the_minutes(desk: Desk, meeting: str) -> None:
    base = f"/api/meetings/{meeting}/notes"
    written = {"text": "Ask about the spare keys.", "at": 12.0, "position": 1}
    answer = desk.client.put(f"{base}/note-one", written)
    assert [note["text"] for note in answer.json["notes"]] == ["Ask about the spare keys."]
    desk.client.put(f"{base}/note-two", {**written, "text": "For me.", "private": True})
    texts = [line["text"] for line in desk.remade(meeting)["minutes"]["lines"]]
    assert "Ask about the spare keys." in texts and "For me." not in texts
    assert desk.client.send("DELETE", f"{base}/note-one").json["notes"][0]["text"] == "For me."
    assert "Ask about the spare keys." not in [line["text"] for line in desk.remade(meeting)["minutes"]["lines"]]


def test_a_mark_begins_with_the_turn_that_is_spoken(desk: Desk, meeting: str) -> None:
    base = f"/api/meetings/{meeting}/marks"
    (mark,) = desk.client.put(f"{base}/mark-one", {"label": "worth keeping", "start": 12.5, "end": 12.5}).json["marks"]
    assert (mark["start"], mark["end"], mark["by"], mark["mine"]) == (10.0, 12.5, "Maren Tull", True)
    assert desk.client.send("DELETE", f"{base}/mark-one").json["marks"] == []


def test_notes_are_ones_own_and_marks_are_everybodys(desk: Desk, meeting: str) -> None:
    tobias = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
    base = f"/api/meetings/{meeting}"
    desk.client.put(f"{base}/notes/note-one", {"text": "Mine.", "at": 1, "position": 1})
    desk.client.put(f"{base}/marks/mark-one", {"label": "worth keeping", "start": 1, "end": 1})
    assert tobias.get(f"{base}/notes").json["notes"] == []
    assert tobias.put(f"{base}/notes/note-one", {"text": "No.", "at": 1, "position": 1}).status_code == 404
    (mark,) = tobias.put(f"{base}/marks/mark-two", {"label": "Joke", "start": 11, "end": 11}).json["marks"][:1]
    assert (mark["id"], mark["mine"]) == ("mark-one", False)
    assert tobias.put(f"{base}/marks/mark-one", {"label": "No", "start": 1, "end": 1}).status_code == 404
