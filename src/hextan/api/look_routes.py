"""The endpoints of depth and light: parse, call, answer."""

from __future__ import annotations

from fastapi import APIRouter, Request, Response

from hextan.api.errors import BAD
from hextan.api.gate import StatedRoute
from hextan.api.look_schemas import DepthView, ExposureView, FlickerView, LookAsk
from hextan.api.plumbing import Db, ProductionId, json_answer
from hextan.core.depth_view import DepthAsk, depth_view
from hextan.core.light_view import exposure_view, flicker_view
from hextan.core.package_settings import parse_settings
from hextan.core.rates import parse_rate
from hextan.formats.depth_csv import write_depth
from hextan.store import repositories

router = APIRouter(route_class=StatedRoute, responses=BAD, prefix="/productions/{production_id}/bench")


@router.post("/depth", responses={200: {"model": DepthView}})
def depth(production_id: ProductionId, asked: DepthAsk, db: Db, request: Request) -> Response:
    """Answer what is asked of depth, with curves and a table."""
    return json_answer(depth_view(request.app.state.packages.package(db, production_id), asked))


@router.post(
    "/depth.csv",
    response_class=Response,
    responses={200: {"content": {"text/csv": {}}, "description": "The table."}},
)
def depth_csv(production_id: ProductionId, asked: DepthAsk, db: Db, request: Request) -> Response:
    """Give the depth table as a table for spreadsheets."""
    found = depth_view(request.app.state.packages.package(db, production_id), asked)
    return Response(write_depth(found["table"], asked.state.unit), media_type="text/csv; charset=utf-8")


@router.post("/exposure", responses={200: {"model": ExposureView}})
def exposure(production_id: ProductionId, asked: LookAsk, db: Db, request: Request) -> Response:
    """Write the ledger of exposure, and what balances it."""
    settings = parse_settings(repositories.find_production(db, production_id).settings)
    package = request.app.state.packages.package(db, production_id)
    return json_answer(exposure_view(package, asked.state, float(parse_rate(settings.base_fps))))


@router.post("/flicker", responses={200: {"model": FlickerView}})
def flicker(production_id: ProductionId, asked: LookAsk, db: Db, request: Request) -> Response:
    """Hold the shutter against lamps."""
    return json_answer(flicker_view(request.app.state.packages.package(db, production_id), asked.state))
