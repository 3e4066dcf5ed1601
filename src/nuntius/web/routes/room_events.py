"""What happens in a room, as it happens: server-sent events."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag

from nuntius.store.rooms import get_room
from nuntius.web import schemas as s
from nuntius.web.security import installation, me
from nuntius.web.streams import stream

api = APIBlueprint("room_events", __name__, url_prefix="/api", abp_tags=[Tag(name="rooms")])


@api.get("/meetings/<meeting_id>/room/events", operation_id="getRoomEvents")
def get_room_events(path: s.MeetingPath) -> Response:
    """`speech` (seconds, words being spoken), `lines` (those that changed) and `board` events of a room."""
    with installation().database.read() as db:
        get_room(db, me(), path.meeting_id)
    return stream("rooms", path.meeting_id)
