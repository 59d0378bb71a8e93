"""The endpoints: parse, call, answer."""

from __future__ import annotations

import os
from typing import Annotated, Literal

from fastapi import APIRouter, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from sqlalchemy import select

from hextan import __version__
from hextan.api.errors import ErrorAnswer, refusals, stale
from hextan.api.plumbing import Db, Equipment, ProductionId, answers, json_answer
from hextan.api.route import Route
from hextan.api.schemas import (
    BenchAsk,
    BenchMended,
    BenchRead,
    BenchWrite,
    Distance,
    Empty,
    Health,
    MoveAsk,
    PackageRead,
)
from hextan.core import evaluate
from hextan.core.base import parse_distance_m
from hextan.core.bench import BenchState, bench_move, bench_view, mended
from hextan.core.evaluation import EvaluationAnswer
from hextan.store import repositories
from hextan.store.kinds import BENCH

#: Up to this size an evaluation takes a few milliseconds: less than handing it to a thread would hold up others.
INLINE_BYTES = 64 * 1024
router = APIRouter(route_class=Route)


@router.get("/health", name="health", tags=["Server"])
async def health() -> Health:
    """Say that the server is there, and which process it is; asks nobody else."""
    return Health(status="ok", version=__version__, process=os.getpid())


@router.get("/ready", name="ready", tags=["Server"])
def ready(db: Db) -> Health:
    """Say that the server can work: the database answers. 503 while it does not."""
    db.execute(select(1))
    return Health(status="ok", version=__version__, process=os.getpid())


@router.post("/empty", name="empty", tags=["Server"])
def empty() -> Empty:
    """Answer nothing: the measure for other endpoints."""
    return Empty()


@router.post(
    "/evaluate",
    name="evaluate",
    tags=["Evaluation"],
    responses=refusals(408, 413) | {200: {"model": EvaluationAnswer | list[EvaluationAnswer | ErrorAnswer]}},
    openapi_extra={
        "requestBody": {
            "required": True,
            "content": {
                "application/json": {
                    "schema": {
                        "anyOf": [
                            {"$ref": "#/components/schemas/EvaluationRequest"},
                            {"type": "array", "items": {"$ref": "#/components/schemas/EvaluationRequest"}},
                        ]
                    }
                }
            },
        }
    },
)
async def evaluate_formats(request: Request) -> Response:
    """Evaluate a lens in recording formats: the public evaluation format, one request or a list."""
    body = await request.body()
    if len(body) <= INLINE_BYTES:
        return json_answer(evaluate(body))
    return await run_in_threadpool(lambda: json_answer(evaluate(body)))


@router.get("/distance", name="distance_read", tags=["Server"])
def read_distance(
    text: Annotated[str, Query(max_length=60)], unit: Literal["m", "ft"] = "m", field: str = "distance"
) -> Distance:
    """Read a distance as people write it: 2.9, 2.9m, 9'6", 9ft 6in, 115in."""
    return Distance(metres=parse_distance_m(text, unit, field[:60]))


@router.get("/productions/{production_id}/package", name="package_read", tags=["Productions"])
def package(production_id: ProductionId, db: Db) -> PackageRead:
    """Give all equipment of a production."""
    return PackageRead.of(repositories.load_package(db, production_id))


@router.get("/productions/{production_id}/bench", name="bench_read", tags=["Bench"])
def read_bench(production_id: ProductionId, db: Db) -> BenchRead:
    """Give the kept Bench of a production."""
    version, state = repositories.read_bench(db, production_id)
    return BenchRead(version=version, state=state)


@router.put(
    "/productions/{production_id}/bench", name="bench_write", tags=["Bench"], responses=stale(BenchWrite)
)
def write_bench(production_id: ProductionId, asked: BenchWrite, db: Db) -> BenchRead:
    """Keep a Bench; 409 with both when somebody else kept one in between."""
    version = BENCH.save(db, production_id, asked.version, asked.state)
    return BenchRead(version=version, state=asked.state)


@router.post(
    "/productions/{production_id}/bench/view",
    name="bench_view",
    tags=["Bench"],
    responses=answers(bench_view),
)
def view_bench(asked: BenchAsk, equipment: Equipment) -> Response:
    """Compute what the Bench shows for a state, without keeping it."""
    return json_answer(bench_view(equipment, asked.state, asked.open_rows, asked.plan_extent_m))


@router.post(
    "/productions/{production_id}/bench/move",
    name="bench_move",
    tags=["Bench"],
    responses=answers(bench_move),
)
def move_bench(asked: MoveAsk, equipment: Equipment) -> Response:
    """Compute what follows the hand while something is moved on the Bench, without keeping it."""
    return json_answer(bench_move(equipment, asked.state, asked.format_ids, asked.plan_extent_m))


@router.post("/productions/{production_id}/bench/mended", name="bench_mend", tags=["Bench"])
def mend_bench(state: BenchState, equipment: Equipment) -> BenchMended:
    """Put what is there in the place of equipment that is gone, without keeping it."""
    whole, notes = mended(state, equipment)
    return BenchMended(state=whole, notes=notes)
