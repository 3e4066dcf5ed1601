"""What is made from a record in the browser: templates, texts, names put right, the topic map."""

import re
from pathlib import Path
from xml.etree import ElementTree

import pytest
from playwright.sync_api import Page, expect

from tests.browser.desk import has_sideways_scroll, open_record
from tests.browser.test_everywhere import faults

pytestmark = pytest.mark.browser
TITLE = "Stand-up of the engine room"


def more(page: Page, entry: str) -> None:
    page.get_by_role("button", name="More", exact=True).click()
    page.get_by_role("menuitem", name=entry).click()


def again(page: Page) -> None:
    """Waits until minutes are being written again."""
    expect(page.get_by_text("The minutes are written again").first).to_be_visible()


def test_a_template_of_ones_own_is_made_and_used_without_losing_a_tick(page: Page) -> None:
    page.goto("/setup")
    page.get_by_role("button", name="Make an own one from it: committee").click()
    editor = page.get_by_role("dialog", name="A template of your own")
    editor.get_by_label("Name").fill("What the engine needs")
    editor.get_by_role("button", name="Add a section").click()
    count = editor.get_by_role("group", name=re.compile("^Section ")).count()
    section = editor.get_by_role("group", name=f"Section {count}")
    section.get_by_label("Title").fill("The engine")
    editor.get_by_role("button", name="Keep the template").click()
    expect(editor.get_by_role("alert")).to_contain_text("“The engine” takes nothing yet")
    section.get_by_label("Only with one of these words").fill("engine, ")
    for number in range(count, 1, -1):
        editor.get_by_role("button", name=f"Move section {number} up").click()
    assert faults(page) == []
    editor.get_by_role("button", name="Keep the template").click()
    expect(page.get_by_role("heading", name="What the engine needs")).to_be_visible()

    open_record(page, TITLE)
    minutes = page.get_by_role("region", name="Minutes")
    ticked = minutes.get_by_role("region", name=re.compile("^Decisions")).get_by_role("checkbox").first
    name = ticked.get_attribute("aria-label") or ""
    ticked.click()
    expect(page.get_by_role("checkbox", name=name)).to_be_checked()
    page.get_by_role("button", name=re.compile("draws on")).click()
    page.get_by_role("combobox", name="Template").click()
    page.get_by_role("option", name="What the engine needs").click()
    again(page)
    # The list of templates fades out; until then it takes the key for itself.
    expect(page.get_by_role("listbox")).to_have_count(0)
    page.keyboard.press("Escape")
    expect(minutes.get_by_role("region").first).to_have_attribute("aria-label", "The engine")
    expect(minutes.get_by_role("region", name="The engine").get_by_role("listitem").first).to_contain_text(
        "engine", ignore_case=True
    )
    expect(page.get_by_role("checkbox", name=name)).to_be_checked()

    page.goto("/setup")
    page.get_by_role("button", name="Remove What the engine needs").click()
    expect(page.get_by_role("heading", name="What the engine needs")).to_have_count(0)
    page.get_by_role("button", name="Bring it back").click()
    expect(page.get_by_role("heading", name="What the engine needs")).to_be_visible()


def test_one_chapter_is_written_in_more_detail(page: Page) -> None:
    open_record(page, "Winter timetable and the slipway")
    more_of = page.get_by_role("button", name=re.compile("^More of")).first
    chapter = (more_of.get_attribute("aria-label") or "").removeprefix("More of ")
    told = page.get_by_role("region", name=chapter).get_by_role("listitem")
    before = told.count()
    more_of.click()
    again(page)
    expect(page.get_by_role("button", name=f"Less of {chapter}")).to_be_visible()
    assert told.count() >= before
    page.get_by_role("button", name=f"Less of {chapter}").click()
    expect(page.get_by_role("button", name=f"More of {chapter}")).to_be_visible()
    expect(told).to_have_count(before)


def test_a_message_is_changed_copied_and_saved_and_its_items_are_heard(page: Page, tmp_path: Path) -> None:
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    open_record(page, "Winter timetable and the slipway")
    more(page, "Texts that follow")
    dialog = page.get_by_role("dialog", name="Texts that follow the meeting")
    dialog.get_by_role("combobox", name="Manner").click()
    page.get_by_role("option", name="formal").click()
    dialog.get_by_label("Paragraph 1", exact=True).fill("Dear all of you,")
    assert faults(page) == []
    dialog.get_by_role("button", name="Copy").click()
    expect(page.get_by_text("The text is copied.")).to_be_visible()
    copied = page.evaluate("navigator.clipboard.readText()")
    assert copied.startswith("Dear all of you,\n\n") and "Yours sincerely" in copied and "\n- " in copied
    with page.expect_download() as download:
        dialog.get_by_role("link", name="Save as a file").click()
    download.value.save_as(tmp_path / "text.txt")
    assert (tmp_path / "text.txt").read_text() == copied
    dialog.get_by_role("button", name=re.compile("^Hear what this rests on")).first.click()
    expect(page.locator("[data-lit]").first).to_be_attached()


def test_a_misheard_name_is_put_right_and_taken_back(page: Page) -> None:
    open_record(page, "Winter timetable and the slipway")
    transcript = page.get_by_role("region", name="Transcript")
    page.get_by_label("Search what was said").fill("Marin alone")
    expect(transcript).to_contain_text("Marin alone")
    more(page, "Misheard names and terms")
    dialog = page.get_by_role("dialog", name="Misheard names and terms")
    dialog.get_by_role("group", name="Marin, perhaps Maren").get_by_role("button", name="Write Maren").click()
    expect(dialog.get_by_role("group", name="Marin, perhaps Maren")).to_have_count(0)
    assert faults(page) == []
    dialog.get_by_role("button", name="Done").click()
    expect(transcript).to_contain_text("Maren alone")
    page.get_by_role("button", name="Take the last change back").click()
    expect(transcript).to_contain_text("Marin alone")


def test_a_question_is_kept_and_put_at_one_touch(page: Page) -> None:
    open_record(page, TITLE)
    page.keyboard.press("q")
    dialog = page.get_by_role("dialog", name="Ask the record")
    dialog.get_by_label("Question").fill("Which boat needs the part?")
    dialog.get_by_role("button", name="Ask").click()
    dialog.get_by_role("button", name="Keep this question").click()
    ready = dialog.get_by_role("group", name="Ready to ask")
    expect(ready.get_by_role("button", name="Which boat needs the part?")).to_be_visible()
    ready.get_by_role("button", name="Which boat needs the part?").focus()
    page.keyboard.press("Delete")
    expect(ready.get_by_role("button", name="Which boat needs the part?")).to_have_count(0)


def test_the_map_is_walked_by_keys_and_saved(page: Page, tmp_path: Path) -> None:
    open_record(page, "Winter timetable and the slipway")
    more(page, "Topic map")
    tree = page.get_by_role("tree", name="Topic map")
    chapters = tree.locator("[aria-level='2']")
    expect(chapters.first).to_have_attribute("aria-expanded", "true")
    assert faults(page) == []
    tree.locator("[aria-level='1']").focus()
    page.keyboard.press("ArrowDown")
    expect(chapters.first).to_be_focused()
    page.keyboard.press("ArrowLeft")
    expect(chapters.first).to_have_attribute("aria-expanded", "false")
    page.keyboard.press("ArrowRight")
    page.get_by_role("button", name="Larger").click()
    expect(page.get_by_role("button", name="back to the original size")).to_have_text("125 %")
    page.get_by_role("button", name="Open all").click()
    shown = tree.locator("[aria-level='3']").count()
    files = {}
    for form in ("SVG", "PNG", "OPML"):
        with page.expect_download() as download:
            page.get_by_text(form, exact=True).click()
        files[form] = tmp_path / download.value.suggested_filename
        download.value.save_as(files[form])
    drawn = ElementTree.parse(files["SVG"]).getroot()
    assert len(drawn.findall(".//{http://www.w3.org/2000/svg}g")) == 1 + chapters.count() + shown
    assert files["PNG"].read_bytes().startswith(b"\x89PNG\r\n\x1a\n")
    outline = ElementTree.parse(files["OPML"]).getroot()
    assert len(outline.findall("./body/outline")) == chapters.count()
    page.set_viewport_size({"width": 390, "height": 844})
    page.reload()
    expect(tree.locator("[aria-level='3']").first).to_be_visible()
    assert not has_sideways_scroll(page)
    tree.locator("[aria-level='3']").first.click()
    expect(page.locator("[data-line][aria-current=true]")).to_have_count(1)
