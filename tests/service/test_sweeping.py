"""What was left half done is removed after its time, and nothing else."""

import os
import time
from datetime import timedelta
from pathlib import Path

from sqlalchemy import update

from nuntius.service.sweeping import SCRATCH, sweep_files
from nuntius.store.models import Upload, now
from nuntius.store.uploads import UNFINISHED
from tests.help import Desk, parts


def age(desk: Desk, over: timedelta) -> None:
    with desk.installation.database.write() as session:
        session.execute(update(Upload).values(updated_at=now() - over))


def test_a_file_that_never_arrived_whole_is_given_up(desk: Desk, wav: Path) -> None:
    meeting = desk.bring_in(wav, sent=0)
    with desk.installation.database.read() as session:
        upload = session.query(Upload).one()
    data = wav.read_bytes()
    desk.client.put_part(upload.id, 0, parts(data, upload.part_size)[0])
    folder = desk.installation.files.part_path(upload.id, 0).parent
    age(desk, UNFINISHED - timedelta(hours=1))
    sweep_files(desk.installation)
    assert folder.exists() and desk.client.get("/api/meetings/today").json["busy"]["total"] == 1
    age(desk, UNFINISHED + timedelta(hours=1))
    sweep_files(desk.installation)
    assert not folder.exists()
    assert desk.client.get("/api/meetings/today").json["busy"]["total"] == 0
    assert desk.record(meeting)["meeting"]["upload"] is None


def test_a_file_that_arrived_stays(desk: Desk, wav: Path) -> None:
    meeting = desk.bring_in(wav)
    age(desk, UNFINISHED + timedelta(hours=1))
    sweep_files(desk.installation)
    desk.work()
    assert desk.record(meeting)["meeting"]["job"]["state"] in ("done", "failed")
    assert desk.client.get(f"/api/meetings/{meeting}/original").data == wav.read_bytes()


def test_scratch_files_of_processes_that_ended(desk: Desk) -> None:
    with desk.installation.files.scratch() as path:
        incoming = path.parent
    old, new = incoming / "old.wav", incoming / "new.wav"
    for path in (old, new):
        path.touch()
    past = time.time() - SCRATCH - 60
    os.utime(old, (past, past))
    sweep_files(desk.installation)
    assert (old.exists(), new.exists()) == (False, True)
