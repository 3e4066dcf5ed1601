"""A real server with a real worker on the demo's data, and a real browser."""

import os
import subprocess
import sys
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from pathlib import Path

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, Playwright, expect, sync_playwright

from nuntius.demonstration import EMAIL, PARTS, PASSWORD, free_port, seed, wait_for
from nuntius.settings import Settings
from nuntius.store.installation import Installation

CHROMIUM = "/usr/bin/chromium"
FLAGS = ["--no-sandbox", "--autoplay-policy=no-user-gesture-required"]
expect.set_options(timeout=30_000)


@dataclass
class Site:
    """Where a running Nuntius is found, and how its parts are started again."""

    address: str
    settings: Settings
    run: Callable[[str], subprocess.Popen[bytes]]
    processes: dict[str, subprocess.Popen[bytes]]

    def kill(self, part: str) -> None:
        """Kills a part as a power cut would."""
        self.processes[part].kill()
        self.processes[part].wait()

    def start(self, part: str) -> None:
        """Starts a part again and waits for the server to answer."""
        self.processes[part] = self.run(part)
        wait_for(f"{self.address}/api/health")

    @cached_property
    def installation(self) -> Installation:
        """The data of the site, seen past the server."""
        return Installation(self.settings)


@pytest.fixture(scope="session")
def site(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Site]:
    data = tmp_path_factory.mktemp("site")
    bridge = f"ws://127.0.0.1:{free_port()}"
    settings = replace(Settings.from_environment({}), data=data, port=free_port(), bridge=bridge, demo=True)
    installation = Installation(settings)
    seed(installation)
    installation.database.close()
    environment = {
        **os.environ,
        "NUNTIUS_DATA": str(data),
        "NUNTIUS_PORT": str(settings.port),
        "NUNTIUS_BRIDGE": bridge,
        "NUNTIUS_DEMO": "1",
    }

    def run(part: str) -> subprocess.Popen[bytes]:
        with (data / f"{part}.log").open("ab") as log:
            return subprocess.Popen([sys.executable, "-m", "nuntius", part], env=environment, stderr=log)

    made = Site(f"http://127.0.0.1:{settings.port}", settings, run, {part: run(part) for part in PARTS})
    wait_for(f"{made.address}/api/health")
    yield made
    for process in made.processes.values():
        process.terminate()
        process.wait()


@pytest.fixture(scope="session")
def playwright() -> Iterator[Playwright]:
    if not Path(CHROMIUM).exists():
        pytest.skip("Debian's chromium is not installed")
    with sync_playwright() as running:
        yield running


@pytest.fixture(scope="session")
def browser(playwright: Playwright) -> Iterator[Browser]:
    opened = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
    yield opened
    opened.close()


@pytest.fixture(scope="session")
def state(browser: Browser, site: Site) -> dict[str, object]:
    """The cookies of Maren, who has signed in once by hand."""
    context = browser.new_context(locale="en-GB")
    page = context.new_page()
    page.goto(site.address)
    page.get_by_label("E-mail").fill(EMAIL)
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("heading", name="Today")).to_be_visible()
    kept = context.storage_state()
    context.close()
    return dict(kept)


@pytest.fixture
def context(browser: Browser, site: Site, state: dict[str, object]) -> Iterator[BrowserContext]:
    made = browser.new_context(
        storage_state=state,  # type: ignore[arg-type]
        base_url=site.address,
        viewport={"width": 1280, "height": 800},
        locale="en-GB",
        timezone_id="Europe/London",
        reduced_motion="reduce",
        accept_downloads=True,
    )
    yield made
    made.close()


@pytest.fixture
def page(context: BrowserContext) -> Iterator[Page]:
    """A page that is signed in; the test fails when the page throws."""
    faults: list[str] = []
    made = context.new_page()
    made.on("pageerror", lambda error: faults.append(str(error)))
    yield made
    assert not faults
