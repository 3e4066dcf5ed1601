"""Replies and briefs with the words of their passages, as they are kept for whoever asked."""

from collections.abc import Iterable
from dataclasses import dataclass

from nuntius.core.inquiry.inquire import Reply
from nuntius.core.live.brief import LEAST_SECONDS, LEAST_WORDS, Brief, Statement
from nuntius.core.minutes.line import Passage
from nuntius.core.transcript.quoted import Quoted
from nuntius.core.transcript.transcript import Transcript


@dataclass(frozen=True, slots=True)
class QuotedReply:
    """`answer` is None, and `nearest` holds passages to look at, where nothing was found."""

    found: bool
    answer: str | None
    passages: tuple[Quoted, ...]
    nearest: tuple[Quoted, ...]


@dataclass(frozen=True, slots=True)
class QuotedStatement:
    text: str
    nobody: bool
    passages: tuple[Quoted, ...]


@dataclass(frozen=True, slots=True)
class QuotedSubject:
    """A subject of the talk, and the second at which it begins."""

    title: str
    start: float


@dataclass(frozen=True, slots=True)
class QuotedBrief:
    """`ready` is False, and all else empty, before there is enough; `least` says how much is needed."""

    ready: bool
    least: str
    so_far: tuple[QuotedStatement, ...]
    recent: tuple[QuotedStatement, ...]
    decided: tuple[QuotedStatement, ...]
    promised: tuple[QuotedStatement, ...]
    subjects: tuple[QuotedSubject, ...]
    named: tuple[QuotedStatement, ...]


def quoted_reply(reply: Reply, transcript: Transcript) -> QuotedReply:
    return QuotedReply(
        reply.found, reply.text or None, _all(reply.evidence, transcript), _all(reply.nearest, transcript)
    )


def quoted_brief(brief: Brief, transcript: Transcript) -> QuotedBrief:
    def statements(those: Iterable[Statement]) -> tuple[QuotedStatement, ...]:
        return tuple(QuotedStatement(each.text, each.nobody, _all(each.evidence, transcript)) for each in those)

    return QuotedBrief(
        brief.ready,
        f"A brief needs {LEAST_SECONDS:.0f} seconds of talk with {LEAST_WORDS} words or more.",
        statements(brief.so_far),
        statements(brief.recent),
        statements(brief.decided),
        statements(brief.promised),
        tuple(QuotedSubject(each.title, transcript.turns[each.turn].start) for each in brief.subjects),
        statements(brief.named),
    )


def _all(passages: Iterable[Passage], transcript: Transcript) -> tuple[Quoted, ...]:
    return tuple(_quoted(each, transcript) for each in passages)


def _quoted(passage: Passage, transcript: Transcript) -> Quoted:
    turn = transcript.turns[passage.turn]
    words = turn.words[passage.first : passage.last + 1]
    quote = " ".join(word.text for word in words)
    return Quoted(passage.turn, words[0].start, max(word.end for word in words), turn.speaker, quote)
