"""Following one meeting: its sound as it arrives, lines and voices into the store, minutes when it stops."""

import logging
import time
from collections.abc import Callable
from threading import Event, Thread

import numpy as np
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.audio.pcm import FULL_SCALE
from nuntius.core.errors import TranscriptEmpty
from nuntius.core.live.line import Heard, LiveLine
from nuntius.core.live.recogniser import LiveRecogniser
from nuntius.core.live.voices import LiveVoices
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.classifiers import likelihoods
from nuntius.core.minutes.line import MinutesSource
from nuntius.core.minutes.scene import scene
from nuntius.core.rooms import RoomState
from nuntius.jobs import engines
from nuntius.store.capture import Piece, finish, folder, pieces
from nuntius.store.installation import Installation
from nuntius.store.leases import this_process
from nuntius.store.live import add_lines, assign_voices, live_lines, live_so_far
from nuntius.store.minutes import get_minutes, save_minutes
from nuntius.store.models import LiveLineRow, Meeting, Room
from nuntius.store.notes import facts_of
from nuntius.store.rooms import touch
from nuntius.store.templates import template_of
from nuntius.store.transcripts import load_transcript, save_transcript, turns_of

log = logging.getLogger(__name__)

PAUSE = 0.08  # seconds between two looks for new sound
SLICE = 0.5  # seconds of sound heard at a time when nothing waits
CATCH_UP = 3.0  # seconds heard at a time when more than that waits: one look at the line instead of six
VOICES_PAUSE = 0.5  # seconds between two looks for sound to diarize
MOST_PARTS = 100  # asked for at a time
READ = 30.0  # seconds of sound that are diarized at a time
AFTER_FAULT = 3.0  # seconds before the listener may begin again with a meeting whose following broke off
WARM = 15.0  # seconds between two readings of what has been said, so that a brief and the minutes are quick


class TakenOver(Exception):
    """Another listener follows this meeting now."""


class Follower:
    """One meeting from where its lines end; it may be killed at any time and begun again."""

    def __init__(
        self, installation: Installation, room_id: int, put: Callable[[str], None], end: Event | None = None
    ) -> None:
        self._installation, self._room_id, self._put = installation, room_id, put
        self._end = end or Event()
        self._over = Event()  # the recording has ended and all of it has been heard
        self._warmed = time.monotonic()

    def run(self) -> None:
        """Follows until the recording has ended, or the process is to end."""
        voices = Thread(target=self._guarded, args=(self._tell_voices,), daemon=True)
        voices.start()
        Thread(target=engines.minutes_ready, daemon=True).start()
        self._guarded(self._hear)
        voices.join()

    def _guarded(self, work: Callable[[], None]) -> None:
        try:
            work()
        except FileNotFoundError:  # the recording was put together or removed meanwhile: there is nothing to follow
            self._over.set()
            self._note_drafted()
        except TakenOver:
            log.info("another listener follows", extra={"room": self._room_id})
            self._over.set()
        except Exception:
            log.exception("following broke off", extra={"room": self._room_id})
            self._over.set()
            self._end.wait(AFTER_FAULT)

    def _mine(self, session: Session) -> Room:
        """The room, to be written to. Raises TakenOver."""
        room = session.get_one(Room, self._room_id)
        if room.listener not in (None, this_process()):
            raise TakenOver()
        return room

    # --- words ---

    def _hear(self) -> None:
        at, engine, run = self._begin(), None, -1
        while not self._end.is_set():
            found = self._pieces(at, CATCH_UP)
            if not found:
                if self._is_over(at):
                    break
                if engine is not None and self._is_paused():
                    self._write(engine.finish(), at)
                    engine = None
                self._warm()
                self._end.wait(PAUSE)
                continue
            piece = found[0]
            if engine is None or piece.run.id != run:
                if engine is not None:
                    self._write(engine.finish(), at)
                engine, run = self._engine(at), piece.run.id
            same = [p for p in found if p.run.id == run]
            samples = self._samples(same, at)
            at += len(samples)
            self._write(engine.hear(samples), at)
        if not self._end.is_set():
            if engine is not None:
                self._write(engine.finish(), at)
            self._draft()  # before the voices are assigned a last time, over all of a long meeting
            self._over.set()
            self._note_drafted()

    def _begin(self) -> int:
        """The sample behind the last settled line: where hearing goes on after a break of this process."""
        with self._installation.database.write() as session:
            room = self._mine(session)
            query = select(func.max(LiveLineRow.end)).where(LiveLineRow.meeting_id == room.meeting_id)
            at = min(round((session.scalar(query) or 0.0) * RATE), room.held)
            room.heard, room.partial = at, ""
            touch(room)
            return at

    def _engine(self, at: int) -> LiveRecogniser:
        return engines.live_recogniser(self._installation.settings, at / RATE)

    def _pieces(self, at: int, most: float) -> list[Piece]:
        """Parts from sample `at` on, up to `most` seconds of them."""
        with self._installation.database.read() as session:
            found = pieces(session, session.get_one(Room, self._room_id), at, MOST_PARTS)
        return [piece for piece in found if piece.first < at + most * RATE]

    def _samples(self, found: list[Piece], at: int) -> Samples:
        """The sound of parts that follow each other, from sample `at` on."""
        files = self._installation.files
        data = b"".join(files.read_part(folder(piece.run), piece.number) for piece in found)
        skip = max(0, at - found[0].first)
        return np.frombuffer(data, "<i2")[skip:].astype(np.float32) / np.float32(FULL_SCALE)

    def _write(self, heard: Heard, at: int) -> None:
        """Notes what has been heard up to sample `at`; stops by itself after a long silence."""
        job = None
        with self._installation.database.write() as session:
            room = self._mine(session)
            if heard.settled:
                add_lines(session, room, heard.settled)
            partial = heard.partial or LiveLine(at / RATE, at / RATE, "")
            if room.partial != partial.text:
                room.partial, room.partial_start = partial.text, partial.start
            ends = [line.end for line in heard.settled] + ([partial.end] if partial.text else [])
            room.last_speech = max([room.last_speech, *ends])
            room.heard = at
            touch(room)
            silent = at / RATE - room.last_speech
            if room.state == RoomState.RECORDING and 0 < room.silence_stop <= silent:
                job = finish(session, room)
                log.info("stopped after silence", extra={"room": self._room_id, "seconds": round(silent)})
        if job is not None:
            self._put(job.id)

    def _is_paused(self) -> bool:
        with self._installation.database.read() as session:
            return session.get_one(Room, self._room_id).state in (RoomState.PAUSED, RoomState.STOPPED)

    def _is_over(self, at: int) -> bool:
        with self._installation.database.read() as session:
            room = session.get(Room, self._room_id)
            return room is None or (room.state in (RoomState.STOPPED, RoomState.READY) and at >= room.held)

    # --- voices ---

    def _tell_voices(self) -> None:
        teller = engines.live_voices(self._installation.settings)
        at = 0
        while not self._end.is_set() and teller is not None:
            found = self._pieces(at, READ)
            if found:
                samples = self._samples(found, at)
                at += len(samples)
                teller.push(samples)
            if teller.has_news:
                self._write_voices(teller)
            if not found and self._over.is_set():
                return
            self._end.wait(VOICES_PAUSE)

    def _write_voices(self, teller: LiveVoices) -> None:
        with self._installation.database.read() as session:
            lines = live_lines(session, session.get_one(Room, self._room_id).meeting_id, named=False)
        assigned = teller.assign(lines)
        voices = {e.number: e.voice for e in lines}
        news = {n: pieces for n, pieces in assigned.items() if [voice for _, voice in pieces] != [voices[n]]}
        if news:
            with self._installation.database.write() as session:
                assign_voices(session, self._mine(session), news)

    # --- minutes ---

    def _warm(self) -> None:
        """Reads what has been said since the last time, so that minutes take a moment when the meeting stops."""
        if time.monotonic() - self._warmed < WARM:
            return
        self._warmed = time.monotonic()
        with self._installation.database.read() as session:
            room = session.get_one(Room, self._room_id)
            transcript, facts = live_so_far(session, room), facts_of(session, session.get_one(Meeting, room.meeting_id))
        if transcript.word_count:
            likelihoods(scene(transcript, facts))

    def _note_drafted(self) -> None:
        with self._installation.database.write() as session:
            room = session.get(Room, self._room_id)
            if room is not None and room.state == RoomState.STOPPED:
                room.drafted = True

    def _draft(self) -> None:
        """Minutes from the live text, shown until the better recogniser has heard the whole."""
        with self._installation.database.read() as session:
            room = session.get(Room, self._room_id)
            if room is None or room.state != RoomState.STOPPED:
                return
            transcript = live_so_far(session, room, named=False)
        with self._installation.database.write() as session:
            if turns_of(session, room.meeting_id) or not transcript.word_count:
                return
            save_transcript(session, room.meeting_id, transcript)
            meeting = session.get_one(Meeting, room.meeting_id)
            facts, named = facts_of(session, meeting), load_transcript(session, meeting.id)
            template = template_of(session, meeting).template
        try:
            minutes = make_minutes(named, facts, template.length, template)
        except TranscriptEmpty:
            return
        with self._installation.database.write() as session:
            if get_minutes(session, room.meeting_id) is None:
                save_minutes(session, room.meeting_id, named, minutes, template, source=MinutesSource.LIVE)
        log.info("minutes from live text", extra={"room": self._room_id, "lines": len(minutes.lines)})
