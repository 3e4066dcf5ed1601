"""Measures speed and memory, and prints what was reached against what is aimed at.

    python bench/run.py [recording] [minutes] [pages] [compilation]

Without a name all four are run; about half an hour on two cores. Nothing here is a test: machines differ.
"""

import json
import os
import subprocess
import sys
import time
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from tempfile import TemporaryDirectory

import numpy as np

HERE = Path(__file__).parent
sys.path[:0] = [str(HERE.parent)]

from tests.help import write_wav  # noqa: E402

from nuntius.core.audio.decode import RATE, Samples, load  # noqa: E402

DEMO = HERE.parent / "demo"
OUT = HERE / "out"
LENGTH = 30 * 60  # seconds of the long recording
WORDS = 10_000  # words of the long transcript


@dataclass(frozen=True)
class Figure:
    """What was measured, in which unit, and the aim where there is one."""

    name: str
    value: float
    unit: str = "s"
    most: float | None = None

    def __str__(self) -> str:
        aim = f"   aim: at most {self.most:g}" if self.most is not None else ""
        short = "   MISSED" if self.most is not None and self.value > self.most else ""
        return f"{self.name:58s} {self.value:9.2f} {self.unit:4s}{aim}{short}"


def apart(part: str, *words: str) -> dict[str, float]:
    """Runs one part of this file in a process of its own, so that its peak of memory is its own."""
    done = subprocess.run([sys.executable, __file__, f"--{part}", *words], stdout=subprocess.PIPE, check=True)
    found: dict[str, float] = json.loads(done.stdout.splitlines()[-1])
    return found


def told(figures: dict[str, float]) -> None:
    status = Path("/proc/self/status").read_text()  # not getrusage: that counts what the starting process had held, too
    peak = int(status.partition("VmHWM:")[2].split()[0]) / 1024
    print(json.dumps({**figures, "peak": peak}))


def long_recording() -> Path:
    """Half an hour joined from real speech, where it can be fetched, and the demo's meetings."""
    path = OUT / "half-hour.wav"
    if not path.exists():
        OUT.mkdir(exist_ok=True)
        pieces: list[Samples] = [load(file) for file in sorted(DEMO.glob("*.ogg"))]
        try:
            from tests.outside.published import kennedy, librivox, meetings, telephone_call

            pieces += [load(kennedy()), *(load(file) for _, file in librivox()), telephone_call().samples]
            pieces += [clip.samples for clip in meetings()]
        except BaseException as missing:  # a skipped fetch is no reason not to measure
            print(f"real speech left out: {missing}", file=sys.stderr)
        joined = np.concatenate([np.concatenate([piece, np.zeros(RATE // 2, np.float32)]) for piece in pieces])
        whole = np.tile(joined, -(-LENGTH * RATE // len(joined)))[: LENGTH * RATE]
        write_wav(path, whole, RATE)
    return path


def pipeline(path: str) -> None:
    """The whole work on a recording, step by step, as the worker does it."""
    from nuntius.core.audio.pcm import WorkingCopy
    from nuntius.core.audio.prepare import prepare
    from nuntius.core.minutes.build import make_minutes
    from nuntius.core.minutes.line import MeetingFacts
    from nuntius.core.speech.diarization.phrases import diarize_phrases
    from nuntius.core.speech.joining import join
    from nuntius.core.speech.transcribe import side_by_side, spans_of, words_of
    from nuntius.jobs.engines import diarizer, recogniser, voice_prints
    from nuntius.settings import Settings

    settings, source, took = Settings.from_environment({}), Path(path), Watch()
    with TemporaryDirectory() as folder:
        prepare(source, Path(folder) / "w.pcm", Path(folder) / "p.ogg")
        took("sound")
        sound = WorkingCopy(Path(folder) / "w.pcm")
        engine = recogniser(settings, source)
        words, spans = side_by_side(lambda: words_of(sound, engine), lambda: spans_of(sound, diarizer(settings), None))
        took("words and voices")
        prints = voice_prints(settings)
        whose = diarize_phrases(words, spans, lambda phrases: prints.of(sound, phrases))
        transcript = join(words, whose.voices, sound.duration)
        took("phrases")
        make_minutes(transcript, MeetingFacts(date(2026, 10, 6)))
        took("minutes")
    told(took.laps)


def plain(path: str) -> None:
    """The recogniser by itself, as its own documentation runs it, with our flags."""
    from faster_whisper import WhisperModel

    from nuntius.core.speech.weights import whisper_directory
    from nuntius.settings import Settings

    took = Watch()
    directory = whisper_directory(Settings.from_environment({}).cache)
    model = WhisperModel(str(directory), device="cpu", compute_type="int8", cpu_threads=2)
    options = {"beam_size": 1, "vad_filter": True, "word_timestamps": True, "condition_on_previous_text": False}
    segments, _ = model.transcribe(path, language="en", **options)
    list(segments)
    took("plain")
    told(took.laps)


class Watch:
    """Seconds since the last lap, by name."""

    def __init__(self) -> None:
        self.laps: dict[str, float] = {}
        self._last = time.perf_counter()

    def __call__(self, name: str) -> None:
        moment = time.perf_counter()
        self.laps[name], self._last = moment - self._last, moment


def minutes_once(cores: str = "") -> None:
    if cores:  # before anything counts them
        os.sched_setaffinity(0, range(int(cores)))
    from talk import talk

    from nuntius.core.inquiry.inquire import inquire
    from nuntius.core.minutes.build import make_minutes
    from nuntius.core.minutes.line import MeetingFacts

    transcript, facts = talk(WORDS), MeetingFacts(date(2026, 10, 6))
    took = Watch()
    make_minutes(talk(300), facts)
    took("loading")
    made = make_minutes(transcript, facts)
    took("minutes")
    inquire(transcript, facts, "When does the first boat leave in winter?")
    took("inquiry")
    told({**took.laps, "lines": float(len(made.lines))})


def recording() -> list[Figure]:
    path = str(long_recording())
    ours, theirs = apart("pipeline", path), apart("plain", path)
    steps = {name: ours[name] for name in ("sound", "words and voices", "minutes")}
    total = sum(steps.values())
    return [
        *(Figure(f"half an hour, {name}", seconds) for name, seconds in steps.items()),
        Figure("half an hour, all steps, share of its length", total / LENGTH, "", 0.45),
        Figure("half an hour, peak of memory", ours["peak"], "MB", 1536),
        Figure("plain faster-whisper on the same file", theirs["plain"]),
        Figure("all steps / plain faster-whisper", total / theirs["plain"], "", 1.8),
    ]


def minutes() -> list[Figure]:
    found, alone = apart("minutes-once"), apart("minutes-once", "1")
    return [
        Figure("minutes of 10,000 words, models loaded", found["minutes"]),
        Figure("the same on one core", alone["minutes"], "s", 5),
        Figure("the same with the models to load", alone["loading"] + alone["minutes"], "s", 12),
        Figure("an inquiry into them", found["inquiry"]),
        Figure("peak of memory", found["peak"], "MB", 700),
    ]


def pages() -> list[Figure]:
    """First page and a four-hour Record, in Chromium, from a fresh cache to words on the screen."""
    from four_hours import four_hour_site
    from playwright.sync_api import Locator, sync_playwright

    with four_hour_site() as site, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=["--no-sandbox"])
        page = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()

        def opened(address: str, what: Locator) -> float:
            """Seconds until it is seen."""
            begun = time.perf_counter()
            page.goto(address)
            what.wait_for()
            return time.perf_counter() - begun

        first = opened(site.address, page.get_by_role("button", name="Sign in"))
        site.sign_in(page)
        page.goto("about:blank")
        record = opened(site.record, page.locator("[data-turn]").first)
        scroll = page.evaluate(SCROLL)
        counted = page.evaluate(SEARCH, "slipway") / 1000
        search = timed(lambda: site.search(page, "again 2950"))
        site.begin_edit(page)
        edit = timed(lambda: site.keep_edit(page))
        typed = page.evaluate(TYPING)
        browser.close()
    return [
        Figure("first page usable, empty cache", first, "s", 2),
        Figure("a four-hour Record opened", record, "s", 2),
        Figure("frames a second while it scrolls", scroll, ""),
        Figure("a search in it, from the letter to the count", counted, "s", 0.1),
        Figure("the same until the place is shown, seen from outside", search),
        Figure("a turn corrected, from Enter to the words in place, seen from outside", edit),
        Figure("a letter typed into a turn, to the next frame", typed, "s", 0.05),
    ]


def exported(form: str) -> None:
    """A compilation of fifty passages of twenty seconds from the long recording."""
    from nuntius.core.audio.pcm import WorkingCopy, to_bytes
    from nuntius.core.montage.montage import Clip, Part, Said
    from nuntius.core.montage.write import Montage

    with TemporaryDirectory() as folder:
        working = Path(folder) / "w.pcm"
        working.write_bytes(to_bytes(load(long_recording())))
        most = WorkingCopy(working).duration - PASSAGE
        said = (Said("Maren Tull", 0.5, 4.0, "The hired lifts cost 750 pounds each."),)
        clips = [
            Clip(f"Passage {n}", "Stand-up", working, n * most / 50, n * most / 50 + PASSAGE, said) for n in range(50)
        ]
        parts = tuple(Part(f"Section {n}", tuple(clips[n * 10 : n * 10 + 10])) for n in range(5))
        took = Watch()
        Montage("Fifty passages", parts, speak=True).write(Path(folder) / f"out.{form}", form)  # type: ignore[arg-type]
        took("seconds")
    told(took.laps)


PASSAGE = 20.0  # seconds


def compilation() -> list[Figure]:
    """How many times faster than real time fifty passages are written as one file; the aim is at least 20."""
    found = {form: apart("exported", form) for form in ("ogg", "m4a", "mp4")}
    return [
        *(
            Figure(f"fifty passages as {form}, times real time (aim: at least 20)", 50 * PASSAGE / each["seconds"], "x")
            for form, each in found.items()
        ),
        Figure("peak of memory", max(each["peak"] for each in found.values()), "MB"),
    ]


SEARCH = """(wanted) => new Promise((done) => {
  const field = document.querySelector('[aria-label="Search what was said"]');
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
  const begun = performance.now();
  set.call(field, wanted);
  field.dispatchEvent(new Event('input', { bubbles: true }));
  const look = () => / of /.test(document.querySelector('[role=search] [role=status]').textContent)
    ? done(performance.now() - begun) : requestAnimationFrame(look);
  requestAnimationFrame(look);
})"""

TYPING = """() => new Promise((done) => {
  document.querySelector('[aria-label^="Correct the turn"]').click();
  requestAnimationFrame(() => {
    const field = document.querySelector('textarea[aria-label="Words of this turn"]');
    const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value').set;
    const laps = [];
    const step = () => {
      if (laps.length === 20) return done(laps.reduce((a, b) => a + b) / 20000);
      const begun = performance.now();
      set.call(field, field.value + 'x');
      field.dispatchEvent(new Event('input', { bubbles: true }));
      requestAnimationFrame(() => { laps.push(performance.now() - begun); step(); });
    };
    step();
  });
})"""


SCROLL = """() => new Promise((done) => {
  const pane = document.querySelector('[aria-label="Transcript"]');
  const begun = performance.now();
  let frames = 0;
  const step = () => {
    pane.scrollTop += 40;
    frames += 1;
    const spent = performance.now() - begun;
    if (spent < 3000) requestAnimationFrame(step); else done(frames / spent * 1000);
  };
  requestAnimationFrame(step);
})"""


def timed(act: Callable[[], object]) -> float:
    begun = time.perf_counter()
    act()
    return time.perf_counter() - begun


PARTS = {"recording": recording, "minutes": minutes, "pages": pages, "compilation": compilation}
APART: dict[str, Callable[..., None]] = {
    "--pipeline": pipeline,
    "--plain": plain,
    "--minutes-once": minutes_once,
    "--exported": exported,
}

if __name__ == "__main__":
    if sys.argv[1:2] and sys.argv[1] in APART:
        APART[sys.argv[1]](*sys.argv[2:])
    else:
        for name in sys.argv[1:] or PARTS:
            for figure in PARTS[name]():
                print(figure, flush=True)
