"""Health, and the pages of the application itself."""

from flask import Blueprint, Response, send_from_directory
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy import text
from werkzeug.exceptions import NotFound
from werkzeug.security import safe_join

from nuntius import __version__
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.security import installation
from nuntius.web.static_files import STATIC

api = APIBlueprint("system", __name__, url_prefix="/api", abp_tags=[Tag(name="system")])
pages = Blueprint("pages", __name__)


@api.get("/health", operation_id="getHealth", responses={200: s.Health})
def health() -> Response:
    """Whether the server and its database answer."""
    with installation().database.read() as db:
        db.execute(text("select 1"))
    return answer(s.Health(status="ok", version=__version__))


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
