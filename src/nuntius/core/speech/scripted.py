"""A recogniser that answers from a script beside the sound: for quick tests of the interface only."""

import json
from pathlib import Path

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.errors import ScriptMissing
from nuntius.core.transcript.word import Word, spread


class ScriptedRecogniser:
    """Says the words of `{"turns": [{"start", "end", "text"}]}` as far as the sound reaches."""

    name = "scripted"

    def __init__(self, script: Path) -> None:
        """Reads the script. Raises ScriptMissing."""
        if not script.is_file():
            raise ScriptMissing(script)
        self._turns = json.loads(script.read_text())["turns"]
        self._heard = 0.0  # seconds given so far: stretches come in order

    def recognise(self, samples: Samples) -> tuple[Word, ...]:
        begin, self._heard = self._heard, self._heard + len(samples) / RATE
        words = [word for turn in self._turns for word in spread(turn["text"], turn["start"], turn["end"])]
        return tuple(
            Word(word.start - begin, word.end - begin, word.text)
            for word in words
            if begin <= word.middle < self._heard
        )
