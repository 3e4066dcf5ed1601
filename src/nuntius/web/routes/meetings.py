"""Meetings: listed, made from an upload, and what needs a person."""

from collections.abc import Sequence
from itertools import islice

from flask import Response, current_app
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy.orm import Session

from nuntius.core.rights import Action
from nuntius.core.times import zone
from nuntius.jobs.queue import Queue
from nuntius.service import arriving, details
from nuntius.store import listing
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.jobs import ask_to_cancel, latest_job, put_away, retry
from nuntius.store.meetings import create_meeting, get_meeting
from nuntius.store.models import Upload
from nuntius.store.transcripts import with_names
from nuntius.store.uploads import get_upload
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.security import installation, me
from nuntius.web.shapes import meeting_out, meetings_out

api = APIBlueprint("meetings", __name__, url_prefix="/api/meetings", abp_tags=[Tag(name="meetings")])


def queue() -> Queue:
    """The queue of this application."""
    return current_app.extensions["nuntius_queue"]  # type: ignore[no-any-return]


@api.get("", operation_id="getMeetings", responses={200: s.MeetingsOut})
def get_meetings(query: s.MeetingsQuery) -> Response:
    """Meetings open to whoever asks, the newest first, fifty at a time; only those that hold all of some words."""
    with installation().database.read() as db:
        return answer(_page(db, listing.archive(db, me(), query.words, query.after)))


@api.get("/today", operation_id="getToday", responses={200: s.TodayOut})
def get_today() -> Response:
    """What is on, what is worked on, and what is to be checked: the newest of each, with how many there are."""
    with installation().database.read() as db:
        lists = (listing.on_now, listing.being_worked_on, listing.not_done, listing.to_check)
        pages = [find(db, me()) for find in lists]
        shown = iter(meetings_out(db, [meeting for page in pages for meeting in page.meetings], me()))
        on, busy, not_done, check = (
            s.MeetingsOut(meetings=list(islice(shown, len(page.meetings))), total=page.total, after=page.following)
            for page in pages
        )
    return answer(s.TodayOut(on=on, busy=busy, not_done=not_done, check=check))


@api.get("/actions", operation_id="getActions", responses={200: s.ActionsOut})
def get_actions(query: s.ActionsQuery) -> Response:
    """Actions of all one's meetings that nobody has ticked yet, the earliest due date first; how many there are."""
    with installation().database.read() as db:
        found, total = listing.open_actions(db, me(), query.most, query.mine)
    return answer(s.ActionsOut(actions=[_action(each) for each in found], total=total))


def _action(found: listing.FoundAction) -> s.OpenAction:
    line, names = found.line, found.names
    return s.OpenAction(
        meeting_id=found.meeting_id,
        meeting=found.title,
        line_id=line.id,
        text=line.person_text or with_names(line.text, names),
        owner=[names.get(owner, owner) for owner in line.owner],
        due=line.due,
        due_said=line.due_said,
    )


def _page(db: Session, page: listing.Page) -> s.MeetingsOut:
    return s.MeetingsOut(meetings=meetings_out(db, page.meetings, me()), total=page.total, after=page.following)


@api.post("", operation_id="createMeeting", responses={200: s.MeetingOut})
def post_meeting(body: s.NewMeeting) -> Response:
    """A meeting for an upload that has begun, and what goes with it; the work starts when all is complete."""
    starts = body.starts_at if body.starts_at.tzinfo else body.starts_at.replace(tzinfo=zone(body.time_zone))
    with installation().database.write() as db:
        upload = get_upload(db, me(), body.upload_id)
        if upload.meeting_id:
            return answer(meeting_out(db, get_meeting(db, me(), upload.meeting_id), me()))
        others = [(get_upload(db, me(), each.upload_id), each.role) for each in body.beside]
        _fit_together(upload, others)
        meeting = create_meeting(
            db, me(), body.title, body.template or body.kind, starts, zone(body.time_zone).key, body.people
        )
        upload.meeting_id, upload.voices = meeting.id, body.voices
        for other, role in others:
            other.meeting_id, other.role = meeting.id, role
        db.flush()
        return answer(meeting_out(db, meeting, me()))


def _fit_together(upload: Upload, others: Sequence[tuple[Upload, str]]) -> None:
    """Raises Conflict for files that cannot be one meeting."""
    if len({other.id for other, _ in others} | {upload.id}) <= len(others):
        raise Conflict("The same file was chosen twice. Choose each file once.")
    if len({role for _, role in others}) < len(others):
        raise Conflict("Of one meeting there can be one recording, one transcript and one chat. Leave the others out.")
    if any(other.meeting_id for other, _ in others):
        raise Conflict("One of these files belongs to another meeting that is being brought in. Leave it out.")


@api.put("/<meeting_id>/details", operation_id="changeDetails", responses={200: s.MeetingOut})
def change_details(path: s.MeetingPath, body: s.MeetingDetails) -> Response:
    """Another title or time; where the day is another one, the minutes are written again, since days are counted from it."""
    with installation().database.write() as db:
        meeting, job = details.change_details(db, me(), path.meeting_id, body.title, body.starts_at)
        out, job_id = meeting_out(db, meeting, me()), job.id if job else None
    if job_id is not None:
        queue().put(job_id)
    return answer(out)


@api.post("/<meeting_id>/begin", operation_id="beginWork", responses={200: s.MeetingOut})
def begin_work(path: s.MeetingPath) -> Response:
    """Says that the files are complete: each is joined, and the work is put into the queue, once."""
    store = installation()
    meeting, job, is_new = arriving.begin_work(store, me(), path.meeting_id)
    if is_new:
        queue().put(job.id)
    with store.database.read() as db:
        return answer(meeting_out(db, get_meeting(db, me(), meeting.id), me()))


@api.post("/<meeting_id>/cancel", operation_id="cancelWork", responses={200: s.MeetingOut})
def cancel(path: s.MeetingPath) -> Response:
    """Stops the work; the recording stays and can be worked on later."""
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), path.meeting_id, Action.RUN)
        job = latest_job(db, meeting.id)
        if job is None:
            raise NotFound()
        ask_to_cancel(db, job)
        return answer(meeting_out(db, meeting, me()))


@api.put("/<meeting_id>/put-away", operation_id="putAway", responses={200: s.MeetingOut})
def put_work_away(path: s.MeetingPath, body: s.PutAway) -> Response:
    """Says that nobody needs to be reminded of work that failed or was stopped, or takes that back."""
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), path.meeting_id, Action.RUN)
        put_away(db, meeting.id, body.put_away)
        return answer(meeting_out(db, meeting, me()))


@api.post("/<meeting_id>/retry", operation_id="retryWork", responses={200: s.MeetingOut})
def try_again(path: s.MeetingPath) -> Response:
    """Goes on with work that failed or was cancelled, from its last finished step."""
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), path.meeting_id, Action.RUN)
        job = latest_job(db, meeting.id)
        if job is None:
            raise NotFound()
        retry(db, job)
        out, job_id = meeting_out(db, meeting, me()), job.id
    queue().put(job_id)
    return answer(out)
