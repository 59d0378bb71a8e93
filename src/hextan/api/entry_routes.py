"""The endpoints of quick entry: what is typed is understood and shown; nothing is kept."""

from __future__ import annotations

from fastapi import APIRouter, Response

from hextan.api.plumbing import answers, json_answer
from hextan.api.route import Route
from hextan.core.entry import (
    AnythingAsk,
    LensLineAsk,
    QuickBodyAsk,
    anything,
    lens_line,
    quick_body,
)

router = APIRouter(route_class=Route, prefix="/entry", tags=["Entry"])


@router.post("/body", name="body_quick", responses=answers(quick_body))
def body(asked: QuickBodyAsk) -> Response:
    """Make a body of few facts, lines and pasted tables; tells what follows, what contradicts, what is missing."""
    return json_answer(quick_body(asked))


@router.post("/lens-set", name="lens_set_line", responses=answers(lens_line))
def lens_set(asked: LensLineAsk) -> Response:
    """Make a lens set of one line; tells what was understood and what is assumed."""
    return json_answer(lens_line(asked))


@router.post("/anything", name="anything_read", responses=answers(anything))
def read_anything(asked: AnythingAsk) -> Response:
    """Make equipment of whatever was pasted: a page, a list, a table, a message; tells what each word was taken for."""
    return json_answer(anything(asked))
