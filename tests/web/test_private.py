"""What was said stays between those who were there: files are closed to others of the machine, no word reaches a log."""

import json
import logging
import stat
from pathlib import Path

import pytest
from sqlalchemy import text

from nuntius.log import JsonLines
from nuntius.store.installation import make_private
from tests.help import MAREN, PASSWORD
from tests.rooms import RoomDesk

PLANTED = "xylophonic"


def test_the_data_folder_opens_only_for_its_owner(tmp_path: Path) -> None:
    folder = tmp_path / "made" / "data"
    make_private(folder)
    assert stat.S_IMODE(folder.stat().st_mode) == 0o700
    folder.chmod(0o755)  # as an earlier version has left it
    make_private(folder)
    assert stat.S_IMODE(folder.stat().st_mode) == 0o700


def test_no_word_reaches_a_log(
    room: RoomDesk, tmp_path: Path, caplog: pytest.LogCaptureFixture, monkeypatch: pytest.MonkeyPatch
) -> None:
    caplog.set_level(logging.INFO)
    caplog.set_level(logging.DEBUG, logger="nuntius")
    desk, client = room.desk, room.client
    (tmp_path / "talk.txt").write_text(f"Maren: We paint the {PLANTED} boat on Friday.\nTobias: Okay, I'll do that.\n")
    meeting = desk.bring_in(tmp_path / "talk.txt", title=f"About {PLANTED}")
    desk.work()
    base = f"/api/meetings/{meeting}"
    note = {"text": PLANTED, "at": 0.0, "position": 1.0, "private": True}
    room.hear((0.0, 1.0, f"good morning {PLANTED}"))
    answers = [
        client.put(f"{room.base}/notes/note-0001", note),
        client.put(f"{room.base}/notes/note-0001", note | {"at": PLANTED}),
        client.post(f"{base}/inquiry", {"question": f"Who paints the {PLANTED} boat?"}),
        client.post(f"{base}/replace", {"wanted": PLANTED, "instead": "blue", "dry": True}),
        client.put(f"{base}/turns/0", {"text": f"{PLANTED} indeed", "was": None}),
        client.put(f"{base}/turns/0", {"text": PLANTED * 3000, "was": None}),
        client.raw.get(f"/api/meetings?words={PLANTED}"),
        desk.stranger().post("/api/session", {"email": MAREN, "password": PLANTED}),
        client.raw.put(
            f"{base}/turns/0", data=f'{{"text": "{PLANTED}'.encode(), headers={"X-CSRF-Token": client.token}
        ),
    ]
    assert all(answer.status_code < 500 for answer in answers)
    desk.work()
    monkeypatch.setattr("nuntius.web.routes.records.changes.correct_turn", _fails)
    assert client.put(f"{base}/turns/0", {"text": PLANTED, "was": None}).status_code == 500
    lines = [JsonLines().format(record) for record in caplog.records]
    assert all(any(what in line for line in lines) for what in ("request failed", "work ends"))  # it is this log
    assert [json.loads(line)["what"] for line in lines if PLANTED in line or PASSWORD in line] == []


def _fails(session: object, *_: object) -> None:
    """A statement with a spoken word among its values that the database refuses."""
    session.execute(text("INSERT INTO turn (words) VALUES (:words)"), {"words": PLANTED})  # type: ignore[attr-defined]
