"""Health, and the pages of the application itself."""

from collections.abc import Callable

from flask import Blueprint, Response, send_from_directory
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy import text
from sqlalchemy.exc import SQLAlchemyError
from werkzeug.exceptions import NotFound
from werkzeug.security import safe_join

from nuntius import __version__
from nuntius.core.errors import Fault
from nuntius.store import heartbeats
from nuntius.store.files import free_space
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.routes.meetings import queue
from nuntius.web.security import installation
from nuntius.web.static_files import STATIC

api = APIBlueprint("system", __name__, url_prefix="/api", abp_tags=[Tag(name="system")])
pages = Blueprint("pages", __name__)


@api.get("/health", operation_id="getHealth", responses={200: s.Health, 503: s.Health})
def health() -> Response:
    """What works and what does not; 503 where the server itself cannot do its part (database, disk)."""
    faults = [name for name, check in CHECKS.items() if not check()] + _missing()
    faults += [] if queue().answers() else ["queue"]
    status = "down" if set(faults) & set(CHECKS) else "degraded" if faults else "ok"
    found = [{"name": name, "detail": SENTENCES[name]} for name in faults]
    body = s.Health.model_validate({"status": status, "version": __version__, "faults": found})
    return answer(body, 503 if status == "down" else 200)


def _database() -> bool:
    try:
        with installation().database.read() as db:
            db.execute(text("select 1"))
    except (Fault, SQLAlchemyError):
        return False
    return True


def _disk() -> bool:
    return free_space(installation().settings.data) > 0


def _missing() -> list[str]:
    try:
        with installation().database.read() as db:
            return heartbeats.missing(db)
    except (Fault, SQLAlchemyError):
        return []


CHECKS: dict[str, Callable[[], bool]] = {"database": _database, "disk": _disk}
SENTENCES = {
    "database": "The database does not answer.",
    "disk": "The disk is full: nothing new can be kept. Make room.",
    "queue": "The queue does not answer: new work waits until it does.",
    "worker": "No worker is running: recordings that are brought in wait. Start `nuntius worker`.",
    "listener": "No listener is running: meetings are recorded, but nothing is written down live. Start `nuntius listen`.",
}


@pages.get("/", defaults={"name": "index.html"})
@pages.get("/<path:name>")
def page(name: str) -> Response:
    """A built file, or the application's one page for every other address that is not the API's."""
    if name.startswith("api/"):
        raise NotFound()
    path = safe_join(str(STATIC), name)
    found = path is not None and (STATIC / name).is_file()
    response = send_from_directory(STATIC, name if found else "index.html")
    hashed = found and name.startswith("assets/")
    response.headers["Cache-Control"] = "public, max-age=31536000, immutable" if hashed else "no-cache"
    return response
