"""The steps of the work on a recording; each leaves its result in the store."""

import logging
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from threading import Event

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from nuntius.core.audio.encode import write_flac, write_picture
from nuntius.core.audio.pcm import WorkingCopy
from nuntius.core.audio.prepare import prepare
from nuntius.core.audio.probe import probe
from nuntius.core.errors import SoundSilent
from nuntius.core.live.carrying import Correction, corrected_turns
from nuntius.core.live.matching import matched
from nuntius.core.minutes.choices import UNCHANGED, MinutesChoices
from nuntius.core.minutes.line import MinutesSource
from nuntius.core.speech.diarization.phrases import Diarized, diarize_phrases
from nuntius.core.speech.diarizer import Span
from nuntius.core.speech.joining import join
from nuntius.core.speech.recogniser import recognise_stretch, stretches
from nuntius.core.speech.transcribe import side_by_side, spans_of
from nuntius.core.transcript.transcript import Transcript
from nuntius.core.transcript.word import Word
from nuntius.jobs import engines
from nuntius.jobs.confined import confined, read_transcript_file
from nuntius.service.minutes import regenerate
from nuntius.store.capture import joined, pieces, sound_folders
from nuntius.store.installation import Installation
from nuntius.store.live import live_rows
from nuntius.store.models import LiveLineRow, RecognisedStretch, Recording
from nuntius.store.models.base import PackedSpan
from nuntius.store.rooms import room_of
from nuntius.store.transcripts import packed, save_transcript, turns_of, unpacked

log = logging.getLogger(__name__)

COPIED = 2 * 16_000 * 10  # bytes at a time: ten seconds
DRAFT_WAIT = 20.0  # seconds that minutes from the live text may take before the work begins beside them
LISTENER_STUCK = 2.0  # seconds without a step forward, after which nothing is expected from the listener
WORDS_SHARE = 0.6  # of the work of listening, by processor time (measured)
SPANS_SHARE = 0.7  # of telling voices apart without words, by processor time (measured)

Progress = Callable[[float], None]  # hears the share of the step that is done, 0 to 1


@dataclass(frozen=True, slots=True)
class Task:
    """What a step works on."""

    installation: Installation
    meeting_id: str
    people: int | None
    choices: MinutesChoices = UNCHANGED

    def recording(self, session: Session) -> Recording:
        return session.scalars(select(Recording).where(Recording.meeting_id == self.meeting_id)).one()

    def sound(self) -> WorkingCopy:
        """The working copy of the recording's sound."""
        with self.installation.database.read() as session:
            return WorkingCopy(self.installation.files.path(self.recording(session).working_digest or ""))


def read_text(task: Task, progress: Progress) -> None:
    """A transcript file becomes the transcript."""
    with task.installation.database.read() as session:
        path = task.installation.files.path(task.recording(session).digest)
    transcript, _ = confined(read_transcript_file, path)
    with task.installation.database.write() as session:
        save_transcript(session, task.meeting_id, transcript)
        task.recording(session).duration = transcript.duration


def gather_sound(task: Task, progress: Progress) -> None:
    """The parts of a meeting recorded here become one FLAC file, which is kept."""
    _await_draft(task)
    files = task.installation.files
    with task.installation.database.read() as session:
        room = room_of(session, task.meeting_id)
        if room is None or task.recording(session).digest:
            return
        parts = pieces(session, room)
    with files.scratch(".flac") as target:
        write_flac(joined(files, parts), target)
        digest = files.keep(target)
    with task.installation.database.write() as session:
        task.recording(session).digest = digest


def _await_draft(task: Task) -> None:
    """Leaves the processors to the listener until it has minutes from the live text, as long as it gets on."""
    begun, heard, moved = time.monotonic(), -1, time.monotonic()
    while time.monotonic() - begun < DRAFT_WAIT:
        with task.installation.database.read() as session:
            room = room_of(session, task.meeting_id)
            if room is None or room.drafted:
                return
            if room.heard != heard:
                heard, moved = room.heard, time.monotonic()
            is_stuck = room.heard < room.held and time.monotonic() - moved > LISTENER_STUCK
        if is_stuck:
            return
        time.sleep(0.1)


def write_original(task: Task, progress: Progress) -> None:
    """After a stretch was removed the kept file is written again from the working copy, as FLAC."""
    files = task.installation.files
    with task.installation.database.read() as session:
        source = files.path(task.recording(session).working_digest or "")
    with files.scratch(".flac") as target, source.open("rb") as samples:
        write_flac(iter(lambda: samples.read(COPIED), b""), target)
        digest = files.keep(target)
    with task.installation.database.write() as session:
        recording = task.recording(session)
        recording.digest, recording.name = digest, f"{Path(recording.name).stem}.flac"


def prepare_sound(task: Task, progress: Progress) -> None:
    """Working copy, playback copy, peaks, loudness."""
    files = task.installation.files
    with task.installation.database.read() as session:
        source = files.path(task.recording(session).digest)
    info = probe(source)
    expected = info.duration or 0.0
    with files.scratch(".pcm") as working, files.scratch(".ogg") as playback, files.scratch(".mp4") as picture:
        made = prepare(source, working, playback, lambda done: progress(min(1.0, done / expected) if expected else 0.0))
        if info.has_picture:
            write_picture(source, picture)
        digests = {
            "working_digest": files.keep(working),
            "playback_digest": files.keep(picture if info.has_picture else playback),
            "peaks_digest": files.keep_bytes(made.peaks),
        }
    with task.installation.database.write() as session:
        recording = task.recording(session)
        for name, digest in digests.items():
            setattr(recording, name, digest)
        recording.duration, recording.broken, recording.has_picture = made.duration, made.broken, info.has_picture
        recording.loudness, recording.peak = max(made.loudness, -120.0), max(made.peak, -120.0)


class OtherHalfFailed(Exception):
    """Words or voices came to nothing, so that the other half need not go on."""


def listen(task: Task, progress: Progress) -> None:
    """Words and voices, side by side; what stands in the store from before a break is not made again."""
    done, failed = {"words": 0.0, "voices": 0.0}, Event()

    def half(name: str, run: Callable[[Task, Progress], None]) -> Callable[[], None]:
        def note(share: float) -> None:
            if failed.is_set():
                raise OtherHalfFailed()
            done[name] = share
            progress(WORDS_SHARE * done["words"] + (1 - WORDS_SHARE) * done["voices"])

        def work() -> None:
            try:
                run(task, note)
            except OtherHalfFailed:
                return  # the other half's own failure is the one to report
            except BaseException:
                failed.set()
                raise

        return work

    side_by_side(half("words", recognise), half("voices", diarize))


def recognise(task: Task, progress: Progress) -> None:
    """Words, stretch by stretch; those recognised before a break are not recognised again."""
    with task.installation.database.read() as session:
        recording = task.recording(session)
        query = select(func.count(RecognisedStretch.id)).where(RecognisedStretch.recording_id == recording.id)
        done = session.scalar(query) or 0
    sound = task.sound()
    plan = stretches(sound)
    engine = engines.recogniser(task.installation.settings, task.installation.files.path(recording.digest))
    for number, stretch in enumerate(plan):
        if number < done:
            continue
        words = recognise_stretch(engine, sound, stretch)
        with task.installation.database.write() as session:
            session.add(RecognisedStretch(recording_id=recording.id, number=number, words=packed(words)))
        progress(stretch.end / sound.duration)


def diarize(task: Task, progress: Progress) -> None:
    """Who spoke when."""
    with task.installation.database.read() as session:
        if task.recording(session).spans is not None:
            return
    sound = task.sound()
    diarizer = engines.diarizer(task.installation.settings)
    spans = spans_of(sound, diarizer, task.people, lambda done: progress(done / sound.duration))
    with task.installation.database.write() as session:
        task.recording(session).spans = packed_spans(spans)


def packed_spans(spans: Sequence[Span]) -> list[PackedSpan]:
    """Spans as they are kept: start and end in seconds, and the voice."""
    return [(round(s.start, 3), round(s.end, 3), s.voice) for s in spans]


def diarized_by_phrases(task: Task, words: Sequence[Word], spans: Sequence[Span], progress: Progress) -> Diarized:
    """Whose the words are, by the sound of whole phrases."""
    sound, settings = task.sound(), task.installation.settings
    return diarize_phrases(
        words, spans, lambda phrases: engines.voice_prints(settings).of(sound, phrases, progress), task.people
    )


def write_turns(task: Task, progress: Progress) -> None:
    """Words and voices joined; the pieces they came from are no longer needed and go. Raises SoundSilent."""
    with task.installation.database.read() as session:
        recording = task.recording(session)
        rows = session.scalars(
            select(RecognisedStretch)
            .where(RecognisedStretch.recording_id == recording.id)
            .order_by(RecognisedStretch.number)
        )
        words: tuple[Word, ...] = tuple(word for row in rows for word in unpacked(row.words))
        spans = [Span(start, end, voice) for start, end, voice in recording.spans or []]
    if not words:
        raise SoundSilent(
            "No words were recognised in this recording. Check that somebody speaks in it, and bring in another file."
        )
    diarized = diarized_by_phrases(task, words, spans, progress)
    with task.installation.database.write() as session:
        recording = task.recording(session)
        lines = live_rows(session, task.meeting_id)
        if lines:
            diarized = _as_named_live(diarized, lines)
        recording.spans = packed_spans(diarized.spans)
        transcript = join(words, diarized.voices, recording.duration or 0.0)
        made = [*_live_corrections(lines), *turn_corrections(session, task.meeting_id)]
        save_transcript(session, task.meeting_id, transcript)
        _carry(session, task.meeting_id, transcript, made)
        session.execute(delete(RecognisedStretch).where(RecognisedStretch.recording_id == recording.id))
        room = room_of(session, task.meeting_id)
        folders = sound_folders(session, room) if room else []
    for name in folders:
        task.installation.files.drop_parts(name)


def _as_named_live(diarized: Diarized, lines: list[LiveLineRow]) -> Diarized:
    """The voices under the labels that they bore in the live text, so that names given there stay."""
    live = [Span(line.start, line.end, line.voice) for line in lines if line.voice]
    return diarized.named(matched(live, diarized.spans))


def _live_corrections(lines: list[LiveLineRow]) -> list[Correction]:
    """What a person put right while the meeting ran."""
    return [Correction(e.start, e.end, e.text, e.person_text) for e in lines if e.person_text is not None]


def turn_corrections(session: Session, meeting_id: str) -> list[Correction]:
    """What a person put right in the turns that are about to be replaced."""
    return [
        Correction(heard[0].start, heard[-1].end, _text(heard), _text(unpacked(row.person_words)))
        for row in turns_of(session, meeting_id)
        if row.person_words is not None and (heard := unpacked(row.words))
    ]


def _text(words: tuple[Word, ...]) -> str:
    return " ".join(word.text for word in words)


def _carry(session: Session, meeting_id: str, transcript: Transcript, made: list[Correction]) -> None:
    """Makes a person's edits again in the words of the better recogniser."""
    words = corrected_turns(transcript, made)
    for row in turns_of(session, meeting_id):
        if row.number in words:
            row.person_words = packed(words[row.number])


def write_minutes(task: Task, progress: Progress) -> None:
    """Minutes of the settled transcript, a person's changes kept."""
    regenerate(task.installation, task.meeting_id, source=MinutesSource.SETTLED)


def remake_minutes(task: Task, progress: Progress) -> None:
    """Minutes written again as a person has chosen them."""
    regenerate(task.installation, task.meeting_id, task.choices)
