"""Lines by hand in the browser: from words of the transcript or none, changed, moved, joined, split, done, taken back."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.desk import open_record
from tests.browser.test_everywhere import faults

pytestmark = pytest.mark.browser
TITLE = "New ticket machine: call with the supplier"


@pytest.fixture
def record(page: Page) -> Page:
    open_record(page, TITLE)
    return page


def minutes(page: Page) -> Locator:
    return page.get_by_role("region", name="Minutes")


def actions(page: Page) -> Locator:
    return (
        minutes(page)
        .get_by_role("region", name=re.compile("^(Actions|Next steps|What was promised)"))
        .locator("[data-line]")
    )


def line(page: Page, text: str) -> Locator:
    return minutes(page).locator("[data-line]").filter(has_text=text)


def uses(page: Page, of: Locator, entry: str, exactly: bool = False) -> None:
    of.hover()
    of.get_by_role("button", name=re.compile("^More for")).click()
    page.get_by_role("menuitem", name=entry, exact=exactly).click()


def choose(page: Page, turn: Locator, first: int, last: int) -> None:
    """Chooses words of a turn with the mouse."""
    words = turn.locator("[data-word]")
    words.nth(first).scroll_into_view_if_needed()
    one, other = words.nth(first).bounding_box(), words.nth(last).bounding_box()
    assert one and other
    page.mouse.move(one["x"] + 2, one["y"] + 6)
    page.mouse.down()
    page.mouse.move(other["x"] + other["width"] - 6, other["y"] + 6, steps=6)
    page.mouse.up()


def take_back(page: Page) -> None:
    page.get_by_role("button", name="Take the last change back").click()


def test_a_line_is_made_of_words_that_are_pointed_at(record: Page) -> None:
    choose(record, record.locator("[data-turn='1']"), 0, 3)
    record.get_by_role("toolbar", name="Chosen words").get_by_role("button", name="To the minutes").click()
    record.get_by_role("menuitem", name="A new line").click()
    form = record.get_by_role("dialog", name="Add a line")
    expect(form.get_by_role("group", name="What it rests on").get_by_role("button")).to_have_count(1)
    form.get_by_label("What it is").click()
    record.get_by_role("option", name="Action").click()
    form.get_by_label("What it says").fill("Measure the hatch of the pier house.")
    form.get_by_label("Who does it").fill("Priya Nand")
    form.get_by_label("Who does it").press("Enter")
    form.get_by_label("By when, in words").fill("when pigs fly")
    form.get_by_role("button", name="Keep").click()
    expect(form.get_by_role("alert")).to_contain_text("names no day that can be read")
    form.get_by_label("By when, in words").fill("by Friday")
    assert faults(record) == []
    form.get_by_role("button", name="Keep").click()
    made = line(record, "Measure the hatch")
    expect(made).to_contain_text("Priya Nand · by Fri 16 Oct 2026 (“by Friday”)")
    expect(made).to_contain_text("added by hand")
    made.get_by_role("button", name=re.compile("^Hear what this rests on")).click()
    expect(record.get_by_role("button", name="Pause")).to_be_visible()
    record.get_by_role("button", name="Pause").click()
    take_back(record)
    expect(made).to_have_count(0)


def test_leaving_a_line_that_was_written_on_asks(record: Page) -> None:
    minutes(record).get_by_role("button", name="Add a line", exact=True).click()
    form = record.get_by_role("dialog", name="Add a line")
    form.get_by_label("What it says").fill("Half a thought")
    record.keyboard.press("Escape")
    record.get_by_role("button", name="Go on writing").click()
    expect(form.get_by_label("What it says")).to_have_value("Half a thought")
    form.get_by_role("button", name="Leave it").click()
    record.get_by_role("button", name="Leave without it").click()
    expect(form).to_have_count(0)


def test_a_task_is_done_here_and_on_today_whether_or_not_it_was_checked(record: Page) -> None:
    first = actions(record).first
    text = first.locator("p").first.inner_text()
    first.get_by_role("checkbox").click()
    expect(first.get_by_role("checkbox")).to_be_checked()
    record.goto("/")
    open_actions = record.get_by_role("region", name=re.compile("^Open actions"))
    more = open_actions.get_by_role("button", name=re.compile("^Show more"))
    expect(more).to_be_visible()
    more.click()
    waiting = open_actions.get_by_role("link", name=text, exact=True)
    expect(waiting).to_be_visible()
    open_actions.get_by_role("button", name=f"Done: {text}").click()
    expect(waiting).to_have_count(0)
    record.get_by_role("button", name="Take back").click()
    expect(waiting).to_be_visible()
    open_actions.get_by_role("button", name="Mine").click()
    expect(open_actions.get_by_role("button", name="Mine")).to_have_attribute("aria-pressed", "true")
    open_actions.get_by_role("button", name="All", exact=True).click()
    waiting.click()
    there = minutes(record).locator("[data-line][aria-current=true]")
    expect(there).to_contain_text(text)
    there.get_by_role("button", name=re.compile("^How far it is: open")).click()
    record.get_by_role("menuitem", name="Dropped").click()
    expect(there.get_by_role("button", name=re.compile("^How far it is: dropped"))).to_be_visible()
    take_back(record)
    expect(there.get_by_role("button", name=re.compile("^How far it is: open"))).to_be_visible()
    there.get_by_role("checkbox").click()


def test_lines_are_moved_joined_and_split(record: Page) -> None:
    texts = [each.locator("p").first.inner_text() for each in actions(record).all()[:2]]
    uses(record, actions(record).nth(1), "Move up")
    expect(actions(record).first).to_contain_text(texts[1])
    take_back(record)
    expect(actions(record).first).to_contain_text(texts[0])
    count = actions(record).count()
    uses(record, actions(record).first, "Join with the next line")
    expect(actions(record)).to_have_count(count - 1)
    expect(actions(record).first).to_contain_text(texts[1])
    take_back(record)
    expect(actions(record)).to_have_count(count)
    first = actions(record).first
    first.hover()
    first.get_by_role("button", name=re.compile("^Edit:")).click()
    field = record.get_by_label("Text of this line")
    field.fill("Write the quote. Send it over.")
    field.press("Home")
    for _ in range(len("Write the quote.")):
        field.press("ArrowRight")
    record.get_by_role("button", name="Split at the cursor").click()
    expect(actions(record)).to_have_count(count + 1)
    expect(actions(record).nth(0).locator("p").first).to_have_text("Write the quote.")
    expect(actions(record).nth(1).locator("p").first).to_have_text("Send it over.")
    take_back(record)
    expect(actions(record).first).to_contain_text(texts[0])


def test_a_line_rests_on_the_words_that_are_chosen_for_it(record: Page) -> None:
    first = actions(record).first
    first.locator("p").first.click()
    before = first.get_by_role("button", name=re.compile(r"^Hear \d")).count()
    assert before > 1
    choose(record, record.locator("[data-lit]").first, 0, 1)
    record.get_by_role("toolbar", name="Chosen words").get_by_role("button", name="To the minutes").click()
    record.get_by_role("menuitem", name="The chosen line rests on these words only").click()
    expect(first.get_by_role("button", name=re.compile(r"^Hear \d"))).to_have_count(1)
    record.get_by_role("button", name="More", exact=True).click()
    record.get_by_role("menuitem", name="Who changed what").click()
    history = record.get_by_role("dialog", name="Who changed what")
    expect(history).to_contain_text("Changed what a line rests on")
    assert faults(record) == []
    history.get_by_role("button", name="Take back: Changed what a line rests on").first.click()
    expect(history).to_contain_text("Changed what a line rests on")
    history.get_by_role("button", name="Close").click()
    expect(first.get_by_role("button", name=re.compile(r"^Hear \d"))).to_have_count(before)


def test_earlier_minutes_are_taken_back_and_an_old_link_says_what_became_of_its_line(record: Page) -> None:
    ids = {each.get_attribute("data-line") for each in minutes(record).locator("[data-line]").all()}
    address = record.url.split("#")[0]
    record.get_by_role("button", name=re.compile("draws on")).click()
    record.get_by_role("button", name="Short", exact=True).click()
    expect(record.get_by_text("The minutes are written again").first).to_be_visible()
    record.keyboard.press("Escape")
    expect(record.get_by_role("button", name=re.compile("^Short"))).to_be_visible()
    left = {each.get_attribute("data-line") for each in minutes(record).locator("[data-line]").all()}
    lost = min(ids - left, key=lambda each: int(each or 0))
    record.goto(f"{address}#line-{lost}")
    gone = record.get_by_role("alert").filter(has_text="is not in the minutes any more")
    expect(gone).to_contain_text("It said: “")
    gone.get_by_role("button", name="Earlier minutes").click()
    versions = record.get_by_role("dialog", name="Earlier minutes")
    expect(versions.get_by_role("status")).to_contain_text("otherwise now or are gone")
    assert faults(record) == []
    versions.get_by_role("button", name="Take all of them back").click()
    expect(versions.get_by_role("status")).to_have_text("The minutes read like this now.")
    versions.get_by_role("button", name="Close").click()
    expect(minutes(record).locator("[data-line]")).to_have_count(len(ids))
    expect(gone).to_have_count(0)
    record.get_by_role("button", name=re.compile("draws on")).click()
    record.get_by_role("button", name="Standard", exact=True).click()
    expect(record.get_by_role("button", name="Standard", exact=True)).to_have_attribute("aria-pressed", "true")


def test_lines_are_copied_with_their_links(page: Page) -> None:
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    open_record(page, TITLE)
    first = actions(page).first
    text = first.locator("p").first.inner_text()
    uses(page, first, "Copy the link to it")
    expect(page.get_by_text("The link is copied.")).to_be_visible()
    assert "#line-" in page.evaluate("navigator.clipboard.readText()")
    uses(page, first, "Copy", exactly=True)
    expect(page.get_by_text("The line is copied.")).to_be_visible()
    copied = page.evaluate("navigator.clipboard.readText()")
    assert text in copied and "#t=" in copied
    rich = page.evaluate("async () => (await (await navigator.clipboard.read())[0].getType('text/html')).text()")
    assert "<li>" in rich and "href=" in rich
    page.get_by_role("button", name="More", exact=True).click()
    page.get_by_role("menuitem", name="Copy the minutes").click()
    expect(page.get_by_text("The minutes are copied.")).to_be_visible()
    assert page.evaluate("navigator.clipboard.readText()").startswith(TITLE)


def test_a_note_and_a_mark_at_any_moment(record: Page) -> None:
    record.locator("[data-turn='3'] [data-word='1']").click()
    record.keyboard.press("m")
    expect(record.get_by_text(re.compile("^Marked “worth keeping” at"))).to_be_visible()
    record.keyboard.press("w")
    form = record.get_by_role("dialog", name="Notes and marks")
    form.get_by_label("At", exact=True).fill("99:00")
    form.get_by_label("Your note").fill("They promised a spare coin box.")
    expect(form.get_by_role("button", name="Keep the note")).to_be_disabled()
    form.get_by_label("At", exact=True).fill("1:00")
    form.get_by_role("button", name="Keep the note").click()
    expect(form.get_by_role("region", name="Your notes")).to_contain_text("They promised a spare coin box.")
    expect(form.get_by_role("region", name="Marks")).to_contain_text("worth keeping")
    assert faults(record) == []
    form.get_by_role("button", name="Close").click()
    expect(line(record, "They promised a spare coin box.")).to_contain_text("wrote this", timeout=60_000)
    record.reload()
    expect(line(record, "They promised a spare coin box.")).to_be_visible()
    record.keyboard.press("w")
    form.get_by_role("button", name="Remove the note at 1:00").click()
    form.get_by_role("button", name=re.compile("^Remove the mark at")).click()
    expect(form).to_contain_text("Nothing is noted or marked here yet.")
    form.get_by_role("button", name="Close").click()
    expect(line(record, "They promised a spare coin box.")).to_have_count(0, timeout=60_000)


def test_on_a_phone_a_line_shows_its_tools_when_it_is_chosen(page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto("/archive")
    page.get_by_role("link", name=TITLE, exact=True).click()
    first = minutes(page).locator("[data-line]").first
    tools = first.get_by_role("button", name=re.compile("^More for"))
    expect(first).to_be_visible()
    expect(tools).to_be_hidden()
    first.locator("p").first.click()
    expect(tools).to_be_visible()
    tools.click()
    page.get_by_role("menuitem", name="Change all of it").click()
    form = page.get_by_role("dialog", name="Change this line")
    expect(form.get_by_label("What it says")).to_be_visible()
    form.get_by_role("button", name="Leave it").click()
    expect(form).to_have_count(0)
