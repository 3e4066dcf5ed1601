"""What is kept and put together, in the browser: several files at once, a whole meeting, history, two people, compilations."""

import re
import zipfile
from pathlib import Path

import av
import pytest
from playwright.sync_api import BrowserContext, Page, expect

from tests.browser.desk import open_record
from tests.browser.test_everywhere import faults
from tests.browser.test_setting_right import fits, words_of
from tests.browser.test_uses import more
from tests.help import tone, write_wav

pytestmark = pytest.mark.browser
TITLE = "New ticket machine: call with the supplier"
TALK = """WEBVTT

00:00:01.000 --> 00:00:06.000
<v Maren Tull>Good morning. Tobias, could you send the harbour office the new times?

00:00:06.500 --> 00:00:12.000
<v Tobias Pryce>Sure. They'll have them tomorrow morning. The lifts cost seven hundred and fifty pounds.
"""


def test_a_recording_its_transcript_and_its_chat_become_one_record_and_travel_as_one_file(
    page: Page, tmp_path: Path
) -> None:
    write_wav(tmp_path / "talk.wav", tone(15), 16_000)
    (tmp_path / "talk.vtt").write_text(TALK)
    (tmp_path / "chat.txt").write_text("0:07 Ines Carvell: the times are on the board\n")
    page.goto("/")
    field = page.get_by_label("Recording", exact=True)
    field.set_input_files([tmp_path / name for name in ("talk.wav", "talk.vtt", "chat.txt")])
    form = page.get_by_role("dialog", name="Bring in a recording")
    expect(form.get_by_role("progressbar")).to_have_count(0)
    assert faults(page) == []
    form.get_by_label("What talk.vtt is").locator("xpath=..").click()
    page.get_by_role("option", name="Chat").click()
    expect(form.get_by_text("These are two chats.")).to_be_visible()
    form.get_by_label("What talk.vtt is").locator("xpath=..").click()
    page.get_by_role("option", name="Transcript").click()
    form.get_by_label("Title").fill("Harbour office")
    form.get_by_role("button", name="Bring in", exact=True).click()
    expect(page.get_by_role("region", name=re.compile("^Minutes to check"))).to_contain_text("Harbour office")
    open_record(page, "Harbour office")
    expect(page.locator("audio")).to_have_count(1)
    assert words_of(page, 0).startswith("Good morning. Tobias,")
    expect(page.get_by_text("Ines Carvell: the times are on the board")).to_be_visible()

    page.get_by_role("button", name="Files").click()
    with page.expect_download() as taken:
        page.get_by_role("menuitem", name=re.compile("^Whole meeting")).click()
    whole = tmp_path / "whole.zip"
    taken.value.save_as(whole)
    assert "sound/recording.wav" in zipfile.ZipFile(whole).namelist()
    page.goto("/")
    field.set_input_files(whole)
    form = page.get_by_role("dialog", name="Bring in a whole meeting")
    form.get_by_role("button", name="Bring in", exact=True).click()
    checked = page.get_by_role("region", name=re.compile("^Minutes to check"))
    expect(checked.get_by_role("link", name="Harbour office", exact=True)).to_have_count(2)


def test_a_pasted_transcript_becomes_a_record(page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="Paste a transcript").click()
    form = page.get_by_role("dialog", name="Paste a transcript")
    form.get_by_role("textbox").fill("no names at all")
    expect(form.get_by_role("alert")).to_contain_text("Name: words")
    form.get_by_role("textbox").fill("Maren: The lifts cost 750 pounds.\nInes: I'll paint the boat by Friday.")
    expect(form.get_by_text("Said by Maren, Ines.")).to_be_visible()
    form.get_by_role("button", name="Go on").click()
    form = page.get_by_role("dialog", name="Bring in a recording")
    form.get_by_label("Title").fill("Pasted talk")
    form.get_by_role("button", name="Bring in", exact=True).click()
    expect(page.get_by_role("region", name=re.compile("^Minutes to check"))).to_contain_text("Pasted talk")


def test_two_people_at_one_turn_lose_nothing_and_the_history_has_both(context: BrowserContext, page: Page) -> None:
    address = open_record(page, TITLE)
    before = words_of(page, 1)
    page.get_by_role("button", name=re.compile("^Correct the turn at")).nth(1).click()
    other = context.new_page()
    other.goto(address)
    other.get_by_role("button", name=re.compile("^Correct the turn at")).nth(1).click()
    other.get_by_label("Words of this turn").fill("Theirs came first.")
    other.get_by_role("button", name="Keep", exact=True).click()
    expect(other.get_by_text("Theirs came first.")).to_be_visible()
    other.close()
    page.get_by_label("Words of this turn").fill("Mine came second.")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("Theirs came first.")
    assert faults(page) == []
    page.get_by_role("button", name="Keep mine").click()
    expect(page.locator("[data-turn='1']")).to_contain_text("Mine came second.")
    more(page, "Who changed what …")
    told = page.get_by_role("dialog", name="Who changed what")
    expect(told).to_contain_text("Corrected what was said")
    expect(told).to_contain_text("Mine came second.")
    assert faults(page) == []
    told.get_by_role("button", name="Close").click()
    for _ in range(2):
        page.get_by_role("button", name="Take the last change back").click()
    expect(page.locator("[data-turn='1']")).to_contain_text(before[:40])


def test_the_search_is_narrowed_to_what_actions_rest_on(page: Page) -> None:
    open_record(page, TITLE)
    page.get_by_role("button", name="Narrow the search").click()
    form = page.get_by_role("dialog", name="Narrow the search")
    form.get_by_label("What lines rest on").click()
    page.get_by_role("option", name="Actions").click()
    assert faults(page) == []
    page.keyboard.press("Escape")
    expect(page.get_by_role("search")).to_contain_text(re.compile(r"1 of \d"))
    page.get_by_label("Search what was said").fill("xylophone")
    expect(page.get_by_role("search")).to_contain_text("none")
    page.get_by_label("Search what was said").fill("")
    page.get_by_role("button", name="Search is narrowed").click()
    page.get_by_role("button", name="Search everything").click()
    expect(page.get_by_role("search")).not_to_contain_text("of")


def test_a_digest_is_made_put_in_order_heard_and_taken_away(page: Page, tmp_path: Path) -> None:
    open_record(page, TITLE)
    more(page, "Listening digest …")
    page.get_by_label("3 min").check()
    page.get_by_role("button", name="Make it").click()
    section = page.get_by_role("region").filter(has=page.get_by_label("Title of passage 2")).first
    titles = section.get_by_label(re.compile("^Title of passage"))
    expect(titles.first).to_be_visible()
    first, second = titles.nth(0).input_value(), titles.nth(1).input_value()
    titles.nth(0).focus()
    page.keyboard.press("Alt+ArrowDown")
    expect(titles.nth(1)).to_have_value(first)
    page.get_by_role("button", name="Take the last change back").click()
    expect(titles.nth(0)).to_have_value(first)
    page.get_by_role("button", name=f"Take out: {first}").first.click()
    expect(titles.nth(0)).to_have_value(second)
    expect(page.get_by_text("· kept ·")).to_be_visible()
    page.get_by_role("button", name="Hear it as one").click()
    page.wait_for_function("() => document.querySelector('audio')?.currentTime > 0.3")
    assert faults(page) == []
    page.get_by_role("button", name="Files").click()
    with page.expect_download() as taken:
        page.get_by_role("menuitem", name="Picture with captions (MP4)").click()
    taken.value.save_as(tmp_path / "digest.mp4")
    with av.open(str(tmp_path / "digest.mp4")) as film:
        assert [s.type for s in film.streams][:3] == ["video", "audio", "subtitle"]
    page.set_viewport_size({"width": 390, "height": 844})
    fits(page)
    page.goto("/excerpts")
    page.get_by_role("button", name=f"Remove Listening digest: {TITLE}").click()
    expect(page.get_by_role("link", name=f"Listening digest: {TITLE}")).to_have_count(0)


def test_a_file_that_takes_a_while_is_saved_by_itself_and_kept_for_a_day(page: Page) -> None:
    open_record(page, TITLE)
    page.get_by_role("button", name="Files").click()
    with page.expect_download() as taken:
        page.get_by_role("menuitem", name="PDF", exact=True).first.click()
    assert taken.value.suggested_filename.endswith(" - minutes.pdf")
    assert taken.value.path().read_bytes().startswith(b"%PDF")
    page.reload()
    page.get_by_role("button", name="Downloads").click()
    dialog = page.get_by_role("dialog", name="Downloads")
    expect(dialog.get_by_text("Ready").first).to_be_visible()
    with page.expect_download() as again:
        dialog.get_by_role("link", name="Save").first.click()
    assert again.value.path().read_bytes() == taken.value.path().read_bytes()
    assert faults(page) == []
    away = dialog.get_by_role("button", name=f"Remove {TITLE} - minutes.pdf")
    left = away.count() - 1
    away.first.click()
    expect(away).to_have_count(left)


def test_a_passage_is_dragged_to_another_section(page: Page) -> None:
    open_record(page, TITLE)
    more(page, "Listening digest …")
    page.get_by_role("button", name="Make it").click()
    titles = page.get_by_label(re.compile("^Title of passage"))
    moved = titles.first.input_value()
    page.get_by_role("button", name="Add a section").click()
    target = page.get_by_text("Nothing here yet: drag a passage here.")
    page.set_viewport_size({"width": 1280, "height": 2400})  # all of it in sight: nothing scrolls under the mouse
    page.locator("[draggable=true]").first.locator("svg").first.drag_to(target)
    last = page.get_by_role("main").get_by_role("region").last
    expect(last.get_by_label("Title of passage 1")).to_have_value(moved)
    page.get_by_label("Title of section 1").fill("Left at once")
    with page.expect_response(lambda answer: answer.request.method == "PUT") as kept:
        page.get_by_role("link", name="All excerpts").click()  # before it is kept by itself
    assert kept.value.ok
    page.go_back()
    expect(page.get_by_label("Title of section 1")).to_have_value("Left at once")
    page.reload()
    expect(page.get_by_label("Title of section 1")).to_have_value("Left at once")


def test_an_excerpt_is_trimmed_by_drawing_its_ends(page: Page) -> None:
    open_record(page, TITLE)
    page.get_by_role("button", name=re.compile("^Set right the turn at")).nth(2).click()
    page.get_by_role("menuitem", name="Choose all its words").click()
    page.get_by_role("toolbar", name="Chosen words").get_by_role("button", name="Keep").click()
    form = page.get_by_role("dialog", name="Keep this passage")
    begun = form.get_by_label("From").input_value()
    form.get_by_role("slider", name="Beginning of the passage").focus()
    for _ in range(3):
        page.keyboard.press("ArrowRight")
    expect(form.get_by_label("From")).not_to_have_value(begun)
    assert faults(page) == []
    form.get_by_label("Title").fill("Trimmed")
    form.get_by_role("button", name="Keep").click()
    page.goto("/excerpts")
    expect(page.get_by_role("article", name="Trimmed")).to_be_visible()
    page.get_by_role("button", name="Remove Trimmed").click()


def test_one_goes_to_a_time_by_typing_it_and_by_the_minute(page: Page) -> None:
    open_record(page, TITLE)
    page.get_by_role("button", name=re.compile("go to another time$")).click()
    page.get_by_label("Time to go to, such as 1:30").fill("1:15")
    page.keyboard.press("Enter")
    page.wait_for_function("() => document.querySelector('audio').currentTime === 75")
    page.keyboard.press("Control+ArrowRight")
    page.wait_for_function("() => document.querySelector('audio').currentTime === 135")
    page.keyboard.press("Control+ArrowLeft")
    page.wait_for_function("() => document.querySelector('audio').currentTime === 75")
