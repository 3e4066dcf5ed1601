"""The topic map of a meeting as OPML 2.0: chapters, and in each its lines.

Source of the format: OPML 2.0 specification (opml.org/spec2.opml).
"""

from collections.abc import Iterable
from xml.etree.ElementTree import Element, SubElement, indent, tostring

from nuntius.core.formats.markdown import WrittenMinutes
from nuntius.core.formats.safe import plain
from nuntius.core.minutes.line import LineKind


def write_opml(minutes: WrittenMinutes) -> Iterable[str]:
    """An OPML document; each line carries its kind and times as `_kind` and `_times`."""
    root = Element("opml", version="2.0")
    SubElement(SubElement(root, "head"), "title").text = plain(minutes.title)
    body = SubElement(root, "body")
    for number, title in enumerate(minutes.chapters):
        lines = [line for line in minutes.lines if line.chapter == number and not line.gone]
        if not lines:
            continue
        chapter = SubElement(body, "outline", text=plain(title))
        for line in lines:
            owner = f"{', '.join(line.owner) or 'nobody yet'}: " if line.kind == LineKind.ACTION else ""
            made = SubElement(
                chapter, "outline", text=plain(owner + line.text), _kind=line.kind, _times=", ".join(line.passages)
            )
            if line.answer:
                SubElement(made, "outline", text=plain(line.answer))
    indent(root)
    yield '<?xml version="1.0" encoding="UTF-8"?>\n'
    yield tostring(root, encoding="unicode") + "\n"
