"""What all endpoints share: the session, path parameters, ready-made JSON."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Any, TypeAlias

import orjson
from fastapi import Depends, Path, Request, Response
from pydantic import Field
from sqlalchemy.orm import Session


def get_session(request: Request) -> Iterator[Session]:
    """Open a session for one request."""
    with Session(request.app.state.engine) as session:
        yield session


Db: TypeAlias = Annotated[Session, Depends(get_session)]
Id: TypeAlias = Annotated[int, Field(ge=1, le=2**53)]
ProductionId: TypeAlias = Annotated[Id, Path()]


def json_answer(data: Any) -> Response:
    """Write plain data of the core as it is: it has the promised shape, which tests hold."""
    return Response(orjson.dumps(data), media_type="application/json")
