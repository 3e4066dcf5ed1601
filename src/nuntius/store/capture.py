"""Sound arriving in a room: runs of numbered parts, breaks between them, the end."""

import hashlib
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import timedelta

import numpy as np
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from nuntius.core.audio.decode import RATE
from nuntius.core.rooms import ENDING, NOT_ENDED, BreakKind, RoomState, SoundSource
from nuntius.store.errors import Conflict, ConsentMissing, NotFound, PartMismatch, PartNotWanted, RecordedElsewhere
from nuntius.store.files import FileStore
from nuntius.store.jobs import create_job, latest_job
from nuntius.store.models import Break, Job, Meeting, Recording, Room, Run, SoundPart, User, now
from nuntius.store.rooms import agenda_of, may_record, runs_of, touch, turn_to

LARGEST = 20 * RATE * 2  # bytes of a part: twenty seconds
LEAST_GAP = 0.05  # seconds; less is the jitter of two clocks
RECORDED = "recording.flac"  # name of a recording made here
UNKNOWN = ""  # digest of a part whose row was rebuilt from its file, which may have been cut
VANISHED = timedelta(hours=12)  # without sound or pause, after which a recording is ended with what is here


def folder(run: Run) -> str:
    """Where the file store keeps the parts of a run."""
    return f"run-{run.id}"


# --- runs ---


def begin_run(
    session: Session,
    user: User,
    meeting: Meeting,
    room: Room,
    recorder: str,
    source: SoundSource,
    take_over: bool = False,
    all_sent: bool = False,
) -> Run:
    """Begins to record, or goes on after a pause, a crash or a change of source.

    With `all_sent` the recorder says that it has no part of earlier runs left: what is missing of them is a gap.
    Raises ConsentMissing, RecordedElsewhere (another page records and `take_over` is not asked for), Conflict
    (the recording has ended, or parts of the run before are still on their way).
    """
    if room.state in ENDING:
        raise Conflict("This recording has ended. Start a new meeting to record again.")
    if not may_record(session, meeting, room):
        raise ConsentMissing()
    last = last_run(session, room)
    if last is not None and _is_fresh(session, room, last, recorder):
        last.source = source
        return last
    if last is not None:
        _close(session, room, last, recorder, take_over, all_sent)
    run = Run(
        room_id=room.id,
        number=last.number + 1 if last else 0,
        recorder=recorder,
        user_id=user.id,
        source=source,
        first=room.held,
    )
    session.add(run)
    if room.begun_at is None:
        room.begun_at = meeting.starts_at = now()
        if agenda_of(session, meeting.id):
            turn_to(session, room, 0, 0.0)
    room.state, room.held_at = RoomState.RECORDING, now()
    session.flush()
    touch(room)
    return run


def last_run(session: Session, room: Room) -> Run | None:
    return session.scalars(select(Run).where(Run.room_id == room.id).order_by(Run.number.desc())).first()


def _is_fresh(session: Session, room: Room, last: Run, recorder: str) -> bool:
    """Whether the recorder has begun this run a moment ago, and never heard the answer."""
    if room.state != RoomState.RECORDING or last.recorder != recorder or last.expected is not None:
        return False
    return session.scalar(select(SoundPart.number).where(SoundPart.run_id == last.id).limit(1)) is None


def _close(session: Session, room: Room, last: Run, recorder: str, take_over: bool, all_sent: bool) -> None:
    """Ends the run before a new one; a run that broke off leaves a gap."""
    if last.expected is None:
        if last.recorder != recorder and not take_over:
            raise RecordedElsewhere(session.get_one(User, last.user_id).person.label)
        close_holes(session, room, last)
        last.expected = last.parts
        if room.state == RoomState.RECORDING and last.parts:
            session.add(Break(meeting_id=room.meeting_id, kind=BreakKind.GAP, at=room.held / RATE, seconds=None))
    elif last.parts < last.expected:
        if last.recorder == recorder and not take_over and not all_sent:
            raise Conflict("Sound from before the pause is still on its way. Wait a moment, then go on.")
        close_holes(session, room, last)
        last.expected = last.parts


def running(session: Session, room: Room, number: int, recorder: str) -> Run:
    """The run of this number and recorder. Raises NotFound, RecordedElsewhere."""
    run = session.scalar(select(Run).where(Run.room_id == room.id, Run.number == number))
    if run is None:
        raise NotFound()
    if run.recorder != recorder:
        raise RecordedElsewhere(session.get_one(User, run.user_id).person.label)
    return run


# --- parts ---


@dataclass(frozen=True, slots=True)
class Arrival:
    """A part as it came: raw 16-bit little-endian mono samples at 16 kHz with the SHA-256 that was sent along."""

    number: int
    data: bytes
    digest: str
    begun: float | None = None  # the recorder's clock at its first sample, seconds since 1970
    earliest: int = 0  # the lowest number of this run that the recorder can still send


def check_part(session: Session, run: Run, part: Arrival) -> bool:
    """Whether the part is new. Raises PartMismatch, PartNotWanted (paused or ended before it), Conflict."""
    if not part.data or len(part.data) % 2 or len(part.data) > LARGEST:
        raise PartMismatch()
    if hashlib.sha256(part.data).hexdigest() != part.digest:
        raise PartMismatch()
    held = session.get(SoundPart, (run.id, part.number))
    if held is not None and held.digest not in (part.digest, UNKNOWN):
        raise Conflict(f"Part {part.number} of this recording is here already with other sound.")
    if held is None and run.expected is not None and part.number >= run.expected:
        raise PartNotWanted()
    return held is None


def note_part(session: Session, room: Room, run: Run, part: Arrival) -> Job | None:
    """Remembers a part that has been written; the job, when it was the last one of a recording that ends."""
    if session.get(SoundPart, (run.id, part.number)) is None:
        session.add(SoundPart(run_id=run.id, number=part.number, digest=part.digest, samples=len(part.data) // 2))
        session.flush()
    if part.number == 0 and part.begun is not None and run.begun is None:
        _measure_break(session, room, run, part.begun)
    _advance(session, room, run)
    close_holes(session, room, run, part.earliest)
    if room.state == RoomState.STOPPING and run.expected is not None and run.parts >= run.expected:
        return finish(session, room)
    touch(room)
    return None


def _advance(session: Session, room: Room, run: Run) -> None:
    """Counts the parts that have arrived without a gap."""
    query = (
        select(SoundPart).where(SoundPart.run_id == run.id, SoundPart.number >= run.parts).order_by(SoundPart.number)
    )
    for part in session.scalars(query):
        if part.number != run.parts:
            break
        part.first = run.first + run.samples
        run.parts += 1
        run.samples += part.samples
        room.held += part.samples
    room.held_at = now()
    if run.expected is not None and run.parts == run.expected:
        for pause in _open_breaks(session, room):
            pause.at = room.held / RATE


def close_holes(session: Session, room: Room, run: Run, below: int | None = None) -> None:
    """Marks parts that will not come as gaps, and goes on with what is held behind them.

    Only parts with numbers under `below` are given up; None gives up all that are missing before the last one held.
    """
    query = select(SoundPart).where(SoundPart.run_id == run.id, SoundPart.first.is_(None)).order_by(SoundPart.number)
    while below is None or run.parts < below:
        behind = session.scalars(query.where(SoundPart.number > run.parts)).first()
        if behind is None:
            return
        goes_on = behind.number if below is None else min(behind.number, below)
        seconds = (goes_on - run.parts) * behind.samples / RATE
        session.add(Break(meeting_id=room.meeting_id, kind=BreakKind.GAP, at=room.held / RATE, seconds=seconds))
        run.parts = goes_on
        _advance(session, room, run)


def _open_breaks(session: Session, room: Room) -> list[Break]:
    return list(session.scalars(select(Break).where(Break.meeting_id == room.meeting_id, Break.seconds.is_(None))))


def _measure_break(session: Session, room: Room, run: Run, begun: float) -> None:
    """Says how long the break before a run was, by the recorder's clock where it is the same one."""
    run.begun = begun
    before = session.scalar(select(Run).where(Run.room_id == room.id, Run.number == run.number - 1))
    same = before is not None and before.begun is not None and before.recorder == run.recorder
    for gap in _open_breaks(session, room):
        if same and before is not None and before.begun is not None:
            lost = _lost_within(session, room, before)
            gap.seconds = max(0.0, begun - before.begun - before.samples / RATE - lost)
        else:
            gap.seconds = max(0.0, (now() - gap.made_at).total_seconds())
        if gap.kind == BreakKind.GAP and same and gap.seconds < LEAST_GAP:
            session.delete(gap)


def _lost_within(session: Session, room: Room, run: Run) -> float:
    """Seconds of the gaps inside a run."""
    first, last = run.first / RATE, (run.first + run.samples) / RATE
    query = select(func.sum(Break.seconds)).where(Break.meeting_id == room.meeting_id, Break.kind == BreakKind.GAP)
    return session.scalar(query.where(Break.at > first, Break.at < last)) or 0.0


# --- pause, end ---


def pause(session: Session, user: User, room: Room, run: Run, parts: int) -> None:
    """Pauses behind part `parts` - 1; nothing that comes later is kept. Asked for twice, it is one pause."""
    if room.state == RoomState.PAUSED and run.expected == parts:
        return
    if room.state != RoomState.RECORDING:
        raise Conflict("Nothing is being recorded now.")
    run.expected = parts
    room.state, room.held_at = RoomState.PAUSED, now()
    session.add(
        Break(meeting_id=room.meeting_id, kind=BreakKind.PAUSE, at=room.held / RATE, seconds=None, by=user.person.label)
    )
    session.flush()
    touch(room)


def stop(session: Session, room: Room, run: Run, parts: int, all_sent: bool = False) -> Job | None:
    """Ends the recording behind part `parts` - 1; the job once all of them are here.

    With `all_sent` the recorder says that it has nothing left to send: what is missing is a gap.
    """
    if room.state == RoomState.STOPPED:
        return latest_job(session, room.meeting_id)
    if run.expected is None:
        run.expected = parts
    room.state = RoomState.STOPPING
    touch(room)
    return finish(session, room) if all_sent or run.parts >= run.expected else None


def finish(session: Session, room: Room) -> Job | None:
    """Ends the recording with what is here; None where it holds no sound at all, and the room is as before."""
    for run in runs_of(session, room):
        close_holes(session, room, run)
        run.expected = run.parts
    for gap in _open_breaks(session, room):
        gap.seconds = (now() - gap.made_at).total_seconds()
    touch(room)
    if not room.held:
        room.state = RoomState.READY
        return None
    room.state, room.stopped_at = RoomState.STOPPED, now()
    session.add(Recording(meeting_id=room.meeting_id, name=RECORDED, digest="", duration=room.held / RATE))
    return create_job(session, room.meeting_id, None)


def end_vanished(session: Session) -> list[Job]:
    """Ends recordings of which nothing has been heard for VANISHED: their pages do not come back; the jobs."""
    query = select(Room).where(Room.state.in_(NOT_ENDED), Room.held_at < now() - VANISHED)
    return [job for room in session.scalars(query) if (job := finish(session, room)) is not None]


# --- what is on disk without a row ---


def parts_without_row(session: Session, files: FileStore) -> list[tuple[Run, list[int]]]:
    """Runs of recordings that go on, with the numbers of parts that lie on disk and are not in the database."""
    found = []
    query = select(Run).join(Room, Room.id == Run.room_id)
    for run in session.scalars(query.where(Room.state.in_(NOT_ENDED))):
        known = set(session.scalars(select(SoundPart.number).where(SoundPart.run_id == run.id)))
        on_disk = [number for number in files.part_numbers(folder(run)) if number not in known]
        if on_disk:
            found.append((run, on_disk))
    return found


def rebuild_rows(session: Session, run_id: int, sizes: dict[int, int]) -> None:
    """Rows for parts of which only the files were left; `sizes` are their bytes by number."""
    run = session.get_one(Run, run_id)
    for number, size in sizes.items():
        if session.get(SoundPart, (run.id, number)) is None:
            session.add(SoundPart(run_id=run.id, number=number, digest=UNKNOWN, samples=size // 2))
    session.flush()
    room = session.get_one(Room, run.room_id)
    _advance(session, room, run)
    touch(room)


# --- reading and cutting ---


def breaks_of(session: Session, meeting_id: str) -> list[Break]:
    """Pauses, gaps and cuts by their place."""
    return list(session.scalars(select(Break).where(Break.meeting_id == meeting_id).order_by(Break.at, Break.id)))


@dataclass(frozen=True, slots=True)
class Piece:
    """A part with the sample of the meeting at which it begins."""

    run: Run
    number: int
    first: int
    samples: int


def pieces(session: Session, room: Room, since: int = 0, most: int | None = None) -> list[Piece]:
    """The parts that have arrived without a gap and end behind sample `since`, in order; `most` of them."""
    query = (
        select(SoundPart, Run)
        .join(Run, Run.id == SoundPart.run_id)
        .where(Run.room_id == room.id, SoundPart.first > since - LARGEST // 2)
        .where(SoundPart.first + SoundPart.samples > since)
        .order_by(SoundPart.first)
        .limit(most)
    )
    return [Piece(run, part.number, part.first or 0, part.samples) for part, run in session.execute(query)]


def to_cut(room: Room, start: float, end: float) -> tuple[float, float]:
    """The stretch that a cut takes, in seconds. Raises Conflict for one that has not been recorded."""
    if room.state == RoomState.STOPPED:
        raise Conflict("The recording has ended and is being worked on. Stretches are cut while it runs.")
    end = min(end, room.held / RATE)
    if not 0 <= start < end:
        raise Conflict("Choose a stretch of the recording that has been recorded already.")
    return start, end


def silence(files: FileStore, parts: list[Piece], start: float, end: float) -> None:
    """Puts silence in place of the sound from `start` to `end` seconds in these parts, for good."""
    first, last = round(start * RATE), round(end * RATE)
    for piece in parts:
        if piece.first >= last:
            break
        samples = np.frombuffer(files.read_part(folder(piece.run), piece.number), "<i2").copy()
        samples[max(0, first - piece.first) : max(0, last - piece.first)] = 0
        files.write_part(folder(piece.run), piece.number, samples.tobytes())


def note_cut(session: Session, user: User, room: Room, start: float, end: float) -> None:
    """Leaves a mark of a stretch that was cut."""
    session.add(
        Break(meeting_id=room.meeting_id, kind=BreakKind.CUT, at=start, seconds=end - start, by=user.person.label)
    )
    touch(room)


def joined(files: FileStore, parts: list[Piece]) -> Iterator[bytes]:
    """The sound of these parts, one after the other, as raw samples."""
    for piece in parts:
        yield files.read_part(folder(piece.run), piece.number)


def sound_folders(session: Session, room: Room) -> list[str]:
    """Where the file store keeps the parts of a recording."""
    return [folder(run) for run in runs_of(session, room)]
