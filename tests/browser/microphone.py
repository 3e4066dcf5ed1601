"""A Chromium of its own whose microphone hears a WAV file, and what its recordings hold."""

import contextlib
import subprocess
import time
from dataclasses import dataclass
from pathlib import Path

import numpy as np
from playwright.sync_api import BrowserContext, Error, Page, Playwright, expect
from scipy.signal import correlate

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.audio.pcm import FULL_SCALE
from nuntius.core.rooms import RoomState
from nuntius.store.capture import breaks_of, joined, last_run, pieces
from nuntius.store.models import Room
from nuntius.store.rooms import room_of
from tests.browser.conftest import CHROMIUM, FLAGS, Site

HEARS = ("--use-fake-device-for-media-stream", "--use-fake-ui-for-media-stream")


@dataclass
class Desk:
    """A browser with a profile that outlives it, signed in as Maren."""

    playwright: Playwright
    site: Site
    state: dict[str, object]
    profile: Path
    sound: Path
    context: BrowserContext | None = None

    def open(self, flags: tuple[str, ...] = HEARS, mute: bool = True) -> Page:
        """Starts the browser; its microphone hears the file once from its start, then nothing."""
        self.context = self.playwright.chromium.launch_persistent_context(
            str(self.profile),
            executable_path=CHROMIUM,
            args=[*FLAGS, *flags, f"--use-file-for-fake-audio-capture={self.sound}%noloop"],
            ignore_default_args=None if mute else ["--mute-audio"],
            base_url=self.site.address,
            viewport={"width": 1280, "height": 800},
            locale="en-GB",
            timezone_id="Europe/London",
            reduced_motion="reduce",
        )
        self.context.add_cookies(self.state["cookies"])  # type: ignore[arg-type]
        return self.context.pages[0]

    def kill(self) -> None:
        """Kills the browser as a crash of the computer would."""
        subprocess.run(["pkill", "-9", "-f", f"user-data-dir={self.profile}"], check=False)
        if self.context:
            with contextlib.suppress(Error):  # the connection to it is gone with it
                self.context.close()

    def close(self) -> None:
        if self.context:
            self.context.close()


def open_room(page: Page, title: str, agenda: str = "") -> str:
    """Opens a room from Today as a person would; the meeting's identifier."""
    page.goto("/")
    page.get_by_role("button", name="Record a meeting").click()
    form = page.get_by_role("dialog", name="Record a meeting")
    form.get_by_label("Title").fill(title)
    form.get_by_label("Who is there besides you").fill("Ines Carvell")
    if agenda:
        form.get_by_label("Agenda").fill(agenda)
    form.get_by_role("button", name="Open the room").click()
    expect(page.get_by_role("heading", name=title)).to_be_visible()
    return page.url.split("/meetings/")[1].split("/")[0]


def begin(page: Page) -> None:
    """Announces the recording and begins it."""
    page.get_by_label("Announced to all").click()
    page.get_by_role("button", name="Begin recording").click()
    expect(page.get_by_text("Recording 0:0")).to_be_visible()


def stop(page: Page) -> None:
    page.get_by_role("button", name="Stop", exact=True).click()
    page.get_by_role("dialog", name="Stop the recording?").get_by_role("button", name="Stop").click()
    expect(page.get_by_role("link", name="Open the record")).to_be_visible()


def room(site: Site, meeting: str) -> Room:
    with site.installation.database.read() as session:
        found = room_of(session, meeting)
    assert found is not None
    return found


def breaks(site: Site, meeting: str) -> list[tuple[str, float, float | None]]:
    with site.installation.database.read() as session:
        return [(each.kind, each.at, each.seconds) for each in breaks_of(session, meeting)]


def until_held(site: Site, meeting: str, seconds: float, patience: float = 60) -> None:
    """Waits until the server holds so much sound."""
    end = time.monotonic() + patience
    while room(site, meeting).held < seconds * RATE:
        assert time.monotonic() < end, f"only {room(site, meeting).held / RATE:.1f} s of sound arrived"
        time.sleep(0.1)


def until_paused(site: Site, meeting: str, patience: float = 30) -> int:
    """Waits until the server knows of a pause and has all parts before it; how many samples it holds."""
    end = time.monotonic() + patience
    while time.monotonic() < end:
        with site.installation.database.read() as session:
            found = room_of(session, meeting)
            run = last_run(session, found) if found else None
            if found and run and found.state == RoomState.PAUSED and run.parts == run.expected:
                return found.held
        time.sleep(0.1)
    raise AssertionError("the server knows of no pause")


def held_sound(site: Site, meeting: str) -> Samples:
    """What the server holds of a recording, from its parts."""
    with site.installation.database.read() as session:
        found = room_of(session, meeting)
        assert found is not None
        parts = pieces(session, found)
    data = b"".join(joined(site.installation.files, parts))
    return np.frombuffer(data, "<i2").astype(np.float32) / np.float32(FULL_SCALE)


def place(part: Samples, whole: Samples) -> tuple[float, float]:
    """Where in `whole` a part is found best (seconds), and how well (normalised cross-correlation, 1 is the same)."""
    scores = correlate(whole, part, "valid", method="fft")
    sums = np.concatenate([[0.0], np.cumsum(np.square(whole.astype(np.float64)))])
    power = sums[len(part) :] - sums[: -len(part)]
    scores = scores / np.sqrt(np.maximum(power, 1e-6) * max(1e-9, float(np.square(part).sum())))
    at = int(scores.argmax())
    return at / RATE, float(scores[at])


def share_found(part: Samples, whole: Samples, window: float = 0.25) -> float:
    """The share of the windows (seconds) of a part that are found in `whole`, each by itself.

    On a busy computer the browser stumbles, which moves what follows by some milliseconds: a correlation over seconds
    is then low although the sound was taken as it came.
    """
    windows = _windows(part, window)
    return float(np.mean([place(each, whole)[1] > 0.9 for each in windows]))


def share_sounding(part: Samples, hertz: float, window: float = 0.05) -> float:
    """The share of the windows (seconds) of a part that hold a tone: half of their power lies within 40 Hz of it.

    What a stumbling browser cuts out of a tone, or sets silence into, leaves the rest of it as it was.
    """
    windows = _windows(part, window)
    power = np.square(np.abs(np.fft.rfft(windows * np.hanning(windows.shape[1]))))
    near = np.abs(np.fft.rfftfreq(windows.shape[1], 1 / RATE) - hertz) <= 40
    return float(np.mean(power[:, near].sum(axis=1) > 0.5 * np.maximum(power.sum(axis=1), 1e-6)))


def _windows(part: Samples, seconds: float) -> Samples:
    """A part cut into windows, shape (windows, samples of each)."""
    size = round(seconds * RATE)
    return part[: len(part) // size * size].reshape(-1, size)
