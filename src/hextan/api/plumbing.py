"""What all endpoints share: the session, path parameters, ready-made JSON."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Annotated, Any, TypeAlias, TypeVar, get_type_hints
from urllib.parse import quote

import orjson
from fastapi import Depends, Path, Request, Response
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from hextan.api.versions import PREFIX
from hextan.core.equipment import Package
from hextan.store.productions import refuse_removed

#: What may be asked of a production that was put away: what it is, to bring it back, and its file.
WHILE_AWAY = frozenset({"production_read", "production_remove", "production_file_write"})


def get_session(request: Request) -> Iterator[Session]:
    """Open a session for one request."""
    with Session(request.app.state.engine) as session:
        yield session


def of_one_that_is_here(request: Request, session: Annotated[Session, Depends(get_session)]) -> Session:
    """A session; what is asked of a production that was put away is refused."""
    asked = str(request.path_params.get("production_id", ""))
    if asked.isdecimal() and len(asked) < 16 and request.scope["route"].name not in WHILE_AWAY:
        refuse_removed(session, int(asked))
    return session


def no_longer_needed(session: Session) -> None:
    """Give the connection back: whoever computes, or waits for a child, needs none meanwhile. The next query takes another."""
    session.close()


Db: TypeAlias = Annotated[Session, Depends(of_one_that_is_here)]
Id: TypeAlias = Annotated[int, Field(ge=1, le=2**53)]
M = TypeVar("M", bound=BaseModel)
ProductionId: TypeAlias = Annotated[Id, Path()]


def equipment_that_is_here(
    request: Request, production_id: ProductionId, session: Annotated[Session, Depends(get_session)]
) -> Package:
    """What a production carries, where nothing else of it is asked for: one query, and no connection afterwards."""
    package: Package = request.app.state.packages.package_here(session, production_id)
    session.close()
    return package


Equipment: TypeAlias = Annotated[Package, Depends(equipment_that_is_here)]


def made(response: Response, address: str, answer: M) -> M:
    """Say where what was just added is found from now on."""
    response.headers["Location"] = f"{PREFIX}/productions/{address}"
    return answer


def json_answer(data: Any) -> Response:
    """Write an answer of the core as it is: it has the shape that its function declares."""
    return Response(orjson.dumps(data, default=_parts), media_type="application/json")


def _parts(value: object) -> object:
    """Documents inside an answer are written out as they are sent."""
    if isinstance(value, BaseModel):
        return value.model_dump(mode="json")
    raise TypeError(f"{type(value).__name__} cannot be sent")


#: What the OpenAPI document says of a table for spreadsheets.
CSV_TABLE: dict[int | str, dict[str, Any]] = {200: {"content": {"text/csv": {}}, "description": "The table."}}


def csv_answer(table: str | bytes) -> Response:
    """Send a table for spreadsheets."""
    return Response(table, media_type="text/csv; charset=utf-8")


def file_answer(data: bytes, media: str, name: str) -> Response:
    """Send a file under a name; programs that know ASCII only get it without other letters."""
    plain = "".join(c if c.isascii() and (c.isalnum() or c in " .,-_") else "_" for c in name)
    disposition = f"attachment; filename=\"{plain}\"; filename*=UTF-8''{quote(name, safe='')}"
    return Response(data, media_type=media, headers={"Content-Disposition": disposition})


def answers(function: Callable[..., Any]) -> dict[int | str, dict[str, Any]]:
    """Declare that an endpoint answers what a function of the core returns: its shape is written there, once."""
    return {200: {"model": get_type_hints(function)["return"]}}
