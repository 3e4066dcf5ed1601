"""Requests that were found to be answered by 500, and their like: each is answered with a sentence."""

import io
import json
import sqlite3
import struct
import wave
from pathlib import Path
from typing import Any

import pytest

from tests.help import Desk, tone, write_wav
from tests.rooms import RoomDesk

HUGE = 2**63
NESTED = "[" * 3000 + "]" * 3000


def is_a_sentence(answer: Any) -> bool:
    return 400 <= answer.status_code < 500 and bool(answer.json["detail"])


@pytest.mark.parametrize(
    "path",
    [f"/api/compilations/{HUGE}", f"/api/excerpts/{HUGE}", f"/api/people/{HUGE}/role", f"/api/account/sessions/{HUGE}"],
)
def test_numbers_beyond_all_rows(path: str, desk: Desk) -> None:
    for method in ("GET", "PUT", "DELETE"):
        answer = desk.client.send(method, path, {"role": "member"} if method == "PUT" else None)
        assert is_a_sentence(answer), (method, answer.status_code)


@pytest.mark.parametrize("body", [NESTED, '{"name": NaN}', '{"name": ' + NESTED + "}", "{", "\ud800".encode("utf-8", "surrogatepass"), b"\xff\xfe", '{"name": "\\ud800"}', '{"name": "a\\u0000b"}'])  # fmt: skip
def test_bodies_that_are_none(body: str | bytes, desk: Desk) -> None:
    head = {"X-CSRF-Token": desk.client.token, "Content-Type": "application/json"}
    answer = desk.client.raw.post("/api/people", data=body, headers=head)
    assert answer.status_code in (200, 400, 415, 422), answer.status_code


@pytest.mark.parametrize("link", ["ws://[::1", "ws://a:b@127.0.0.1/c", "ws://user@127.0.0.1/c", "ws://127.0.0.1:0/c", "ws://127.0.0.1:99999/c", "ws://:80/c", "wss://calls.elsewhere.example/c"])  # fmt: skip
def test_links_of_calls(link: str, room: RoomDesk) -> None:
    answer = room.client.post(f"{room.base}/line", {"link": link})
    assert (answer.status_code, bool(answer.json["detail"])) == (409, True)


@pytest.mark.parametrize("at", ["abc", "nan", "inf", "-inf", "1e999", "", "-5"])
def test_seconds_in_headers(at: str, room: RoomDesk) -> None:
    room.announce()
    room.begin()
    head = {"X-CSRF-Token": room.client.token, "X-At": at}
    picture = room.client.raw.post(f"{room.base}/pictures", data=b"\xff\xd8\xff\xe0", headers=head)
    assert picture.status_code in (200, 409)
    begun = room.put(0, b"\0\0", begun=float("nan"))
    assert begun.status_code == 200


@pytest.mark.parametrize("year", ["0001", "1969", "2201", "9999"])
def test_years_that_break_lists(year: str, desk: Desk) -> None:
    upload = desk.client.post("/api/uploads", {"name": "a", "size": 3, "fingerprint": "0" * 64}).json["id"]
    body = {"title": "T", "starts_at": f"{year}-05-06T09:00:00", "upload_id": upload, "people": []}
    assert is_a_sentence(desk.client.post("/api/meetings", body))
    assert desk.client.get("/api/meetings").status_code == 200


def header(**changed: int) -> bytes:
    """A WAV file of a second of silence, some fields of its header changed."""
    made = io.BytesIO()
    with wave.open(made, "wb") as file:
        file.setnchannels(1)
        file.setsampwidth(2)
        file.setframerate(16_000)
        file.writeframes(b"\0\0" * 16_000)
    data = bytearray(made.getvalue())
    places = {"channels": (22, "<H"), "rate": (24, "<I"), "bytes": (28, "<I"), "block": (32, "<H"), "bits": (34, "<H")}
    for name, value in changed.items():
        at, form = places[name]
        struct.pack_into(form, data, at, value)
    return bytes(data)


@pytest.mark.parametrize("changed", [{"bits": 0}, {"channels": 0}, {"rate": 0}, {"block": 0}, {"bits": 0, "block": 0}, {"channels": 65535}, {"rate": 2**32 - 1}, {"bits": 65535}])  # fmt: skip
def test_headers_of_sound_that_cannot_be(changed: dict[str, int], desk: Desk, tmp_path: Path) -> None:
    path = tmp_path / "odd.wav"
    path.write_bytes(header(**changed))
    meeting = desk.bring_in(path)
    desk.work()
    job = desk.record(meeting)["meeting"]["job"]
    assert job["state"] == "failed"
    assert "our side" not in job["error"], job["error"]


@pytest.mark.parametrize("listed", ["ffconcat version 1.0\nfile {}\n", "#EXTM3U\n#EXT-X-TARGETDURATION:9\n#EXTINF:9,\n{}\n#EXT-X-ENDLIST\n", '<?xml version="1.0"?><MPD><BaseURL>{}</BaseURL></MPD>'])  # fmt: skip
def test_a_list_of_files_reads_no_sound_of_others(listed: str, desk: Desk, tmp_path: Path) -> None:
    write_wav(tmp_path / "others.wav", tone(2.0), 16_000)
    path = tmp_path / "list.mp3"
    path.write_text(listed.format(tmp_path / "others.wav"))
    meeting = desk.bring_in(path)
    desk.work()
    record = desk.record(meeting)
    assert record["meeting"]["job"]["state"] == "failed"
    assert record["recording"] is None or record["recording"]["duration"] is None


def test_one_bad_row_breaks_no_list(desk: Desk, tmp_path: Path) -> None:
    path = tmp_path / "talk.txt"
    path.write_text("Maren: Good morning.\nInes: Morning.")
    good, bad = desk.bring_in(path), desk.bring_in(path, title="Bad")
    desk.work()
    with sqlite3.connect(desk.installation.settings.data / "nuntius.db") as connection:
        connection.execute(
            "UPDATE meeting SET starts_at = '0001-01-01 00:00:00', time_zone = 'America/New_York' WHERE id = ?", (bad,)
        )
    listed = desk.client.get("/api/meetings")
    assert listed.status_code == 200
    assert {m["id"] for m in listed.json["meetings"]} == {good, bad}
    assert desk.client.get("/api/meetings/actions").status_code == 200


def test_naughty_names_are_kept_or_refused_with_a_sentence(desk: Desk) -> None:
    naughty = ["' OR 1=1 --", "<script>alert(1)</script>", "../../etc/passwd", "{{7*7}}", "%s%s%n", "Robert'); DROP TABLE person;--", "‮gnp.exe", "🧑‍🤝‍🧑", "ﷺ", "NULL", "0x0", "ĀĒĪŌŪ" * 20, "a" * 201, "\r\nSet-Cookie: a=b", "`id`", "=cmd|' /C calc'!A0"]  # fmt: skip
    for name in naughty:
        answer = desk.client.post("/api/people", {"name": name})
        assert answer.status_code in (200, 422), (name, answer.status_code)
    assert json.dumps(desk.client.get("/api/people").json)
