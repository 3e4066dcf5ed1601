"""Bringing a recording in, in the browser: with the real engines, over a bad line, with a closed page."""

import re
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest
from playwright.sync_api import BrowserContext, Page, Route, expect

from nuntius.core.audio.decode import RATE, load
from tests.browser.conftest import Site
from tests.browser.desk import position
from tests.help import ROOT, write_wav

pytestmark = pytest.mark.browser
DEMO = ROOT / "demo/bring-me-in.ogg"
PART = 4 * 1024 * 1024  # bytes


def describe(page: Page, file: Path, title: str) -> None:
    """Chooses a file on Today and says what it is."""
    page.get_by_label("Recording", exact=True).set_input_files(file)
    form = page.get_by_role("dialog", name="Bring in a recording")
    form.get_by_label("Title").fill(title)
    form.get_by_role("button", name=re.compile("^Bring in")).click()


@pytest.fixture
def beginning(tmp_path: Path) -> Path:
    """The first 45 seconds of the demo's file for visitors."""
    path = tmp_path / "beginning.wav"
    write_wav(path, load(DEMO)[: 45 * RATE], RATE)
    return path


def test_a_recording_becomes_a_record_while_the_page_is_closed(
    context: BrowserContext, page: Page, beginning: Path
) -> None:
    page.goto("/")
    page.get_by_label("Recording", exact=True).set_input_files(beginning)
    form = page.get_by_role("dialog", name="Bring in a recording")
    expect(form.get_by_label("Title")).to_have_value("Beginning")
    form.get_by_label("Title").fill("Open day")
    form.get_by_label("Began").fill("2026-10-20T10:00")
    form.get_by_label("Kind").click()
    page.get_by_role("option", name="general meeting").click()
    for name in ("Maren Tull", "Priya Nand", "Wilma Ost"):
        form.get_by_label("Who was there").fill(name)
        form.get_by_label("Who was there").press("Enter")
    form.get_by_role("button", name="Bring in").click()
    row = page.get_by_role("region", name=re.compile("^Being worked on"))
    expect(row).to_contain_text("Open day")
    expect(row).to_contain_text(re.compile(r"step \d of 4"))
    page.close()

    again = context.new_page()
    again.goto("/")
    expect(again.get_by_role("region", name=re.compile("^Minutes to check"))).to_contain_text(
        "Open day", timeout=420_000
    )
    again.get_by_role("link", name="Open day").first.click()
    expect(again.get_by_role("heading", name="Open day")).to_be_visible()
    expect(again.locator("[data-turn]").first).to_contain_text("Voice A")
    spoken = again.get_by_role("region", name="Transcript").inner_text().lower()
    assert "open day" in spoken  # as it is said in the first sentence
    line = again.locator("[data-line]").first
    line.get_by_role("button", name=re.compile("^Hear what this rests on")).click()
    expect(again.get_by_role("button", name="Pause")).to_be_visible()
    again.wait_for_function("() => !document.querySelector('audio').paused")
    assert position(again) >= 0
    again.get_by_role("button", name=re.compile("name this voice")).first.click()
    again.get_by_role("dialog").get_by_role("button", name="Wilma Ost").click()
    expect(again.locator("[data-turn]").first).to_contain_text("Wilma Ost")

    again.goto("/")
    again.get_by_label("Recording", exact=True).set_input_files(beginning)
    known = again.get_by_role("dialog", name="Bring in a recording")
    expect(known).to_contain_text("This very file is here already: Open day")


@pytest.fixture
def large(tmp_path: Path) -> Callable[[int], Path]:
    """Makes files of several parts, each like no other."""

    def make(seed: int) -> Path:
        path = tmp_path / f"large{seed}.wav"
        write_wav(path, np.random.default_rng(seed).uniform(-0.2, 0.2, 9 * 1024 * 1024).astype(np.float32), 192_000)
        assert path.stat().st_size > 4 * PART
        return path

    return make


def test_a_dropped_connection_is_waited_out(context: BrowserContext, page: Page, large: Callable[[int], Path]) -> None:
    sent: list[str] = []

    def drop(route: Route) -> None:
        sent.append(route.request.url)
        if len(sent) in (2, 3):
            route.abort("connectionreset")
        else:
            route.continue_()

    page.route("**/parts/*", drop)
    page.goto("/")
    describe(page, large(1), "Over a bad line")
    expect(page.get_by_text("The connection is gone; it goes on by itself")).to_be_visible()
    expect(page.get_by_text(re.compile(r"step \d of 4|Waiting for its turn"))).to_be_visible(timeout=120_000)
    arrived = [url.rsplit("/", 1)[1] for url in sent]
    assert sorted(set(arrived)) == ["0", "1", "2", "3", "4"]
    assert arrived.count("0") == 1
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_text("Stopped. The recording is kept.")).to_be_visible(timeout=60_000)


def test_a_closed_page_goes_on_where_it_stopped(
    context: BrowserContext, page: Page, site: Site, large: Callable[[int], Path]
) -> None:
    file = large(2)
    page.route("**/parts/3", lambda route: route.abort("connectionreset"))
    page.goto("/")
    describe(page, file, "Half of it")
    expect(page.get_by_text("The connection is gone; it goes on by itself")).to_be_visible(timeout=120_000)
    page.goto("about:blank")  # a page that closes lets go of its broken line first, and its next try would get through
    page.close()

    again = context.new_page()
    sent: list[str] = []
    again.on("request", lambda request: sent.append(request.url) if "/parts/" in request.url else None)
    again.goto("/")
    row = again.get_by_role("region", name=re.compile("^Being worked on"))
    expect(row).to_contain_text("has arrived in part (60 %). Choose the same file again to go on.")
    again.get_by_label("Recording", exact=True).set_input_files(file)
    expect(again.get_by_text("Going on where this file stopped.")).to_be_visible()
    expect(row).to_contain_text(re.compile(r"step \d of 4|Waiting for its turn"), timeout=120_000)
    assert sorted({url.rsplit("/", 1)[1] for url in sent}) == ["3", "4"]
    row.get_by_role("button", name="Stop").last.click()


def test_what_is_no_recording_says_so_and_can_be_left(page: Page, tmp_path: Path) -> None:
    path = tmp_path / "notes.mp3"
    path.write_bytes(np.random.default_rng(3).bytes(20_000))
    page.goto("/")
    describe(page, path, "No recording at all")
    expect(page.get_by_text("This file is neither sound nor picture that can be read.")).to_be_visible(timeout=120_000)
    page.get_by_role("link", name="No recording at all").click()
    expect(page.get_by_role("heading", name="No recording at all")).to_be_visible()
    expect(page.get_by_text("Bring in WAV, FLAC, MP3")).to_be_visible()


def test_a_title_of_ten_thousand_letters_is_named_before_it_is_sent(page: Page, beginning: Path) -> None:
    page.goto("/")
    page.get_by_label("Recording", exact=True).set_input_files(beginning)
    form = page.get_by_role("dialog", name="Bring in a recording")
    form.get_by_label("Title").fill("x" * 10_000)
    expect(form).to_contain_text("At most 200 characters.")
    expect(form.get_by_role("button", name=re.compile("^Bring in"))).to_be_disabled()
