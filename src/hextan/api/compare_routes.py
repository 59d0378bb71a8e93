"""The endpoints of comparisons: parse, call, answer."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Path, Response

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
from hextan.api.paging import Pages
from hextan.api.plumbing import Db, Equipment, Id, ProductionId, answers, json_answer, made
from hextan.api.route import Route
from hextan.core.compare import Comparison, compare_view, match_camera
from hextan.store.keeper import Kept, find_production
from hextan.store.kinds import COMPARISONS

router = APIRouter(route_class=Route, prefix="/productions/{production_id}")
ComparisonId = Annotated[Id, Path()]


def _kept(kept: Kept[Comparison]) -> ComparisonKept:
    return ComparisonKept(id=kept.id, version=kept.version, removed=kept.removed, document=kept.document)


@router.get("/comparisons", name="comparisons_list", tags=["Compare"])
def list_comparisons(production_id: ProductionId, db: Db, pages: Pages) -> ComparisonList:
    """List the comparisons of a production, and those that were taken out."""
    find_production(db, production_id)
    here, removed = pages.of(*(COMPARISONS.every(db, production_id, out) for out in (False, True)))
    return ComparisonList(here=[_kept(row) for row in here], removed=[_kept(row) for row in removed])


@router.post("/comparisons", name="comparison_add", tags=["Compare"], status_code=201)
def add_comparison(
    production_id: ProductionId, asked: ComparisonNew, db: Db, response: Response
) -> ComparisonKept:
    """Keep a new comparison."""
    find_production(db, production_id)
    kept = COMPARISONS.add(db, production_id, asked.document)
    db.commit()
    return made(response, f"{production_id}/comparisons/{kept.id}", _kept(kept))


@router.get("/comparisons/{comparison_id}", name="comparison_read", tags=["Compare"])
def read_comparison(production_id: ProductionId, comparison_id: ComparisonId, db: Db) -> ComparisonKept:
    """Give a comparison."""
    return _kept(COMPARISONS.find(db, production_id, comparison_id))


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
    return _kept(COMPARISONS.save(db, production_id, comparison_id, asked.version, asked.document))


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
    return _kept(COMPARISONS.set_removed(db, production_id, comparison_id, asked.version, asked.removed))


@router.post("/compare/view", name="compare_view", tags=["Compare"], responses=answers(compare_view))
def view_comparison(asked: CompareAsk, equipment: Equipment) -> Response:
    """Compute a comparison, without keeping it."""
    return json_answer(compare_view(equipment, asked.document))


@router.post("/compare/match", name="compare_match", tags=["Compare"], responses=answers(match_camera))
def match(asked: MatchCameraAsk, equipment: Equipment) -> Response:
    """Match a column to the first with the lenses, stops, EI and ND that there are."""
    return json_answer(match_camera(equipment, asked.document, asked.index))
