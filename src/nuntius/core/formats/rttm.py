"""RTTM, the NIST form for who spoke when: `SPEAKER file 1 start duration <NA> <NA> voice <NA> <NA>`."""

from collections.abc import Iterable, Iterator

from nuntius.core.speech.diarizer import Span


def write_rttm(spans: Iterable[Span], name: str) -> Iterator[str]:
    """One line a span; white space in names becomes an underscore, since RTTM's fields end at it."""
    file = "_".join(name.split()) or "meeting"
    for span in spans:
        voice = "_".join(span.voice.split())
        yield f"SPEAKER {file} 1 {span.start:.3f} {span.end - span.start:.3f} <NA> <NA> {voice} <NA> <NA>\n"


def read_rttm(text: str) -> list[Span]:
    """Spans of the SPEAKER lines; others are passed over."""
    rows = [line.split() for line in text.splitlines() if line.startswith("SPEAKER ")]
    return sorted(Span(float(row[3]), float(row[3]) + float(row[4]), row[7]) for row in rows if len(row) >= 8)
