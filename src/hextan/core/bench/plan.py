"""The geometry of the Bench's drawings: what stands where, in metres and millimetres.

Plan view: x along the lens axis from the sensor plane, y to the right of the camera, metres.
Window map: x right and y down from the optical axis, millimetres, seen as the picture is seen.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from hextan.core.base import METRES, Unit, both_units, distance_words, m_from_mm
from hextan.core.bench.answers import AxisMark, Movement, PlanView
from hextan.core.bench.state import LEAST_MOVEMENT_M
from hextan.core.evaluation import Evaluation
from hextan.core.optics import angles

#: Breadth and depth of shoulders and breadth of a head, seen from above, in metres (common practice,
#: no source): the figure in the plan view is drawn to scale with them.
PERSON_M = {"shoulders": 0.46, "chest": 0.26, "head": 0.17}
_ARC_STEPS = 8


def plan_extent_m(subject_m: float, focus_m: float, far_m: float | None) -> float:
    """Choose how far the plan view reaches: a round figure that holds what matters.

    >>> plan_extent_m(3.2, 3.2, 3.5)
    6.0
    """
    wanted = max(subject_m, focus_m) * 1.6
    if far_m is not None:
        wanted = max(wanted, min(far_m * 1.15, 3 * wanted))
    power = 10.0 ** math.floor(math.log10(wanted))
    return float(
        next(step * power for step in (1, 1.5, 2, 3, 4, 5, 6, 8, 10) if step * power >= wanted * 0.999)
    )


def ticks(extent_m: float, unit: Unit, most: int = 8) -> list[AxisMark]:
    """Place marks along the axis, on round figures of the unit.

    Returns
    -------
    ``at_m`` and the figure ``value`` in the unit.

    >>> [t["value"] for t in ticks(6.0, "m")]
    [0.0, 1.0, 2.0, 3.0, 4.0, 5.0, 6.0]
    """
    per_unit = METRES[unit]
    span = extent_m / per_unit
    power = 10.0 ** math.floor(math.log10(span / most))
    step = next(s * power for s in (1, 2, 5, 10) if span / (s * power) <= most)
    count = math.floor(span / step + 1e-9)
    return [{"at_m": i * step * per_unit, "value": round(i * step, 6)} for i in range(count + 1)]


def cone(result: Evaluation, index: int, reach_m: float) -> list[list[float]]:
    """Outline the field of one format from the entrance pupil outwards.

    Parameters
    ----------
    reach_m : how far from the pupil the outline is drawn (let it be clipped by the drawing)

    Returns
    -------
    Points (x, y) in metres: the pupil, then an arc from the left edge to the right edge. Empty where
    the projection does not reach the window's edge.
    """
    lens, c, t = result.request.lens, result.columns, result.traced
    half = float(c.picture_w[index]) * lens.squeeze / 2
    dx = float(c.offset_x[index]) * lens.squeeze
    m = float(np.broadcast_to(t.magnification, c.picture_w.shape)[index])
    rectilinear = lens.projection == "rectilinear"
    focal = result.lens.focal_mm
    image = (
        float(angles.image_distance_mm(focal, m, lens.pupil_magnification))
        if rectilinear and math.isfinite(m)
        else focal
    )
    edges = angles.field_angle_rad(np.array([dx - half, dx + half]), image, lens.projection)
    if np.isnan(edges).any():
        return []
    apex = m_from_mm(float(np.broadcast_to(t.origin_mm, c.picture_w.shape)[index]))
    apex = apex if math.isfinite(apex) else 0.0
    arc = np.linspace(edges[0], edges[1], _ARC_STEPS + 1)
    points = np.column_stack((apex + reach_m * np.cos(arc), reach_m * np.sin(arc)))
    return [[apex, 0.0], *points.tolist()]


def plan_view(
    result: Evaluation,
    shown: dict[int, int],
    chosen_index: int,
    subject_m: float,
    unit: Unit,
    extent_m: float | None = None,
    movement_m: float = 0.0,
    brackets: bool = False,
) -> PlanView:
    """Lay out the plan view.

    Parameters
    ----------
    shown : index of a format in the evaluation by its id; the chosen one and the pinned ones
    chosen_index : index of the chosen format
    extent_m : keep this reach (while something is dragged) instead of choosing one
    """
    t, n = result.traced, len(result.request.formats)

    def at(column: Any) -> float | None:
        value = m_from_mm(float(np.broadcast_to(column, (n,))[chosen_index]))
        return value if math.isfinite(value) else None

    far = at(t.far_mm)
    focus = at(t.distance_mm)
    assert focus is not None
    extent = extent_m or plan_extent_m(subject_m, focus, far)
    return {
        "extent_m": extent,
        "ticks": ticks(extent, unit),
        "focus_m": focus,
        "subject_m": subject_m,
        "near_m": at(t.near_mm),
        "far_m": far,
        "hyperfocal_m": at(t.hyperfocal_mm),
        "field_width_m": at(t.field_w_mm),
        "field_height_m": at(t.field_h_mm),
        "cones": [
            {"format_id": key, "chosen": index == chosen_index, "points_m": cone(result, index, extent * 4)}
            for key, index in shown.items()
        ],
        "person_m": PERSON_M,
        "movement": movement(subject_m, movement_m, at(t.near_mm), far, unit, brackets)
        if movement_m >= LEAST_MOVEMENT_M
        else None,
    }


def movement(
    subject_m: float,
    movement_m: float,
    near_m: float | None,
    far_m: float | None,
    unit: Unit = "m",
    brackets: bool = True,
) -> Movement:
    """Tell whether the depth holds a subject that moves back and forth; a far limit of None is infinity.

    >>> print(movement(3.0, 0.4, 2.9, 3.4)["text"])
    Moving from 2.80 m (9' 2") to 3.20 m (10' 6"): soft in front, by 0.10 m.
    """
    nearest, farthest = max(subject_m - movement_m / 2, 0.0), subject_m + movement_m / 2
    told = f"Moving from {both_units(nearest, unit, brackets)} to {both_units(farthest, unit, brackets)}: "
    if near_m is None:
        return {"from_m": nearest, "to_m": farthest, "holds": None, "text": f"{told}no depth is known."}
    in_front = max(near_m - nearest, 0.0)
    behind = 0.0 if far_m is None else max(farthest - far_m, 0.0)
    soft = [
        f"{side}, by {distance_words(amount, unit)}"
        for side, amount in (("in front", in_front), ("behind", behind))
        if amount > 1e-9
    ]
    text = f"{told}soft {' and '.join(soft)}." if soft else f"{told}it stays inside the depth."
    return {"from_m": nearest, "to_m": farthest, "holds": not soft, "text": text}
