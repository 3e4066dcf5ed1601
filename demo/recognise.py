"""Recognises the demo recordings with the real engines and keeps turns and spans in demo/worked/.

    python demo/recognise.py [NAME ...]

So `make demo` opens on a full desk within seconds. Run it again when the recogniser or the diarizer changes.
"""

import json
import sys
from pathlib import Path

from nuntius.core.speech.transcribe import transcribe
from nuntius.jobs.engines import diarizer, recogniser, voice_prints
from nuntius.jobs.steps import packed_spans
from nuntius.settings import Settings
from nuntius.store.transcripts import packed

HERE = Path(__file__).parent
NAMES = ("winter-timetable", "ticket-machine", "engine-room")


def work(name: str) -> None:
    """Turns and spans of one recording."""
    settings, source = Settings.from_environment(), HERE / f"{name}.ogg"
    transcript, spans = transcribe(source, recogniser(settings, source), diarizer(settings), voice_prints(settings))
    turns = [{"voice": turn.speaker, "words": packed(turn.words)} for turn in transcript.turns]
    made = {"turns": turns, "spans": packed_spans(spans)}
    (HERE / "worked" / f"{name}.json").write_text(json.dumps(made) + "\n")


if __name__ == "__main__":
    for each in sys.argv[1:] or NAMES:
        work(each)
        print(each, flush=True)
