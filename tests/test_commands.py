"""The command line: days and times as they are given, and what they make of the talk."""

import json
from datetime import UTC, datetime
from pathlib import Path

import pytest
from click.testing import CliRunner

from nuntius.cli import main
from nuntius.store.accounts import create_account, create_workspace
from nuntius.store.database import Database
from nuntius.store.meetings import create_meeting
from nuntius.store.notes import facts_of

TALK = """WEBVTT

1
00:00:01.000 --> 00:00:04.000
<v Maren Tull>Tobias, could you write the letter to the yard?

2
00:00:04.500 --> 00:00:06.000
<v Tobias Pryce>Yes. I'll have it for you at nine.
"""


@pytest.mark.parametrize(("start", "due"), [("08:15", "2026-10-06"), ("15:45", "2026-10-07")])
def test_an_hour_that_is_past_is_one_of_the_next_day(tmp_path: Path, start: str, due: str) -> None:
    file = tmp_path / "talk.vtt"
    file.write_text(TALK)
    words = ["minutes", str(file), "--date", "2026-10-06", "--start", start, "--attendees", "Maren Tull;Tobias Pryce"]
    made = CliRunner().invoke(main, [*words, "--json"])
    assert made.exit_code == 0
    assert [line["due"] for line in json.loads(made.output)["lines"] if line["kind"] == "action"] == [due]


@pytest.mark.parametrize(
    ("option", "given"), [("--date", "6 October"), ("--date", "2026-13-01"), ("--start", "quarter past")]
)
def test_a_day_or_time_that_cannot_be_read_is_named(tmp_path: Path, option: str, given: str) -> None:
    file = tmp_path / "talk.vtt"
    file.write_text(TALK)
    made = CliRunner().invoke(main, ["minutes", str(file), option, given])
    assert made.exit_code == 2
    assert f"“{given}” cannot be read" in made.output


def test_the_day_of_a_meeting_is_that_of_where_it_is_held(tmp_path: Path) -> None:
    database = Database(tmp_path / "n.db")
    database.migrate()
    with database.write() as session:
        user = create_account(
            session, create_workspace(session, "w"), "Maren Tull", "maren@saltmarsh.example", "low water at noon"
        )
        begun = datetime(2026, 10, 7, 0, 30, tzinfo=UTC)  # half past five in the afternoon of the sixth, in Los Angeles
        meeting = create_meeting(session, user, "Slipway", "general meeting", begun, "America/Los_Angeles", [])
        facts = facts_of(session, meeting)
    assert facts.day.isoformat() == "2026-10-06"
    assert facts.begun is not None and facts.begun.isoformat() == "17:30:00"
