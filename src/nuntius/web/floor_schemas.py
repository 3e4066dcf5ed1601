"""Shapes of the floor in figures."""

from nuntius.web.schemas import Wire


class VoiceFloorOut(Wire):
    """One voice's part of the floor: seconds, share 0 to 1, words a minute."""

    voice: str
    share: float
    seconds: float
    turns: int
    longest: float
    overlaps: int
    overlapped: float
    words: int
    pace: float
    questions: int


class FloorSliceOut(Wire):
    """A part of the meeting; `seconds` of each voice in the order of the voices."""

    title: str
    start: float
    end: float
    seconds: list[float]


class FloorOut(Wire):
    title: str
    duration: float
    silence: float
    overlap: float
    evenness: float
    silences: list[tuple[float, float]]
    voices: list[VoiceFloorOut]
    over_time: list[FloorSliceOut]
    chapters: list[FloorSliceOut]
