"""The endpoint of questions in one line."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query, Request, Response

from hextan.api.errors import refusals
from hextan.api.plumbing import Db, Id, answers, json_answer
from hextan.api.route import Route
from hextan.core.ask import MOST_LETTERS, ask
from hextan.store.keeper import find_production

router = APIRouter(route_class=Route, tags=["Ask"])


@router.get("/ask", name="ask", responses=refusals(404) | answers(ask))
def ask_line(
    db: Db,
    request: Request,
    q: Annotated[str, Query(max_length=MOST_LETTERS)],
    production_id: Annotated[Id | None, Query()] = None,
) -> Response:
    """Answer a question in the trade's shorthand; with a production its names are understood too."""
    if production_id is None:
        return json_answer(ask(q))
    package = request.app.state.packages.package(db, production_id)
    return json_answer(ask(q, package, find_production(db, production_id).name))
