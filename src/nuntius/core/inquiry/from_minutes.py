"""Questions about what minutes hold (`What was decided?`, `What is left for me to do?`), answered from their lines."""

import re
from collections.abc import Callable, Sequence

from nuntius.core.inquiry.inquire import NOTHING, Reply, inquire
from nuntius.core.language.en import about_minutes as about
from nuntius.core.language.vectors import vectors
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import Line, LineKind, LineState, MeetingFacts, Passage
from nuntius.core.minutes.settling import MEETS_AGAIN, PUT_TO_ALL
from nuntius.core.templates.shipped import shipped
from nuntius.core.transcript.transcript import Transcript

SHOWN = 8  # lines of an answer; of more the rest is counted
BESIDE = 0.1  # cosine; by how much less than the nearest decision another one on the topic may be near
FEW = 2  # lines of which every passage is shown; of more only so many of each

Lines = Callable[[], Sequence[Line]]


def answered(
    transcript: Transcript,
    facts: MeetingFacts,
    question: str,
    within: frozenset[int] | None = None,
    asker: str = "",
    lines: Lines | None = None,
) -> Reply:
    """The answer to any question: by the lines of the minutes where it asks for what they hold, else from passages.

    `lines` are those that stand, None where there are none yet; `asker` is whoever says `me`, `within` as in `inquire`.
    """
    there = tuple(dict.fromkeys((*facts.people, *transcript.speakers)))
    lines = lines or lines_made(transcript, facts)
    found_lines = answer_from_lines(lines, question, there, asker, within)
    return found_lines or decided_on(lines, question, inquire(transcript, facts, question, within), within)


def lines_made(transcript: Transcript, facts: MeetingFacts) -> Lines:
    """The lines of minutes that are made when they are asked for, with all that a question may ask about."""
    if not transcript.word_count:
        return lambda: ()
    return lambda: make_minutes(transcript, facts, template=shipped("client call")).lines


def decided_on(lines: Lines, question: str, reply: Reply, within: frozenset[int] | None = None) -> Reply:
    """What was decided about a topic (`What was decided about the rents?`) where decisions rest on the passages that
    were found: those nearest to it. All other replies stay as they are."""
    match = about.DECIDED_ON.match(question.replace("’", "'"))
    if match is None or not reply.found:
        return reply
    found = {passage.turn for passage in reply.evidence}
    ruled = [
        line for line in lines() if _is_decision(line) and line.state != LineState.SUPERSEDED and line.turns & found
    ]
    if not ruled:
        return reply
    topic = next(filter(None, match.groups()))
    (asked, *said) = vectors([topic, *(line.text for line in ruled)])
    near = [float(asked @ each) for each in said]
    found_lines = [line for line, each in zip(ruled, near, strict=True) if each >= max(near) - BESIDE]
    proof = {p for line in found_lines for p in line.evidence if within is None or p.turn in within}
    return Reply(True, "\n".join(map(_rendered, found_lines)), tuple(sorted(proof)))


def answer_from_lines(
    lines: Lines, question: str, people: Sequence[str], asker: str = "", within: frozenset[int] | None = None
) -> Reply | None:
    """The answer to a question about what minutes hold, made of their lines; None where it asks for something else, or
    where passages may hold what no line does.

    `people` are those who were there, `asker` is whoever says `me`, `within` are the turns that may answer (None: all).
    """
    said = question.replace("’", "'").strip()
    chosen = _asked_for(said, people, asker)
    if chosen is None:
        return None
    found = [line for line in lines() if line.state != LineState.SUPERSEDED and chosen(line)]
    if within is not None:
        found = [line for line in found if line.turns & within]
    if not found:
        return None if about.AGAIN.match(said) or about.NEEDED.match(said) else NOTHING
    proof = (p for line in found[:SHOWN] for p in _proof(line, len(found)))
    passages = {p for p in proof if within is None or p.turn in within}
    more = len(found) - SHOWN
    text = [*map(_rendered, found[:SHOWN]), *([about.AND_MORE.format(count=more)] if more > 0 else [])]
    return Reply(True, "\n".join(text), tuple(sorted(passages)))


def _asked_for(said: str, people: Sequence[str], asker: str) -> Callable[[Line], bool] | None:
    """Which lines answer a question; None where it is not about minutes."""
    if (match := about.TO_DO.match(said)) is not None:
        return _tasks(next((who for who in match.groupdict().values() if who), ""), people, asker)
    ways: tuple[tuple[re.Pattern[str], Callable[[Line], bool]], ...] = (
        (about.VOTED, lambda line: line.why == PUT_TO_ALL or _has_tally(line)),
        (about.AGAINST, _has_tally),
        (about.PUT_OFF, lambda line: line.kind == LineKind.DECISION and line.state == LineState.OPEN),
        (about.DECIDED, _is_decision),
        (about.OPEN, lambda line: line.kind == LineKind.QUESTION and line.state == LineState.OPEN),
        (about.AGAIN, lambda line: line.why == MEETS_AGAIN),
        (about.NEEDED, lambda line: line.kind == LineKind.NEED),
    )
    return next((chosen for pattern, chosen in ways if pattern.match(said)), None)


def _tasks(who: str, people: Sequence[str], asker: str) -> Callable[[Line], bool] | None:
    """Tasks of whoever is asked about, of all where nobody is; None where nobody of that name was there."""
    if who.lower() in about.ME:
        return (lambda line: line.kind == LineKind.ACTION and asker in line.owner) if asker else _any_task
    if not who or who.lower() in about.ALL:
        return _any_task
    named = {name for name in people if who.lower() in (name.lower(), *name.lower().split())}
    return (lambda line: line.kind == LineKind.ACTION and bool(named & set(line.owner))) if named else None


def _is_decision(line: Line) -> bool:
    return line.kind == LineKind.DECISION and line.why != MEETS_AGAIN


def _any_task(line: Line) -> bool:
    return line.kind == LineKind.ACTION


def _has_tally(line: Line) -> bool:
    return line.kind == LineKind.DECISION and bool(about.TALLY.search(line.text))


def _proof(line: Line, count: int) -> tuple[Passage, ...]:
    most = FEW if count > FEW else None
    return (*line.evidence[:most], *(line.answer.evidence[:most] if line.answer else ()))


def _rendered(line: Line) -> str:
    """A line as a sentence of an answer: a task with who does it and by when, a need with what met it."""
    if line.kind == LineKind.NEED and line.answer is not None:
        return f"{line.text} {line.answer.text}"
    if line.kind != LineKind.ACTION:
        return line.text
    by = f" ({about.BY} {line.due:%A} {line.due.day} {line.due:%B})" if line.due else ""
    return f"{', '.join(line.owner) or about.NOBODY}: {line.text.rstrip('.')}{by}."
