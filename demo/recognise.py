"""Recognises the demo recordings with the real engines and keeps words and spans in demo/worked/.

    python demo/recognise.py [NAME ...]

So `make demo` opens on a full desk within seconds. Run it again when the recogniser or the diarizer changes.
"""

import json
import sys
from pathlib import Path
from tempfile import TemporaryDirectory

from nuntius.core.audio.pcm import WorkingCopy
from nuntius.core.audio.prepare import prepare
from nuntius.core.speech.transcribe import spans_of, words_of
from nuntius.jobs.engines import diarizer, recogniser
from nuntius.settings import Settings
from nuntius.store.transcripts import packed

HERE = Path(__file__).parent
NAMES = ("winter-timetable", "ticket-machine", "engine-room")


def work(name: str) -> None:
    """Words and spans of one recording."""
    settings, source = Settings.from_environment(), HERE / f"{name}.ogg"
    with TemporaryDirectory() as folder:
        working = Path(folder) / "working.pcm"
        prepare(source, working, Path(folder) / "playback.ogg")
        sound, engine = WorkingCopy(working), recogniser(settings, source)
        words, spans = words_of(sound, engine), spans_of(sound, diarizer(settings), None)
    made = {"words": packed(words), "spans": [[round(s.start, 3), round(s.end, 3), s.voice] for s in spans]}
    (HERE / "worked" / f"{name}.json").write_text(json.dumps(made) + "\n")


if __name__ == "__main__":
    for each in sys.argv[1:] or NAMES:
        work(each)
        print(each, flush=True)
