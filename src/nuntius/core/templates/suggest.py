"""Which template fits a meeting, from its title and from how people talk in it."""

import re
from dataclasses import dataclass

from nuntius.core.language.en import cues, kinds
from nuntius.core.transcript.transcript import Transcript

TITLES = {
    "stand-up": r"\b(?:stand[- ]?up|daily|morning round|hand[- ]?over)\b",
    "client call": r"\b(?:client|customer|quote|quotation|offer|sales|tender|supplier|demo)\b",
    "interview": r"\b(?:interview|candidate|applicant|hiring|job)\b",
    "one-to-one": r"\b(?:one[- ]to[- ]one|1[: -]1|1 on 1|catch[- ]?up|appraisal|review with)\b",
    "training": r"\b(?:training|induction|how to|lesson|course|workshop|showing|instruction)\b",
    "committee": r"\b(?:committee|board|council|trustees|governors|agm|annual general)\b",
}
VOTED = re.compile(r"\b(?:in favour|against|abstain\w*|seconded|motion|carried)\b", re.I)
ROUND = re.compile(r"\byesterday\b.*\btoday\b|\bblocked\b|\bin (?:my|the) way\b", re.I)
ASKED = re.compile(r"\?\W*$")
PRICED = re.compile(r"[£$€]|\b(?:prices?|costs?|quoted?|offers?|deposits?|invoices?|euros?|pounds?)\b", re.I)
ADDRESSED = re.compile(r"\byours?\b", re.I)
TAUGHT = re.compile(f"{kinds.SEQUENCE.pattern}|{kinds.WARNING.pattern}", re.I)
BY_TITLE = 3.0  # weight of a word in the title
ENOUGH = 2.0  # weight from which a template is suggested
LEAST_WORDS = 80  # of talk; below it only the title counts


@dataclass(frozen=True, slots=True)
class Suggestion:
    """The kind of meeting and why, in words for a person."""

    kind: str
    because: str


def suggest(title: str, transcript: Transcript) -> Suggestion | None:
    """The template that title and talk point to most, None where neither points anywhere."""
    found = [
        (BY_TITLE, Suggestion(kind, f"its title says “{match.group()}”"))
        for kind, pattern in TITLES.items()
        if (match := re.search(pattern, title, re.I)) is not None
    ]
    if transcript.word_count >= LEAST_WORDS:
        found += _talk(transcript)
    best = max(found, key=lambda pair: pair[0], default=None)
    return best[1] if best is not None and best[0] >= ENOUGH else None


def _talk(transcript: Transcript) -> list[tuple[float, Suggestion]]:
    """Cues in the talk, each with its weight."""
    texts, count = [turn.text for turn in transcript.turns], len(transcript.speakers)
    most = max(_shares(transcript).values())
    asked, priced, addressed, taught = (_share(texts, pattern) for pattern in (ASKED, PRICED, ADDRESSED, TAUGHT))
    votes, rounds = (sum(bool(pattern.search(text)) for text in texts) for pattern in (VOTED, ROUND))
    two = count == 2 and max(priced, taught) < 0.1
    return [
        (float(votes), Suggestion("committee", "people propose, second and vote")),
        (float(rounds), Suggestion("stand-up", "people say what they did, what comes next and what is in the way")),
        (3.0 * (most > 0.65 and taught > 0.05), Suggestion("training", "one person shows how a thing is done")),
        (
            2.5 * (addressed > 0.05 and asked > 0.3 and count <= 4),
            Suggestion("interview", "one side asks the other about itself"),
        ),
        (
            2.2 * (addressed > 0.08 and priced > 0.03),
            Suggestion("client call", "two sides talk about needs and prices"),
        ),
        (2.0 * two, Suggestion("one-to-one", "two people talk")),
    ]


def _shares(transcript: Transcript) -> dict[str, float]:
    words: dict[str, int] = {}
    for turn in transcript.turns:
        words[turn.speaker] = words.get(turn.speaker, 0) + len(turn.words)
    return {speaker: count / transcript.word_count for speaker, count in words.items()}


def _share(texts: list[str], pattern: re.Pattern[str]) -> float:
    """Share of the turns that are more than a backchannel in which a pattern is found."""
    texts_said = [text for text in texts if not cues.BACKCHANNEL.match(text)]
    return sum(bool(pattern.search(text)) for text in texts_said) / max(1, len(texts_said))
