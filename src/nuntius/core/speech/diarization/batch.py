"""The diarizer: windows, clusters, and the spans they add up to."""

import numpy as np
from scipy.optimize import linear_sum_assignment

from nuntius.core.audio.decode import Samples
from nuntius.core.speech.diarization.clusters import Assignment, assign
from nuntius.core.speech.diarization.networks import FRAME, LOCAL, WINDOW_FRAMES, WINDOW_SECONDS, Floats, Networks
from nuntius.core.speech.diarization.windows import BLOCK, Window, WindowReader
from nuntius.core.speech.diarizer import Span, voice_name

STEP = 1.0  # seconds between the starts of windows
HEARD_SHARE = 0.5  # of the windows over a frame that must hear one more voice for it to count
GAP = 0.5  # seconds; a shorter break belongs to the span
BLIP = 0.10  # seconds; a shorter span is noise


class WindowDiarizer:
    """Diarizer over overlapping windows; push sound as it arrives, ask for spans at any time."""

    def __init__(self, networks: Networks, step: float = STEP, block: float = BLOCK) -> None:
        self._reader = WindowReader(networks, step, block)
        self._step = step
        self._centroids: Floats | None = None
        self._before: tuple[np.ndarray, list[int], int] | None = None  # activity, names, next name

    def push(self, samples: Samples) -> None:
        self._reader.push(samples)

    def finish(self) -> None:
        self._reader.push(np.zeros(0, np.float32), last=True)

    @property
    def reached(self) -> float:
        """Seconds up to which the sound is diarized."""
        windows = self._reader.windows
        return windows[-1].start + WINDOW_SECONDS if windows else 0.0

    def latest(self, seconds: float) -> list[Span]:
        """Spans of the last `seconds` by the voices that the last call of `spans` found; [] before there was one.

        Quick, however long the meeting: nothing before that is looked at, and nobody new is found.
        """
        if self._centroids is None or self._before is None:
            return []
        windows = self._reader.windows[-round((seconds + WINDOW_SECONDS) / self._step) :]
        begun, names = windows[0].start, self._before[1]
        active = _activity(windows, assign(windows, self._step, None, self._centroids), self._step)
        found = [
            Span(start + begun, end + begun, voice_name(names[voice]))
            for voice in range(len(self._centroids))
            for start, end in runs(active[:, voice], self._reader.duration - begun)
        ]
        return sorted(found)

    def spans(self, people: int | None = None) -> list[Span]:
        windows = self._reader.windows
        if not windows:
            return []
        assignment = assign(windows, self._step, people)
        self._centroids = assignment.centroids if assignment.count else None
        if not assignment.count:
            return []
        active = _activity(windows, assignment, self._step)
        names = self._stable_names(active)
        found = [
            Span(start, end, voice_name(names[voice]))
            for voice in range(assignment.count)
            for start, end in runs(active[:, voice], self._reader.duration)
        ]
        return sorted(found)

    def _stable_names(self, active: np.ndarray) -> list[int]:
        """Names of the voices: those of the last call where the speech is the same, new ones else."""
        count = active.shape[1]
        names: dict[int, int] = {}
        following = 0
        if self._before is not None:
            earlier, known, following = self._before
            frames = min(len(earlier), len(active))
            shared = earlier[:frames].astype(np.float32).T @ active[:frames]
            for a, b in zip(*linear_sum_assignment(-shared), strict=True):
                if shared[a, b] > 0:
                    names[int(b)] = known[a]
        first_heard = [int(active[:, voice].argmax()) for voice in range(count)]
        for voice in sorted(range(count), key=lambda v: first_heard[v]):
            if voice not in names:
                names[voice] = following
                following += 1
        ordered = [names[voice] for voice in range(count)]
        self._before = active, ordered, following
        return ordered


def _activity(windows: list[Window], assignment: Assignment, step: float) -> np.ndarray:
    """Who speaks in each frame, (frames, voices) of bool: the windows' votes, as many voices as they count."""
    frames = round(((len(windows) - 1) * step + WINDOW_SECONDS) / FRAME) + 2
    votes = np.zeros((frames, assignment.count), np.float32)
    seen = np.full(frames, 1e-6, np.float32)
    heard = np.zeros(frames, np.float32)
    for window, voices in zip(windows, assignment.voices, strict=True):
        first = round((window.start - windows[0].start) / FRAME)
        part = slice(first, first + WINDOW_FRAMES)
        seen[part] += 1
        heard[part] += window.active.sum(1)
        votes[part] += _mapped(window, voices, assignment.count)
    speaking = np.floor(heard / seen + 1 - HEARD_SHARE + 1e-4)
    order = np.argsort(-votes, 1, kind="stable")
    active = np.zeros(votes.shape, bool)
    for rank in range(min(LOCAL, assignment.count)):
        at = np.nonzero(speaking > rank)[0]
        active[at, order[at, rank]] = votes[at, order[at, rank]] > 0
    return active


def _mapped(window: Window, voices: np.ndarray, count: int) -> Floats:
    mapped = np.zeros((WINDOW_FRAMES, count), np.float32)
    for local in range(LOCAL):
        if voices[local] >= 0:
            mapped[:, voices[local]] = np.maximum(mapped[:, voices[local]], window.active[:, local])
    return mapped


def runs(active: np.ndarray, duration: float) -> list[tuple[float, float]]:
    """Stretches in seconds in which `active` (frames,) holds, short gaps filled, blips dropped."""
    edges = np.diff(np.concatenate([[0], active.astype(np.int8), [0]]))
    runs: list[tuple[float, float]] = []
    for first, end in zip(np.nonzero(edges == 1)[0], np.nonzero(edges == -1)[0], strict=True):
        start, stop = first * FRAME + FRAME / 2, min(end * FRAME + FRAME / 2, duration)
        if runs and start - runs[-1][1] < GAP:
            runs[-1] = runs[-1][0], stop
        elif stop > start:
            runs.append((float(start), float(stop)))
    return [(start, float(stop)) for start, stop in runs if stop - start >= BLIP]
