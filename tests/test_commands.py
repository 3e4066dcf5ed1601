"""The command line: days and times as they are given, and what they make of the talk."""

import json
import socket
from datetime import UTC, datetime
from pathlib import Path

import pytest
from click.testing import CliRunner

from nuntius.cli import main
from nuntius.demonstration import free_port
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


@pytest.mark.parametrize("setting", ["NUNTIUS_PORT", "NUNTIUS_BRIDGE"])
def test_the_demo_says_which_port_another_program_has(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, setting: str
) -> None:
    monkeypatch.setenv("NUNTIUS_DATA", str(tmp_path))
    monkeypatch.setenv("NUNTIUS_PORT", str(free_port()))
    monkeypatch.setenv("NUNTIUS_BRIDGE", f"ws://127.0.0.1:{free_port()}")
    with socket.create_server(("127.0.0.1", 0)) as other:
        port = other.getsockname()[1]
        monkeypatch.setenv(setting, f"ws://127.0.0.1:{port}" if setting == "NUNTIUS_BRIDGE" else str(port))
        made = CliRunner().invoke(main, ["demo"])
    assert made.exit_code == 1
    assert f"Port {port} is in use already" in made.output
    assert setting in made.output
    assert not list(tmp_path.iterdir())


def test_the_demo_does_not_wait_where_the_bridge_is_to_have_the_servers_port(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    port = free_port()
    monkeypatch.setenv("NUNTIUS_DATA", str(tmp_path))
    monkeypatch.setenv("NUNTIUS_PORT", str(port))
    monkeypatch.setenv("NUNTIUS_BRIDGE", f"ws://127.0.0.1:{port}")
    made = CliRunner().invoke(main, ["demo"])
    assert made.exit_code == 1
    assert f"Port {port} is in use already" in made.output
