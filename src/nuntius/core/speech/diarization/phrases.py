"""Whose words: every phrase goes as a whole to the voice that it sounds like.

The diarizer knows nothing of words. It hears ten seconds at a time, and gives a short turn easily to the voice beside
it. Once the words are known, talk is cut into phrases where a sentence ends or somebody pauses; the voices are found
again from the longer ones, and the likeliest voice of each is diarized for all of them together (Viterbi, 1967): another
voice than before costs little between two sentences and more within one.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nuntius.core.speech.diarization.batch import runs
from nuntius.core.speech.diarization.clusters import found_voices
from nuntius.core.speech.diarization.networks import FRAME, Floats
from nuntius.core.speech.diarizer import Span, relabelled, voice_name
from nuntius.core.speech.joining import by_time
from nuntius.core.transcript.word import Word

# Chosen on labelled sound of made voices and of real ones (README, "How well it hears"); all are flat around these.
PAUSE = 0.15  # seconds between two words at which a phrase ends
FORMING = 1.5  # seconds of a phrase that helps to find the voices
LEAST_TALK = (
    60.0  # seconds of such phrases, below which the diarizer's own voices stay: by phrases 15 real clips of half
)
# a minute had 26 % of the speech wrong instead of 25 %
CUT = 0.60  # average-linkage cosine distance up to which phrases are of one voice
HEARD = 0.3  # seconds below which the voice print of a phrase is not used
WEIGHED = (0.1, 3.0)  # least and most seconds that a phrase counts for
ELSEWHERE = 0.05  # cost of a second in another voice than the diarizer heard; likeness is a cosine
BETWEEN, WITHIN = 0.02, 0.30  # cost of a change of voice where a sentence ends, and within one
REACH = 0.5  # seconds before and behind a phrase in which speech without words is its voice's

Prints = Callable[[Sequence[tuple[float, float]]], Floats]  # unit vectors (n, 256) of stretches in seconds


@dataclass(frozen=True, slots=True)
class Diarized:
    """The voice of each word, and when each voice was heard."""

    voices: tuple[str, ...]
    spans: tuple[Span, ...]

    def named(self, names: dict[str, str]) -> "Diarized":
        """The same under other names."""
        return Diarized(
            tuple(names.get(voice, voice) for voice in self.voices),
            tuple(relabelled(self.spans, names)),
        )


@dataclass(frozen=True, slots=True)
class Phrase:
    """Words `first` to before `end`, from `start` to `stop` seconds."""

    first: int
    end: int
    start: float
    stop: float

    @property
    def seconds(self) -> float:
        """Its length in seconds."""
        return self.stop - self.start


def diarize_phrases(
    words: Sequence[Word], spans: Sequence[Span], prints: Prints, people: int | None = None
) -> Diarized:
    """Whose each of the words is (in order of time), and the diarizer's spans put right by that.

    With little talk the spans stay as they are. `people` is the number of voices where it is known.
    """
    words = sorted(words)
    before = by_time(words, spans)
    phrases = _cut(words, before)
    forming = [i for i, phrase in enumerate(phrases) if phrase.seconds >= FORMING]
    seconds = np.array([phrase.seconds for phrase in phrases], np.float32)
    if not spans or seconds[forming].sum() < LEAST_TALK:
        return Diarized(tuple(before), tuple(spans))
    vectors = prints([(phrase.start, phrase.stop) for phrase in phrases])
    centroids = found_voices(vectors[forming], seconds[forming], people, CUT)
    likeness = np.where(seconds[:, None] >= HEARD, vectors @ centroids.T, 0).astype(np.float32)
    heard = _same_voices(phrases, before, likeness)
    diarized = _likeliest(words, phrases, likeness, [heard[before[phrase.first]] for phrase in phrases])
    order = {voice: voice_name(number) for number, voice in enumerate(dict.fromkeys(diarized))}
    voices = tuple(order[diarized[i]] for i, phrase in enumerate(phrases) for _ in range(phrase.first, phrase.end))
    named = {voice: order[number] for voice, number in heard.items() if number in order}
    return Diarized(voices, tuple(_put_right(spans, phrases, before, voices, named)))


def _cut(words: Sequence[Word], voices: Sequence[str]) -> list[Phrase]:
    """Phrases end with a sentence, at a pause, and where the diarizer heard another voice."""
    made: list[Phrase] = []
    first = 0
    for i in range(1, len(words) + 1):
        if (
            i == len(words)
            or voices[i] != voices[i - 1]
            or words[i - 1].ends_sentence
            or words[i].start - words[i - 1].end > PAUSE
        ):
            made.append(Phrase(first, i, words[first].start, max(words[i - 1].end, words[first].start)))
            first = i
    return made


def _same_voices(phrases: Sequence[Phrase], before: Sequence[str], likeness: Floats) -> dict[str, int]:
    """For each of the diarizer's voices the number of the one that most of its phrases sound like."""
    shared: dict[str, Floats] = {}
    for phrase, like in zip(phrases, likeness, strict=True):
        sums = shared.setdefault(before[phrase.first], np.zeros(likeness.shape[1], np.float32))
        sums[like.argmax()] += phrase.seconds
    return {voice: int(sums.argmax()) for voice, sums in shared.items()}


def _likeliest(words: Sequence[Word], phrases: Sequence[Phrase], likeness: Floats, heard: Sequence[int]) -> list[int]:
    """The voice of each phrase on the cheapest way through all of them."""
    count = likeness.shape[1]
    costs = np.zeros(count)
    ways: list[np.ndarray] = []
    for i, phrase in enumerate(phrases):
        if i:
            cheapest = int(costs.argmin())
            changed = costs[cheapest] + _change(words, phrase.first)
            ways.append(np.where(costs <= changed, np.arange(count), cheapest))
            costs = np.minimum(costs, changed)
        weight = min(max(phrase.seconds, WEIGHED[0]), WEIGHED[1])
        elsewhere = np.where(np.arange(count) == heard[i], 0, ELSEWHERE)
        costs = costs + weight * (likeness[i].max() - likeness[i] + elsewhere)
    diarized = [int(costs.argmin())]
    for way in reversed(ways):
        diarized.append(int(way[diarized[-1]]))
    return diarized[::-1]


def _change(words: Sequence[Word], first: int) -> float:
    """What a change of voice ahead of a word costs; a pause makes it cheaper."""
    if words[first - 1].ends_sentence:
        return BETWEEN
    return max(BETWEEN, WITHIN - max(0.0, words[first].start - words[first - 1].end))


def _put_right(
    spans: Sequence[Span],
    phrases: Sequence[Phrase],
    before: Sequence[str],
    voices: Sequence[str],
    named: dict[str, str],
) -> list[Span]:
    """Spans where the diarizer heard speech, in the voices of the phrases; a second voice beside them stays."""
    columns = {voice: number for number, voice in enumerate(dict.fromkeys([*voices, *named.values()]))}
    last = max(span.end for span in spans)
    active, several = _frames(spans, {voice: columns[name] for voice, name in named.items()}, len(columns), last)
    for phrase, part in zip(phrases, _reaches(phrases, last), strict=True):
        active[part][several[part] < 2] = False
        if before[phrase.first] in named:
            active[part, columns[named[before[phrase.first]]]] = False
        active[part, columns[voices[phrase.first]]] = several[part] > 0
    return sorted(Span(a, b, voice) for voice, column in columns.items() for a, b in runs(active[:, column], last))


def _frames(
    spans: Sequence[Span], columns: dict[str, int], count: int, last: float
) -> tuple[NDArray[np.bool_], NDArray[np.int8]]:
    """Who speaks in each frame, (frames, count), and how many the diarizer heard there, (frames,)."""
    active = np.zeros((round(last / FRAME) + 1, count), bool)
    several = np.zeros(len(active), np.int8)
    for span in spans:
        part = slice(int(span.start / FRAME), int(span.end / FRAME))
        several[part] += 1
        if span.voice in columns:
            active[part, columns[span.voice]] = True
    return active, several


def _reaches(phrases: Sequence[Phrase], last: float) -> Iterator[slice]:
    """The frames of each phrase and of what lies nearer to it than to another one."""
    for i, phrase in enumerate(phrases):
        ahead = phrases[i - 1].stop if i else 0.0
        behind = phrases[i + 1].start if i + 1 < len(phrases) else last
        begin = phrase.start - min(REACH, max(0.0, phrase.start - ahead) / 2)
        end = phrase.stop + min(REACH, max(0.0, behind - phrase.stop) / 2)
        yield slice(max(0, round(begin / FRAME)), round(end / FRAME))
