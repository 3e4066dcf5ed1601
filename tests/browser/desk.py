"""What several browser tests do."""

from playwright.sync_api import Page, expect


def open_record(page: Page, title: str) -> str:
    """Opens a record from Today or the Archive as a person would; its address."""
    page.goto("/archive")
    page.get_by_role("link", name=title, exact=True).click()
    expect(page.get_by_role("heading", name=title, level=1)).to_be_visible()
    expect(page.locator("[data-turn]").first).to_be_visible()
    return page.url


def position(page: Page) -> float:
    """Where the sound is, in seconds."""
    return float(page.evaluate("document.querySelector('audio, video').currentTime"))


def has_sideways_scroll(page: Page) -> bool:
    return bool(page.evaluate("document.documentElement.scrollWidth > document.documentElement.clientWidth"))
