"""Progress as it happens: server-sent events about one's meetings."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag

from nuntius.web.streams import stream

api = APIBlueprint("events", __name__, url_prefix="/api", abp_tags=[Tag(name="events")])


@api.get("/events", operation_id="getEvents")
def get_events() -> Response:
    """A `job` event whenever work on one of the meetings open to whoever listens has moved on."""
    return stream("jobs")
