"""What does one lens at one place do in every format: rows, plan, finder picture, depth, light?"""

from hextan.core.bench.answers import FinderRect, LadderRow, Viewfinder
from hextan.core.bench.depth import TABLE_FT, TABLE_M, DepthAsk, depth_view
from hextan.core.bench.depth_answers import DepthTable
from hextan.core.bench.finder_picture import EARS_M, NOSE_M, viewfinder
from hextan.core.bench.light import (
    ASSUMED_EIS,
    FLICKER_CAUTION,
    Exposing,
    exposing,
    exposure_view,
    flicker_view,
)
from hextan.core.bench.limits import LEAST_FOCALS, limits_along, traced_along
from hextan.core.bench.result import BenchResult, bench_request, compute_bench
from hextan.core.bench.scene import Scene
from hextan.core.bench.state import BENCH_SCHEMA, BenchState, LensUp, mended, parse_state
from hextan.core.bench.view import bench_move, bench_view

__all__ = [
    "ASSUMED_EIS",
    "BENCH_SCHEMA",
    "EARS_M",
    "FLICKER_CAUTION",
    "LEAST_FOCALS",
    "NOSE_M",
    "TABLE_FT",
    "TABLE_M",
    "BenchResult",
    "BenchState",
    "DepthAsk",
    "DepthTable",
    "Exposing",
    "FinderRect",
    "LadderRow",
    "LensUp",
    "Scene",
    "Viewfinder",
    "bench_move",
    "bench_request",
    "bench_view",
    "compute_bench",
    "depth_view",
    "exposing",
    "exposure_view",
    "flicker_view",
    "limits_along",
    "mended",
    "parse_state",
    "traced_along",
    "viewfinder",
]
