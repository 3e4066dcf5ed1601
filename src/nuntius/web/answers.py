"""Answers of the API."""

from pathlib import Path

from flask import Response, g, make_response, send_file
from pydantic import BaseModel


def answer(body: BaseModel, status: int = 200) -> Response:
    """JSON of a schema, never kept by caches."""
    g.private = True
    response = make_response(body.model_dump_json(warnings=False), status)
    response.content_type = "application/json"
    return response


def made_file(path: Path, kind: str, name: str) -> Response:
    """A file that was made for this answer, to be saved. It may lose its name at once, and goes when it has been sent."""
    response = send_file(path.open("rb"), kind, as_attachment=True, download_name=name)
    response.headers["Cache-Control"] = "no-store"
    return response
