"""The application: everything is put together here."""

from typing import Any

from flask_compress import Compress
from flask_openapi3 import Info, OpenAPI
from werkzeug.routing import IntegerConverter, Map

from nuntius import __version__
from nuntius.jobs.queue import Queue
from nuntius.settings import Settings
from nuntius.store.installation import Installation
from nuntius.web import problems, security
from nuntius.web.job_feed import JobFeed
from nuntius.web.room_feed import RoomFeed
from nuntius.web.routes import (
    account,
    activities,
    attendance,
    capture,
    compilations,
    events,
    excerpts,
    exports,
    keeping,
    lines,
    links,
    meetings,
    notes,
    people,
    records,
    room_events,
    rooms,
    session,
    setup,
    system,
    templates,
    uploads,
    uses,
)
from nuntius.web.schemas import Problem
from nuntius.web.streams import Hub

BODY = 8 * 1024 * 1024  # bytes of one request; files come in smaller parts


class BoundedInteger(IntegerConverter):
    """Numbers in addresses: none is larger than what the database's own numbers can be, so a larger one is not found."""

    def __init__(self, url_map: Map) -> None:
        super().__init__(url_map, max=2**31 - 1)


def create_app(settings: Settings, queue: Queue | None = None) -> OpenAPI:
    """A server for the installation that the settings name."""
    store = Installation(settings)
    app = OpenAPI(
        __name__,
        info=Info(title="Nuntius", version=__version__),
        doc_ui=False,
        static_folder=None,
        validation_error_status=422,
        validation_error_model=Problem,
        validation_error_callback=problems.invalid,
    )
    app.url_map.converters["int"] = BoundedInteger
    app.config.update(
        SECRET_KEY=store.secret,
        MAX_CONTENT_LENGTH=BODY,
        SESSION_COOKIE_NAME="__Host-nuntius" if settings.secure_cookies else "nuntius",  # RFC 6265bis, 4.1.3.2
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_SECURE=settings.secure_cookies,
        WTF_CSRF_TIME_LIMIT=None,
        WTF_CSRF_HEADERS=["X-CSRF-Token"],
        WTF_CSRF_SSL_STRICT=False,
        COMPRESS_MIMETYPES=["application/json", "text/html", "text/css", "text/javascript", "application/javascript"],
        COMPRESS_STREAMS=False,
    )
    app.extensions["nuntius"] = store
    app.extensions["nuntius_hub"] = Hub(store, {"jobs": JobFeed(), "rooms": RoomFeed()})
    app.extensions["nuntius_queue"] = queue or Queue(store)
    security.install(app, settings)
    problems.install(app)
    Compress(app)
    for routes in (
        session,
        links,
        account,
        people,
        activities,
        templates,
        setup,
        uploads,
        meetings,
        notes,
        attendance,
        records,
        uses,
        excerpts,
        compilations,
        exports,
        keeping,
        lines,
        events,
        rooms,
        capture,
        room_events,
        system,
    ):
        app.register_api(routes.api)
    app.register_blueprint(system.pages)
    return app


def openapi_document(app: OpenAPI) -> dict[str, Any]:
    """The OpenAPI file that the front end's types are made from."""
    document: dict[str, Any] = app.api_doc
    return document
