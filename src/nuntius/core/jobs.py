"""What work on a meeting there is, in which state it may be, and in which line it waits."""

from enum import StrEnum


class JobKind(StrEnum):
    """WORK: on what was brought in or recorded; CUT: made again after a stretch was removed for good;
    BUNDLE: another Nuntius wrote it; VOICES: diarized again; MINUTES: only these are written again."""

    WORK = "work"
    CUT = "cut"
    BUNDLE = "bundle"
    VOICES = "voices"
    MINUTES = "minutes"


class JobState(StrEnum):
    WAITING = "waiting"
    WORKING = "working"
    DONE = "done"
    FAILED = "failed"
    CANCELLED = "cancelled"


class Lane(StrEnum):
    """Long work recognises and takes minutes; quick work and answers take seconds. None waits behind another lane."""

    QUICK = "quick"
    LONG = "long"
    EXPORT = "export"
    ANSWER = "answer"


GOING_ON = (JobState.WAITING, JobState.WORKING)
STOPPED = (JobState.FAILED, JobState.CANCELLED)


def lane_of(kind: JobKind, is_text: bool) -> Lane:
    """The lane of a job; `is_text` says that a transcript is read and no sound."""
    quick = kind in (JobKind.BUNDLE, JobKind.CUT, JobKind.MINUTES) or (kind == JobKind.WORK and is_text)
    return Lane.QUICK if quick else Lane.LONG
