"""Files that have arrived: joined by the worker, once, whatever happens meanwhile."""

from pathlib import Path

import pytest
from sqlalchemy import select

from nuntius.core.jobs import JobKind, Lane
from nuntius.service.arriving import join_files
from nuntius.store import uploads
from nuntius.store.files import FileStore
from nuntius.store.models import Job, Recording, Upload, now
from tests.help import Desk

TALK = "Maren Tull: We meet at the slipway on Friday.\nInes: I'll bring the drawings.\n"


@pytest.fixture
def meeting(desk: Desk, tmp_path: Path) -> str:
    """A transcript that has arrived, with the work on it still waiting."""
    path = tmp_path / "talk.txt"
    path.write_text(TALK)
    return desk.bring_in(path)


def job_of(desk: Desk, meeting: str) -> Job:
    with desk.installation.database.read() as session:
        return session.scalars(select(Job).where(Job.meeting_id == meeting)).one()


def recording_of(desk: Desk, meeting: str) -> Recording:
    with desk.installation.database.read() as session:
        return session.scalars(select(Recording).where(Recording.meeting_id == meeting)).one()


def test_beginning_joins_nothing_and_knows_a_text_by_its_head(desk: Desk, meeting: str) -> None:
    assert (recording_of(desk, meeting).digest, recording_of(desk, meeting).is_text) == ("", True)
    assert job_of(desk, meeting).lane == Lane.QUICK


def test_a_second_beginning_finds_the_same_job(desk: Desk, meeting: str) -> None:
    first = job_of(desk, meeting).id
    assert desk.client.post(f"/api/meetings/{meeting}/begin").json["job"]["id"] == first
    assert job_of(desk, meeting).id == first


def test_joining_keeps_the_file_and_drops_its_parts(desk: Desk, meeting: str) -> None:
    join_files(desk.installation, job_of(desk, meeting).id)
    recording = recording_of(desk, meeting)
    assert desk.installation.files.path(recording.digest).read_text() == TALK
    with desk.installation.database.read() as session:
        upload = session.scalars(select(Upload)).one()
    assert upload.digest == recording.digest
    assert desk.installation.files.part_numbers(upload.id) == []
    join_files(desk.installation, job_of(desk, meeting).id)  # again changes nothing
    assert recording_of(desk, meeting).digest == recording.digest


def test_a_worker_that_dies_while_joining_is_followed_by_one_that_joins(
    desk: Desk, meeting: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    def killed(*_: object) -> str:
        raise KeyboardInterrupt

    with monkeypatch.context() as patched:
        patched.setattr(FileStore, "join_parts", killed)
        with pytest.raises(KeyboardInterrupt):
            join_files(desk.installation, job_of(desk, meeting).id)
    desk.work()
    assert [turn["voice"] is not None for turn in desk.record(meeting)["turns"]] == [True, True]


def test_a_meeting_that_is_removed_while_its_file_is_joined_leaves_no_byte(
    desk: Desk, meeting: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    job, join = job_of(desk, meeting).id, FileStore.join_parts

    def removed_meanwhile(files: FileStore, upload: str, count: int) -> str:
        digest = join(files, upload, count)
        assert desk.client.send("DELETE", f"/api/meetings/{meeting}").status_code == 200
        return digest

    monkeypatch.setattr(FileStore, "join_parts", removed_meanwhile)
    join_files(desk.installation, job)
    kept = desk.installation.settings.data / "files"
    assert [path for path in kept.rglob("*") if path.is_file()] == []


def test_a_whole_meeting_of_another_nuntius_is_unpacked(desk: Desk, meeting: str, tmp_path: Path) -> None:
    desk.work()
    bundle = tmp_path / "meeting.zip"
    bundle.write_bytes(desk.export(f"/api/meetings/{meeting}/exports", {"kind": "whole meeting.zip"}).data)
    other = desk.bring_in(bundle)
    assert job_of(desk, other).kind == JobKind.WORK  # nobody has looked into the archive yet
    join_files(desk.installation, job_of(desk, other).id)
    assert (job_of(desk, other).kind, recording_of(desk, other).is_text) == (JobKind.BUNDLE, False)


def test_what_waits_to_be_joined_is_never_given_up(desk: Desk, meeting: str, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(uploads, "now", lambda: now() + 2 * uploads.UNFINISHED)
    with desk.installation.database.write() as session:
        assert uploads.sweep(session) == []
