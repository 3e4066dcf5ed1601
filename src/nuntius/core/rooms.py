"""What a recording may be: its state, where its sound comes from, why sound is missing, and what a file of it is."""

from enum import StrEnum


class RoomState(StrEnum):
    """READY: nothing is recorded yet; STOPPING: ended, and late parts are still awaited."""

    READY = "ready"
    RECORDING = "recording"
    PAUSED = "paused"
    STOPPING = "stopping"
    STOPPED = "stopped"


class SoundSource(StrEnum):
    """LINE: a call, through the listening line."""

    MICROPHONE = "microphone"
    COMPUTER = "computer"
    BOTH = "both"
    LINE = "line"


class BreakKind(StrEnum):
    """PAUSE: asked for; GAP: sound was lost; CUT: a stretch was removed for good."""

    PAUSE = "pause"
    GAP = "gap"
    CUT = "cut"


class CallState(StrEnum):
    """Where the listening line of a meeting stands. DISMISSED: by a person; GARBLED: what came was not understood."""

    NONE = ""
    CALLING = "calling"
    WAITING = "waiting"
    LISTENING = "listening"
    ON_HOLD = "on hold"
    AWAY = "away"
    DENIED = "denied"
    UNREACHABLE = "unreachable"
    GARBLED = "garbled"
    DISMISSED = "dismissed"
    ENDED = "ended"


class UploadRole(StrEnum):
    """What a file is that was brought in for a meeting."""

    RECORDING = "recording"
    TRANSCRIPT = "transcript"
    CHAT = "chat"


LINE_WANTED = (CallState.CALLING, CallState.WAITING, CallState.LISTENING, CallState.ON_HOLD, CallState.AWAY)
NOT_ENDED = (RoomState.RECORDING, RoomState.PAUSED, RoomState.STOPPING)
ENDING = (RoomState.STOPPING, RoomState.STOPPED)
