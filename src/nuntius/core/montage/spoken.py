"""Titles spoken by a local voice: Debian's flite, called as a program; without it sections are set apart by a pause."""

import shutil
import subprocess
from pathlib import Path
from tempfile import TemporaryDirectory

import numpy as np

from nuntius.core.audio.decode import Samples, load
from nuntius.core.errors import Fault

VOICE = "slt"
LONGEST = 20.0  # seconds that the program may take
LONGEST_TEXT = 300  # characters


def can_speak() -> bool:
    """Whether the program is there."""
    return shutil.which("flite") is not None


def spoken(text: str) -> Samples:
    """`text` as mono samples at 16 kHz, shape (n,); none where there is no voice, or nothing to say."""
    plain = " ".join(text.split())[:LONGEST_TEXT].lstrip("-")
    if not plain or not can_speak():
        return np.zeros(0, np.float32)
    with TemporaryDirectory() as folder:
        target = Path(folder) / "said.wav"
        command = ["flite", "-voice", VOICE, "-t", f"{plain}.", "-o", str(target)]
        try:
            subprocess.run(command, capture_output=True, timeout=LONGEST, check=True)
            return load(target)
        except (subprocess.SubprocessError, OSError, Fault):
            return np.zeros(0, np.float32)  # a pause stands in its place
