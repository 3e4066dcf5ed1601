"""Every failure becomes problem details (RFC 9457) here, and only here."""

import logging

from flask import Flask, Response, make_response, request
from flask_limiter import RateLimitExceeded
from flask_wtf.csrf import CSRFError
from pydantic import ValidationError
from werkzeug.exceptions import HTTPException

from nuntius.core.errors import Fault
from nuntius.store.errors import (
    AccountExists,
    BothHaveAccounts,
    ChangedMeanwhile,
    Conflict,
    ConsentMissing,
    DatabaseBusy,
    HasAccount,
    LastAdministrator,
    LinkSpent,
    MailMissing,
    NameAmbiguous,
    NameTaken,
    NotAllowed,
    NotFound,
    NothingToUndo,
    PartMismatch,
    PartNotWanted,
    RecordedElsewhere,
    SealBroken,
    SpaceUsed,
    StorageFull,
    TooManyExports,
    TooManyStreams,
    TooManyTries,
    UploadIncomplete,
    WrongCode,
    WrongPassword,
)
from nuntius.store.files import is_full
from nuntius.web.schemas import Problem

log = logging.getLogger(__name__)

RETRY_AFTER = "5"  # seconds
A_MINUTE = "60"  # seconds: the span that requests are counted in

STATUS: dict[type[Fault], int] = {
    NotFound: 404,
    Conflict: 409,
    ChangedMeanwhile: 409,
    NothingToUndo: 409,
    AccountExists: 409,
    HasAccount: 409,
    NameTaken: 409,
    NameAmbiguous: 409,
    LastAdministrator: 409,
    BothHaveAccounts: 409,
    MailMissing: 409,
    LinkSpent: 410,
    TooManyStreams: 429,
    TooManyExports: 429,
    TooManyTries: 429,
    WrongCode: 403,
    UploadIncomplete: 409,
    ConsentMissing: 409,
    RecordedElsewhere: 409,
    PartNotWanted: 410,
    PartMismatch: 422,
    NotAllowed: 403,
    WrongPassword: 403,
    DatabaseBusy: 503,
    SealBroken: 503,
    SpaceUsed: 507,
    StorageFull: 507,
}
SENTENCES = {
    401: "Please sign in.",
    403: "This is not open to you.",
    404: NotFound.sentence,
    405: "This address does not take that kind of request.",
    413: "This is larger than what is taken in one piece.",
    415: "This kind of content is not understood here.",
    429: "Too many tries. Wait a minute, then try again.",
    500: "Something went wrong on our side. Nothing was lost; try again.",
}

TITLES = {
    401: "Not signed in",
    403: "Not allowed",
    404: "Not found",
    409: "Does not fit",
    410: "Not kept",
    422: "Not as it should be",
    429: "Too many at once",
    503: "Busy",
    507: "Disk full",
}


def problem(status: int, detail: str, title: str = "", theirs: str | None = None) -> Response:
    """A response with problem details."""
    body = Problem(title=title or _title(status), status=status, detail=detail, theirs=theirs)
    response = make_response(body.model_dump_json(exclude_none=True), status)
    response.content_type = "application/problem+json"
    return response


def invalid(error: ValidationError) -> Response:
    """Problem details for a request that does not fit its schema; names the first field that is wrong."""
    first = error.errors(include_url=False, include_input=False)[0]
    field = ".".join(str(part) for part in first["loc"]) or "request"
    return problem(
        422, f"{field}: {_plain(first['type'], first['msg'], first.get('ctx') or {})}", "Not as it should be"
    )


def _plain(kind: str, message: str, context: dict[str, object]) -> str:
    """A sentence for what validation says."""
    if kind == "string_too_long":
        return f"this is too long; at most {context['max_length']} characters."
    if kind == "string_too_short":
        return f"this is too short; at least {context['min_length']} characters."
    if kind == "missing":
        return "this is missing."
    return message[0].lower() + message[1:] + "."


def _title(status: int) -> str:
    return TITLES.get(status, "Could not be done")


def install(app: Flask) -> None:
    """Registers the handlers."""

    @app.errorhandler(Fault)
    def _fault(fault: Fault) -> Response:
        theirs = fault.theirs if isinstance(fault, ChangedMeanwhile) else None
        response = problem(STATUS.get(type(fault), 422), fault.sentence, theirs=theirs)
        if response.status_code == 503:
            response.headers["Retry-After"] = RETRY_AFTER
        if isinstance(fault, TooManyTries):
            response.headers["Retry-After"] = str(fault.seconds)
        return response

    @app.errorhandler(OSError)
    def _disk(error: OSError) -> Response:
        return _fault(StorageFull()) if is_full(error) else _unforeseen(error)

    @app.errorhandler(RecursionError)
    def _nested(_: RecursionError) -> Response:
        return problem(422, "This request is nested too deeply to be read.")

    @app.errorhandler(RateLimitExceeded)
    def _limited(_: RateLimitExceeded) -> Response:
        response = problem(429, SENTENCES[429])
        response.headers["Retry-After"] = A_MINUTE
        return response

    @app.errorhandler(CSRFError)
    def _forged(_: CSRFError) -> Response:
        return problem(400, "This page is too old to be used. Load it again, then repeat what you did.", "Page too old")

    @app.errorhandler(HTTPException)
    def _http(error: HTTPException) -> Response:
        status = error.code or 500
        return problem(status, SENTENCES.get(status, error.description or "This request could not be carried out."))

    @app.errorhandler(Exception)
    def _unforeseen(_: Exception) -> Response:
        log.exception("request failed", extra={"path": request.path})
        return problem(500, SENTENCES[500])
