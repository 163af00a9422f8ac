"""From errors to answers: ``application/problem+json`` (RFC 9457) with a sentence for people."""

import logging

from flask import Response
from flask_openapi3 import OpenAPI
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from dotstack.core.errors import (
    ArrangementError,
    CommandError,
    CoreError,
    FormatError,
    GeometryError,
    LimitError,
    UnknownNodeError,
)
from dotstack.shared import NoSharedShelfError, SharedShelfError
from dotstack.store import GoneError, StaleRevisionError, StoreError
from dotstack.store.errors import (
    BusyError,
    DiskError,
    NothingToUndoError,
    UnreachableError,
    UnwritableError,
)


class StoppedError(Exception):
    """What takes more than is to be had, and was stopped."""


# The most specific class that an error is of decides.
STATUS: dict[type[Exception], int] = {
    ArrangementError: 422,
    CommandError: 422,
    FormatError: 422,
    GeometryError: 422,
    LimitError: 422,
    UnknownNodeError: 404,
    GoneError: 404,
    NothingToUndoError: 409,
    StaleRevisionError: 409,
    UnwritableError: 422,
    BusyError: 503,
    UnreachableError: 503,
    DiskError: 507,
    NoSharedShelfError: 404,
    SharedShelfError: 502,
    StoppedError: 422,
}

# What is left of what was stopped, and what to do.
SIMPLER = "Nothing was changed; do it with fewer shapes at once, or simpler ones."
# RFC 9457, section 3.
MEDIA = "application/problem+json"
_TITLES = {
    404: "Not there",
    409: "Out of date",
    422: "Not possible",
    502: "Not shared",
    503: "Busy",
    507: "Not written",
}
# Of what is wrong with a request, how much is listed, and how much of that said in words.
_MOST_FAULTS, _FAULTS_SAID = 50, 5
# After how many seconds a busy server is asked again.
_RETRY_AFTER = "1"


class Fault(BaseModel):
    """One thing wrong with a request, and where."""

    where: str
    what: str


class Problem(BaseModel):
    """What happened, and what to do.

    Attributes:
        faults: what is wrong with a broken request, up to 50 things.
        current: the newest revision, where the request was made on an older one.

    """

    title: str
    status: int
    detail: str
    faults: list[Fault] = []
    current: int | None = None


def register(app: OpenAPI) -> None:
    """Makes every error an answer; what nobody expected is logged, never shown."""
    app.register_error_handler(CoreError, _known)
    app.register_error_handler(StoreError, _known)
    app.register_error_handler(SharedShelfError, _known)
    app.register_error_handler(StoppedError, _known)
    app.register_error_handler(MemoryError, _out_of_memory)
    app.register_error_handler(RecursionError, _too_deep)
    # What a request comes to can be no document: it leads too far, for instance.
    app.register_error_handler(ValidationError, invalid_request)
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(Exception, _unexpected)


def invalid_request(error: ValidationError) -> Response:
    """The answer to a request that its model refuses: all of its faults."""
    found = error.errors(include_url=False, include_input=False, include_context=False)
    faults = [
        Fault(where=".".join(map(str, fault["loc"])) or "body", what=fault["msg"])
        for fault in found[:_MOST_FAULTS]
    ]
    said = [f"{fault.where}: {fault.what}" for fault in faults[:_FAULTS_SAID]]
    if len(found) > len(said):
        said.append(f"and {len(found) - len(said)} more faults")
    detail = "The request does not make sense: " + "; ".join(said)
    return _answer(Problem(title="Broken request", status=422, detail=detail, faults=faults))


def status_of(error: Exception) -> int:
    """The HTTP status for an error of the core or the store."""
    return next(STATUS[kind] for kind in type(error).__mro__ if kind in STATUS)


def _known(error: Exception) -> Response:
    status = status_of(error)
    current = error.current if isinstance(error, StaleRevisionError) else None
    title = _TITLES[status]
    answer = _answer(Problem(title=title, status=status, detail=str(error), current=current))
    if status == 503:
        answer.headers["Retry-After"] = _RETRY_AFTER
    return answer


def _out_of_memory(_: MemoryError) -> Response:
    return _known(
        StoppedError(
            f"This needs more memory than one request may have, and was stopped. {SIMPLER}"
        )
    )


def _too_deep(_: RecursionError) -> Response:
    detail = "Something in this request lies too deep within itself. Nothing was changed."
    return _answer(Problem(title="Broken request", status=422, detail=detail))


def _http(error: HTTPException) -> Response:
    if error.response is not None:
        # Already an answer, as from ``invalid_request``.
        assert isinstance(error.response, Response)
        return error.response
    return _answer(
        Problem(title=error.name, status=error.code or 500, detail=error.description or error.name)
    )


def _unexpected(error: Exception) -> Response:
    logging.getLogger(__name__).exception("A request failed.", exc_info=error)
    detail = "Dot Stack met an error of its own. Nothing was changed; please try again."
    return _answer(Problem(title="Internal error", status=500, detail=detail))


def _answer(problem: Problem) -> Response:
    return Response(
        problem.model_dump_json(exclude_none=True),
        status=problem.status,
        mimetype=MEDIA,
    )
