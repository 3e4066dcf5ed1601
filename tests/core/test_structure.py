"""The structure that is promised: imports point one way, and the core is pure."""

import re
import subprocess
import sys
from pathlib import Path

from nuntius.core.minutes.line import RULES
from tests.help import ROOT


def test_imports_point_one_way() -> None:
    """In a process of its own: the checker sets up logging for itself."""
    program = Path(sys.executable).with_name("lint-imports")
    found = subprocess.run([program, "--no-cache"], cwd=ROOT, capture_output=True, text=True)
    assert found.returncode == 0, found.stdout


def test_every_rule_that_writes_a_line_is_reported_in_words() -> None:
    page = (ROOT / "frontend/src/features/record/reasons.ts").read_text()
    keys = {quoted or bare for quoted, bare in re.findall(r'^  (?:"([^"]+)"|(\w+)):\s+"', page, re.M)} | set(
        re.findall(r'OWN_REMARK = "([^"]+)"', page)
    )
    assert keys == RULES
