"""Mind maps as outlines."""

from xml.etree import ElementTree

from nuntius.core.formats.opml import write_opml
from tests.core.formats.samples import WRITTEN


def test_a_map_is_read_back_by_another_reader() -> None:
    body = ElementTree.fromstring("".join(write_opml(WRITTEN)).encode()).find("body")
    assert body is not None
    assert [(c.get("text"), [e.get("text") for e in c]) for c in body] == [
        ("Slipway", ["Ines: Ask <two> yards"]),
        ("Signing", ["nobody yet: Book the crane", "Who may sign?"]),
    ]
