"""The default recogniser: Whisper weights run by CTranslate2."""

from dataclasses import replace
from pathlib import Path

from faster_whisper import WhisperModel

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.errors import ModelMissing
from nuntius.core.transcript.word import Word

SHORTEST = 0.1  # seconds; less cannot hold a word


class WhisperRecogniser:
    """Any Whisper model in CTranslate2 form; words with times and confidence."""

    name = "whisper"

    def __init__(self, directory: Path, threads: int = 2) -> None:
        """Loads the model in `directory` (model.bin, config.json, ...). Raises ModelMissing."""
        if not (directory / "model.bin").is_file():
            raise ModelMissing(f"{directory} holds no model.bin")
        self._model = WhisperModel(
            str(directory), device="cpu", compute_type="int8", cpu_threads=threads, local_files_only=True
        )

    def recognise(self, samples: Samples) -> tuple[Word, ...]:
        if len(samples) < SHORTEST * RATE:
            return ()
        segments, _ = self._model.transcribe(
            samples,
            language="en",
            vad_filter=True,
            word_timestamps=True,
            condition_on_previous_text=False,
            beam_size=1,
        )
        made: list[Word] = []
        for word in (word for segment in segments for word in segment.words or () if word.word.strip()):
            start, text = float(word.start), word.word.strip()
            if made and not word.word.startswith(" "):  # `2` and `,250` are one word in two pieces
                held = made.pop()
                made.append(replace(held, end=max(held.end, float(word.end)), text=held.text + text))
            else:
                made.append(Word(start, max(start, float(word.end)), text, float(word.probability)))
        return tuple(made)
