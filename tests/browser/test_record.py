"""The Record in the browser: what a person reads, hears and sets right."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Locator, Page, Route, expect

from tests.browser.desk import open_record, position

pytestmark = pytest.mark.browser


@pytest.fixture
def record(page: Page) -> Page:
    open_record(page, "Winter timetable and the slipway")
    return page


def lines(page: Page) -> Locator:
    return page.locator("[data-line]")


def test_every_line_plays_the_words_it_rests_on(record: Page) -> None:
    for number in range(3):
        line = lines(record).nth(number)
        moment = line.get_by_role("button", name=re.compile(r"^Hear \d")).first
        minutes, seconds = map(int, moment.inner_text().split(":"))
        line.get_by_role("button", name=re.compile("^Hear what this rests on")).click()
        expect(record.get_by_role("button", name="Pause")).to_be_visible()
        expect(record.locator("[data-lit]").first).to_be_visible()
        assert 60 * minutes + seconds - 0.5 <= position(record) <= 60 * minutes + seconds + 15
        record.get_by_role("button", name="Pause").click()


def test_the_sound_of_a_passage_ends_with_it(record: Page) -> None:
    lines(record).first.get_by_role("button", name=re.compile("^Hear what this rests on")).click()
    expect(record.get_by_role("button", name="Pause")).to_be_visible()
    expect(record.get_by_role("button", name="Play")).to_be_visible(timeout=60_000)


def test_a_word_is_heard_and_the_transcript_follows_until_the_reader_scrolls(record: Page) -> None:
    record.locator("[data-turn='4'] [data-word='3']").click()
    expect(record.get_by_role("button", name="Pause")).to_be_visible()
    start = position(record)
    assert start > 5
    record.wait_for_function("() => document.querySelector('audio').currentTime > %f" % (start + 0.3))
    record.get_by_role("region", name="Transcript").hover()
    record.mouse.wheel(0, 300)
    expect(record.get_by_role("button", name="Follow the sound")).to_be_visible()
    record.get_by_role("button", name="Follow the sound").click()
    expect(record.get_by_role("button", name="Follow the sound")).to_have_count(0)


def test_space_pauses_wherever_the_focus_is(record: Page) -> None:
    line = lines(record).nth(1)
    line.get_by_role("button", name=re.compile("^Hear what this rests on")).click()
    expect(record.get_by_role("button", name="Pause")).to_be_visible()
    record.keyboard.press("Space")
    expect(record.get_by_role("button", name="Play", exact=True)).to_be_visible()
    record.locator("[data-lit] [data-word='0']").first.click()
    expect(record.get_by_role("button", name="Pause")).to_be_visible()
    box = lines(record).first.get_by_role("checkbox")
    box.focus()
    record.keyboard.press("Space")
    expect(record.get_by_role("button", name="Play", exact=True)).to_be_visible()
    expect(box).not_to_be_checked()
    record.keyboard.press("Space")  # nothing plays: the key belongs to the box again
    expect(box).to_be_checked()
    record.keyboard.press("Control+z")
    expect(box).not_to_be_checked()


def test_the_keyboard_alone_walks_hears_ticks_and_takes_back(record: Page) -> None:
    record.keyboard.press("ArrowDown")
    chosen = record.locator("[data-line][aria-current=true]")
    expect(chosen).to_have_count(1)
    record.keyboard.press("Enter")
    expect(record.get_by_role("button", name="Pause")).to_be_visible()
    record.keyboard.press("x")
    expect(chosen.get_by_role("checkbox")).to_be_checked()
    record.keyboard.press("Control+z")
    expect(chosen.get_by_role("checkbox")).not_to_be_checked()
    record.keyboard.press("e")
    field = record.get_by_label("Text of this line")
    field.fill("The slipway waits until January.")
    field.press("Enter")
    expect(chosen).to_contain_text("The slipway waits until January.")
    expect(chosen).to_contain_text("edited")
    record.keyboard.press("Control+z")
    expect(chosen).not_to_contain_text("edited")


def test_lines_worth_a_look_are_stepped_through_and_settled_by_a_tick(record: Page) -> None:
    count = record.get_by_role("button", name=re.compile(r"^\d+ worth a look$"))
    before = int(count.inner_text().split()[0])
    record.keyboard.press("n")
    chosen = record.locator("[data-line][aria-current=true]")
    first = chosen.get_attribute("data-line")
    expect(chosen).to_contain_text("Worth a look: ")
    record.keyboard.press("x")
    expect(chosen).not_to_contain_text("worth a look", ignore_case=True)
    expect(count).to_have_text(f"{before - 1} worth a look")
    count.click()
    expect(record.locator(f"[data-line='{first}']")).not_to_have_attribute("aria-current", "true")
    expect(chosen).to_contain_text("Worth a look: ")
    record.get_by_role("button", name="Files", exact=True).click()
    record.get_by_role("menuitem", name=f"{before - 1} lines are worth a look first").click()
    expect(record.get_by_role("menu")).to_have_count(0)
    record.keyboard.press("Control+z")
    expect(count).to_have_text(f"{before} worth a look")


@pytest.mark.parametrize("wait", [0, 400])
def test_what_is_taken_back_at_once_is_taken_back(record: Page, wait: int) -> None:
    def late(route: Route) -> None:
        record.wait_for_timeout(wait)
        route.continue_()

    record.route("**/lines/*", late)
    record.keyboard.press("ArrowDown")
    chosen = record.locator("[data-line][aria-current=true]")
    before = chosen.locator("p").first.inner_text()
    for number in range(3):
        record.keyboard.press("e")
        field = record.get_by_label("Text of this line")
        field.fill(f"The slipway waits {number} weeks.")
        field.press("Enter")
        record.keyboard.press("Control+z")
        expect(field).to_have_count(0)
        expect(chosen.locator("p").first).to_have_text(before)
        record.reload()
        expect(record.get_by_text(before, exact=True).first).to_be_visible()
        record.keyboard.press("ArrowDown")
        expect(chosen.locator("p").first).to_have_text(before)


def test_the_keys_are_shown_and_none_works_inside_a_field(record: Page) -> None:
    record.keyboard.press("?")
    expect(record.get_by_role("dialog", name="Keys")).to_contain_text("Hear what the line rests on")
    record.keyboard.press("Escape")
    expect(record.get_by_role("dialog")).to_have_count(0)
    record.keyboard.press("/")
    field = record.get_by_label("Search what was said")
    expect(field).to_be_focused()
    record.keyboard.type("xe? ")
    expect(field).to_have_value("xe? ")
    expect(record.get_by_role("dialog")).to_have_count(0)


def test_search_counts_and_steps(record: Page) -> None:
    record.get_by_label("Search what was said").fill("the")
    told = record.get_by_role("search").get_by_role("status")
    expect(told).to_have_text(re.compile(r"^1 of \d+$"))
    count = int(told.inner_text().split(" of ")[1])
    record.get_by_role("button", name="Previous place").click()
    expect(told).to_have_text(f"{count} of {count}")
    record.get_by_role("button", name="Next place").click()
    expect(told).to_have_text(f"1 of {count}")


def test_a_voice_is_named_everywhere_and_taken_back(page: Page) -> None:
    open_record(page, "Stand-up of the engine room")
    first = page.get_by_role("button", name=re.compile("name this voice")).first
    voice = first.inner_text().split("—")[0].strip()
    first.click()
    page.get_by_role("dialog").get_by_role("button", name="Ines Carvell").click()
    expect(page.get_by_role("button", name=re.compile(f"^{voice}"))).to_have_count(0)
    expect(page.get_by_role("button", name="Ines Carvell").first).to_be_visible()
    page.get_by_role("button", name="Take the last change back").click()
    expect(page.get_by_role("button", name=re.compile(f"^{voice}")).first).to_be_visible()


def test_a_turn_is_corrected_and_keeps_what_was_heard(record: Page) -> None:
    turn = record.locator("[data-turn='1']")
    turn.hover()
    turn.get_by_role("button", name=re.compile("^Correct the turn")).click()
    turn.get_by_label("Words of this turn").fill("Morning. I brought biscuits.")
    turn.get_by_role("button", name="Keep").click()
    expect(turn).to_contain_text("Morning. I brought biscuits.")
    expect(turn).to_contain_text("corrected")
    record.reload()
    expect(turn).to_contain_text("corrected")
    record.get_by_role("button", name="Take the last change back").click()
    expect(turn).not_to_contain_text("corrected")


def test_speed_and_silences(record: Page) -> None:
    record.get_by_role("combobox").click()
    record.get_by_role("option", name="2.5×").click()
    record.get_by_role("switch", name="skip silences").check()
    record.get_by_role("button", name="Play").click()
    record.wait_for_function("() => document.querySelector('audio').currentTime > 3")
    assert record.evaluate("document.querySelector('audio').playbackRate") == 2.5


@pytest.mark.parametrize(
    ("name", "holds"),
    [("Markdown", "## Decisions"), ("WebVTT", "WEBVTT\n"), ("Who spoke when (RTTM)", "SPEAKER ")],
)
def test_files_are_taken_away(name: str, holds: str, record: Page, tmp_path: Path) -> None:
    record.get_by_role("button", name="Files").click()
    with record.expect_download() as download:
        record.get_by_role("menuitem", name=name, exact=True).click()
    download.value.save_as(tmp_path / "file")
    assert holds in (tmp_path / "file").read_text()


def test_the_record_answers_with_passages_or_says_that_it_cannot(record: Page) -> None:
    record.keyboard.press("q")
    record.get_by_label("Question").fill("When does the first boat leave?")
    record.get_by_role("dialog").get_by_role("button", name="Ask").click()
    expect(record.get_by_role("dialog").get_by_role("button", name=re.compile(r"^\d:\d\d$")).first).to_be_visible()
    record.get_by_label("Question").fill("What colour is the moon rocket?")
    record.get_by_role("dialog").get_by_role("button", name="Ask").click()
    expect(record.get_by_role("dialog")).to_contain_text("The record does not seem to hold that.")


def test_a_link_to_a_moment_opens_there(page: Page) -> None:
    address = open_record(page, "Winter timetable and the slipway")
    page.goto(f"{address}#t=60")
    expect(page.get_by_label("Player")).to_contain_text("1:00")


def test_a_line_is_thrown_out_for_a_reason_and_taken_back(record: Page) -> None:
    first = lines(record).first
    text = first.get_by_role("checkbox").get_attribute("aria-label") or ""
    first.get_by_role("button", name=re.compile("^Throw out")).press("Enter")
    record.get_by_role("menuitem", name="it was said as a joke").press("Enter")
    out = record.get_by_role("region", name=re.compile("^Thrown out"))
    expect(out).to_contain_text("thrown out: said as a joke")
    expect(out.get_by_role("checkbox", name=text)).to_be_visible()
    record.reload()
    expect(out).to_contain_text("thrown out: said as a joke")
    out.get_by_role("button", name=re.compile("^Take back in")).click()
    expect(out).to_have_count(0)
    expect(lines(record).first.get_by_role("checkbox", name=text)).to_be_visible()


def test_minutes_are_made_shorter_and_longer(record: Page) -> None:
    counts = []
    for name in ("Short", "Full", "Standard"):
        record.get_by_role("button", name=re.compile("draws on")).click()
        record.get_by_role("dialog").get_by_role("button", name=name).click()
        expect(record.get_by_role("dialog").get_by_role("button", name=name)).to_have_attribute("aria-pressed", "true")
        record.keyboard.press("Escape")
        expect(record.get_by_role("button", name=re.compile(f"^{name} · draws on"))).to_be_visible()
        counts.append(lines(record).count())
    assert counts[0] < counts[2] < counts[1]


def test_finer_chapters_are_asked_for_and_go_again(record: Page) -> None:
    chapters = record.get_by_role("button", name=re.compile("^More of"))
    usual = chapters.count()
    for fine in (True, False):
        record.get_by_role("button", name=re.compile("draws on")).click()
        finer = record.get_by_role("dialog").get_by_label("Finer chapters")
        finer.click()
        expect(finer).to_be_checked(checked=fine)
        record.keyboard.press("Escape")
        if fine:
            expect(chapters).not_to_have_count(usual)
            assert chapters.count() > usual
    expect(chapters).to_have_count(usual)
