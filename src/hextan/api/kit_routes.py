"""The endpoints of the whole kit: parse, call, answer."""

from __future__ import annotations

from fastapi import APIRouter, Request, Response

from hextan.api.errors import BAD
from hextan.api.gate import StatedRoute
from hextan.api.kit_schemas import (
    CoverageView,
    FieldAnswer,
    KitLadder,
    KitMatch,
    KitMatrix,
    SlowMotion,
)
from hextan.api.plumbing import Db, ProductionId, json_answer
from hextan.core.coverage_view import coverage_view
from hextan.core.framing import find_field
from hextan.core.kit_ask import CoverageAsk, FieldAsk, LadderAsk, MatchAsk, MatrixAsk, SlowAsk
from hextan.core.kit_ladder import kit_ladder
from hextan.core.kit_match import kit_match
from hextan.core.kit_matrix import kit_matrix
from hextan.core.slow_motion import slow_motion
from hextan.formats.matrix_csv import write_matrix

router = APIRouter(route_class=StatedRoute, responses=BAD, prefix="/productions/{production_id}/kit")


@router.post("/coverage", responses={200: {"model": CoverageView}})
def coverage(production_id: ProductionId, asked: CoverageAsk, db: Db, request: Request) -> Response:
    """Show how a lens covers a format, what to do about it, and how the other lenses do."""
    return json_answer(coverage_view(request.app.state.packages.package(db, production_id), asked))


@router.post("/matrix", responses={200: {"model": KitMatrix}})
def matrix(production_id: ProductionId, asked: MatrixAsk, db: Db, request: Request) -> Response:
    """Lay out every lens in every recording format."""
    return json_answer(kit_matrix(request.app.state.packages.package(db, production_id), asked))


@router.post(
    "/matrix.csv",
    response_class=Response,
    responses={200: {"content": {"text/csv": {}}, "description": "The table."}},
)
def matrix_csv(production_id: ProductionId, asked: MatrixAsk, db: Db, request: Request) -> Response:
    """Give the matrix as a table, to be copied into a spreadsheet."""
    found = kit_matrix(request.app.state.packages.package(db, production_id), asked)
    return Response(write_matrix(found), media_type="text/csv; charset=utf-8")


@router.post("/ladder", responses={200: {"model": KitLadder}})
def ladder(production_id: ProductionId, asked: LadderAsk, db: Db, request: Request) -> Response:
    """Lay out every effective focal length that the kit can make, with gaps and doubles."""
    return json_answer(kit_ladder(request.app.state.packages.package(db, production_id), asked))


@router.post("/match", responses={200: {"model": KitMatch}})
def match(production_id: ProductionId, asked: MatchAsk, db: Db, request: Request) -> Response:
    """Find the lens that looks like a wanted one, in every picture."""
    return json_answer(kit_match(request.app.state.packages.package(db, production_id), asked))


@router.post("/field", responses={200: {"model": FieldAnswer}})
def field(production_id: ProductionId, asked: FieldAsk, db: Db, request: Request) -> Response:
    """Find distance, lens or format for a wanted field."""
    return json_answer(find_field(request.app.state.packages.package(db, production_id), asked))


@router.post("/slow-motion", responses={200: {"model": SlowMotion}})
def slow(production_id: ProductionId, asked: SlowAsk, db: Db, request: Request) -> Response:
    """Tell which lens keeps the field of the base format at high speed."""
    return json_answer(slow_motion(request.app.state.packages.package(db, production_id), asked))
