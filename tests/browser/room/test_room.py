"""A meeting recorded in the browser, with real sound through the fake microphone and the real engines."""

import re
import time
from collections.abc import Callable, Iterator

import numpy as np
import pytest
from playwright.sync_api import Browser, Page, expect
from sqlalchemy import select

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.rights import Role
from nuntius.demonstration import PASSWORD
from nuntius.store.accounts import give_account
from nuntius.store.models import LiveLineRow, StillPicture, User, Workspace
from nuntius.store.people import named_person
from nuntius.store.rooms import runs_of
from tests.browser.conftest import Site
from tests.browser.microphone import (
    Desk,
    begin,
    breaks,
    held_sound,
    open_room,
    place,
    room,
    share_found,
    share_sounding,
    stop,
    until_held,
    until_paused,
)
from tests.browser.test_everywhere import faults

pytestmark = pytest.mark.browser
PRIVATE = 5.0  # seconds of a pause: so much is spoken that must not be kept
LATE = 3.0  # seconds that sound may come late on a machine that is busy; less than any break here
TONE = 1234.0  # Hz, which neither the talk nor the hum of a computer holds for long


def test_from_consent_to_minutes(desk: Desk, site: Site, talk: Samples) -> None:
    page = desk.open()
    meeting = open_room(page, "Open day, live", "The open day 5\nSafety 5")
    expect(page.get_by_role("button", name="Begin recording")).to_be_disabled()
    expect(page.get_by_text("dBFS")).to_be_visible()
    assert faults(page) == []
    begin(page)
    said = page.get_by_role("log", name="What is said")
    expect(said).to_contain_text("open day", ignore_case=True)
    expect(said).to_contain_text("happy", ignore_case=True)
    page.keyboard.press("m")
    expect(page.locator("[data-mark]")).to_have_count(1)
    page.get_by_label(re.compile("^Words for the mark")).fill("a party")
    page.get_by_label(re.compile("^Words for the mark")).press("Enter")
    page.get_by_role("button", name="Write a note …").click()
    page.keyboard.type("Ask the lifeboat crew for **two boats**")
    page.keyboard.press("Escape")
    page.get_by_role("button", name=re.compile("Safety")).click()
    expect(page.get_by_role("button", name=re.compile("Safety"))).to_have_attribute("aria-pressed", "true")
    expect(said).to_contain_text("name this voice", timeout=40_000)
    said.get_by_role("button", name=re.compile("^Voice [A-Z]")).first.click()
    page.get_by_role("dialog").get_by_role("button", name="Maren Tull").click()
    expect(said.get_by_role("button", name="Maren Tull").first).to_be_visible()
    line = said.locator("[data-line]").first
    heard = line.inner_text()
    line.click()
    page.get_by_label("Words of this line").fill(f"Surely {heard.strip()}")
    page.keyboard.press("Enter")
    expect(said).to_contain_text("Surely")
    assert faults(page) == []
    until_held(site, meeting, 40)
    site.kill("worker")  # the better recogniser listens only once the minutes from the live text have been seen
    stop(page)
    recorded = held_sound(site, meeting)
    _, alike = place(recorded[12 * RATE : 34 * RATE], np.concatenate([np.zeros(8 * RATE, np.float32), talk]))
    assert alike > 0.99, "what was recorded is not what was spoken"

    page.get_by_role("link", name="Open the record").click()
    expect(page.get_by_text("These minutes are from the live text")).to_be_visible(timeout=60_000)
    site.start("worker")
    notes = page.get_by_role("region", name="Notes")
    expect(notes).to_contain_text("Ask the lifeboat crew for two boats")
    expect(page.get_by_text("These minutes are from the live text")).to_have_count(0, timeout=240_000)
    expect(notes).to_contain_text("Ask the lifeboat crew for two boats")
    transcript = page.get_by_role("region", name="Transcript")
    expect(transcript).to_contain_text("Surely")
    expect(transcript).to_contain_text("Maren Tull")
    expect(page.get_by_text("Recording announced to all")).to_be_visible()
    record = site.installation.settings.data / "files" / "uploads"
    assert not any(record.glob("run-*/*")), "parts are left beside the recording"


def test_nothing_is_lost_when_the_line_is_away_and_the_server_is_killed(desk: Desk, site: Site, talk: Samples) -> None:
    page = desk.open()
    meeting = open_room(page, "Away for a while")
    begin(page)
    until_held(site, meeting, 3)
    assert desk.context is not None
    desk.context.set_offline(True)
    expect(page.get_by_text("The server cannot be reached")).to_be_visible()
    expect(page.get_by_text(re.compile(r"kept on this computer: ([6-9]|1\d) parts waiting"))).to_be_visible()
    desk.context.set_offline(False)
    expect(page.get_by_text("The server cannot be reached")).to_have_count(0)
    until_held(site, meeting, 10)
    site.kill("serve")
    site.kill("listen")
    expect(page.get_by_text("The server cannot be reached")).to_be_visible()
    expect(page.get_by_text(re.compile(r"kept on this computer: ([6-9]|1\d) parts waiting"))).to_be_visible()
    site.start("serve")
    site.start("listen")
    expect(page.get_by_text("The server cannot be reached")).to_have_count(0)
    until_held(site, meeting, 24)
    expect(page.get_by_role("log", name="What is said")).to_contain_text("visitors", ignore_case=True)
    stop(page)
    sound = held_sound(site, meeting)
    whole = np.concatenate([np.zeros(8 * RATE, np.float32), talk])
    first, last = place(sound[8 * RATE : 10 * RATE], whole), place(sound[20 * RATE : 22 * RATE], whole)
    assert first[1] > 0.98 and last[1] > 0.98
    assert abs((last[0] - first[0]) - 12.0) < 0.05, "sound between them is missing"
    assert breaks(site, meeting) == []


def test_a_killed_browser_goes_on_and_the_gap_is_marked(desk: Desk, site: Site) -> None:
    page = desk.open()
    meeting = open_room(page, "A crash")
    begin(page)
    until_held(site, meeting, 5)
    killed = time.time()
    desk.kill()
    before = room(site, meeting).held / RATE
    page = desk.open()
    page.goto(f"/meetings/{meeting}/room")
    expect(page.get_by_text("The recording had broken off and goes on.")).to_be_visible()
    until_held(site, meeting, before + 4)
    expect(page.locator("[data-break=gap]")).to_be_visible()
    stopping = time.time()
    stop(page)
    ((kind, at, seconds),) = breaks(site, meeting)
    assert kind == "gap" and seconds is not None
    with site.installation.database.read() as session:
        begun = runs_of(session, room(site, meeting))[0].begun
    assert begun is not None
    assert killed - begun - at < LATE, f"{killed - begun - at:.2f} s from before the crash are missing"
    told = room(site, meeting).held / RATE + seconds
    assert stopping - begun - LATE < told < time.time() - begun + 0.5, "gap and sound are not the time that passed"


def test_a_pause_leaves_nothing_behind(desk: Desk, site: Site, talk: Samples) -> None:
    page = desk.open()
    meeting = open_room(page, "A private word")
    begin(page)
    until_held(site, meeting, 7)
    page.get_by_role("button", name="Pause").click()
    expect(page.get_by_text("Paused at").first).to_be_visible()
    paused = until_paused(site, meeting)
    time.sleep(PRIVATE)
    assert room(site, meeting).held == paused
    page.get_by_role("button", name="Go on").click()
    until_held(site, meeting, paused / RATE + 0.5)
    resumed = time.time()
    until_held(site, meeting, paused / RATE + 6)
    expect(page.locator("[data-break=pause]")).to_be_visible()
    stop(page)
    sound = held_sound(site, meeting)
    whole = np.concatenate([np.zeros(8 * RATE, np.float32), talk])
    last = place(sound[paused - 2 * RATE : paused - RATE // 4], whole)
    private = round((last[0] + 3.5) * RATE)
    assert place(whole[private : private + 3 * RATE], sound)[1] < 0.5, "sound of the pause was kept"
    after = place(sound[paused + RATE : paused + 4 * RATE], whole)
    assert after[1] > 0.9 and after[0] - last[0] > PRIVATE
    ((kind, at, seconds),) = breaks(site, meeting)
    assert (kind, at) == ("pause", pytest.approx(paused / RATE, abs=0.01))
    with site.installation.database.read() as session:
        begun = runs_of(session, room(site, meeting))[0].begun
        assert begun is not None and seconds is not None
        assert PRIVATE - 0.5 < seconds < resumed - begun - paused / RATE + 0.5, "what is not sound is not the pause"
        lines = session.scalars(select(LiveLineRow).where(LiveLineRow.meeting_id == meeting))
        at = paused / RATE
        assert not any(line.start < at - 0.2 and at + 0.2 < line.end for line in lines), "a line runs across the pause"


def test_others_follow_and_cannot_record_by_accident(desk: Desk, site: Site, browser: Browser) -> None:
    with site.installation.database.write() as session:
        workspace = session.scalars(select(Workspace)).one()
        if session.scalar(select(User).where(User.email == "ines@saltmarsh.example")) is None:
            person = named_person(session, workspace.id, "Ines Carvell")
            give_account(session, person, "ines@saltmarsh.example", PASSWORD, Role.MEMBER)
    page = desk.open()
    meeting = open_room(page, "Watched by two")
    begin(page)
    until_held(site, meeting, 2)
    assert desk.context is not None
    second = desk.context.new_page()
    second.goto(f"/meetings/{meeting}/room")
    second.get_by_role("button", name="Record here").click()
    second.get_by_role("dialog").get_by_role("button", name="Record here").click()
    expect(second.get_by_text("Another tab of this browser records this meeting")).to_be_visible()
    second.close()

    context = browser.new_context(base_url=site.address, viewport={"width": 390, "height": 844}, locale="en-GB")
    ines = context.new_page()
    ines.goto(f"/meetings/{meeting}/room")
    ines.get_by_label("E-mail").fill("ines@saltmarsh.example")
    ines.get_by_label("Password").fill(PASSWORD)
    ines.get_by_role("button", name="Sign in").click()
    expect(ines.get_by_text("by Maren Tull")).to_be_visible()
    ines.get_by_role("button", name="Write a note …").click()
    ines.keyboard.type("Mine alone")
    ines.get_by_role("button", name="mark", exact=True).click()
    ines.get_by_role("button", name="What is said").click()
    expect(ines.get_by_role("log", name="What is said")).to_contain_text("happy", ignore_case=True)
    assert not ines.evaluate("document.documentElement.scrollWidth > document.documentElement.clientWidth")
    expect(page.locator("[data-mark]")).to_contain_text("Ines Carvell")
    expect(page.get_by_text("Mine alone")).to_have_count(0)
    captions = desk.context.new_page()
    captions.goto(f"/meetings/{meeting}/captions")
    expect(captions.get_by_role("log", name="Captions")).to_contain_text("happy", ignore_case=True)
    assert faults(captions) == []
    stop(page)
    expect(ines.get_by_role("link", name="Open the record")).to_be_visible()
    context.close()


def test_a_browser_without_a_track_processor_records_through_a_worklet(desk: Desk, site: Site, talk: Samples) -> None:
    page = desk.open()
    page.add_init_script("delete window.MediaStreamTrackProcessor")
    meeting = open_room(page, "By worklet")
    begin(page)
    until_held(site, meeting, 16)
    stop(page)
    sound = held_sound(site, meeting)
    # A busy browser stumbles; blocks in the wrong order or at the wrong rate would leave no window as spoken.
    assert share_found(sound[5 * RATE : 15 * RATE], talk) > 0.25


def test_the_sound_and_the_picture_of_a_shared_tab_are_kept(desk: Desk, site: Site) -> None:
    page = desk.open(("--auto-select-tab-capture-source-by-title=Slides",), mute=False)
    assert desk.context is not None
    shown = desk.context.new_page()
    shown.goto(f"{site.address}/api/health")
    shown.evaluate(
        """hertz => {
            document.title = "Slides";
            document.body.innerHTML = "<h1 style='font-size:20vw'>One</h1>";
            window.play = () => {
                const sound = new AudioContext();
                const tone = new OscillatorNode(sound, {frequency: hertz});
                tone.connect(sound.destination);
                tone.start();
            };
        }""",
        TONE,
    )
    page.bring_to_front()
    meeting = open_room(page, "What is shown")
    page.get_by_role("button", name="This computer").click()
    begin(page)
    shown.evaluate("window.play()")
    until_held(site, meeting, 9)
    shown.evaluate("document.body.innerHTML = '<h1 style=\"font-size:20vw;background:#000;color:#fff\">Two</h1>'")
    until_held(site, meeting, 14)
    stop(page)
    sound = held_sound(site, meeting)
    assert share_sounding(sound[5 * RATE : 13 * RATE], TONE) > 0.5
    with site.installation.database.read() as session:
        pictures = session.scalars(select(StillPicture).where(StillPicture.meeting_id == meeting)).all()
    first, second = sorted(picture.at for picture in pictures)
    assert first < 9 <= second  # seconds held when the slide was changed


@pytest.fixture
def moves(site: Site, browser: Browser) -> Iterator[Callable[[str], None]]:
    """Presses a button of the simulated bridge's page."""
    page = browser.new_page()
    page.goto(site.settings.bridge.replace("ws:", "http:"))
    yield lambda label: page.get_by_role("button", name=label, exact=True).click()
    page.close()


def test_a_line_listens_to_a_call_with_a_waiting_room(page: Page, site: Site, moves: Callable[[str], None]) -> None:
    meeting = open_room(page, "Engine room by telephone")
    page.get_by_label("Link of the call").fill(f"{site.settings.bridge}/call/engine-room?waiting=1")
    page.get_by_role("button", name="Join").click()
    expect(page.get_by_text("In the waiting room")).to_be_visible()
    assert room(site, meeting).held == 0
    moves("Admit")
    expect(page.get_by_text("from the call (simulated)")).to_be_visible()
    expect(page.get_by_role("log", name="What is said")).to_contain_text("tide", ignore_case=True)
    page.keyboard.press("b")
    expect(page.get_by_text("Too little has been said yet.")).to_be_visible()
    moves("Put on hold")
    expect(page.get_by_text("Paused at").first).to_be_visible()
    moves("Take off hold")
    expect(page.get_by_text(re.compile("^Recording 0:"))).to_be_visible()
    until_held(site, meeting, room(site, meeting).held / RATE + 2)
    moves("Drop the connection")
    page.get_by_role("button", name="More").click()
    expect(page.get_by_text("In the waiting room")).to_be_visible()
    moves("Admit")
    expect(page.get_by_text("Listening. It has said so")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.locator("[data-break=gap]")).to_be_visible()
    until_held(site, meeting, 62, patience=90)
    page.get_by_role("tab", name="so far").click()
    brief = page.get_by_role("region", name="Brief")
    expect(brief).to_contain_text(
        re.compile("injector|gasket|bilge|Curlew|Heron|pounds|Saturday", re.I), timeout=40_000
    )
    page.get_by_role("tab", name="decided").click()
    expect(brief).to_contain_text(re.compile("decided so far|."))
    page.get_by_role("tab", name="ask").click()
    page.get_by_label("Question").fill("What colour is the bishop's hat?")
    page.get_by_label("Question").press("Enter")
    expect(brief).to_contain_text("Not said so far.")
    moves("End the call")
    expect(page.get_by_role("link", name="Open the record")).to_be_visible()
    kinds = [kind for kind, _, _ in breaks(site, meeting)]
    assert kinds == ["pause", "gap"]


def test_the_demo_meeting_runs_with_the_keyboard_alone(page: Page, site: Site) -> None:
    page.goto("/")
    expect(page.get_by_role("button", name="Run the demo meeting")).to_be_visible()
    page.get_by_role("button", name="Run the demo meeting").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("from the call (simulated)")).to_be_visible()
    meeting = page.url.split("/meetings/")[1].split("/")[0]
    expect(page.get_by_role("log", name="What is said")).to_contain_text("biscuits", ignore_case=True)
    page.keyboard.press("2")
    expect(page.locator("[data-mark]")).to_contain_text("vote")
    page.keyboard.press("n")
    expect(page.get_by_role("button", name=re.compile("^Slipway"))).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("/")
    page.keyboard.type("biscuits")
    expect(page.get_by_role("search").get_by_role("status")).to_contain_text("1 of 1")
    page.keyboard.press("Escape")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_contain_text("Mark what was just said")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="More").click()
    page.get_by_role("button", name="Remove a stretch for good …").click()
    cutting = page.get_by_role("dialog", name="Remove a stretch for good")
    cutting.get_by_label("From").fill("0:00")
    cutting.get_by_label("To").fill("0:09")
    cutting.get_by_role("button", name="Remove for good").click()
    expect(page.locator("[data-break=cut]")).to_contain_text("removed at 0:00 by Maren Tull")
    expect(page.get_by_role("log", name="What is said")).not_to_contain_text("Good morning")
    assert not held_sound(site, meeting)[: 9 * RATE].any()
    page.get_by_role("button", name="Stop", exact=True).click()
    page.get_by_role("dialog").get_by_role("button", name="Finish").click()
    expect(page.get_by_role("link", name="Open the record")).to_be_visible()
