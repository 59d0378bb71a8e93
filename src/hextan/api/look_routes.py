"""The endpoints of depth and light: parse, call, answer."""

from __future__ import annotations

from fastapi import APIRouter, Request, Response

from hextan.api.look_schemas import LookAsk
from hextan.api.plumbing import CSV_TABLE, Db, Equipment, ProductionId, answers, csv_answer, json_answer
from hextan.api.route import Route
from hextan.core.base import parse_rate
from hextan.core.bench import DepthAsk, depth_view, exposure_view, flicker_view
from hextan.formats.depth_csv import write_depth
from hextan.store.kinds import SETTINGS

router = APIRouter(route_class=Route, prefix="/productions/{production_id}/bench")


@router.post("/depth", name="bench_depth", tags=["Bench"], responses=answers(depth_view))
def depth(asked: DepthAsk, equipment: Equipment) -> Response:
    """Answer what is asked of depth, with curves and a table."""
    return json_answer(depth_view(equipment, asked))


@router.post(
    "/depth.csv",
    name="bench_depth_csv",
    tags=["Bench"],
    response_class=Response,
    responses=CSV_TABLE,
)
def depth_csv(asked: DepthAsk, equipment: Equipment) -> Response:
    """Give the depth table as a table for spreadsheets."""
    found = depth_view(equipment, asked)
    return csv_answer(write_depth(found["table"], asked.state.unit))


@router.post("/exposure", name="bench_exposure", tags=["Bench"], responses=answers(exposure_view))
def exposure(production_id: ProductionId, asked: LookAsk, db: Db, request: Request) -> Response:
    """Write the ledger of exposure, and what balances it."""
    settings = SETTINGS.read(db, production_id)
    package = request.app.state.packages.package(db, production_id)
    return json_answer(exposure_view(package, asked.state, float(parse_rate(settings.base_fps))))


@router.post("/flicker", name="bench_flicker", tags=["Bench"], responses=answers(flicker_view))
def flicker(asked: LookAsk, equipment: Equipment) -> Response:
    """Hold the shutter against lamps."""
    return json_answer(flicker_view(equipment, asked.state))
