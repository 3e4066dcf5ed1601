"""A short meeting that is ready: three voices, two actions, a figure."""

from pathlib import Path

import pytest

from tests.help import Desk

TALK = """WEBVTT

00:00:01.000 --> 00:00:06.000
<v Speaker 1>Good morning. Tobias, could you send the harbour office the new times?

00:00:06.500 --> 00:00:09.000
<v Speaker 2>Sure. They'll have them tomorrow morning.

00:00:10.000 --> 00:00:15.000
<v Speaker 1>The hired lifts cost seven hundred and fifty pounds each.

00:00:15.500 --> 00:00:19.000
<v Speaker 3>I'll ask the yard for a better price by Friday.
"""


@pytest.fixture
def meeting(desk: Desk, tmp_path: Path) -> str:
    (tmp_path / "talk.vtt").write_text(TALK)
    made = desk.bring_in(tmp_path / "talk.vtt", people=("Maren Tull", "Tobias Pryce", "Douglas Hale"))
    desk.work()
    return made
