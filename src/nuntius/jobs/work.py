"""Working on a job: its steps in order, from the last one that was finished."""

import logging
import time
from collections.abc import Callable, Collection, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from threading import Event, Thread

from sqlalchemy import update

from nuntius.core.errors import Fault
from nuntius.jobs import steps, together, voices
from nuntius.store.capture import RECORDED
from nuntius.store.installation import Installation
from nuntius.store.jobs import claim
from nuntius.store.models import Job, Recording, now
from nuntius.store.uploads import beside

log = logging.getLogger(__name__)

BEAT = 0.5  # seconds between two notes of progress
PULSE = 15.0  # seconds between two signs of life; a job is given to another worker after 60 without one


@dataclass(frozen=True, slots=True)
class Step:
    """A step, what a person is told of it, and its share of the whole time (measured, 2 cores)."""

    name: str
    run: Callable[[steps.Task, steps.Progress], None]
    share: float


SOUND_STEPS = (
    Step("sound", steps.prepare_sound, 0.06),
    Step("listen", steps.listen, 0.73),
    Step("turns", steps.write_turns, 0.18),
    Step("minutes", steps.write_minutes, 0.03),
)
ROOM_STEPS = (Step("gather", steps.gather_sound, 0.02), *SOUND_STEPS)
CUT_STEPS = (
    Step("gather", steps.write_original, 0.3),
    Step("sound", steps.prepare_sound, 0.5),
    Step("minutes", steps.write_minutes, 0.2),
)
TEXT_STEPS = (Step("read", steps.read_text, 0.2), Step("minutes", steps.write_minutes, 0.8))
VOICE_STEPS = (Step("voices", voices.tell_anew, 0.95), Step("minutes", steps.write_minutes, 0.05))
BUNDLE_STEPS = (Step("unpack", together.unpack_bundle, 0.3), Step("sound", together.prepare_kept, 0.7))
CAPTION_STEPS = (
    Step("sound", steps.prepare_sound, 0.2),
    Step("captions", together.read_captions, 0.6),
    Step("minutes", steps.write_minutes, 0.2),
)
CHAT_STEP = Step("chat", together.read_chat_lines, 0.0)


def plan_of(job: Job, recording: Recording, roles: Collection[str] = ()) -> tuple[Step, ...]:
    """The steps that a recording needs: a transcript is read, one recorded here is gathered first.

    `roles` are those of the files that came with it: a transcript spares the recogniser, a chat is read, too.
    """
    if job.kind == "cut":
        return CUT_STEPS
    if job.kind in ("bundle", "voices"):
        return BUNDLE_STEPS if job.kind == "bundle" else VOICE_STEPS
    if recording.is_text:
        plan: tuple[Step, ...] = TEXT_STEPS
    elif "transcript" in roles:
        plan = CAPTION_STEPS
    else:
        plan = ROOM_STEPS if recording.name == RECORDED else SOUND_STEPS
    return (*plan[:-1], CHAT_STEP, plan[-1]) if "chat" in roles else plan


class JobCancelled(Exception):
    """Somebody asked to stop."""


@contextmanager
def pulse(installation: Installation, job_id: str) -> Iterator[None]:
    """Gives signs of life while a step is busy; a large model may need minutes for one stretch."""
    ended = Event()

    def beat() -> None:
        while not ended.wait(PULSE):
            with installation.database.write() as session:
                session.execute(update(Job).where(Job.id == job_id).values(beat_at=now()))

    thread = Thread(target=beat, daemon=True)
    thread.start()
    try:
        yield
    finally:
        ended.set()
        thread.join()


@dataclass(slots=True)
class Report:
    """Notes progress of one job and watches for a wish to cancel."""

    installation: Installation
    job_id: str
    begun: float = field(default_factory=time.monotonic)
    first: float = -1.0  # progress at which this run began
    last: float = 0.0

    def __call__(self, step: str, progress: float, force: bool = False) -> None:
        """Raises JobCancelled when a person asked for it."""
        moment = time.monotonic()
        if not force and moment - self.last < BEAT:
            return
        self.last = moment
        if self.first < 0:
            self.first = progress
        gained, spent = progress - self.first, moment - self.begun
        with self.installation.database.write() as session:
            job = session.get(Job, self.job_id)
            if job is None or job.cancel_asked:
                raise JobCancelled()
            job.step, job.progress, job.beat_at = step, max(job.progress, progress), now()
            job.remaining = spent * (1 - progress) / gained if gained > 0.02 else None


def work(installation: Installation, job_id: str) -> None:
    """Claims a job and carries it to an end; does nothing when another worker has it."""
    with installation.database.write() as session:
        job = claim(session, job_id)
        if job is None:
            return
        task = steps.Task(installation, job.meeting_id, job.people)
        plan = plan_of(job, task.recording(session), beside(session, job.meeting_id))
        done = set(job.done_steps)
    log.info("job begins", extra={"job": job_id, "done": sorted(done)})
    try:
        with pulse(installation, job_id):
            _run(installation, job_id, task, plan, done)
    except JobCancelled:
        _end(installation, job_id, "cancelled")
    except Fault as fault:
        _end(installation, job_id, "failed", fault.sentence)
    except Exception:
        log.exception("job failed", extra={"job": job_id})
        sentence = (
            "Something went wrong on our side. The recording is kept; try again, and see the log if it happens twice."
        )
        _end(installation, job_id, "failed", sentence)
    else:
        _end(installation, job_id, "done")


def _run(installation: Installation, job_id: str, task: steps.Task, plan: tuple[Step, ...], done: set[str]) -> None:
    report, base = Report(installation, job_id), 0.0
    for step in plan:
        if step.name not in done:
            report(step.name, base, force=True)
            begun = time.monotonic()
            step.run(task, lambda share, s=step, b=base: report(s.name, b + s.share * share))  # type: ignore[misc]
            _finish_step(installation, job_id, step.name)
            log.info(
                "step done", extra={"job": job_id, "step": step.name, "seconds": round(time.monotonic() - begun, 2)}
            )
        base += step.share


def _finish_step(installation: Installation, job_id: str, name: str) -> None:
    with installation.database.write() as session:
        job = session.get_one(Job, job_id)
        job.done_steps = [*job.done_steps, name]
        if job.cancel_asked:
            raise JobCancelled()


def _end(installation: Installation, job_id: str, state: str, error: str | None = None) -> None:
    with installation.database.write() as session:
        job = session.get(Job, job_id)
        if job is not None:
            job.state, job.error, job.remaining, job.worker, job.cancel_asked = state, error, None, None, False
            job.progress = 1.0 if state == "done" else job.progress
    log.info("job ends", extra={"job": job_id, "state": state})
