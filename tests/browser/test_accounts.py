"""Accounts on the real pages: invited by link, a second factor, a person taken off a meeting."""

import pyotp
import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import Site

pytestmark = pytest.mark.browser

PASSWORD = "herring gulls over the quay"


def test_somebody_is_invited_joins_and_sees_exactly_their_meetings(page: Page, browser: Browser, site: Site) -> None:
    page.goto("/setup/people")
    page.get_by_role("button", name="Change Priya Nand").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("E-mail").fill("priya@saltmarsh.example")
    dialog.get_by_role("button", name="Invite").click()
    link = dialog.get_by_role("alert").locator("span").inner_text()
    page.keyboard.press("Escape")
    expect(page.get_by_role("listitem").filter(has_text="Priya Nand")).to_contain_text("invited until")

    context = browser.new_context(base_url=site.address, locale="en-GB")
    hers = context.new_page()
    hers.goto(link)
    expect(hers.get_by_text("You are invited as Priya Nand.")).to_be_visible()
    hers.get_by_label("Choose a password").fill("priya nand")
    hers.get_by_role("button", name="Begin").click()
    expect(hers.get_by_role("alert")).to_contain_text("not safe enough")
    hers.get_by_label("Choose a password").fill(PASSWORD)
    hers.get_by_role("button", name="Begin").click()
    expect(hers.get_by_role("heading", name="Today")).to_be_visible()
    hers.goto("/setup/people")
    expect(hers.get_by_text("Administrators invite people")).to_be_visible()
    expect(hers.get_by_role("tab", name="Activity")).to_have_count(0)
    hers.goto("/archive")
    hers.get_by_role("link", name="Winter timetable and the slipway", exact=True).click()
    hers.locator("[data-line]").first.wait_for()
    hers.get_by_role("button", name="More", exact=True).click()
    expect(hers.get_by_role("menuitem", name="Remove a stretch for good …")).to_have_count(0)
    hers.get_by_role("menuitem", name="Who was there, and may open it …").click()
    expect(hers.get_by_text("opens it as priya@saltmarsh.example")).to_be_visible()
    expect(hers.get_by_role("button", name="Take off")).to_have_count(0)
    record = hers.url

    page.goto(record)
    page.locator("[data-line]").first.wait_for()
    page.get_by_role("button", name="More", exact=True).click()
    page.get_by_role("menuitem", name="Who was there, and may open it …").click()
    page.get_by_role("button", name="Take Priya Nand off").click()
    expect(page.get_by_text("opens it as priya@saltmarsh.example")).to_have_count(0)
    hers.goto(record)
    expect(hers.get_by_text("There is nothing here, or it is not open to you.")).to_be_visible()
    page.get_by_label("Somebody else was there").fill("priya nand")
    expect(page.get_by_text("Priya Nand will be able to open it, as priya@saltmarsh.example.")).to_be_visible()
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_text("opens it as priya@saltmarsh.example")).to_be_visible()
    context.close()


def test_a_second_factor_is_set_up_and_asked_for(page: Page, browser: Browser, site: Site) -> None:
    page.goto("/setup/people")
    page.get_by_label("Name", exact=False).first.fill("Bea Moss")
    page.get_by_role("form", name="Add somebody").get_by_role("button", name="Add").click()
    page.get_by_role("button", name="Change Bea Moss").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("E-mail").fill("bea@saltmarsh.example")
    dialog.get_by_role("button", name="Invite").click()
    link = dialog.get_by_role("alert").locator("span").inner_text()

    context = browser.new_context(base_url=site.address, locale="en-GB")
    hers = context.new_page()
    hers.goto(link)
    hers.get_by_label("Choose a password").fill(PASSWORD)
    hers.get_by_role("button", name="Begin").click()
    expect(hers.get_by_role("heading", name="Today")).to_be_visible()
    hers.goto("/account")
    hers.get_by_role("button", name="Set it up").click()
    secret = hers.locator("code").inner_text().replace(" ", "")
    hers.get_by_label("Code").fill(pyotp.TOTP(secret).now())
    hers.get_by_role("form", name="Second factor").get_by_label("Your password").fill(PASSWORD)
    hers.get_by_role("button", name="Turn it on").click()
    code = hers.get_by_role("region", name="Recovery codes").get_by_role("listitem").first.inner_text()
    hers.get_by_role("button", name="I have kept them").click()
    expect(hers.get_by_text("It is on. 10 recovery codes are left.")).to_be_visible()
    hers.get_by_role("button", name="Sign out", exact=True).click()
    hers.get_by_role("button", name="Sign in").wait_for()
    hers.get_by_label("E-mail").fill("bea@saltmarsh.example")
    hers.get_by_label("Password").fill(PASSWORD)
    hers.get_by_role("button", name="Sign in").click()
    hers.get_by_label("Code").fill("000000")
    hers.get_by_role("button", name="Go on").click()
    expect(hers.get_by_role("alert")).to_contain_text("not right")
    hers.get_by_label("Code").fill(code)
    hers.get_by_role("button", name="Go on").click()
    expect(hers.get_by_role("heading", name="Today")).to_be_visible()
    context.close()
