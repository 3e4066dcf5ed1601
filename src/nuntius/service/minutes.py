"""Minutes made again: asked for by a person, written by the worker, a person's changes kept."""

import logging

from sqlalchemy.orm import Session

from nuntius.core.errors import TranscriptEmpty
from nuntius.core.jobs import JobKind
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.choices import UNCHANGED, MinutesChoices
from nuntius.core.minutes.line import MinutesSource
from nuntius.core.rights import Action
from nuntius.store.installation import Installation
from nuntius.store.jobs import create_job, waiting_minutes
from nuntius.store.meetings import get_meeting
from nuntius.store.minutes import get_minutes, save_minutes
from nuntius.store.models import Job, Meeting, User
from nuntius.store.notes import facts_of
from nuntius.store.templates import choose, template_of
from nuntius.store.transcripts import has_transcript, load_transcript, transcript_mark

log = logging.getLogger(__name__)


def order_minutes(
    session: Session, user: User, meeting_id: str, template: str | None, choices: MinutesChoices
) -> tuple[Meeting, Job]:
    """Asks for minutes of the transcript as it stands; a job of theirs that still waits is changed instead.

    Raises NotFound, TranscriptEmpty.
    """
    meeting = get_meeting(session, user, meeting_id, Action.EDIT)
    if not has_transcript(session, meeting_id):
        raise TranscriptEmpty()
    if template is not None:
        choose(session, meeting, template)
    job = waiting_minutes(session, meeting_id) or create_job(session, meeting_id, None, JobKind.MINUTES)
    job.choices = MinutesChoices.read(job.choices).then(choices).packed()
    return meeting, job


def regenerate(
    installation: Installation,
    meeting_id: str,
    choices: MinutesChoices = UNCHANGED,
    source: MinutesSource | None = None,
) -> None:
    """Minutes of the transcript as it stands, by the meeting's template, a person's changes kept.

    What is not chosen stays as it was, `source` too; other chapters have other numbers, so that none is in more detail
    where their length changes. Raises TranscriptEmpty.
    """
    while not _written(installation, meeting_id, choices, source):
        log.info("minutes of another transcript by now", extra={"meeting": meeting_id})


def _written(
    installation: Installation, meeting_id: str, choices: MinutesChoices, source: MinutesSource | None
) -> bool:
    """Whether minutes were written: not where the transcript has been replaced meanwhile."""
    with installation.database.read() as session:
        transcript, mark = load_transcript(session, meeting_id), transcript_mark(session, meeting_id)
        meeting, old = session.get_one(Meeting, meeting_id), get_minutes(session, meeting_id)
        facts, template = facts_of(session, meeting), template_of(session, meeting).template
        length = choices.length or (old.length if old else template.length)
        source = source or (old.source if old else MinutesSource.SETTLED)
        same = choices.fine is None or (old is not None and old.fine == choices.fine)
        fine = bool(old and old.fine) if choices.fine is None else choices.fine
        before = frozenset(old.detailed if old and same else ())
        detailed = before if choices.detailed is None else choices.detailed
    if not transcript.word_count:
        raise TranscriptEmpty()
    minutes = make_minutes(transcript, facts, length, template, detailed, fine)
    with installation.database.write() as session:
        if transcript_mark(session, meeting_id) != mark:
            return False
        save_minutes(session, meeting_id, transcript, minutes, template, source)
    return True
