"""What is kept of a record beside its words: its history, and its voices found again."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag

from nuntius.core.jobs import GOING_ON, JobKind
from nuntius.core.rights import Action
from nuntius.store import changes
from nuntius.store.errors import Conflict
from nuntius.store.history import history_of
from nuntius.store.jobs import create_job, latest_job
from nuntius.store.meetings import get_meeting
from nuntius.store.models import Recording
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.changing import changed
from nuntius.web.keeping_schemas import HistoryEntryOut, HistoryOut, People
from nuntius.web.line_schemas import ChangePath
from nuntius.web.record_schemas import ChangedOut
from nuntius.web.routes.meetings import queue
from nuntius.web.security import installation, me
from nuntius.web.shapes import meeting_out, recording_of

api = APIBlueprint("keeping", __name__, url_prefix="/api/meetings/<meeting_id>", abp_tags=[Tag(name="records")])


@api.get("/history", operation_id="getHistory", responses={200: HistoryOut})
def get_history(path: s.MeetingPath) -> Response:
    """What people changed, the newest first."""
    with installation().database.read() as db:
        entries = history_of(db, get_meeting(db, me(), path.meeting_id))
    return answer(
        HistoryOut(changes=[HistoryEntryOut(**{f: getattr(each, f) for f in each.__slots__}) for each in entries])
    )


@api.post("/history/<int:change_id>/take-back", operation_id="takeBack", responses={200: ChangedOut})
def take_back(path: ChangePath) -> Response:
    """Puts back what stood before one change, whoever made it."""
    return changed(path.meeting_id, lambda db, m: changes.take_back(db, me(), m, path.change_id))


@api.post("/voices/again", operation_id="diarizeAgain", responses={200: s.MeetingOut})
def diarize_again(path: s.MeetingPath, body: People) -> Response:
    """Diarizes the recording again, for a number of people; only whoever runs the meeting may."""
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), path.meeting_id, Action.RUN)
        recording, job = recording_of(db, meeting), latest_job(db, meeting.id)
        _is_ready(recording, job.state if job else "")
        fresh = create_job(db, meeting.id, body.people, JobKind.VOICES)
        out, job_id = meeting_out(db, meeting, me()), fresh.id
    queue().put(job_id)
    return answer(out)


def _is_ready(recording: Recording | None, state: str) -> None:
    if recording is None or recording.working_digest is None:
        raise Conflict("This record has no sound in which voices could be found again. Give turns to others by hand.")
    if state in GOING_ON:
        raise Conflict("Wait until the work on the recording is done; then its voices can be found again.")
