"""Sound arriving in a room."""

from urllib.parse import urlsplit

from flask import Response, request
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy.orm import Session
from werkzeug.exceptions import RequestEntityTooLarge

from nuntius.core.rights import Action
from nuntius.core.rooms import ENDING, CallState, RoomState
from nuntius.store import capture
from nuntius.store.errors import Conflict
from nuntius.store.live import live_rows
from nuntius.store.models import Job, Room
from nuntius.store.rooms import get_room, touch
from nuntius.web import room_schemas as r
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.room_shapes import board_out
from nuntius.web.routes.meetings import queue
from nuntius.web.security import installation, me

api = APIBlueprint("capture", __name__, url_prefix="/api/meetings/<meeting_id>/room", abp_tags=[Tag(name="capture")])

NO_LINK = "This is no link of a call. It is like wss://calls.example/room, without a name or password in it."


@api.post("/runs", operation_id="beginRun", responses={200: r.RunOut})
def begin_run(path: s.MeetingPath, body: r.NewRun) -> Response:
    """Begins to record, or goes on after a pause or a break."""
    with installation().database.write() as db:
        action = Action.RUN if body.take_over else Action.RECORD
        meeting, room = get_room(db, me(), path.meeting_id, action)
        run = capture.begin_run(db, me(), meeting, room, body.recorder, body.source, body.take_over, body.all_sent)
        return answer(r.RunOut(number=run.number, held=run.parts))


@api.put("/runs/<int:run>/parts/<int:part>", operation_id="putSound", responses={200: r.PartAck})
def put_sound(path: r.SoundPartPath) -> Response:
    """A part as raw 16-bit mono samples at 16 kHz.

    Headers: `X-Part-SHA256`, `X-Recorder`, on the first part `X-Begun`, the recorder's clock in seconds since 1970,
    and `X-Earliest`, the lowest part of this run that the recorder can still send: what is missing below it is marked
    as a gap. The same part again is fine. `held` says how many parts are here without one missing.
    """
    if (request.content_length or 0) > capture.LARGEST:
        raise RequestEntityTooLarge()
    head = request.headers
    earliest = head.get("X-Earliest", "0")
    part = capture.Arrival(
        path.part,
        request.get_data(cache=False),
        head.get("X-Part-SHA256", ""),
        _seconds(head.get("X-Begun")),
        min(path.part, int(earliest)) if earliest.isdecimal() and len(earliest) < 10 else 0,
    )
    store = installation()
    with store.database.read() as db:
        _, room = get_room(db, me(), path.meeting_id, Action.RECORD)
        run = capture.running(db, room, path.run, head.get("X-Recorder", ""))
        is_new = capture.check_part(db, run, part)
    if is_new:
        store.files.write_part(capture.folder(run), part.number, part.data)
    if is_new or run.parts < part.earliest:
        with store.database.write() as db:
            _, room = get_room(db, me(), path.meeting_id, Action.RECORD)
            run = capture.running(db, room, path.run, head.get("X-Recorder", ""))
            job = capture.note_part(db, room, run, part)
            job_id = job.id if job else None
        _put(job_id)
    return answer(r.PartAck(held=run.parts, state=room.state))


@api.post("/runs/<int:run>/pause", operation_id="pauseRun", responses={200: r.Board})
def pause(path: r.RunPath, body: r.RunEnd) -> Response:
    """Pauses: nothing behind the last part named is kept."""
    with installation().database.write() as db:
        meeting, room = get_room(db, me(), path.meeting_id, Action.RECORD)
        run = capture.running(db, room, path.run, body.recorder)
        capture.pause(db, me(), room, run, body.parts)
        return answer(board_out(db, meeting, room, me(), live_rows(db, meeting.id)))


@api.post("/runs/<int:run>/stop", operation_id="stopRun", responses={200: r.Board})
def stop(path: r.RunPath, body: r.RunEnd) -> Response:
    """Ends the recording, at once or when the parts still on their way have come."""
    with installation().database.write() as db:
        _, room = get_room(db, me(), path.meeting_id, Action.RECORD)
        run = capture.running(db, room, path.run, body.recorder)
        job = capture.stop(db, room, run, body.parts, body.all_sent)
        return _ended(db, path.meeting_id, room, job)


@api.post("/finish", operation_id="finishRoom", responses={200: r.Board})
def finish(path: s.MeetingPath) -> Response:
    """Ends the recording with the sound that is here: for when the page that recorded does not come back."""
    with installation().database.write() as db:
        _, room = get_room(db, me(), path.meeting_id, Action.RUN)
        job = capture.finish(db, room) if room.state != RoomState.STOPPED else None
        return _ended(db, path.meeting_id, room, job)


@api.post("/line", operation_id="joinCall", responses={200: r.Board})
def join_call(path: s.MeetingPath, body: r.CallLink) -> Response:
    """Sends a listening line into a call; it announces itself there."""
    host = _host(body.link)
    with installation().database.write() as db:
        meeting, room = get_room(db, me(), path.meeting_id, Action.RUN)
        if host not in installation().settings.call_hosts:
            raise Conflict(
                f"A listening line may not call {host}. Whoever runs this machine can allow it (NUNTIUS_CALL_HOSTS)."
            )
        if room.state in ENDING:
            raise Conflict("This recording has ended. Start a new meeting to record again.")
        room.line_link, room.line_state = body.link, CallState.CALLING
        touch(room)
        return answer(board_out(db, meeting, room, me(), live_rows(db, meeting.id)))


@api.delete("/line", operation_id="leaveCall", responses={200: r.Board})
def leave_call(path: s.MeetingPath) -> Response:
    """Dismisses the listening line; it can be called back."""
    with installation().database.write() as db:
        meeting, room = get_room(db, me(), path.meeting_id, Action.RUN)
        if room.line_state:
            room.line_state = CallState.DISMISSED
        touch(room)
        return answer(board_out(db, meeting, room, me(), live_rows(db, meeting.id)))


def _ended(db: Session, meeting_id: str, room: Room, job: Job | None) -> Response:
    db.flush()
    meeting, room = get_room(db, me(), meeting_id)
    response = answer(board_out(db, meeting, room, me(), live_rows(db, meeting.id)))
    db.commit()
    _put(job.id if job else None)
    return response


def _put(job_id: str | None) -> None:
    if job_id is not None:
        queue().put(job_id)


def _host(link: str) -> str:
    """The host of a call's link. Raises Conflict for one that is no address, or has a name and password in it."""
    try:
        parts = urlsplit(link)
        port_is_fine = parts.port is None or parts.port > 0
    except ValueError as cause:
        raise Conflict(NO_LINK) from cause
    if not parts.hostname or not port_is_fine or parts.username is not None or parts.password is not None:
        raise Conflict(NO_LINK)
    return parts.hostname


def _seconds(text: str | None) -> float | None:
    try:
        seconds = float(text) if text else None
    except ValueError:
        return None
    return seconds if seconds is not None and 0 <= seconds < 1e11 else None
