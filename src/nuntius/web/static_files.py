"""Where the built pages lie."""

from pathlib import Path

STATIC = Path(__file__).parent / "static"
