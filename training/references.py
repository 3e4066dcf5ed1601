"""What a sentence refers to, read off the hand-written tasks and decisions of the annotated meetings.

`I'll order it.`, of which the task is `Order the new freezer`, refers to the sentence before it that has most of the words
which the task has and it has not. Where two are close together nothing is to be learnt from the lesser one.
"""

from collections.abc import Iterator

from annotated import Annotated, gold
from nuntius.core.language.en.parse import parse_text
from nuntius.core.language.sentence import Sentence, Token
from nuntius.core.minutes.coreference import BACK, UNTOLD, telling
from nuntius.core.minutes.scene import Scene

LETTERS = 5  # of a word, by which it is the same in another form
LIGHT = frozenset(
    "tell ask get give send put make take let bring have see do go come call ring write look day week today tomorrow time "
    "thing one two three new old good first last next people person find out".split()
)


def references(meeting: Annotated, talk: Scene) -> Iterator[tuple[Sentence, dict[int, float | None]]]:
    """A sentence that leaves unsaid what it speaks of; by number which sentences before it say that, None for perhaps."""
    cues = [int(turn.cue or 0) for turn in talk.transcript.turns]
    made = gold(meeting)
    written = [(each["task"], each["cues"]) for each in made["actions"]]
    written += [(each["text"], each["cues"]) for each in made["decisions"]]
    for text, where in written:
        told = _words(parse_text(text))
        for sentence in talk.sentences:
            missing = told - _words(sentence.tokens)
            if cues[sentence.turn] in where and missing and UNTOLD.search(sentence.text):
                right = _right(talk, sentence, missing)
                if any(right.values()):
                    yield sentence, right


def _right(talk: Scene, sentence: Sentence, missing: set[str]) -> dict[int, float | None]:
    before = [s for s in telling(talk, sentence) if sentence.turn - s.turn <= BACK]
    shared = [len(missing & _words(s.tokens)) for s in before]
    most = max(shared, default=0)
    best = shared.index(most) if most else -1  # the nearest of the best
    return {talk.index[s.turn, s.first]: 1.0 if i == best else None if shared[i] else 0.0 for i, s in enumerate(before)}


def _words(tokens: tuple[Token, ...]) -> set[str]:
    told = (t for t in tokens if t.pos in ("NOUN", "PROPN", "NUM", "ADJ", "VERB"))
    return {t.lemma.lower()[:LETTERS] for t in told if len(t.lemma) > 2 and t.lemma.lower() not in LIGHT}
