"""Answers of the API."""

from flask import Response, g, make_response
from pydantic import BaseModel


def answer(body: BaseModel, status: int = 200) -> Response:
    """JSON of a schema, never kept by caches."""
    g.private = True
    response = make_response(body.model_dump_json(warnings=False), status)
    response.content_type = "application/json"
    return response
