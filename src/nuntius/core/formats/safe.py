"""Text made fit for a file form that cannot hold every character."""

import re

_FORBIDDEN = re.compile("[^\\t\\n\\r\\x20-\\ud7ff\\ue000-\\ufffd\\U00010000-\\U0010ffff]")  # what XML 1.0 cannot hold


def plain(text: str) -> str:
    """Text in one line without what XML 1.0 cannot hold."""
    return _FORBIDDEN.sub("", " ".join(text.split()))
