"""Minutes as Markdown."""

from collections.abc import Callable, Iterator

import pytest

from nuntius.core.formats.html import write_html
from nuntius.core.formats.markdown import WrittenLine, WrittenMinutes, write_markdown
from nuntius.core.formats.text import write_minutes_text
from nuntius.core.minutes.line import Layout, LineKind, LineState
from tests.core.formats.samples import WRITTEN


def test_markdown_escapes_and_says_what_is_missing() -> None:
    lines = (
        WrittenLine(LineKind.ACTION, "Ask *two* yards", (), "", "", LineState.OPEN, "", False, ("24:41",), 1),
        WrittenLine(
            LineKind.QUESTION, "Who may sign?", (), "", "", LineState.OPEN, "", False, ("33:08",), 2, 1, "Maren"
        ),
        WrittenLine(LineKind.DECISION, "January", (), "", "", LineState.SUPERSEDED, "", True, ("18:20", "22:07"), 0),
    )
    sections = (("Decisions", Layout.PLAIN), ("Actions", Layout.PLAIN), ("Asked", Layout.CHAPTER))
    text = "".join(
        write_markdown(WrittenMinutes("A <b>title</b>", ("Tue 6 Oct",), 0.963, lines, sections, ("Hello", "Signing")))
    )
    assert "# A \\<b\\>title\\</b\\>" in text
    assert "- [ ] Ask \\*two\\* yards — nobody took this on; no date named [24:41]" in text
    assert "the record holds no answer [33:08]" in text
    assert "*(superseded)* [18:20, 22:07]" in text
    assert text.index("## Decisions (1)") < text.index("## Actions (1)") < text.index("### Signing")
    assert "96% of the talk" in text


@pytest.mark.parametrize("write", [write_html, write_markdown, write_minutes_text])
def test_a_line_outside_of_its_chapter_says_what_it_is_about(write: Callable[[WrittenMinutes], Iterator[str]]) -> None:
    text = "".join(write(WRITTEN))
    assert text.count("· Signing") == 1
    assert "· Slipway" not in text  # which stands in the part of that name
