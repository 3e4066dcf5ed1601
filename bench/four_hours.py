"""A server with a four-hour Record, for measuring its pages."""

import os
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, replace
from pathlib import Path
from tempfile import TemporaryDirectory

from playwright.sync_api import Page
from tests.help import MAREN, PASSWORD, four_hours

from nuntius.core.jobs import JobState
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import MeetingFacts
from nuntius.core.templates.shipped import shipped
from nuntius.demonstration import free_port, wait_for
from nuntius.settings import Settings
from nuntius.store.accounts import create_account, create_workspace
from nuntius.store.installation import Installation
from nuntius.store.jobs import create_job
from nuntius.store.meetings import create_meeting
from nuntius.store.minutes import save_minutes
from nuntius.store.models import Recording, now
from nuntius.store.transcripts import save_transcript


@dataclass(frozen=True)
class Site:
    """Addresses of the server and of the Record."""

    address: str
    record: str

    def sign_in(self, page: Page) -> None:
        page.get_by_label("E-mail").fill(MAREN)
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("heading", name="Today").wait_for()

    def search(self, page: Page, words: str) -> None:
        page.get_by_label("Search what was said").fill(words)
        page.get_by_text("1 of 1", exact=True).wait_for()

    def begin_edit(self, page: Page) -> None:
        """Writes other words into the turn that was found."""
        turn = page.locator("[data-turn='2950']")
        turn.get_by_role("button", name="Correct the turn at").click()
        turn.get_by_role("textbox").fill("The slipway needs new rails at once.")

    def keep_edit(self, page: Page) -> None:
        """Keeps them, and waits until they stand there."""
        turn = page.locator("[data-turn='2950']")
        turn.get_by_role("textbox").press("Enter")
        turn.locator("[data-word]").nth(6).wait_for()
        page.get_by_label("Search what was said").fill("")


@contextmanager
def four_hour_site() -> Iterator[Site]:
    """Serves four hours, 3,000 turns, 36,000 words, with their minutes, until the block ends."""
    with TemporaryDirectory() as folder:
        settings = replace(Settings.from_environment({}), data=Path(folder), port=free_port())
        meeting = _fill(settings)
        environment = {**os.environ, "NUNTIUS_DATA": folder, "NUNTIUS_PORT": str(settings.port)}
        process = subprocess.Popen([sys.executable, "-m", "nuntius", "serve"], env=environment)
        address = f"http://127.0.0.1:{settings.port}"
        try:
            wait_for(f"{address}/api/health")
            yield Site(address, f"{address}/meetings/{meeting}")
        finally:
            process.terminate()
            process.wait()


def _fill(settings: Settings) -> str:
    store, transcript = Installation(settings), four_hours()
    minutes = make_minutes(transcript, MeetingFacts(now().date()))
    with store.database.write() as session:
        workspace = create_workspace(session, "Saltmarsh Ferry Cooperative", "Europe/London")
        user = create_account(session, workspace, "Maren Tull", MAREN, PASSWORD)
        meeting = create_meeting(session, user, "Four hours", "committee", now(), "Europe/London", [])
        session.add(Recording(meeting_id=meeting.id, name="long.txt", digest="0" * 64, is_text=True, duration=14_400.0))
        save_transcript(session, meeting.id, transcript)
        save_minutes(session, meeting.id, transcript, minutes, shipped("general meeting"))
        create_job(session, meeting.id, None).state = JobState.DONE
        identifier = meeting.id
    store.database.close()
    return identifier
