"""A route of the API: takes what it states and nothing else, and states by what it refuses."""

from __future__ import annotations

import json
import re
from collections.abc import Callable, Coroutine
from typing import Any
from zlib import crc32

from fastapi import Request, Response
from fastapi.dependencies.models import Dependant
from fastapi.dependencies.utils import get_dependant
from fastapi.routing import APIRoute
from pydantic import BaseModel

from hextan.api.errors import error_answer, refusals
from hextan.api.gate import OPEN_TO_ALL, READING
from hextan.api.plumbing import get_session
from hextan.api.versions import PREFIX
from hextan.core.base import Fault, InvalidInputError
from hextan.formats.text import refuse_what_is_no_text

#: Where an answer says its version: at its beginning, behind its number.
_VERSION = re.compile(rb'\{(?:"id":\d+,)?"version":(\d+)[,}]')
_TAG = re.compile(r'"(\d{1,15})(?:\.[0-9a-f]{8})?"')


class Route(APIRoute):
    """A route that takes a body of the stated type only, query keys that it knows, and only text that can be kept."""

    def __init__(self, path: str, endpoint: Callable[..., Any], **settings: Any) -> None:
        told = refusals(*_statuses(path, endpoint, settings.get("methods") or ["GET"]))
        settings["responses"] = told | (settings.get("responses") or {})
        super().__init__(path, endpoint, **settings)

    def get_route_handler(self) -> Callable[[Request], Coroutine[Any, Any, Response]]:
        """Check the head, and what no database takes, before the endpoint's own reading."""
        handle, stated = super().get_route_handler(), _stated_type(self)
        known = _query_keys(self.dependant)
        tagged, versioned = _has_version(self.response_field), _has_version(self.body_field)

        async def checked(request: Request) -> Response:
            _refuse_unknown_keys(request, known)
            if stated is None:
                return _tagged(request, await handle(request)) if tagged else await handle(request)
            given = request.headers.get("content-type", "").split(";", 1)[0].strip().lower()
            if given != stated:
                message = (
                    f"This address takes {stated}; the request says {given[:60] or 'nothing of its type'}."
                )
                return error_answer(415, {"code": "unsupported_media_type", "message": message, "faults": []})
            if stated == "application/json":
                refuse_what_is_no_text(await request.body())
            if versioned:
                await _take_version(request)
            return _tagged(request, await handle(request)) if tagged else await handle(request)

        return checked


def _statuses(path: str, endpoint: Callable[..., Any], methods: list[str]) -> set[int]:
    """By which statuses an endpoint can refuse, from what it takes."""
    takes = get_dependant(path=path, call=endpoint)
    # Every address refuses query keys that it does not know.
    found = {422}
    named = _path_names(takes)
    if named:
        found.add(404)
    if takes.body_params:
        found |= {408, 413, 415}
    if not READING.issuperset(methods) and f"{PREFIX}{path}" not in OPEN_TO_ALL:
        found.add(403)
    if _asks_the_database(takes):
        found.add(503)
        # Of a production that was put away; and where there is no room left to write to.
        if "production_id" in named:
            found.add(410)
        if not READING.issuperset(methods):
            found.add(507)
    return found


def _path_names(takes: Dependant) -> set[str]:
    return {field.name for field in takes.path_params}.union(*map(_path_names, takes.dependencies))


def _asks_the_database(takes: Dependant) -> bool:
    return any(part.call is get_session or _asks_the_database(part) for part in takes.dependencies)


def _refuse_unknown_keys(request: Request, known: set[str]) -> None:
    rule = f"is no query key of this address (it takes {', '.join(sorted(known)) or 'none'})"
    faults = [Fault(key, value, rule) for key, value in request.query_params.items() if key not in known]
    if faults:
        raise InvalidInputError.of(*faults)


def _stated_type(route: APIRoute) -> str | None:
    field = route.body_field
    if field is None:
        return None
    return str(getattr(field.field_info, "media_type", None) or "application/json")


def _query_keys(takes: Dependant) -> set[str]:
    return {field.alias for field in takes.query_params}.union(*map(_query_keys, takes.dependencies))


def _has_version(field: Any) -> bool:
    model = None if field is None else field.field_info.annotation
    return isinstance(model, type) and issubclass(model, BaseModel) and "version" in model.model_fields


def _tagged(request: Request, response: Response) -> Response:
    """Give an answer with a version its `ETag`; who has that answer already gets 304 and no body.

    The tag is the version and a mark of the whole answer, which may say more than its document does: a Bench that was never kept
    follows the equipment, and a production tells its settings' unit.
    """
    found = _VERSION.match(response.body)
    if response.status_code >= 300 or found is None:
        return response
    tag = f'"{found[1].decode()}.{crc32(response.body):08x}"'
    response.headers["ETag"] = tag
    if request.method == "GET" and tag in request.headers.get("if-none-match", ""):
        return Response(status_code=304, headers={"ETag": tag})
    return response


async def _take_version(request: Request) -> None:
    """Let `If-Match` say on which version a write is based, in the place of the body's `version`."""
    stated = _TAG.fullmatch(request.headers.get("if-match", ""))
    if stated is None:
        return
    try:
        body = json.loads(await request.body())
    except ValueError:
        return
    version = int(stated[1])
    if isinstance(body, dict) and body.setdefault("version", version) != version:
        rule = f"is not the version of If-Match, {version}"
        raise InvalidInputError.of(Fault("version", body["version"], rule))
    # What is read again is read from here.
    request._body = json.dumps(body).encode()
