"""Setting the transcript right in the browser: words chosen, turns, voices, replacing; excerpts and the floor."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.desk import open_record
from tests.browser.test_everywhere import faults
from tests.browser.test_uses import more

pytestmark = pytest.mark.browser
TITLE = "New ticket machine: call with the supplier"


def choose(page: Page, turn: int, first: int, last: int) -> None:
    """Draws over words of a turn."""
    words = page.locator(f"[data-turn='{turn}'] [data-word]")
    start, end = words.nth(first).bounding_box(), words.nth(last).bounding_box()
    assert start and end
    page.mouse.move(start["x"] + 2, start["y"] + start["height"] / 2)
    page.mouse.down()
    page.mouse.move(end["x"] + end["width"] - 8, end["y"] + end["height"] / 2, steps=5)
    page.mouse.up()
    expect(page.get_by_role("toolbar", name="Chosen words")).to_be_visible()


def fits(page: Page) -> None:
    """Waits until the page, laid out again, needs no scrolling sideways."""
    page.wait_for_function("() => document.documentElement.scrollWidth <= document.documentElement.clientWidth")


def words_of(page: Page, turn: int) -> str:
    return page.locator(f"[data-turn='{turn}'] [data-word]").first.locator("xpath=..").inner_text().strip()


def test_words_are_given_to_somebody_else_and_taken_back(page: Page) -> None:
    open_record(page, TITLE)
    before = words_of(page, 0)
    choose(page, 0, 0, 1)
    assert faults(page) == []
    page.get_by_role("button", name="Said by …").click()
    page.get_by_role("menuitem", name="Somebody else (a new voice)").click()
    expect(page.get_by_role("button", name=re.compile("^New voice 1"))).to_be_visible()
    assert words_of(page, 0) == " ".join(before.split()[:2])
    page.get_by_role("button", name="Take the last change back").click()
    expect(page.get_by_role("button", name=re.compile("^New voice 1"))).to_have_count(0)
    assert words_of(page, 0) == before


def test_the_keyboard_alone_chooses_and_keeps_a_turn(page: Page) -> None:
    open_record(page, TITLE)
    page.get_by_role("button", name=re.compile("^Set right the turn at")).first.focus()
    page.keyboard.press("Enter")
    item = page.get_by_role("menuitem", name="Choose all its words")
    item.focus()
    page.keyboard.press("Enter")
    bar = page.get_by_role("toolbar", name="Chosen words")
    expect(bar.get_by_role("button", name="Hear it")).to_be_focused()
    bar.get_by_role("button", name="Keep").focus()
    page.keyboard.press("Enter")
    form = page.get_by_role("dialog", name="Keep this passage")
    assert faults(page) == []
    form.get_by_label("Title").fill("How it began")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Kept. It stands among the excerpts.")).to_be_visible()

    page.goto("/excerpts")
    kept = page.get_by_role("article", name="How it began")
    expect(kept).to_contain_text(TITLE)
    kept.get_by_role("checkbox").check()
    page.get_by_role("button", name="Hear them").click()
    page.wait_for_function("() => document.querySelector('audio')?.duration > 0.3")
    assert faults(page) == []
    page.set_viewport_size({"width": 390, "height": 844})
    fits(page)
    kept.get_by_role("button", name="Remove How it began").click()
    expect(kept).to_have_count(0)
    page.get_by_role("button", name="Take back").click()
    expect(page.get_by_role("article", name="How it began")).to_be_visible()
    page.get_by_role("button", name="Remove How it began").click()
    expect(page.get_by_role("article", name="How it began")).to_have_count(0)


def test_a_link_to_a_passage_opens_there(page: Page) -> None:
    open_record(page, TITLE)
    address = page.url.split("#")[0]
    page.goto(f"{address}#t=10,12")
    page.reload()
    expect(page.locator("[data-turn]").first).to_be_visible()
    page.wait_for_function(
        "() => { const a = document.querySelector('audio'); return a && a.currentTime >= 10 && a.currentTime < 12.6; }"
    )


def test_words_are_replaced_everywhere_and_put_back(page: Page) -> None:
    open_record(page, TITLE)
    more(page, "Find and replace …")
    form = page.get_by_role("dialog", name="Find and replace")
    form.get_by_label("What was written").fill("xylophone")
    expect(form.get_by_role("status")).to_have_text("Stands nowhere as words of their own.")
    form.get_by_label("What was written").fill("machine")
    expect(form.get_by_role("status")).to_contain_text(re.compile(r"Stands (once|\d+ times)"))
    form.get_by_label("What it should be").fill("apparatus")
    form.get_by_role("button", name="Replace").click()
    expect(form.get_by_role("alert")).to_contain_text("Replaced")
    form.get_by_role("button", name="Close").click()
    field = page.get_by_label("Search what was said")
    field.fill("apparatus")
    expect(page.get_by_role("search")).to_contain_text(re.compile("1 of "))
    field.fill("")
    page.get_by_role("button", name="Take the last change back").click()
    field.fill("apparatus")
    expect(page.get_by_role("search")).to_contain_text("none")


def test_the_floor_in_figures_is_read_and_leads_to_the_sound(page: Page) -> None:
    open_record(page, TITLE)
    more(page, "The floor in figures")
    expect(page.get_by_role("heading", name="What the figures mean")).to_be_visible()
    shares = page.locator("tbody tr td:nth-of-type(1)").all_inner_texts()
    assert sum(float(share.split()[0]) for share in shares) == pytest.approx(100, abs=0.3)
    assert faults(page) == []
    with page.expect_download() as saved:
        page.get_by_role("button", name="PNG").click()
    assert saved.value.path().read_bytes().startswith(b"\x89PNG")
    page.set_viewport_size({"width": 390, "height": 844})
    fits(page)
    page.get_by_role("button", name=re.compile("hear it$")).last.click()
    expect(page).to_have_url(re.compile(r"#t=\d"))
