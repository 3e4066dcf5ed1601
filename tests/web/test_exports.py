"""Files that the worker makes: asked for, followed, fetched by one person alone, forgotten with what they hold."""

import io
import zipfile
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from pypdf import PdfReader
from sqlalchemy import select

from nuntius.core.audio.pcm import to_bytes
from nuntius.core.jobs import JobState
from nuntius.jobs.exporting import make_export
from nuntius.service.sweeping import sweep_files
from nuntius.store.exports import ANSWER_KEPT, KEPT, MOST_AT_ONCE
from nuntius.store.leases import LEASE
from nuntius.store.models import Export, Recording, now
from tests.help import Desk, tone

TALK = "Maren: The hired lifts cost 750 pounds each.\nInes: Agreed, we take four of them.\n"
PDF = {"kind": "minutes.pdf"}


@pytest.fixture
def meeting(desk: Desk, tmp_path: Path) -> str:
    """A meeting with text and ten seconds of sound."""
    (tmp_path / "talk.txt").write_text(TALK)
    made = desk.bring_in(tmp_path / "talk.txt", people=("Maren Tull", "Ines Carvell"))
    desk.work()
    files = desk.installation.files
    with files.scratch(".pcm") as samples:
        samples.write_bytes(to_bytes(tone(10.0)))
        digest = files.keep(samples)
    with desk.installation.database.write() as session:
        recording = session.scalars(select(Recording).where(Recording.meeting_id == made)).one()
        recording.working_digest, recording.duration = digest, 10.0
    return made


def ordered(desk: Desk, meeting: str, kind: str = "minutes.pdf") -> dict[str, Any]:
    return desk.client.post(f"/api/meetings/{meeting}/exports", {"kind": kind}).json  # type: ignore[no-any-return]


def listed(desk: Desk) -> list[dict[str, Any]]:
    return desk.client.get("/api/exports").json["exports"]  # type: ignore[no-any-return]


def kept_files(desk: Desk) -> int:
    return sum(path.is_file() for path in (desk.installation.settings.data / "files").rglob("*"))


@pytest.mark.parametrize(
    ("kind", "content_type", "begins"),
    [
        ("minutes.pdf", "application/pdf", b"%PDF"),
        ("transcript.pdf", "application/pdf", b"%PDF"),
        ("small.ogg", "audio/ogg", b"OggS"),
        ("whole meeting.zip", "application/zip", b"PK"),
    ],
)
def test_every_file_is_what_it_says(desk: Desk, meeting: str, kind: str, content_type: str, begins: bytes) -> None:
    answer = desk.export(f"/api/meetings/{meeting}/exports", {"kind": kind})
    assert (answer.status_code, answer.content_type) == (200, content_type)
    assert answer.data.startswith(begins)
    assert f"Winter timetable - {kind}" in answer.headers["Content-Disposition"]


def test_one_is_followed_from_waiting_to_done(desk: Desk, meeting: str) -> None:
    first = ordered(desk, meeting)
    assert (first["state"], first["size"], first["name"]) == ("waiting", None, "Winter timetable - minutes.pdf")
    assert desk.client.get(f"/api/exports/{first['id']}/file").status_code == 404
    desk.work()
    (done,) = listed(desk)
    assert (done["id"], done["state"]) == (first["id"], "done")
    data = desk.client.get(f"/api/exports/{first['id']}/file").data
    assert len(data) == done["size"]
    assert "750 pounds" in "".join(page.extract_text() for page in PdfReader(io.BytesIO(data)).pages)


def test_nobody_else_sees_it(desk: Desk, meeting: str) -> None:
    ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
    made = ordered(desk, meeting)
    desk.work()
    assert ines.get("/api/exports").json == {"exports": []}
    for method, path in (("GET", ""), ("GET", "/file"), ("POST", "/retry"), ("DELETE", "")):
        assert ines.send(method, f"/api/exports/{made['id']}{path}").status_code == 404


def test_whoever_is_taken_off_the_meeting_cannot_fetch_it_any_more(desk: Desk, meeting: str) -> None:
    ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
    made = ines.post(f"/api/meetings/{meeting}/exports", PDF).json
    desk.work()
    assert ines.get(f"/api/exports/{made['id']}/file").status_code == 200
    people = desk.client.get(f"/api/meetings/{meeting}/people").json["people"]
    person = next(each["id"] for each in people if each["name"] == "Ines Carvell")
    assert desk.client.send("DELETE", f"/api/meetings/{meeting}/people/{person}").status_code == 200
    assert ines.get(f"/api/exports/{made['id']}/file").status_code == 404
    assert ines.get("/api/exports").json == {"exports": []}


def test_taken_back_before_it_was_made_nothing_is_made(desk: Desk, meeting: str) -> None:
    made, before = ordered(desk, meeting), kept_files(desk)
    assert desk.client.send("DELETE", f"/api/exports/{made['id']}").status_code == 200
    desk.work()
    assert listed(desk) == []
    assert kept_files(desk) == before


@pytest.mark.parametrize("how", ["by hand", "with the meeting", "with a cut", "after a day"])
def test_its_file_goes(desk: Desk, meeting: str, how: str) -> None:
    made = ordered(desk, meeting, "whole meeting.zip")
    desk.work()
    with desk.installation.database.read() as session:
        digest = session.get_one(Export, made["id"]).digest or ""
    path = desk.installation.files.path(digest)
    assert path.exists()
    if how == "by hand":
        desk.client.send("DELETE", f"/api/exports/{made['id']}")
    elif how == "with the meeting":
        desk.client.send("DELETE", f"/api/meetings/{meeting}")
    elif how == "with a cut":
        assert desk.client.post(f"/api/meetings/{meeting}/cut", {"start": 0, "end": 1}).status_code == 200
    else:
        with desk.installation.database.write() as session:
            session.get_one(Export, made["id"]).created_at = now() - KEPT - timedelta(minutes=1)
        assert listed(desk) == []
        sweep_files(desk.installation)
    assert not path.exists()
    assert desk.client.get(f"/api/exports/{made['id']}").status_code == 404


def test_a_meeting_that_is_removed_while_its_file_is_made_leaves_none(
    desk: Desk, meeting: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    def removing(_bundle: object, _files: object, target: Path) -> None:
        target.write_bytes(b"words")
        desk.client.send("DELETE", f"/api/meetings/{meeting}")

    monkeypatch.setattr("nuntius.service.exports.write_bundle", removing)
    ordered(desk, meeting, "whole meeting.zip")
    desk.work()
    assert listed(desk) == []
    assert not any(path.is_file() for path in (desk.installation.settings.data / "files").rglob("*"))


def test_what_fails_says_why_and_can_be_tried_again(desk: Desk, meeting: str, monkeypatch: pytest.MonkeyPatch) -> None:
    made = ordered(desk, meeting)
    with monkeypatch.context() as broken:
        broken.setattr("nuntius.service.documents.write_pdf", lambda _: 1 / 0)
        desk.work()
    failed = desk.client.get(f"/api/exports/{made['id']}").json
    assert (failed["state"], "on our side" in failed["error"]) == ("failed", True)
    again = desk.client.post(f"/api/exports/{made['id']}/retry").json
    assert (again["state"], again["error"]) == ("waiting", None)
    desk.work()
    assert desk.client.get(f"/api/exports/{made['id']}").json["state"] == "done"
    assert desk.client.post(f"/api/exports/{made['id']}/retry").status_code == 404  # it did not fail


def test_a_full_disk_is_named(desk: Desk, meeting: str, monkeypatch: pytest.MonkeyPatch) -> None:
    def full(*_: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("nuntius.service.exports.write_bundle", full)
    made = ordered(desk, meeting, "whole meeting.zip")
    desk.work()
    assert "disk" in desk.client.get(f"/api/exports/{made['id']}").json["error"]


def test_a_dead_worker_loses_none(desk: Desk, meeting: str) -> None:
    made = ordered(desk, meeting)
    for lane in desk.queue.lanes.values():
        lane.flush()  # the storage forgot it, and a worker died over it
    with desk.installation.database.write() as session:
        row = session.get_one(Export, made["id"])
        row.state, row.worker, row.beat_at = JobState.WORKING, "gone", now() - 2 * LEASE
    assert desk.queue.recover() == 1
    desk.work()
    assert listed(desk)[0]["state"] == "done"


def test_no_more_than_some_at_once(desk: Desk, meeting: str) -> None:
    for _ in range(MOST_AT_ONCE):
        assert desk.client.post(f"/api/meetings/{meeting}/exports", PDF).status_code == 200
    refused = desk.client.post(f"/api/meetings/{meeting}/exports", PDF)
    assert (refused.status_code, str(MOST_AT_ONCE) in refused.json["detail"]) == (429, True)
    desk.work()
    assert desk.client.post(f"/api/meetings/{meeting}/exports", PDF).status_code == 200


def test_what_is_gone_meanwhile_fails_with_a_sentence(desk: Desk, meeting: str) -> None:
    kept = desk.client.post(f"/api/meetings/{meeting}/excerpts", {"start": 0, "end": 3}).json
    made = desk.client.post("/api/excerpts/exports", {"ids": [kept["id"]]}).json
    desk.client.send("DELETE", f"/api/excerpts/{kept['id']}")
    desk.work()
    failed = desk.client.get(f"/api/exports/{made['id']}").json
    assert (failed["state"], failed["error"]) == ("failed", "There is nothing here, or it is not open to you.")


def test_nothing_is_made_of_an_export_that_nobody_knows(desk: Desk) -> None:
    make_export(desk.installation, "nobody")
    assert listed(desk) == []


def test_a_whole_meeting_holds_the_words(desk: Desk, meeting: str) -> None:
    data = desk.export(f"/api/meetings/{meeting}/exports", {"kind": "whole meeting.zip"}).data
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        assert b"hired" in archive.read("nuntius.json")


class TestAnswers:
    def test_one_is_made_while_files_wait(self, desk: Desk, meeting: str) -> None:
        ordered(desk, meeting)
        reply = desk.ask(f"/api/meetings/{meeting}/inquiry", "What do the hired lifts cost?")
        assert reply["found"] and "750" in reply["answer"]
        assert [each["state"] for each in listed(desk) if each["kind"] == "minutes.pdf"] == ["waiting"]

    def test_nobody_else_reads_it(self, desk: Desk, meeting: str) -> None:
        ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
        made = desk.client.post(f"/api/meetings/{meeting}/inquiry", {"question": "What do lifts cost?"}).json
        assert desk.client.get(f"/api/exports/{made['id']}/reply").status_code == 404  # not yet
        desk.work()
        assert desk.client.get(f"/api/exports/{made['id']}/reply").status_code == 200
        assert desk.client.get(f"/api/exports/{made['id']}/brief").status_code == 404  # it is none
        assert ines.get(f"/api/exports/{made['id']}/reply").status_code == 404

    def test_it_is_forgotten_within_the_hour(self, desk: Desk, meeting: str) -> None:
        made = desk.client.post(f"/api/meetings/{meeting}/inquiry", {"question": "What do lifts cost?"}).json
        desk.work()
        with desk.installation.database.write() as session:
            session.get_one(Export, made["id"]).created_at = now() - ANSWER_KEPT - timedelta(seconds=1)
        assert listed(desk) == []
        sweep_files(desk.installation)
        assert desk.client.get(f"/api/exports/{made['id']}").status_code == 404

    def test_what_was_cut_is_no_answer_any_more(self, desk: Desk, meeting: str) -> None:
        made = desk.client.post(f"/api/meetings/{meeting}/inquiry", {"question": "What do the lifts cost?"}).json
        desk.work()
        assert desk.client.post(f"/api/meetings/{meeting}/cut", {"start": 0, "end": 2}).status_code == 200
        assert desk.client.get(f"/api/exports/{made['id']}/reply").status_code == 404
