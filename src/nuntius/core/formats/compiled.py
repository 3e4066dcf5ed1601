"""A compilation in writing: captions, and a text of what is said with where it is from."""

from collections.abc import Iterator, Sequence

from nuntius.core.formats.webvtt import escaped
from nuntius.core.montage.montage import Part, Said
from nuntius.core.times import clock


def write_captions_vtt(captions: Sequence[Said]) -> Iterator[str]:
    """Lines of a WebVTT file; a caption without a speaker is a spoken heading."""
    yield "WEBVTT\n"
    for number, each in enumerate(captions, 1):
        voice = f"<v {escaped(each.speaker, name=True)}>" if each.speaker else ""
        yield f"\n{number}\n{clock(each.start)} --> {clock(each.end)}\n{voice}{escaped(each.text)}\n"


def write_compiled_text(title: str, parts: Sequence[Part]) -> Iterator[str]:
    """Sections, passages with their sources, and the words by voice."""
    yield f"{title}\n{'=' * len(title)}\n"
    for part in parts:
        if part.title:
            yield f"\n{part.title}\n{'-' * len(part.title)}\n"
        for clip in part.clips:
            yield f"\n{clip.title} ({clip.source})\n"
            yield from (f"{speaker}: {words}\n" for speaker, words in _by_voice(clip.said))


def _by_voice(said: Sequence[Said]) -> list[tuple[str, str]]:
    made: list[tuple[str, str]] = []
    for each in said:
        if made and made[-1][0] == each.speaker:
            made[-1] = (each.speaker, f"{made[-1][1]} {each.text}")
        else:
            made.append((each.speaker, each.text))
    return made
