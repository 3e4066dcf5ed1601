"""Progress as it happens: server-sent events about one's meetings."""

import json
import time
from collections.abc import Iterator

from flask import Response, stream_with_context
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy import select

from nuntius.store.meetings import open_to
from nuntius.store.models import Job, Meeting, Recording, User
from nuntius.web.security import SignedIn, installation, my_session, signed_in
from nuntius.web.shapes import job_out

api = APIBlueprint("events", __name__, url_prefix="/api", abp_tags=[Tag(name="events")])

PAUSE = 0.5  # seconds between two looks
SESSION = 5.0  # seconds between two looks whether the session still lasts: a stream ends with it
LONGEST = 240.0  # seconds of one stream; the browser comes back by itself and a lost thread is freed


@api.get("/events", operation_id="getEvents")
def get_events() -> Response:
    """A `job` event whenever work on one of the meetings open to whoever listens has moved on."""
    stream = stream_with_context(_stream(my_session()))
    headers = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}
    return Response(stream, content_type="text/event-stream", headers=headers)


def _stream(who: SignedIn) -> Iterator[str]:
    told: dict[str, str] = {}
    begun = looked = time.monotonic()
    yield "retry: 1500\n\n"
    while time.monotonic() - begun < LONGEST:
        if time.monotonic() - looked > SESSION:
            looked = time.monotonic()
            if signed_in(installation(), who.get_id()) is None:
                return
        moved = [(key, body) for key, body in _jobs(who.user).items() if told.get(key) != body]
        for key, body in moved:
            told[key] = body
            yield f"event: job\ndata: {body}\n\n"
        if not moved:
            yield ": nothing new\n\n"
        time.sleep(PAUSE)


def _jobs(user: User) -> dict[str, str]:
    """The jobs that are still going on or have just ended."""
    with installation().database.read() as db:
        rows = db.execute(
            select(Job, Recording)
            .join(Recording, Recording.meeting_id == Job.meeting_id)
            .where(Job.meeting_id.in_(open_to(user).with_only_columns(Meeting.id)))
            .order_by(Job.updated_at.desc())
            .limit(40)
        ).all()
        return {job.id: json.dumps(job_out(db, job, recording).model_dump(mode="json")) for job, recording in rows}
