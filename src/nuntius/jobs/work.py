"""Working on a job: its steps in order, from the last one that was finished."""

import logging
import time
from collections.abc import Callable, Collection
from dataclasses import dataclass, field

from sqlalchemy.orm import Session

from nuntius.core.errors import Fault
from nuntius.core.jobs import JobKind, JobState
from nuntius.core.minutes.choices import MinutesChoices
from nuntius.jobs import steps, together, voices
from nuntius.jobs.leases import end, pulse
from nuntius.service.arriving import join_files
from nuntius.store.capture import RECORDED
from nuntius.store.errors import DatabaseBusy
from nuntius.store.installation import Installation
from nuntius.store.leases import claim, held
from nuntius.store.models import Job, Recording, now
from nuntius.store.uploads import beside, unjoined

log = logging.getLogger(__name__)

BEAT = 0.5  # seconds between two notes of progress


@dataclass(frozen=True, slots=True)
class Step:
    """A step, its words on the screen, and its share of the whole time (measured, 2 cores)."""

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
VOICE_STEPS = (Step("voices", voices.diarize_again, 0.95), Step("minutes", steps.write_minutes, 0.05))
MINUTES_STEPS = (Step("minutes", steps.remake_minutes, 1.0),)
BUNDLE_STEPS = (Step("unpack", together.unpack_bundle, 0.3), Step("sound", together.prepare_kept, 0.7))
CAPTION_STEPS = (
    Step("sound", steps.prepare_sound, 0.2),
    Step("captions", together.read_captions, 0.6),
    Step("minutes", steps.write_minutes, 0.2),
)
OTHER_STEPS = {
    JobKind.CUT: CUT_STEPS,
    JobKind.BUNDLE: BUNDLE_STEPS,
    JobKind.VOICES: VOICE_STEPS,
    JobKind.MINUTES: MINUTES_STEPS,
}
CHAT_STEP = Step("chat", together.read_chat_lines, 0.0)


def plan_of(job: Job, recording: Recording, roles: Collection[str] = ()) -> tuple[Step, ...]:
    """The steps that a recording needs: a transcript is read, one recorded here is gathered first.

    `roles` are those of the files that came with it: a transcript spares the recogniser, a chat is read, too.
    """
    if job.kind != JobKind.WORK:
        return OTHER_STEPS[JobKind(job.kind)]
    if recording.is_text:
        plan: tuple[Step, ...] = TEXT_STEPS
    elif "transcript" in roles:
        plan = CAPTION_STEPS
    else:
        plan = ROOM_STEPS if recording.name == RECORDED else SOUND_STEPS
    return (*plan[:-1], CHAT_STEP, plan[-1]) if "chat" in roles else plan


class JobCancelled(Exception):
    """Somebody asked to stop."""


class JobLost(Exception):
    """The job is not this worker's any more: cancelled while it seemed dead, removed, or taken over."""


@dataclass(slots=True)
class Report:
    """Writes down the progress of one job and watches for a wish to cancel."""

    installation: Installation
    job_id: str
    holder: str
    begun: float = field(default_factory=time.monotonic)
    first: float = -1.0  # progress at which this run began
    last: float = 0.0

    def __call__(self, step: str, progress: float, force: bool = False) -> None:
        """Raises JobCancelled when a person asked for it, JobLost when it is another's."""
        moment = time.monotonic()
        if not force and moment - self.last < BEAT:
            return
        self.last = moment
        if self.first < 0:
            self.first = progress
        gained, spent = progress - self.first, moment - self.begun
        try:
            with self.installation.database.write() as session:
                job = _still_held(session, self.job_id, self.holder)
                job.step, job.progress, job.beat_at = step, max(job.progress, progress), now()
                job.remaining = spent * (1 - progress) / gained if gained > 0.02 else None
        except DatabaseBusy:  # the figure is written the next time
            log.warning("progress not written", extra={"job": self.job_id})


def _still_held(session: Session, job_id: str, holder: str) -> Job:
    job = held(session, Job, job_id, holder)
    if job is None:
        raise JobLost()
    if job.cancel_asked:
        raise JobCancelled()
    return job


def work(installation: Installation, job_id: str) -> None:
    """Claims a job and carries it to an end; does nothing when another worker has it."""
    with installation.database.write() as session:
        job = claim(session, Job, job_id)
        if job is None or job.worker is None:
            return
        holder = job.worker
        task = steps.Task(installation, job.meeting_id, job.people, MinutesChoices.read(job.choices))
        done, in_parts = set(job.done_steps), bool(unjoined(session, job.meeting_id))
    log.info("job begins", extra={"job": job_id, "done": sorted(done)})
    report = Report(installation, job_id, holder)
    try:
        with pulse(installation, Job, job_id, holder):
            if in_parts:
                report("join", 0.0, force=True)
                join_files(installation, job_id)
            _run(report, task, _plan(installation, job_id, task), done)
    except JobLost:
        log.info("job lost", extra={"job": job_id})
    except JobCancelled:
        _end(installation, job_id, holder, JobState.CANCELLED)
    except Fault as fault:
        _end(installation, job_id, holder, JobState.FAILED, fault.sentence)
    except Exception:
        log.exception("job failed", extra={"job": job_id})
        sentence = (
            "Something went wrong on our side. The recording is kept; try again, and see the log if it happens twice."
        )
        _end(installation, job_id, holder, JobState.FAILED, sentence)
    else:
        _end(installation, job_id, holder, JobState.DONE)


def _plan(installation: Installation, job_id: str, task: steps.Task) -> tuple[Step, ...]:
    with installation.database.read() as session:
        job = session.get(Job, job_id)
        if job is None:
            raise JobLost()
        return plan_of(job, task.recording(session), beside(session, job.meeting_id))


def _run(report: Report, task: steps.Task, plan: tuple[Step, ...], done: set[str]) -> None:
    base = 0.0
    for step in plan:
        if step.name not in done:
            report(step.name, base, force=True)
            begun = time.monotonic()
            step.run(task, lambda share, s=step, b=base: report(s.name, b + s.share * share))  # type: ignore[misc]
            _finish_step(report, step.name)
            seconds = round(time.monotonic() - begun, 2)
            log.info("step done", extra={"job": report.job_id, "step": step.name, "seconds": seconds})
        base += step.share


def _finish_step(report: Report, name: str) -> None:
    with report.installation.database.write() as session:
        job = held(session, Job, report.job_id, report.holder)
        if job is None:
            raise JobLost()
        job.done_steps = [*job.done_steps, name]
        cancel_asked = job.cancel_asked
    if cancel_asked:
        raise JobCancelled()


def _end(installation: Installation, job_id: str, holder: str, state: JobState, error: str | None = None) -> None:
    values = {"progress": 1.0} if state == JobState.DONE else {}
    end(installation, Job, job_id, holder, state, error=error, remaining=None, cancel_asked=False, **values)
