"""The recogniser and the diarizer that the settings ask for."""

import json
from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING

from nuntius.core.speech.diarizer import Diarizer
from nuntius.core.speech.recogniser import Recogniser
from nuntius.settings import Settings

if TYPE_CHECKING:
    from nuntius.core.live.recogniser import LiveRecogniser
    from nuntius.core.live.streamed import StreamEngine
    from nuntius.core.live.voices import LiveVoices
    from nuntius.core.speech.diarization.networks import Networks
    from nuntius.core.speech.diarization.voiceprints import VoicePrints


def recogniser(settings: Settings, source: Path) -> Recogniser:
    """The recogniser named in the settings. Raises ModelMissing, ScriptMissing, ValueError."""
    if settings.recogniser == "whisper":
        return _whisper(settings)
    if settings.recogniser == "streaming":
        return _streaming()
    if settings.recogniser == "scripted":
        from nuntius.core.speech.scripted import ScriptedRecogniser

        return ScriptedRecogniser(source.with_suffix(".json"))
    raise ValueError(f"NUNTIUS_RECOGNISER must be whisper, streaming or scripted, not {settings.recogniser!r}")


@cache
def _whisper(settings: Settings) -> Recogniser:
    from nuntius.core.speech.weights import whisper_directory
    from nuntius.core.speech.whisper import WhisperRecogniser

    return WhisperRecogniser(settings.model or whisper_directory(settings.cache), settings.threads)


@cache
def _streaming() -> Recogniser:
    from nuntius.core.speech.streaming import StreamingRecogniser

    return StreamingRecogniser()


def diarizer(settings: Settings) -> Diarizer:
    """A fresh diarizer; its networks are loaded once a process."""
    from nuntius.core.speech.diarization.batch import WindowDiarizer

    return WindowDiarizer(_networks(max(1, settings.threads // 2)))  # it works beside the recogniser


def voice_prints(settings: Settings) -> "VoicePrints":
    """What makes voice prints of phrases, with the diarizer's networks."""
    from nuntius.core.speech.diarization.voiceprints import VoicePrints

    return VoicePrints(_networks(settings.threads))  # nothing else is at work then


@cache
def _networks(threads: int) -> "Networks":
    from nuntius.core.speech.diarization.networks import Networks

    return Networks(threads)


def live_recogniser(settings: Settings, start: float) -> "LiveRecogniser":
    """A live recogniser for sound from `start` seconds on; a script's lines where the settings ask for that."""
    if settings.recogniser == "scripted":
        from nuntius.core.live.line import LiveLine
        from nuntius.core.live.scripted import ScriptedLines

        turns = json.loads((settings.data / "live.json").read_text())["turns"]
        return ScriptedLines([LiveLine(turn["start"], turn["end"], turn["text"]) for turn in turns], start)
    from nuntius.core.live.streamed import StreamedLines

    return StreamedLines(_stream_engine(), start)


@cache
def _stream_engine() -> "StreamEngine":
    from nuntius.core.live.streamed import StreamEngine

    return StreamEngine()


@cache
def minutes_ready() -> None:
    """Loads what the minutes are made with, once a process: the first ones of a meeting are then as quick as the next."""
    from datetime import date

    from nuntius.core.minutes.build import make_minutes
    from nuntius.core.minutes.line import MeetingFacts
    from nuntius.core.transcript.transcript import in_order
    from nuntius.core.transcript.turn import Turn
    from nuntius.core.transcript.word import spread

    words = spread("Agreed, I'll send the new plan to Ann by Friday. What will it cost?", 0.0, 5.0)
    make_minutes(in_order([Turn("A", words)]), MeetingFacts(date(2026, 1, 5)))


def live_voices(settings: Settings) -> "LiveVoices | None":
    """Diarizes while a meeting runs; nothing beside a script."""
    if settings.recogniser == "scripted":
        return None
    from nuntius.core.live.voices import LiveVoices

    return LiveVoices(_networks(1))
