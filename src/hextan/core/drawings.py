"""The geometry of the Bench's drawings: what stands where, in metres and millimetres.

Plan view: x along the lens axis from the sensor plane, y to the right of the camera, metres.
Window map: x right and y down from the optical axis, millimetres, seen as the picture is seen.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from hextan.core import angles, coverage
from hextan.core.bench_state import LEAST_MOVEMENT_M
from hextan.core.computation import Evaluation
from hextan.core.distances import METRES, Unit
from hextan.core.figures import both_units, distance_words, just_covers_words, margin_words
from hextan.core.package import Body, ScanMode

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


def ticks(extent_m: float, unit: Unit, most: int = 8) -> list[dict[str, float]]:
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
    image = focal * (1 + m / lens.pupil_magnification) if rectilinear and math.isfinite(m) else focal
    edges = angles.field_angle_rad(np.array([dx - half, dx + half]), image, lens.projection)
    if np.isnan(edges).any():
        return []
    apex = float(np.broadcast_to(t.origin_mm, c.picture_w.shape)[index]) / 1000
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
) -> dict[str, Any]:
    """Lay out the plan view.

    Parameters
    ----------
    shown : index of a format in the evaluation by its id; the chosen one and the pinned ones
    chosen_index : index of the chosen format
    extent_m : keep this reach (while something is dragged) instead of choosing one
    """
    t, n = result.traced, len(result.request.formats)

    def at(column: Any) -> float | None:
        value = float(np.broadcast_to(column, (n,))[chosen_index]) / 1000
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
        "movement": movement(subject_m, movement_m, at(t.near_mm), far, unit)
        if movement_m >= LEAST_MOVEMENT_M
        else None,
    }


def movement(
    subject_m: float, movement_m: float, near_m: float | None, far_m: float | None, unit: Unit = "m"
) -> dict[str, Any]:
    """Tell whether the depth holds a subject that moves back and forth; a far limit of None is infinity.

    >>> print(movement(3.0, 0.4, 2.9, 3.4)["text"])
    Moving from 2.80 m (9' 2") to 3.20 m (10' 6"): soft in front, by 0.10 m.
    """
    nearest, farthest = max(subject_m - movement_m / 2, 0.0), subject_m + movement_m / 2
    told = f"Moving from {both_units(nearest, unit)} to {both_units(farthest, unit)}: "
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


def _rect(name: str, width: float, height: float, x: float, y: float) -> dict[str, Any]:
    return {"name": name, "x": x - width / 2, "y": y - height / 2, "width": width, "height": height}


def window_map(result: Evaluation, index: int, body: Body, mode: ScanMode) -> dict[str, Any]:
    """Lay out the sensor with all windows of the body, the chosen one and the image circle."""
    c, pitch = result.columns, body.pitch_um / 1000
    dx, dy = float(c.offset_x[index]), float(c.offset_y[index])
    circle = result.lens.image_circle_mm
    windows = []
    for other in body.modes:
        w, h = (n * pitch for n in other.window)
        x, y = (n * pitch for n in other.offset)
        needed = float(coverage.needed_circle_mm(w, h, x, y))
        windows.append(
            {
                **_rect(other.name, w, h, x, y),
                "mode_id": other.id,
                "chosen": other.id == mode.id,
                "needed_mm": needed,
                "verdict": coverage_verdict(circle, needed),
            }
        )
    recorded = _rect("recording", float(c.recorded_w[index]), float(c.recorded_h[index]), dx, dy)
    needed = float(result.needed_mm[index])
    dark = (
        [] if circle is None else coverage.dark_corners(circle, recorded["width"], recorded["height"], dx, dy)
    )
    protect = 1 - float(c.given.protect[index])
    picture_w, picture_h = float(c.picture_w[index]), float(c.picture_h[index])
    return {
        "sensor": _rect("sensor", body.photosites[0] * pitch, body.photosites[1] * pitch, 0, 0),
        "windows": windows,
        "recorded": recorded,
        "picture": _rect("picture", picture_w, picture_h, dx, dy),
        "framed": _rect("framed", picture_w * protect, picture_h * protect, dx, dy),
        "squeeze": result.request.lens.squeeze,
        "circle_mm": circle,
        "needed_mm": needed,
        "verdict": coverage_verdict(circle, needed),
        "dark_corners": dark,
        "dark_share": None if circle is None else float(result.dark[index]),
        "words": _coverage_words(circle, needed, windows, dark),
    }


def coverage_verdict(circle_mm: float | None, needed_mm: float) -> str:
    """Say how a circle does: covers, marginal (under 2 % to spare), short or unknown.

    >>> coverage_verdict(31.5, 29.2), coverage_verdict(29.5, 29.2), coverage_verdict(28.0, 29.2)
    ('covers', 'marginal', 'short')
    """
    if circle_mm is None:
        return "unknown"
    margin = circle_mm - needed_mm
    if margin < 0:
        return "short"
    return "marginal" if margin < needed_mm * coverage.MARGINAL_SHARE else "covers"


def _coverage_words(
    circle: float | None, needed: float, windows: list[dict[str, Any]], dark: list[Any]
) -> list[dict[str, str]]:
    if circle is None:
        text = f"This recording needs a circle of {needed:.1f} mm; the lens's circle is not stated."
        return [{"verdict": "unknown", "text": text}]
    verdict, margin = coverage_verdict(circle, needed), circle - needed
    head = f"The {circle:.1f} mm circle "
    told = {
        "covers": f"{margin_words(margin)}.",
        "marginal": f"{just_covers_words(margin)}: test it.",
        "short": f"is {margin_words(margin)} here: {'all four corners' if len(dark) == 4 else ', '.join(dark)} dark.",
    }[verdict]
    words = [{"verdict": verdict, "text": head + told}]
    covered = [w for w in windows if w["verdict"] in ("covers", "marginal")]
    short = [w for w in windows if w["verdict"] == "short"]
    if short and covered:
        largest = max(covered, key=lambda w: float(w["width"] * w["height"]))
        words.append({"verdict": "covers", "text": f"Largest whole window covered: {largest['name']}."})
    elif short:
        smallest = min(short, key=lambda w: float(w["needed_mm"]))
        text = f"No whole window of this body is covered; {smallest['name']} needs {smallest['needed_mm']:.1f} mm."
        words.append({"verdict": "short", "text": text})
    else:
        words.append({"verdict": "covers", "text": "Every window of this body is covered."})
    return words
