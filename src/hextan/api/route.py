"""A route of the API: takes what it states and nothing else, and states by what it refuses."""

from __future__ import annotations

from collections.abc import Callable, Coroutine
from typing import Any

from fastapi import Request, Response
from fastapi.dependencies.models import Dependant
from fastapi.dependencies.utils import get_dependant
from fastapi.routing import APIRoute

from hextan.api.errors import error_answer, refusals
from hextan.api.gate import OPEN_TO_ALL, READING
from hextan.api.plumbing import get_session
from hextan.core.base import Fault, InvalidInputError
from hextan.formats.text import refuse_what_is_no_text


class Route(APIRoute):
    """A route that takes a body of the stated type only, query keys that it knows, and only text that can be kept."""

    def __init__(self, path: str, endpoint: Callable[..., Any], **settings: Any) -> None:
        told = refusals(*_statuses(path, endpoint, settings.get("methods") or ["GET"]))
        settings["responses"] = told | (settings.get("responses") or {})
        super().__init__(path, endpoint, **settings)

    def get_route_handler(self) -> Callable[[Request], Coroutine[Any, Any, Response]]:
        """Check the head, and what no database takes, before the endpoint's own reading."""
        handle, stated = super().get_route_handler(), _stated_type(self)
        known = {field.alias for field in self.dependant.query_params}

        async def checked(request: Request) -> Response:
            _refuse_unknown_keys(request, known)
            if stated is None:
                return await handle(request)
            given = request.headers.get("content-type", "").split(";", 1)[0].strip().lower()
            if given != stated:
                message = (
                    f"This address takes {stated}; the request says {given[:60] or 'nothing of its type'}."
                )
                return error_answer(415, {"code": "unsupported_media_type", "message": message, "faults": []})
            if stated == "application/json":
                refuse_what_is_no_text(await request.body())
            return await handle(request)

        return checked


def _statuses(path: str, endpoint: Callable[..., Any], methods: list[str]) -> set[int]:
    """By which statuses an endpoint can refuse, from what it takes."""
    takes = get_dependant(path=path, call=endpoint)
    # Every address refuses query keys that it does not know.
    found = {422}
    if takes.path_params:
        found.add(404)
    if takes.body_params:
        found |= {408, 413, 415}
    if not READING.issuperset(methods) and f"/api{path}" not in OPEN_TO_ALL:
        found.add(403)
    if _asks_the_database(takes):
        found.add(503)
        # Of a production that was put away; and where there is no room left to write to.
        if any(field.name == "production_id" for field in takes.path_params):
            found.add(410)
        if not READING.issuperset(methods):
            found.add(507)
    return found


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
