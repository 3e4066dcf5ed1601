"""Foreign files are read in a process of their own, which may be as slow, as large or as dead as it likes."""

import json
import os
import zipfile
from pathlib import Path

import pytest

from nuntius.core.errors import Fault, FileTooCostly
from nuntius.core.formats.bundle import MANIFEST, read_bundle
from nuntius.jobs import confined as module
from nuntius.jobs.confined import confined, read_transcript_file
from tests.help import Desk


def spin() -> None:
    while True:
        pass


def grow() -> int:
    return len(bytearray(8 << 30))


def crash() -> None:
    os.abort()


def fail() -> None:
    raise Fault("The fault of a file.")


def test_what_a_function_returns_comes_back(tmp_path: Path) -> None:
    path = tmp_path / "talk.txt"
    path.write_text("Maren: Good morning.\nInes: Morning.")
    transcript, has_times = confined(read_transcript_file, path)
    assert (transcript.speakers, has_times) == (("Maren", "Ines"), False)


def test_the_fault_of_a_file_keeps_its_sentence() -> None:
    with pytest.raises(Fault, match="The fault of a file"):
        confined(fail)


@pytest.mark.parametrize("costly", [grow, crash])
def test_too_much_memory_or_a_crash_is_a_sentence(costly: object) -> None:
    with pytest.raises(FileTooCostly, match="bring it in again"):
        confined(costly)  # type: ignore[arg-type]


def test_too_much_time_is_a_sentence(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(module, "SECONDS", 0)
    monkeypatch.setattr(module, "GRACE", 2)
    with pytest.raises(FileTooCostly):
        confined(spin)


def packed(path: Path, manifest: str) -> Path:
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(MANIFEST, manifest)
    return path


def test_a_small_archive_of_a_million_faults_is_refused_at_the_first(tmp_path: Path, desk: Desk) -> None:
    turns = "[" + ",".join(["{}"] * 1_000_000) + "]"
    path = packed(tmp_path / "m.zip", f'{{"schema": "nuntius.meeting/1", "turns": {turns}}}')
    assert path.stat().st_size < 16_000
    with pytest.raises(Fault, match="in it is wrong"):
        read_bundle(path)
    meeting = desk.bring_in(path)
    desk.work()
    job = desk.record(meeting)["meeting"]["job"]
    assert (job["state"], "cannot be read as a meeting" in job["error"]) == ("failed", True)


@pytest.mark.parametrize("nested", ["[" * 3000, '{"schema": ' * 3000])
def test_deep_nesting_is_a_sentence(nested: str, tmp_path: Path) -> None:
    with pytest.raises(Fault, match="cannot be read as a meeting"):
        read_bundle(packed(tmp_path / "m.zip", nested))


@pytest.mark.parametrize("year", [1, 1969, 2201, 9999])
def test_a_meeting_outside_of_our_time_is_refused(year: int, tmp_path: Path) -> None:
    meeting: dict[str, object] = {
        "title": "T", "kind": "committee", "starts_at": f"{year:04}-05-06T09:00:00+00:00", "time_zone": "UTC",
        "people": [], "template": None,
    }  # fmt: skip
    whole = {"schema": "nuntius.meeting/1", "meeting": meeting, "recording": None, "minutes": None, "consent": None}
    rest: dict[str, list[object]] = {
        key: [] for key in ("voices", "turns", "excerpts", "notes", "marks", "agenda", "breaks", "pictures")
    }
    with pytest.raises(Fault, match="1970 to 2200"):
        read_bundle(packed(tmp_path / "m.zip", json.dumps(whole | rest)))
