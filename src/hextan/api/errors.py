"""One place where errors become answers: always the same structured body, never a bare 500."""

from __future__ import annotations

import errno
import logging
from collections.abc import Mapping
from typing import Any, Generic, Literal, TypeAlias, TypeVar

import orjson
from fastapi import FastAPI, Request, Response
from fastapi.exceptions import RequestValidationError
from pydantic import BaseModel
from sqlalchemy.exc import DataError, IntegrityError, OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError
from sqlalchemy.orm.exc import StaleDataError
from starlette.exceptions import HTTPException

from hextan.api.shape import Shape
from hextan.core.base import ErrorBody, FaultBody, errors, faults_of

log = logging.getLogger("hextan")

STATUS: dict[type[errors.HextanError], int] = {
    errors.InvalidInputError: 422,
    errors.InconsistentError: 422,
    errors.CannotFocusError: 422,
    errors.NotFoundError: 404,
    errors.NothingYetError: 404,
    errors.RemovedError: 410,
    errors.StaleWriteError: 409,
    errors.BusyError: 503,
    errors.FullError: 507,
}

#: PostgreSQL's code for a disk without room (its documentation, appendix A).
DISK_FULL = "53100"
#: How endpoints answer what they refuse, for the OpenAPI document.
Responses: TypeAlias = dict[int | str, dict[str, Any]]


class ErrorAnswer(BaseModel):
    """The body of every error."""

    # As the core's own, of which the library would describe one anew for every refusal of every address.
    error: ErrorBody


def refusals(*statuses: int) -> Responses:
    """Declare by which statuses an operation refuses."""
    return {status: {"model": ErrorAnswer} for status in statuses}


W = TypeVar("W", bound=Shape)


class StaleError(Shape, Generic[W]):
    """Somebody else changed the same thing in between. Both are null where two wrote at the same moment (`conflict`)."""

    code: Literal["stale_write", "conflict"]
    message: str
    faults: list[FaultBody]
    given: W | None
    stored: W | None


class Stale(Shape, Generic[W]):
    """The body of a write that came too late."""

    error: StaleError[W]


def stale(write: type[Shape]) -> Responses:
    """Declare how a write is refused that is based on an old version: what was given and what is stored are told."""
    return {409: {"model": Stale.__class_getitem__(write)}}


def error_answer(status: int, body: Mapping[str, object]) -> Response:
    """Write an error's body; what was given is told in it, and may hold anything."""
    return Response(orjson.dumps(_sendable({"error": body})), status, media_type="application/json")


def _sendable(value: Any) -> Any:
    """Turn what no answer can carry (half characters, numbers without end) into text that says it."""
    if isinstance(value, str):
        return value.encode("utf-8", "backslashreplace").decode()
    if isinstance(value, Mapping):
        return {_sendable(str(key)): _sendable(item) for key, item in value.items()}
    if isinstance(value, list | tuple):
        return [_sendable(item) for item in value]
    return errors.plain(value)


def _plain_body(code: str, message: str) -> dict[str, object]:
    return {"code": code, "message": message, "faults": []}


def install(app: FastAPI) -> None:
    """Register the handlers."""

    @app.exception_handler(errors.HextanError)
    def _ours(request: Request, error: errors.HextanError) -> Response:
        answer = error_answer(STATUS.get(type(error), 400), error.as_dict())
        if isinstance(error, errors.BusyError):
            answer.headers["Retry-After"] = str(error.again_after_s)
        return answer

    @app.exception_handler(RequestValidationError)
    def _malformed(request: Request, error: RequestValidationError) -> Response:
        told = errors.InvalidInputError.of(*faults_of(error, skip=("body", "path", "query")))
        return error_answer(422, told.as_dict())

    @app.exception_handler(HTTPException)
    def _http(request: Request, error: HTTPException) -> Response:
        code = {404: "not_found", 405: "method_not_allowed", 408: "timed_out", 413: "too_large"}.get(
            error.status_code, "refused"
        )
        answer = error_answer(error.status_code, _plain_body(code, str(error.detail)))
        answer.headers.update(error.headers or {})
        return answer

    @app.exception_handler(DataError)
    def _not_kept(request: Request, error: DataError) -> Response:
        log.warning("The database refused a value: %s", error.orig)
        message = "Something given cannot be saved: a figure or a text is out of bounds. Nothing was changed."
        return error_answer(422, _plain_body("invalid_input", message))

    @app.exception_handler(IntegrityError)
    @app.exception_handler(StaleDataError)
    def _at_once(request: Request, error: Exception) -> Response:
        log.warning("Two writes at once: %s", error)
        message = (
            "Somebody else changed the same thing at the same moment. Nothing was changed; load it again."
        )
        return error_answer(409, {**_plain_body("conflict", message), "given": None, "stored": None})

    @app.exception_handler(PoolTimeoutError)
    def _no_connection(request: Request, error: PoolTimeoutError) -> Response:
        log.warning("No connection to the database became free: %s", error)
        return _ours(request, errors.BusyError("Too many requests at once."))

    @app.exception_handler(OSError)
    def _of_the_system(request: Request, error: OSError) -> Response:
        if error.errno in (errno.ENOSPC, errno.EDQUOT):
            log.warning("The disk is full: %s", error)
            return _ours(request, errors.FullError())
        return _unforeseen(request, error)

    @app.exception_handler(OperationalError)
    def _database_gone(request: Request, error: OperationalError) -> Response:
        if getattr(error.orig, "sqlstate", None) == DISK_FULL:
            log.warning("The database's disk is full: %s", error.orig)
            return _ours(request, errors.FullError())
        log.warning("The database did not answer: %s", error.orig)
        message = (
            "The database does not answer at the moment. Nothing was changed; try again in a few seconds."
        )
        answer = error_answer(503, _plain_body("database_unavailable", message))
        answer.headers["Retry-After"] = "2"
        return answer

    @app.exception_handler(Exception)
    def _unforeseen(request: Request, error: Exception) -> Response:
        log.exception("Unforeseen error", exc_info=error)
        message = "Something went wrong in Hextan itself. Nothing was changed. The server's log tells more."
        return error_answer(500, _plain_body("internal", message))
