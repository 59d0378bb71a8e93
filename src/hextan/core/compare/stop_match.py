"""The stop that keeps one camera's depth when another changes its own: its lens and place stay as they are."""

from __future__ import annotations

import math

from typing_extensions import TypedDict

from hextan.core.bench import BenchState
from hextan.core.compare.camera_match import exact_f_number
from hextan.core.compare.comparison import Column, Comparison
from hextan.core.compare.setups import setup_of
from hextan.core.equipment import Package


class StopMatch(TypedDict):
    """The stop of another camera that gives the depth of the first."""

    #: As its ring is marked: exactly, and the nearest that can be set.
    exact_stop: float
    stop: float
    marks: str
    #: What is left over at the nearest, stops: positive is deeper.
    depth_stops: float
    #: How much brighter (positive) the other comes out at the nearest, with all else as it is.
    brighter_stops: float


def match_stop(package: Package, first: BenchState, other: BenchState) -> StopMatch | None:
    """Find the stop that keeps the match: depth as a share of a picture goes by 1/near - 1/far.

    Returns
    -------
    None where the depth of either cannot be told: a fisheye, no stop, no rule for what is sharp.

    Raises
    ------
    InvalidInputError, CannotFocusError
        As for the Bench.
    """
    columns = [Column(label=name, **{k: v for k, v in state if k in Column.model_fields}, shutter_deg=state.light.shutter_deg,
                      ei=state.light.ei, nd_stops=state.light.nd_stops) for name, state in (("first", first), ("other", other))]  # fmt: skip
    comparison = Comparison(
        columns=columns,
        delivery=first.delivery,
        reference=first.reference,
        coc=first.coc,
    )
    one = setup_of(package, comparison, columns[0])
    two = setup_of(package, comparison.model_copy(update={"delivery": other.delivery}), columns[1])
    setting = two.found.setting
    if one.optics is None or two.optics is None or setting.stop is None or not two.exposing.means.stops:
        return None
    there = two.optics
    n = exact_f_number(
        one.optics.depth_dioptres, there.focal_mm, there.distance_mm, there.coc_mm, there.pupil_magnification
    )
    exact = n * setting.stop / there.f_number
    stop = min(two.exposing.means.stops, key=lambda s: abs(math.log2(s / exact)))
    brighter = two.settings.off_stops - one.settings.off_stops + 2 * math.log2(setting.stop / stop)
    return {
        "exact_stop": exact,
        "stop": stop,
        "marks": setting.marks,
        "depth_stops": 2 * math.log2(stop / exact),
        "brighter_stops": brighter,
    }
