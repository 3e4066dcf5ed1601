"""The Room's clock and its recording while the network is away: through pauses, notes, marks, and what is forgotten."""

import re

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.rooms import RoomState
from nuntius.store.models import MarkRow, NoteRow
from tests.browser.conftest import Site
from tests.browser.microphone import Desk, begin, breaks, held_sound, open_room, place, room, stop, until_held

pytestmark = pytest.mark.browser
NEAR = 1.5  # seconds by which what a person sees and presses may differ from what is kept


def shown(page: Page) -> float:
    """The second of the meeting that the head of the room shows."""
    text = page.get_by_role("status").filter(has_text=re.compile(r"\d:\d\d")).first.inner_text()
    found = re.search(r"(\d+):(\d\d)", text)
    assert found is not None, text
    return int(found[1]) * 60 + int(found[2])


def until_shown(page: Page, seconds: float) -> None:
    """Waits until the clock has come so far."""
    page.wait_for_function(
        """least => [...document.querySelectorAll('[role=status]')].some((each) => {
            const found = /(\\d+):(\\d\\d)/.exec(each.textContent);
            return found && Number(found[1]) * 60 + Number(found[2]) >= least;
        })""",
        arg=seconds,
    )


def away(desk: Desk, is_away: bool) -> None:
    assert desk.context is not None
    desk.context.set_offline(is_away)


def test_going_on_listens_at_once_while_the_network_is_away(desk: Desk, site: Site, talk: Samples) -> None:
    page = desk.open()
    meeting = open_room(page, "Away and on")
    begin(page)
    until_held(site, meeting, 4)
    away(desk, True)
    until_shown(page, 8)
    page.get_by_role("button", name="Pause").click()
    state = page.get_by_role("status").filter(has_text="Paused at")
    expect(state).to_be_visible()
    expect(page.get_by_text("The recording goes on")).to_have_count(0)  # nothing is recorded now
    paused = shown(page)
    page.get_by_role("button", name="Go on").click()
    expect(page.get_by_text("The recording goes on and is kept on this computer")).to_be_visible()
    until_shown(page, paused + 6)
    assert room(site, meeting).state == RoomState.RECORDING and room(site, meeting).held < (paused - 1) * RATE
    away(desk, False)
    until_held(site, meeting, paused + 8)
    ((kind, at, seconds),) = breaks(site, meeting)
    assert kind == "pause" and abs(at - paused) < NEAR
    page.get_by_role("button", name="Pause").click()
    expect(state).to_be_visible()
    stop(page)  # from a pause as well
    sound = held_sound(site, meeting)
    whole = np.concatenate([np.zeros(8 * RATE, np.float32), talk])
    cut = round(at * RATE)
    before = place(sound[cut - 2 * RATE : cut - RATE // 4], whole)
    behind = place(sound[cut + RATE // 2 : cut + 3 * RATE], whole)
    assert min(before[1], behind[1]) > 0.9
    assert seconds is not None
    assert behind[0] - before[0] == pytest.approx(2.5 + seconds, abs=0.5), "sound behind the pause is missing"


def test_notes_and_marks_rest_on_the_moment_at_which_they_were_made(desk: Desk, site: Site) -> None:
    page = desk.open()
    meeting = open_room(page, "Notes while away")
    begin(page)
    until_held(site, meeting, 3)
    away(desk, True)
    until_shown(page, 12)
    page.keyboard.press("m")
    expect(page.get_by_text("Marked “worth keeping”")).to_be_visible()
    marked = shown(page)
    page.get_by_role("button", name="Write a note …").click()
    page.keyboard.type("Two boats")
    typed = shown(page)
    away(desk, False)
    until_held(site, meeting, typed + 2)
    expect(page.get_by_text("The server cannot be reached")).to_have_count(0)
    stop(page)
    with site.installation.database.read() as session:
        note = session.query(NoteRow).filter_by(meeting_id=meeting).one()
        mark = session.query(MarkRow).filter_by(meeting_id=meeting).one()
    assert note.text == "Two boats" and abs(note.at - typed) < NEAR
    assert abs(mark.end - marked) < NEAR


def test_the_last_minute_is_forgotten_at_one_press(desk: Desk, site: Site) -> None:
    page = desk.open()
    meeting = open_room(page, "A private word just now")
    begin(page)
    until_held(site, meeting, 9)
    forget = page.get_by_role("button", name="Forget the last minute")
    forget.click()
    expect(page.get_by_text("will be removed in a moment")).to_be_visible()
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("will be removed in a moment")).to_have_count(0)
    asked = shown(page)
    forget.click()
    expect(page.get_by_text(re.compile(r"0:00 to 0:\d\d is removed for good"))).to_be_visible()
    ((kind, at, seconds),) = breaks(site, meeting)
    assert (kind, at) == ("cut", 0.0) and seconds is not None and abs(seconds - asked) < NEAR
    assert not np.any(held_sound(site, meeting)[: round((seconds - 0.1) * RATE)])
    until_held(site, meeting, asked + 8)
    stop(page)
    assert np.any(held_sound(site, meeting)[round((seconds + 1) * RATE) :])
