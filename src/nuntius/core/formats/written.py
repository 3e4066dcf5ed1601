"""Minutes as they stand for a reader: times as clock, owners by name."""

from nuntius.core.formats.markdown import WrittenLine, WrittenMinutes
from nuntius.core.minutes.line import Line, Minutes
from nuntius.core.minutes.topic_label import topic_label
from nuntius.core.times import short_clock
from nuntius.core.transcript.transcript import Transcript


def written(title: str, facts: tuple[str, ...], transcript: Transcript, minutes: Minutes) -> WrittenMinutes:
    """Minutes with times from the transcript, nothing checked yet."""
    chapters = tuple(chapter.title for chapter in minutes.chapters)
    lines = tuple(_line(transcript, line, chapters) for line in minutes.shown)
    return WrittenMinutes(title, facts, minutes.coverage.share, lines, minutes.sections, chapters)


def _line(transcript: Transcript, line: Line, chapters: tuple[str, ...]) -> WrittenLine:
    times = tuple(dict.fromkeys(short_clock(transcript.turns[p.turn].words[p.first].start) for p in line.evidence))
    due = f"{line.due:%a} {line.due.day} {line.due:%b %Y}" if line.due else ""
    answer = line.answer.text if line.answer else ""
    speaker = transcript.turns[min(line.turns)].speaker
    return WrittenLine(
        line.kind,
        line.text,
        line.owner,
        due,
        line.due_said or "",
        line.state,
        answer,
        False,
        times,
        line.place,
        line.chapter,
        speaker,
        topic=topic_label(line.kind, line.text, chapters[line.chapter], len(chapters)) if chapters else "",
    )
