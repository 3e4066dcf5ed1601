"""Steps for what is brought in as several files, or as a whole meeting of another Nuntius."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.errors import Fault, SoundSilent
from nuntius.core.formats.bundle import read_bundle, unpack_file
from nuntius.core.language.en.names import is_label
from nuntius.core.speech.diarizer import Span
from nuntius.core.speech.joining import join
from nuntius.core.transcript.edits import retimed
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import Word
from nuntius.jobs import steps
from nuntius.jobs.confined import confined, read_chat_file, read_transcript_file
from nuntius.jobs.steps import SPANS_SHARE, Progress, Task
from nuntius.store.bundles import keep_bundle
from nuntius.store.models import MarkRow, Meeting, RecognisedStretch, User
from nuntius.store.notes import CHAT
from nuntius.store.removal import drop_unused
from nuntius.store.transcripts import save_transcript, unpacked
from nuntius.store.uploads import beside

SHOWN = 5.0  # seconds that such a mark lasts
BEHIND = 60.0  # seconds by which a transcript may be longer than its recording


class TranscriptOfAnother(Fault):
    def __init__(self, transcript: float, recording: float) -> None:
        super().__init__(
            f"The transcript goes on to minute {transcript / 60:.0f}, but the recording ends at minute {recording / 60:.0f}: "
            "they belong to different meetings. Bring in those that belong together, or each by itself."
        )


def unpack_bundle(task: Task, progress: Progress) -> None:
    """A whole meeting of another Nuntius becomes this one; the archive itself is not kept. Raises BundleUnreadable."""
    files = task.installation.files
    with task.installation.database.read() as session:
        archive = files.path(task.recording(session).digest)
    bundle = confined(read_bundle, archive)
    for number, kept in enumerate(bundle.files):
        with files.scratch() as path:
            unpack_file(archive, kept, path)
            files.keep(path)
        progress(number / len(bundle.files))
    with task.installation.database.write() as session:
        meeting, recording = session.get_one(Meeting, task.meeting_id), task.recording(session)
        brought = recording.digest
        keep_bundle(session, session.get_one(User, meeting.runner_id), meeting, recording, bundle)
    drop_unused(task.installation.database, files, [brought])


def prepare_kept(task: Task, progress: Progress) -> None:
    """Sound of a bundle made ready to be heard; a meeting that was written down only has none."""
    with task.installation.database.read() as session:
        if task.recording(session).is_text:
            return
    steps.prepare_sound(task, progress)


def read_captions(task: Task, progress: Progress) -> None:
    """The transcript that came with a recording: with the times of the sound where it has none of its own, and with
    diarized where it names no voices. Raises TranscriptUnreadable, TranscriptEmpty, TranscriptOfAnother."""
    with task.installation.database.read() as session:
        path = task.installation.files.path(beside(session, task.meeting_id)["transcript"].digest or "")
        duration = task.recording(session).duration or 0.0
    transcript, has_times = confined(read_transcript_file, path)
    if not has_times:
        steps.recognise(task, lambda share: progress(share * steps.WORDS_SHARE))
        transcript = _heard_at(task, transcript)
    elif transcript.duration > duration + BEHIND:
        raise TranscriptOfAnother(transcript.duration, duration)
    if len(transcript.speakers) == 1 and is_label(transcript.speakers[0]):
        steps.diarize(task, lambda share: progress(share * SPANS_SHARE))
        transcript = _by_voice(task, transcript, duration, progress)
    with task.installation.database.write() as session:
        save_transcript(session, task.meeting_id, transcript)


def _heard_at(task: Task, transcript: Transcript) -> Transcript:
    """The transcript's words at the times at which the recogniser heard them."""
    with task.installation.database.write() as session:
        query = select(RecognisedStretch).where(RecognisedStretch.recording_id == task.recording(session).id)
        rows = list(session.scalars(query.order_by(RecognisedStretch.number)))
        heard: tuple[Word, ...] = tuple(word for row in rows for word in unpacked(row.words))
        for row in rows:
            session.delete(row)
    if not heard:
        raise SoundSilent()
    words = retimed(heard, " ".join(turn.text for turn in transcript.turns))
    turns, at = [], 0
    for turn in transcript.turns:
        turns.append(Turn(turn.speaker, words[at : at + len(turn.words)], turn.cue))
        at += len(turn.words)
    return in_order(turns)


def _by_voice(task: Task, transcript: Transcript, duration: float, progress: Progress) -> Transcript:
    with task.installation.database.read() as session:
        spans = [Span(*span) for span in task.recording(session).spans or []]
    words = tuple(word for turn in transcript.turns for word in turn.words)
    diarized = steps.diarized_by_phrases(
        task, words, spans, lambda done: progress(SPANS_SHARE + (1 - SPANS_SHARE) * done)
    )
    with task.installation.database.write() as session:
        task.recording(session).spans = steps.packed_spans(diarized.spans)
    return join(words, diarized.voices, duration)


def read_chat_lines(task: Task, progress: Progress) -> None:
    """The chat that came with a recording becomes marks on its spine. Raises TranscriptUnreadable."""
    with task.installation.database.read() as session:
        path = task.installation.files.path(beside(session, task.meeting_id)["chat"].digest or "")
        begun = session.get_one(Meeting, task.meeting_id).begun.time()
        duration = task.recording(session).duration or 0.0
    lines = [(m.at, f"{m.name}: {m.text}") for m in confined(read_chat_file, path, begun, duration)]
    with task.installation.database.write() as session:
        _keep_marks(session, session.get_one(Meeting, task.meeting_id), lines)


def _keep_marks(session: Session, meeting: Meeting, lines: list[tuple[float, str]]) -> None:
    session.add_all(
        MarkRow(meeting_id=meeting.id, user_id=meeting.runner_id, label=CHAT, text=text[:500], start=at, end=at + SHOWN)
        for at, text in lines
    )
