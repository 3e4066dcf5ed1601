"""Meetings: listed, made from an upload, and what needs a person."""

from collections.abc import Sequence

from flask import Response, current_app
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.rights import Action
from nuntius.core.times import zone
from nuntius.jobs.queue import Queue
from nuntius.service import arriving
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.jobs import ask_to_cancel, latest_job, retry
from nuntius.store.meetings import create_meeting, get_meeting, meetings_of
from nuntius.store.models import LineRow, Meeting, MinutesRow, Upload
from nuntius.store.transcripts import names_of
from nuntius.store.uploads import get_upload
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.security import installation, me
from nuntius.web.shapes import line_out, meeting_out

api = APIBlueprint("meetings", __name__, url_prefix="/api/meetings", abp_tags=[Tag(name="meetings")])


def queue() -> Queue:
    """The queue of this application."""
    return current_app.extensions["nuntius_queue"]  # type: ignore[no-any-return]


@api.get("", operation_id="getMeetings", responses={200: s.MeetingsOut})
def get_meetings() -> Response:
    """All meetings open to whoever asks, the newest first."""
    with installation().database.read() as db:
        return answer(s.MeetingsOut(meetings=[meeting_out(db, meeting) for meeting in meetings_of(db, me())]))


@api.get("/actions", operation_id="getActions", responses={200: s.ActionsOut})
def get_actions() -> Response:
    """Actions of all one's meetings that nobody has ticked yet, the earliest due date first."""
    with installation().database.read() as db:
        found = [action for meeting in meetings_of(db, me()) for action in _actions(db, meeting)]
    return answer(s.ActionsOut(actions=sorted(found, key=lambda a: (a.due is None, str(a.due)))))


def _actions(db: Session, meeting: Meeting) -> list[s.OpenAction]:
    names = names_of(db, meeting.id)
    query = select(LineRow).join(MinutesRow, MinutesRow.id == LineRow.minutes_id)
    rows = db.scalars(
        query.where(
            MinutesRow.meeting_id == meeting.id,
            LineRow.kind == "action",
            LineRow.checked_by.is_(None),
            LineRow.thrown_out.is_(None),
            LineRow.state != "superseded",
        )
    )
    return [
        s.OpenAction(
            meeting_id=meeting.id,
            meeting=meeting.title,
            line_id=row.id,
            text=line.text,
            owner=line.owner,
            due=line.due,
            due_said=line.due_said,
        )
        for row in rows
        for line in [line_out(row, names)]
    ]


@api.post("", operation_id="createMeeting", responses={200: s.MeetingOut})
def post_meeting(body: s.NewMeeting) -> Response:
    """A meeting for an upload that has begun, and what goes with it; the work starts when all is complete."""
    starts = body.starts_at if body.starts_at.tzinfo else body.starts_at.replace(tzinfo=zone(body.time_zone))
    with installation().database.write() as db:
        upload = get_upload(db, me(), body.upload_id)
        if upload.meeting_id:
            return answer(meeting_out(db, get_meeting(db, me(), upload.meeting_id)))
        others = [(get_upload(db, me(), each.upload_id), each.role) for each in body.beside]
        _fit_together(upload, others)
        meeting = create_meeting(
            db, me(), body.title, body.template or body.kind, starts, zone(body.time_zone).key, body.people
        )
        upload.meeting_id, upload.voices = meeting.id, body.voices
        for other, role in others:
            other.meeting_id, other.role = meeting.id, role
        db.flush()
        return answer(meeting_out(db, meeting))


def _fit_together(upload: Upload, others: Sequence[tuple[Upload, str]]) -> None:
    """Raises Conflict for files that cannot be one meeting."""
    if len({other.id for other, _ in others} | {upload.id}) <= len(others):
        raise Conflict("The same file was chosen twice. Choose each file once.")
    if len({role for _, role in others}) < len(others):
        raise Conflict("Of one meeting there can be one recording, one transcript and one chat. Leave the others out.")
    if any(other.meeting_id for other, _ in others):
        raise Conflict("One of these files belongs to another meeting that is being brought in. Leave it out.")


@api.post("/<meeting_id>/begin", operation_id="beginWork", responses={200: s.MeetingOut})
def begin_work(path: s.MeetingPath) -> Response:
    """Says that the files are complete: each is joined, and the work is put into the queue, once."""
    store = installation()
    meeting, job, is_new = arriving.begin_work(store, me(), path.meeting_id)
    if is_new:
        queue().put(job.id)
    with store.database.read() as db:
        return answer(meeting_out(db, get_meeting(db, me(), meeting.id)))


@api.post("/<meeting_id>/cancel", operation_id="cancelWork", responses={200: s.MeetingOut})
def cancel(path: s.MeetingPath) -> Response:
    """Stops the work; the recording stays and can be worked on later."""
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), path.meeting_id, Action.RUN)
        job = latest_job(db, meeting.id)
        if job is None:
            raise NotFound()
        ask_to_cancel(db, job)
        return answer(meeting_out(db, meeting))


@api.post("/<meeting_id>/retry", operation_id="retryWork", responses={200: s.MeetingOut})
def try_again(path: s.MeetingPath) -> Response:
    """Goes on with work that failed or was cancelled, from its last finished step."""
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), path.meeting_id, Action.RUN)
        job = latest_job(db, meeting.id)
        if job is None:
            raise NotFound()
        retry(db, job)
        out, job_id = meeting_out(db, meeting), job.id
    queue().put(job_id)
    return answer(out)
