"""What holds for every view: it can be read, reached by keyboard, and fits a phone."""

import json
import re

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

from nuntius.core.jobs import JobState
from nuntius.demonstration import EMAIL
from nuntius.store.installation import Installation
from nuntius.store.jobs import create_job
from nuntius.store.meetings import create_meeting
from nuntius.store.models import Recording, User, now
from nuntius.store.transcripts import save_transcript
from tests.browser.conftest import Site
from tests.browser.desk import has_sideways_scroll, open_record
from tests.help import ROOT, four_hours

pytestmark = pytest.mark.browser
AXE = ROOT / "frontend/node_modules/axe-core/axe.min.js"
VIEWS = (
    "/",
    "/archive",
    "/excerpts",
    "/setup",
    "/setup/vocabulary",
    "/setup/people",
    "/setup/trust",
    "/setup/activity",
    "/account",
    "/about",
)
RULES = {"runOnly": ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]}


def faults(page: Page) -> list[str]:
    """What axe finds wrong by WCAG 2.2 A and AA: rule, place, text."""
    page.evaluate("() => document.fonts.ready.then(() => true)")
    page.evaluate(AXE.read_text())
    found = page.evaluate(f"axe.run(document, {json.dumps(RULES)})")
    return [f"{v['id']}: {node['html'][:160]} {node['any'][:1]}" for v in found["violations"] for node in v["nodes"]]


def show(page: Page, view: str) -> None:
    page.goto(view)
    expect(page.locator("h1").first).to_be_visible()
    expect(page.get_by_role("progressbar")).to_have_count(0)


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_views_meet_wcag(page: Page, scheme: str) -> None:
    page.emulate_media(color_scheme=scheme, reduced_motion="reduce")  # type: ignore[arg-type]
    for view in VIEWS[1:]:
        show(page, view)
        assert faults(page) == [], view
    page.goto("/")
    expect(page.get_by_role("heading", name="Today")).to_be_visible()
    assert faults(page) == []
    open_record(page, "Winter timetable and the slipway")
    page.keyboard.press("ArrowDown")
    expect(page.locator("[data-lit]").first).to_be_visible()
    assert faults(page) == []


def test_the_sign_in_meets_wcag_and_refuses_calmly(browser: Browser, site: Site) -> None:
    context = browser.new_context(base_url=site.address, locale="en-GB")
    page = context.new_page()
    page.goto("/")
    page.get_by_label("Password").fill("wrong")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_contain_text("password")
    assert faults(page) == []
    context.close()


def test_a_phone_shows_everything_without_scrolling_sideways(page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    for view in VIEWS:
        page.goto(view)
        expect(page.locator("h1").first).to_be_visible()
        assert not has_sideways_scroll(page), view
    page.goto("/archive")
    page.get_by_role("link", name="New ticket machine: call with the supplier").click()
    expect(page.locator("[data-line]").first).to_be_visible()
    assert not has_sideways_scroll(page)
    page.get_by_role("button", name="Transcript").click()
    expect(page.locator("[data-turn]").first).to_be_visible()
    assert not has_sideways_scroll(page)


def test_an_unknown_record_says_so(page: Page) -> None:
    page.goto("/meetings/nothing")
    expect(page.get_by_role("alert")).to_contain_text("not")


@pytest.fixture
def long_meeting(site: Site) -> str:
    """Four hours, 3,000 turns, 36,000 words, already worked through."""
    store = Installation(site.settings)
    with store.database.write() as session:
        user = session.query(User).filter_by(email=EMAIL).one()
        meeting = create_meeting(session, user, "Four hours", "committee", now(), "Europe/London", [])
        session.add(Recording(meeting_id=meeting.id, name="long.txt", digest="0" * 64, is_text=True, duration=14_400.0))
        save_transcript(session, meeting.id, four_hours())
        create_job(session, meeting.id, None).state = JobState.DONE
        identifier = meeting.id
    store.database.close()
    return identifier


def test_of_a_four_hour_record_only_what_is_seen_is_drawn(
    context: BrowserContext, page: Page, long_meeting: str
) -> None:
    page.goto(f"/meetings/{long_meeting}")
    expect(page.locator("[data-turn]").first).to_be_visible()
    assert page.locator("[data-turn]").count() < 60
    page.get_by_label("Search what was said").fill("again 2950")
    expect(page.get_by_role("search").get_by_role("status")).to_have_text("1 of 1")
    expect(page.locator("[data-turn='2950']")).to_be_visible()
    assert page.locator("[data-turn]").count() < 60


def test_the_tab_names_the_view(page: Page) -> None:
    for address, title in (("/", "Today"), ("/archive", "Archive"), ("/setup", "Set-up"), ("/account", "Your account")):
        page.goto(address)
        expect(page).to_have_title(f"{title} · Nuntius")
    page.goto("/archive")
    page.get_by_role("link", name="Winter timetable").first.click()
    expect(page).to_have_title(re.compile("Winter timetable.* · Nuntius"))


def test_an_address_that_is_not_there_says_so(page: Page) -> None:
    page.goto("/meeting/winter")
    expect(page.get_by_role("heading", name="There is nothing at this address")).to_be_visible()
    expect(page.get_by_text("“/meeting/winter” leads nowhere")).to_be_visible()
    assert faults(page) == []
    page.get_by_role("link", name="Go to Today").click()
    expect(page).to_have_title("Today · Nuntius")
