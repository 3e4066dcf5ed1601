"""Which voice may be which person: inferred from how people speak to each other by name."""

import re
from collections import Counter

import numpy as np
from scipy.optimize import linear_sum_assignment

from nuntius.core.language.en.names import Roster, is_label
from nuntius.core.language.en.written_out import written_out
from nuntius.core.transcript.transcript import Transcript
from nuntius.core.transcript.turn import Turn

_SENTENCE_END = re.compile(r"(?<=[.?!])\s+")
_INTRODUCES = re.compile(
    r"\b(?:[Ii]['’]m|[Ii] am|(?<![Aa]nd )[Tt]his is|[Mm]y name(?: is|['’]s)) (?P<name>[A-Z]\w+)(?! (?:is|was|has|will|can)\b)|^\W*(?:\w+, )?(?P<here>[A-Z]\w+) here\b"
    r"|^\W*(?P<alone>[A-Z]\w+), I(?:['’]m)? (?:run|do|look|work|manage|lead|teach|handle|keep|chair|own|drive|represent|started|joined|am|in)\b"
    r"|\b[Ii]t['’]s (?P<calling>[A-Z]\w+)(?: [A-Z]\w+)? (?:from|at|of|speaking)\b|^\W*(?P<whole>[A-Z]\w+) [A-Z]\w+, (?:I\b|I['’])"
)
_PRESENTS = re.compile(
    r"\b(?:with me (?:is|are|I have)|(?:and|but) (?:this|that|here) is|I(?:['’]ve| have) (?:also )?(?:got|brought)|meet) (?P<named>(?:\w+\.? )?[A-Z]\w+)"
    r"|(?P<beside>[A-Z]\w+)(?:['’]s| is) (?:with me|here with|on the (?:line|call))\b"
)
_GREETS = re.compile(r"^\W*(?:good )?(?:morning|afternoon|evening|hello|hi|hey|welcome)\b", re.I)
_STATEMENT = re.compile(
    r"^\W*(?:you|it|that|he|she|they|we|i|there)\b[^?]*,\s+[A-Z]\w+[.!]$", re.I
)  # `You can't swim, Yusuf.`
_ANSWERS = re.compile(r"\bthank|^\W*(?:hello|hi|hey|welcome)\b", re.I)  # said to whoever has just spoken
CALLED = 2  # votes of a name by which somebody is called
ADDRESSED = 1  # the same behind a statement: the one who is called need not answer
INTRODUCED = 4  # votes of somebody's own name
SURE = 4  # votes that a name needs before it is used unasked
ALONE = 2  # the same where no other voice and no other name is in question
AHEAD = 2.0  # times as many votes as the next voice has for the name


def name_votes(transcript: Transcript, people: tuple[str, ...]) -> dict[str, Counter[str]]:
    """For each label how much the talk points to each person.

    Whoever is spoken to by name usually speaks next, or has just spoken when thanked or greeted (CALLED, or ADDRESSED);
    nobody speaks of himself by name (CALLED is taken off). Who says the own name is that person (INTRODUCED); who is
    presented by another is the next voice that was not heard before (CALLED).
    """
    roster = Roster.of(people, ())
    votes: dict[str, Counter[str]] = {label: Counter() for label in transcript.speakers}
    spoke: set[str] = set()  # who has spoken before this turn
    names = roster.words
    for number, turn in enumerate(transcript.turns):
        for sentence in _SENTENCE_END.split(written_out(turn.text, names)):
            own, other = _introduced(roster, sentence), _presented(roster, sentence)
            if own is not None:
                votes[turn.speaker][own] += INTRODUCED
            elif turn.speaker in spoke:  # somebody's first words may name him in a way of his own
                for mentioned, _ in roster.find(sentence):
                    votes[turn.speaker][mentioned] -= CALLED
            if other is not None:
                for voice in _not_heard(transcript, number, spoke)[:1]:
                    votes[voice][other] += CALLED
            elif own is None:
                _call(votes, roster, transcript, number, sentence)
        spoke.add(turn.speaker)
    return votes


def _not_heard(transcript: Transcript, number: int, spoke: set[str]) -> list[str]:
    """Voices behind a turn that were not heard before it, in order."""
    known = spoke | {transcript.turns[number].speaker}
    return [turn.speaker for turn in transcript.turns[number + 1 :] if turn.speaker not in known]


def _call(votes: dict[str, Counter[str]], roster: Roster, transcript: Transcript, number: int, sentence: str) -> None:
    """Counts the vote of a sentence that calls somebody by name; a greeting of several is no evidence."""
    turns, speaker = transcript.turns, transcript.turns[number].speaker
    name = roster.addressee(sentence)
    if name is None or (_GREETS.match(sentence) and len(roster.find(sentence)) > 1):
        return
    after = [turn.speaker for turn in turns[number + 1 : number + 3] if turn.speaker != speaker]
    before = [turn.speaker for turn in turns[max(0, number - 1) : number] if turn.speaker != speaker]
    if _ANSWERS.search(sentence) and before:
        votes[before[0]][name] += CALLED
    elif after:
        votes[after[0]][name] += ADDRESSED if _STATEMENT.search(sentence.strip()) else CALLED


def _introduced(roster: Roster, sentence: str) -> str | None:
    """The person that a speaker says to be: `I'm Ines from the ferry`, `Tobias here`."""
    match = _INTRODUCES.search(sentence.strip())
    name = next(filter(None, match.groups()), "") if match else ""
    found = roster.find(name)
    return found[0][0] if found else None


def _presented(roster: Roster, sentence: str) -> str | None:
    """The other person that a speaker presents: `And this is Doctor Achebe`, `with me is Nita`."""
    match = _PRESENTS.search(sentence)
    found = roster.find(next(filter(None, match.groups()), "")) if match else []
    return found[0][0] if found else None


def sure_names(transcript: Transcript, people: tuple[str, ...]) -> dict[str, str]:
    """Names of labelled voices where the talk leaves little doubt: one name a voice, one voice a name.

    One vote is enough where nothing speaks against it; where a voice or a person that is left over has but one
    partner that it may have, they belong together.
    """
    labels = [label for label in transcript.speakers if is_label(label)]
    if not labels or not people:
        return {}
    votes = name_votes(transcript, people)
    table = np.array([[float(votes[label][person]) for person in people] for label in labels])
    made = {}
    for row, column in zip(*linear_sum_assignment(-table), strict=True):
        voice, name = np.delete(table[row], column), np.delete(table[:, column], row)
        rival = max(0.0, *voice, *name)
        if table[row, column] >= (SURE if rival else ALONE) and table[row, column] >= AHEAD * rival:
            made[labels[row]] = people[column]
    if len(labels) == len(people) > 1:
        _eliminate(made, votes, labels, people)
    return made


def _eliminate(
    made: dict[str, str], votes: dict[str, Counter[str]], labels: list[str], people: tuple[str, ...]
) -> None:
    """Names the voices that only one person is left for, and gives the people whom only one voice may be."""
    while True:
        unnamed = [label for label in labels if label not in made]
        left = [person for person in people if person not in made.values()]
        may = [(label, person) for label in unnamed for person in left if votes[label][person] >= 0]
        of_label, of_person = Counter(label for label, _ in may), Counter(person for _, person in may)
        sure = next((pair for pair in may if 1 in (of_label[pair[0]], of_person[pair[1]])), None)
        if sure is None:
            return
        made[sure[0]] = sure[1]


def renamed(transcript: Transcript, names: dict[str, str]) -> Transcript:
    """The transcript with labels replaced by names."""
    turns = tuple(Turn(names.get(turn.speaker, turn.speaker), turn.words, turn.cue) for turn in transcript.turns)
    return Transcript(turns, transcript.duration)
