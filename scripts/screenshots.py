"""Takes the pictures in docs/screenshots/ again from the demo's data: `make screenshots`."""

import os
import subprocess
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from datetime import timedelta
from pathlib import Path
from tempfile import TemporaryDirectory

from playwright.sync_api import Browser, Page, sync_playwright

from nuntius.demonstration import EMAIL, FILES, PASSWORD, free_port, seed, wait_for
from nuntius.settings import Settings
from nuntius.store.installation import Installation
from nuntius.store.models import Heartbeat, now

TARGET = Path(__file__).parents[1] / "docs/screenshots"
WIDE, PHONE = (1280, 800), (390, 844)
FLAGS = [
    "--no-sandbox",
    "--use-fake-device-for-media-stream",
    "--use-fake-ui-for-media-stream",
    "--font-render-hinting=none",
    "--hide-scrollbars",
    "--force-color-profile=srgb",
]
TITLE = "Winter timetable and the slipway"


@contextmanager
def demo() -> Iterator[tuple[str, Callable[[], None]]]:
    """Address of a server with fresh demo data, listener and calls, and what starts the worker.

    Until then work stands still for its picture.
    """
    with TemporaryDirectory() as folder:
        bridge = f"ws://127.0.0.1:{free_port()}"
        settings = replace(Settings.from_environment({}), data=Path(folder), port=free_port(), demo=True)
        installation = Installation(settings)
        seed(installation)
        with installation.database.write() as session:  # else every picture would say that no worker is running
            session.add(Heartbeat(process="pictures", role="worker", seen_at=now() + timedelta(days=1)))
        installation.database.close()
        own = {
            "NUNTIUS_DATA": folder,
            "NUNTIUS_PORT": str(settings.port),
            "NUNTIUS_DEMO": "1",
            "NUNTIUS_BRIDGE": bridge,
        }
        command = [sys.executable, "-m", "nuntius"]
        parts = ("serve", "listen", "bridge")
        processes = [subprocess.Popen([*command, part], env={**os.environ, **own}) for part in parts]
        address = f"http://127.0.0.1:{settings.port}"
        try:
            wait_for(f"{address}/api/health")
            yield address, lambda: processes.append(subprocess.Popen([*command, "worker"], env={**os.environ, **own}))
        finally:
            for process in processes:
                process.terminate()
                process.wait()


class Camera:
    """A signed-in page of one size and theme, and its pictures."""

    def __init__(self, browser: Browser, address: str, size: tuple[int, int], scheme: str = "light") -> None:
        context = browser.new_context(
            base_url=address,
            viewport={"width": size[0], "height": size[1]},
            color_scheme=scheme,  # type: ignore[arg-type]
            reduced_motion="reduce",
            locale="en-GB",
            timezone_id="Europe/London",
        )
        self.page: Page = context.new_page()
        self.page.goto("/")
        self.page.get_by_label("E-mail").fill(EMAIL)
        self.page.get_by_label("Password").fill(PASSWORD)

    def sign_in(self) -> None:
        self.page.get_by_role("button", name="Sign in").click()
        self.page.get_by_role("heading", name="Today").wait_for()

    def open_record(self) -> None:
        self.page.goto("/archive")
        self.page.get_by_role("link", name=TITLE, exact=True).click()
        self.page.locator("[data-line]").first.wait_for()

    def take(self, name: str) -> None:
        self.page.mouse.move(0, 0)
        self.page.evaluate("() => document.fonts.ready.then(() => true)")
        self.page.wait_for_load_state("load")
        self.page.wait_for_timeout(400)  # canvases are drawn a frame after their data
        self.page.screenshot(path=TARGET / f"{name}.png", animations="disabled", caret="hide", scale="css")


def on_a_desk(camera: Camera, start_worker: Callable[[], None]) -> None:
    camera.sign_in()
    page = camera.page
    page.get_by_text("Open actions").wait_for()
    camera.take("today")
    page.get_by_label("Recording", exact=True).set_input_files(FILES / "bring-me-in.ogg")
    page.get_by_role("button", name="Bring in", exact=True).wait_for()
    camera.take("bring-in")
    page.get_by_role("button", name="Leave it").click()
    for view in ("archive", "setup"):
        page.goto(f"/{view}")
        page.locator("h1").wait_for()
        page.get_by_role("progressbar").wait_for(state="detached")
        camera.take(view)
    with_people(camera)
    camera.open_record()
    page.goto(f"{page.url.split('#')[0]}/map")
    page.get_by_role("tree").wait_for()
    page.get_by_role("button", name="Open all").click()
    camera.take("map")
    page.goto(f"{page.url.removesuffix('/map')}/floor")
    page.get_by_role("heading", name="What the figures mean").wait_for()
    camera.take("floor")
    start_worker()  # sound of a compilation and answers are its work
    with_excerpts(camera)
    camera.open_record()
    page.locator("[data-line]").nth(1).click()
    camera.take("record")
    page.keyboard.press("q")
    page.get_by_label("Question").fill("How many people did the early boat carry?")
    page.get_by_role("dialog").get_by_role("button", name="Ask").click()
    page.get_by_text("Looking through what was said").wait_for(state="detached")
    camera.take("ask")


def with_people(camera: Camera) -> None:
    """The people of the workspace, and what an administrator can do with one of them."""
    page = camera.page
    page.goto("/setup/people")
    page.get_by_role("button", name="Change Ines Carvell").click()
    page.get_by_role("dialog").get_by_label("E-mail").fill("ines@saltmarsh.example")
    camera.take("people")


def with_excerpts(camera: Camera) -> None:
    """Two passages kept, chosen as one."""
    page = camera.page
    for turn, title in ((3, "What the early boat carries"), (9, "The decision on the timetable")):
        camera.open_record()
        page.get_by_role("button", name="Set right the turn at").nth(turn).click()
        page.get_by_role("menuitem", name="Choose all its words").click()
        page.get_by_role("toolbar", name="Chosen words").get_by_role("button", name="Keep").click()
        page.get_by_label("Title").fill(title)
        page.get_by_label("Label").fill("timetable")
        page.get_by_role("dialog").get_by_role("button", name="Keep").click()
        page.get_by_text("Kept. It stands").wait_for()
    page.goto("/excerpts")
    page.get_by_role("checkbox").first.wait_for()
    for box in page.get_by_role("checkbox").all():
        box.check()
    camera.take("excerpts")
    camera.open_record()
    page.get_by_role("button", name="More", exact=True).click()
    page.get_by_role("menuitem", name="Listening digest …").click()
    page.get_by_role("button", name="Make it").click()
    page.get_by_role("button", name="Hear it as one").click()
    page.wait_for_function("() => document.querySelector('audio')?.currentTime > 4")
    camera.take("compilation")


def in_the_room(camera: Camera) -> str:
    """The Room before and while a meeting is recorded; its address."""
    page = camera.page
    page.goto("/")
    page.get_by_role("button", name="Record a meeting").click()
    page.get_by_label("Title").fill("Crew rota for December")
    page.get_by_label("Agenda").fill("Rota 10\nHoliday cover 5")
    page.get_by_role("button", name="Open the room").click()
    page.get_by_text("dBFS").wait_for()
    camera.take("before")
    page.goto("/")
    page.get_by_role("button", name="Run the demo meeting").click()
    page.get_by_text("Recording 1:12").wait_for(timeout=120_000)
    page.keyboard.press("1")
    page.keyboard.press("n")
    page.get_by_role("button", name="Write a note …").click()
    page.keyboard.type("**6.40 goes**, the 7.10 stays. @Ines")
    page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    page.keyboard.type("Careful: Douglas does not trust the lower rail")
    page.keyboard.press("Escape")
    page.get_by_role("tab", name="so far").click()
    page.get_by_text("Recording 1:30").wait_for(timeout=60_000)
    camera.take("room")
    return page.url


def at_night(camera: Camera) -> None:
    camera.open_record()
    camera.page.locator("[data-line]").nth(1).click()
    camera.take("record-dark")


def the_room_elsewhere(night: Camera, phone: Camera, address: str) -> None:
    """The same Room at night and on a phone."""
    for camera, name in ((night, "room-dark"), (phone, "room-phone")):
        camera.sign_in()
        camera.page.goto(address)
        camera.page.get_by_role("region", name="Notes").wait_for()
        camera.take(name)


def on_a_phone(camera: Camera) -> None:
    camera.page.goto("/")
    camera.page.get_by_text("Open actions").wait_for()
    camera.take("today-phone")
    camera.open_record()
    camera.take("record-phone")
    camera.page.get_by_role("button", name="Transcript").click()
    camera.page.locator("[data-turn]").first.wait_for()
    camera.take("transcript-phone")


if __name__ == "__main__":
    TARGET.mkdir(parents=True, exist_ok=True)
    with demo() as (address, start_worker), sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        desk, night, phone = (
            Camera(browser, address, WIDE),
            Camera(browser, address, WIDE, "dark"),
            Camera(browser, address, PHONE),
        )
        on_a_desk(desk, start_worker)
        the_room_elsewhere(night, phone, in_the_room(desk))
        at_night(night)
        on_a_phone(phone)
        browser.close()
