"""The endpoints of comparisons: parse, call, answer."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Path, Request, Response

from hextan.api.compare_schemas import (
    CompareAsk,
    ComparisonKept,
    ComparisonList,
    ComparisonNew,
    ComparisonWrite,
    MatchCameraAsk,
)
from hextan.api.errors import stale
from hextan.api.package_schemas import Removal
from hextan.api.plumbing import Db, Id, ProductionId, answers, json_answer, made
from hextan.api.route import Route
from hextan.core.compare import compare_view, match_camera
from hextan.store import comparisons, models

router = APIRouter(route_class=Route, prefix="/productions/{production_id}")
ComparisonId = Annotated[Id, Path()]


def _kept(row: models.Comparison) -> ComparisonKept:
    return ComparisonKept(
        id=row.id, version=row.version, removed=row.removed, document=comparisons.document_of(row)
    )


@router.get("/comparisons", name="comparisons_list", tags=["Compare"])
def list_comparisons(production_id: ProductionId, db: Db) -> ComparisonList:
    """List the comparisons of a production, and those that were taken out."""
    return ComparisonList(
        here=[_kept(row) for row in comparisons.every(db, production_id)],
        removed=[_kept(row) for row in comparisons.every(db, production_id, removed=True)],
    )


@router.post("/comparisons", name="comparison_add", tags=["Compare"], status_code=201)
def add_comparison(
    production_id: ProductionId, asked: ComparisonNew, db: Db, response: Response
) -> ComparisonKept:
    """Keep a new comparison."""
    row = comparisons.add(db, production_id, asked.document)
    return made(response, f"{production_id}/comparisons/{row.id}", _kept(row))


@router.get("/comparisons/{comparison_id}", name="comparison_read", tags=["Compare"])
def read_comparison(production_id: ProductionId, comparison_id: ComparisonId, db: Db) -> ComparisonKept:
    """Give a comparison."""
    return _kept(comparisons.find(db, production_id, comparison_id))


@router.put(
    "/comparisons/{comparison_id}",
    name="comparison_write",
    tags=["Compare"],
    responses=stale(ComparisonWrite),
)
def write_comparison(
    production_id: ProductionId, comparison_id: ComparisonId, asked: ComparisonWrite, db: Db
) -> ComparisonKept:
    """Keep a comparison; 409 with both when somebody else kept it in between."""
    return _kept(comparisons.save(db, production_id, comparison_id, asked.version, asked.document))


@router.post(
    "/comparisons/{comparison_id}/removal",
    name="comparison_remove",
    tags=["Compare"],
    responses=stale(ComparisonWrite),
)
def remove_comparison(
    production_id: ProductionId, comparison_id: ComparisonId, asked: Removal, db: Db
) -> ComparisonKept:
    """Take a comparison out of the production, or bring it back; nothing is lost."""
    return _kept(comparisons.set_removed(db, production_id, comparison_id, asked.version, asked.removed))


@router.post("/compare/view", name="compare_view", tags=["Compare"], responses=answers(compare_view))
def view_comparison(production_id: ProductionId, asked: CompareAsk, db: Db, request: Request) -> Response:
    """Compute a comparison, without keeping it."""
    return json_answer(compare_view(request.app.state.packages.package(db, production_id), asked.document))


@router.post("/compare/match", name="compare_match", tags=["Compare"], responses=answers(match_camera))
def match(production_id: ProductionId, asked: MatchCameraAsk, db: Db, request: Request) -> Response:
    """Match a column to the first with the lenses, stops, EI and ND that there are."""
    package = request.app.state.packages.package(db, production_id)
    return json_answer(match_camera(package, asked.document, asked.index))
