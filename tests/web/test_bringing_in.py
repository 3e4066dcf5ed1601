"""Uploads that stop and go on, files that come again, and everything that is no good."""

import json
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from nuntius.store import files as store_files
from nuntius.store.errors import StorageFull
from tests.help import Desk, fingerprint, parts, tone, write_wav

TALK = "Maren: Good morning. Ines, could you send the harbour office the times?\nInes: Yes, by Friday.\n"


def begin(desk: Desk, data: bytes, name: str = "talk.txt") -> dict[str, object]:
    response = desk.client.post("/api/uploads", {"name": name, "size": len(data), "fingerprint": fingerprint(data)})
    assert response.status_code == 200
    return dict(response.json)


def meeting_for(desk: Desk, upload: object, title: str = "Talk") -> str:
    body = {"title": title, "kind": "general meeting", "starts_at": "2026-10-06T09:30:00+01:00", "upload_id": upload}
    return str(desk.client.post("/api/meetings", body).json["id"])


def test_an_upload_goes_on_where_it_stopped(desk: Desk, tmp_path: Path) -> None:
    write_wav(tmp_path / "s.wav", tone(150, rate=44_100), 44_100)
    data = (tmp_path / "s.wav").read_bytes()
    upload = begin(desk, data, "s.wav")
    pieces = parts(data, int(str(upload["part_size"])))
    assert len(pieces) == 4
    assert desk.client.put_part(str(upload["id"]), 2, pieces[2]).json["held"] == [2]
    meeting = meeting_for(desk, upload["id"])
    early = desk.client.post(f"/api/meetings/{meeting}/begin")
    assert (early.status_code, "3 parts" in early.json["detail"]) == (409, True)
    again = begin(desk, data, "s.wav")
    assert (again["id"], again["held"], again["meeting_id"]) == (upload["id"], [2], meeting)
    for number in (0, 1, 3):
        desk.client.put_part(str(upload["id"]), number, pieces[number])
    assert desk.client.put_part(str(upload["id"]), 3, pieces[3]).status_code == 200  # the same part again
    assert desk.client.post(f"/api/meetings/{meeting}/begin").json["job"]["state"] == "waiting"
    desk.work()
    assert desk.client.get(f"/api/meetings/{meeting}/original").data == data


def test_beginning_the_work_twice_does_it_once(desk: Desk) -> None:
    upload = begin(desk, TALK.encode())
    desk.client.put_part(str(upload["id"]), 0, TALK.encode())
    meeting = meeting_for(desk, upload["id"])
    jobs = {desk.client.post(f"/api/meetings/{meeting}/begin").json["job"]["id"] for _ in range(3)}
    assert len(jobs) == 1
    desk.work()
    assert len(desk.record(meeting)["turns"]) == 2


def test_the_same_file_again_is_recognised_and_stored_once(desk: Desk, tmp_path: Path) -> None:
    path = tmp_path / "talk.txt"
    path.write_text(TALK)
    meeting = desk.bring_in(path, title="The first time")
    again = begin(desk, TALK.encode())
    assert (again["same_as"], again["same_title"]) == (meeting, "The first time")
    desk.bring_in(path, title="The second time")
    desk.work()
    kept = [
        p
        for p in (desk.installation.settings.data / "files").rglob("*")
        if p.is_file() and p.read_bytes() == TALK.encode()
    ]
    assert len(kept) == 1
    desk.client.send("DELETE", f"/api/meetings/{meeting}")
    assert kept[0].exists()  # the other meeting still has it


def test_damaged_and_different_parts_are_refused(desk: Desk) -> None:
    upload = str(begin(desk, b"abc")["id"])
    assert desk.client.put_part(upload, 0, b"abd", digest="0" * 64).status_code == 422
    assert desk.client.put_part(upload, 0, b"ab").status_code == 422
    assert desk.client.put_part(upload, 1, b"abc").status_code == 404
    assert desk.client.put_part(upload, 0, b"abc").status_code == 200
    assert desk.client.put_part(upload, 0, b"xyz").status_code == 409


def test_a_full_disk_keeps_what_has_arrived_and_says_so(desk: Desk, monkeypatch: pytest.MonkeyPatch) -> None:
    upload = str(begin(desk, TALK.encode())["id"])

    def full(*_: object) -> None:
        raise StorageFull()

    with monkeypatch.context() as patch:
        patch.setattr(store_files.FileStore, "write_part", full)
        response = desk.client.put_part(upload, 0, TALK.encode())
        assert (response.status_code, response.json["title"]) == (507, "Disk full")
        assert "make room" in response.json["detail"]
    assert desk.client.get(f"/api/uploads/{upload}").json["held"] == []
    assert desk.client.put_part(upload, 0, TALK.encode()).status_code == 200


@pytest.mark.parametrize(
    ("name", "data", "says"),
    [
        ("noise.mp3", np.random.default_rng(1).bytes(30_000), "neither sound nor picture"),
        ("nothing.wav", b"", "empty"),
        ("words.txt", b"no names in here at all", "Name: words"),
        ("empty.vtt", b"WEBVTT\n\n", "holds no words"),
        ("picture.png", b"\x89PNG\r\n\x1a\n" + b"\x00" * 64, "neither sound nor picture"),
    ],
)
def test_what_is_no_good_fails_with_its_own_sentence(
    name: str, data: bytes, says: str, desk: Desk, tmp_path: Path
) -> None:
    (tmp_path / name).write_bytes(data)
    meeting = desk.bring_in(tmp_path / name)
    desk.work()
    job = desk.record(meeting)["meeting"]["job"]
    assert job["state"] == "failed"
    assert says in job["error"]
    assert desk.client.get("/api/health").status_code == 200
    desk.work()
    assert desk.client.get(f"/api/meetings/{meeting}/original").data == data


def test_a_text_in_another_encoding_is_read(desk: Desk, tmp_path: Path) -> None:
    (tmp_path / "t.srt").write_bytes(
        "1\r\n00:00:01,000 --> 00:00:03,000\r\nJürgen: Schöne Grüße für Zoë.\r\n".encode("cp1252")
    )
    meeting = desk.bring_in(tmp_path / "t.srt")
    desk.work()
    assert desk.record(meeting)["voices"][0]["name"] == "Jürgen"


@pytest.mark.parametrize(
    ("field", "value", "says"),
    [
        ("title", "x" * 10_000, "title: this is too long; at most 200 characters."),
        ("title", "   ", "title: this is too short"),
        ("kind", "party", "kind"),
        ("starts_at", "yesterday", "starts_at"),
        ("voices", 900, "voices"),
    ],
)
def test_wrong_details_are_named(field: str, value: object, says: str, desk: Desk) -> None:
    upload = begin(desk, TALK.encode())
    body = {
        "title": "T",
        "kind": "training",
        "starts_at": "2026-10-06T09:30:00",
        "upload_id": upload["id"],
        field: value,
    }
    response = desk.client.post("/api/meetings", body)
    assert response.status_code == 422
    assert response.content_type == "application/problem+json"
    assert says in response.json["detail"]


def test_too_large_a_file_is_refused_before_it_is_sent(desk: Desk) -> None:
    response = desk.client.post("/api/uploads", {"name": "a.wav", "size": 5 * 1024**3, "fingerprint": "0" * 64})
    assert (response.status_code, "at most 4 GB" in response.json["detail"]) == (409, True)


def test_hostile_json_is_answered_calmly(desk: Desk) -> None:
    headers = {"X-CSRF-Token": desk.client.token, "Content-Type": "application/json"}
    for body in (b"{", b"[]", b"null", json.dumps({"name": {"$gt": ""}}).encode(), b'"' + b"a" * 100_000 + b'"'):
        response = desk.client.raw.post("/api/people", data=body, headers=headers)
        assert 400 <= response.status_code < 500
        assert "detail" in (response.json or {})


class TestSpace:
    def test_it_is_shown_and_a_file_that_does_not_fit_is_refused(self, desk: Desk, wav: Path) -> None:
        object.__setattr__(desk.app.extensions["nuntius"], "settings", replace(desk.installation.settings, person_gb=1))
        desk.bring_in(wav)
        account = desk.client.get("/api/account").json
        assert account["space"] == {"used": wav.stat().st_size, "limit": 1024**3}
        assert account["workspace_space"] == {"used": wav.stat().st_size, "limit": None}
        large = {"name": "all day.wav", "size": 1024**3, "fingerprint": "1" * 64}
        refused = desk.client.post("/api/uploads", large)
        assert (refused.status_code, "Remove meetings" in refused.json["detail"]) == (507, True)
        ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
        assert ines.post("/api/uploads", large).status_code == 200

    def test_all_of_a_team_share_the_room_of_their_workspace(self, desk: Desk, wav: Path) -> None:
        settings = replace(desk.installation.settings, workspace_gb=1)
        object.__setattr__(desk.app.extensions["nuntius"], "settings", settings)
        ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
        most = {"name": "all day.wav", "size": 1024**3, "fingerprint": "1" * 64}
        assert desk.client.post("/api/uploads", most).status_code == 200
        assert desk.client.post("/api/uploads", most).status_code == 200  # goes on where it stopped
        assert ines.post("/api/uploads", most | {"size": 10}).status_code == 507

    def test_a_meeting_that_is_removed_makes_room(self, desk: Desk, wav: Path) -> None:
        meeting = desk.bring_in(wav)
        assert desk.client.send("DELETE", f"/api/meetings/{meeting}").status_code == 200
        assert desk.client.get("/api/account").json["space"]["used"] == 0
