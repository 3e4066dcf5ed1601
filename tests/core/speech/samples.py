"""What several tests of this folder share."""

from tests.help import ROOT

DEMO = ROOT / "demo"
