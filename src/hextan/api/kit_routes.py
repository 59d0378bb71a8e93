"""The endpoints of the whole kit: parse, call, answer."""

from __future__ import annotations

from fastapi import APIRouter, Request, Response

from hextan.api.plumbing import CSV_TABLE, Db, Equipment, ProductionId, answers, csv_answer, json_answer
from hextan.api.route import Route
from hextan.core.bench import Scene
from hextan.core.kit import (
    CoverageAsk,
    FieldAsk,
    LadderAsk,
    MatchAsk,
    MatrixAsk,
    SlowAsk,
    coverage_view,
    find_field,
    kit_ladder,
    kit_match,
    kit_matrix,
    slow_motion,
)
from hextan.core.worth import WorthAsk, worth_of
from hextan.formats.matrix_csv import write_matrix
from hextan.store import repositories
from hextan.store.kinds import PACKING, SETTINGS, SHOTS

router = APIRouter(route_class=Route, prefix="/productions/{production_id}/kit")


@router.post("/coverage", name="kit_coverage", tags=["Kit"], responses=answers(coverage_view))
def coverage(asked: CoverageAsk, equipment: Equipment) -> Response:
    """Show how a lens covers a format, what to do about it, and how the other lenses do."""
    return json_answer(coverage_view(equipment, asked))


@router.post("/matrix", name="kit_matrix", tags=["Kit"], responses=answers(kit_matrix))
def matrix(asked: MatrixAsk, equipment: Equipment) -> Response:
    """Lay out every lens in every recording format."""
    return json_answer(kit_matrix(equipment, asked))


@router.post(
    "/matrix.csv",
    name="kit_matrix_csv",
    tags=["Kit"],
    response_class=Response,
    responses=CSV_TABLE,
)
def matrix_csv(asked: MatrixAsk, equipment: Equipment) -> Response:
    """Give the matrix as a table, to be copied into a spreadsheet."""
    found = kit_matrix(equipment, asked)
    return csv_answer(write_matrix(found))


@router.post("/ladder", name="kit_ladder", tags=["Kit"], responses=answers(kit_ladder))
def ladder(asked: LadderAsk, equipment: Equipment) -> Response:
    """Lay out every effective focal length that the kit can make, with gaps and doubles."""
    return json_answer(kit_ladder(equipment, asked))


@router.post("/match", name="kit_match", tags=["Kit"], responses=answers(kit_match))
def match(asked: MatchAsk, equipment: Equipment) -> Response:
    """Find the lens that looks like a wanted one, in every picture."""
    return json_answer(kit_match(equipment, asked))


@router.post("/field", name="kit_field", tags=["Kit"], responses=answers(find_field))
def field(asked: FieldAsk, equipment: Equipment) -> Response:
    """Find distance, lens or format for a wanted field."""
    return json_answer(find_field(equipment, asked))


@router.post("/slow-motion", name="kit_slow_motion", tags=["Kit"], responses=answers(slow_motion))
def slow(asked: SlowAsk, equipment: Equipment) -> Response:
    """Tell which lens keeps the field of the base format at high speed."""
    return json_answer(slow_motion(equipment, asked))


@router.post("/worth", name="kit_worth", tags=["Kit"], responses=answers(worth_of))
def worth(production_id: ProductionId, asked: WorthAsk, db: Db, request: Request) -> Response:
    """Rank everything that does a shot by what it gives and costs, and tell the steps upwards."""
    packages = request.app.state.packages
    catalogue = packages.package(db, repositories.catalogue_of(db, production_id).id)
    kept = repositories.kept_bench(db, production_id)
    found = worth_of(
        packages.package(db, production_id),
        catalogue,
        SETTINGS.read(db, production_id),
        SHOTS.read(db, production_id),
        PACKING.read(db, production_id),
        Scene() if kept is None else kept.scene,
        asked,
    )
    return json_answer(found)
