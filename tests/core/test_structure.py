"""The structure that is promised: imports point one way, and the core is pure."""

import subprocess
import sys
from pathlib import Path


def test_imports_point_one_way() -> None:
    """In a process of its own: the checker sets up logging for itself."""
    program = Path(sys.executable).with_name("lint-imports")
    found = subprocess.run([program, "--no-cache"], cwd=Path(__file__).parents[2], capture_output=True, text=True)
    assert found.returncode == 0, found.stdout
