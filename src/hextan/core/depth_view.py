"""What the Bench says about depth: limits with their rule, answers asked backwards, curves, and a table for sheets."""

from __future__ import annotations

import math
from typing import Annotated, Any

import numpy as np
from pydantic import Field

from hextan.core import depth
from hextan.core.bench_result import BenchResult, compute_bench
from hextan.core.bench_state import LEAST_MOVEMENT_M, BenchState
from hextan.core.chain import trace
from hextan.core.contract import Metres
from hextan.core.depth_answers import (
    Plane,
    ThinLens,
    distance_for_softness,
    hold,
    hyperfocal,
    marked_stop,
    stop_for_softness,
)
from hextan.core.document_parts import Part
from hextan.core.errors import InvalidInputError
from hextan.core.figures import both_units, span_words
from hextan.core.mounting import mounting_of
from hextan.core.numbers import Floats
from hextan.core.package import Package
from hextan.core.stops import MARKED, stops_of_lens

#: Distances of a depth table, in metres and in feet (common practice, no source).
TABLE_M = (0.35, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.2, 1.5, 1.8, 2, 2.5, 3, 3.5, 4, 5, 6, 7, 8, 10, 12, 15, 20, 30, 50)  # fmt: skip
TABLE_FT = (1.25, 1.5, 2, 2.5, 3, 3.5, 4, 5, 6, 7, 8, 9, 10, 12, 15, 18, 20, 25, 30, 40, 50, 75, 100, 150)
FOOT_M = 0.3048
#: How many stops a table shows at most; whole stops.
_TABLE_STOPS = 8
_CURVE_STEPS = 61


class DepthAsk(Part):
    """What is asked of depth. Distances in metres from the sensor plane; None for infinity."""

    state: BenchState
    hold_near_m: Metres = 2.5
    hold_far_m: Metres | None = 4.0
    background_m: Metres | None = None
    #: Wanted disc of a background point, per cent of the picture's width.
    softness_percent: Annotated[float, Field(ge=0.001, le=100)] = 2.0


class _Bench:
    """The chosen format and lens as depth sees them."""

    def __init__(self, package: Package, state: BenchState, found: BenchResult) -> None:
        self.package, self.state, self.found = package, state, found
        result, i = found.evaluation, found.index
        self.setting = found.setting
        self.coc_mm = float(result.coc_mm[i])
        #: De-squeezed: what shares of the width are told against.
        self.picture_w = float(result.columns.picture_w[i]) * found.setting.lens.squeeze
        self.lens = ThinLens(result.lens.focal_mm, self.coc_mm, result.request.lens.pupil_magnification)
        self.f_number = result.f_number
        #: Multiplies an f-number behind the adapters into the mark on the lens's ring.
        self.to_mark = 1.0
        if self.f_number and self.setting.stop:
            self.to_mark = self.setting.stop / self.f_number
        self.stops = [] if self.setting.widest is None else stops_of_lens(self.setting.widest)
        focus = state.focus_m or state.subject_m
        self.plane = self.lens.focused(focus * 1000.0)

    def both(self, metres: float | None) -> str:
        return "infinity" if metres is None else both_units(metres, self.state.unit)

    def mark(self, value: float) -> str:
        return f"{self.setting.marks}{value:.3g}"

    def answer(self, plane: Plane, exact_n: float | None, narrower: bool) -> dict[str, Any]:
        """An exact stop as a mark of this lens, and what the limits are at that mark."""
        if exact_n is None or not self.stops:
            return _NOTHING
        exact = exact_n * self.to_mark
        mark = marked_stop(exact, self.stops, narrower)
        told: dict[str, Any] = {
            "focus_m": plane.distance_mm / 1000,
            "exact": exact,
            "mark": mark,
            "near_m": None,
            "far_m": None,
            "holds_open": bool(narrower and exact <= self.stops[0]),
            "too_close": self._too_close(plane),
        }
        set_to = mark if mark is not None else (self.stops[-1] if narrower else self.stops[0])
        near, far = self.lens.limits(plane, set_to / self.to_mark)
        return told | {"near_m": near / 1000, "far_m": None if math.isinf(far) else far / 1000}

    def _too_close(self, plane: Plane) -> bool:
        close = self.setting.lens.close_focus_m
        return close is not None and plane.distance_mm < close * 1000 * (1 - 1e-9)


_NOTHING: dict[str, Any] = dict.fromkeys(("focus_m", "exact", "mark", "near_m", "far_m")) | {
    "holds_open": False,
    "too_close": False,
}


def depth_view(package: Package, asked: DepthAsk) -> dict[str, Any]:
    """Answer what is asked of depth for the Bench.

    Raises
    ------
    InvalidInputError, CannotFocusError
        As for the Bench; and limits in the wrong order, or nearer than the lens forms an image.
    """
    found = compute_bench(package, asked.state)
    bench = _Bench(package, asked.state, found)
    unknown = bench.f_number is None or math.isnan(bench.coc_mm)
    return {
        "rule": _rule(bench),
        "aperture": _aperture(bench),
        "hold": None if unknown else _hold(bench, asked),
        "movement": None if unknown or asked.state.movement_m < LEAST_MOVEMENT_M else _movement(bench),
        "softness": None if unknown else _softness(bench, asked),
        "most": None if unknown else _most(bench),
        "curves": [] if unknown else _curves(bench),
        "table": None if unknown else _table(bench),
    }


def _rule(bench: _Bench) -> dict[str, Any]:
    coc = bench.found.evaluation.request.coc
    c, assumes = bench.coc_mm, ""
    if coc.rule == "picture_diagonal":
        assumes = (
            f"the delivered picture's diagonal over {coc.divisor:g}: every format is looked at in one size, "
            "on one screen, so that formats can be compared"
        )
    elif coc.rule == "fixed":
        assumes = (
            f"{coc.mm:g} mm on any sensor: a gauge's value, which takes no account of how far it is enlarged"
        )
    elif coc.rule == "photosite":
        assumes = f"{coc.factor:g} sampled photosites: what the sensor resolves, whatever is delivered"
    elif coc.rule == "pixel":
        assumes = (
            f"{coc.factor:g} delivered pixel: looked at pixel by pixel, the strictest for small pictures"
        )
    else:
        assumes = f"what an eye resolves ({coc.arcmin:g} arc minute) from {coc.picture_heights:g} picture heights away"
    own = bench.state.coc is not None
    return {
        "coc_mm": None if math.isnan(c) else c,
        "assumes": assumes,
        "own": own,
        "text": (
            "The photosite pitch is not known, so that this rule gives nothing here."
            if math.isnan(c)
            else f"Sharp is what stays under {c:.4f} mm on the sensor: {assumes}."
        ),
    }


def _aperture(bench: _Bench) -> dict[str, Any]:
    """What the aperture does: which number counts, light lost close up, diffraction."""
    n, setting = bench.f_number, bench.setting
    if n is None:
        return {"f_number": None, "from_t": False, "working": None, "lost_stops": None, "airy_mm": None,
                "diffraction": False, "text": "This lens has no stop, so that no depth can be told."}  # fmt: skip
    growth = 1 + bench.plane.magnification / bench.lens.pupil_magnification
    airy = float(depth.airy_disc_mm(n, bench.plane.magnification, bench.lens.pupil_magnification))
    from_t = setting.f_number is None
    limited = bool(airy > bench.coc_mm)
    words = [
        f"Depth goes by f/{n:.3g} behind the adapter"
        if setting.magnification != 1
        else f"Depth goes by f/{n:.3g}"
    ]
    if from_t:
        words[0] += ", the T-stop, because the lens states no f-number: the depth shown is a little too deep"
    lost = 2 * math.log2(growth)
    if lost >= 0.05:
        words.append(f"focused so close the lens works at f/{n * growth:.3g} and loses {lost:.1f} stops")
    if limited:
        words.append(
            f"diffraction blurs every point to {airy * 1000:.0f} µm, more than the circle of confusion: "
            "stopping down further makes nothing sharper"
        )
    return {
        "f_number": n,
        "from_t": from_t,
        "working": n * growth,
        "lost_stops": lost,
        "airy_mm": airy,
        "diffraction": limited,
        "text": "; ".join(words) + ".",
    }


def _hold(bench: _Bench, asked: DepthAsk) -> dict[str, Any]:
    far = math.inf if asked.hold_far_m is None else asked.hold_far_m * 1000
    try:
        plane, exact = hold(bench.lens, asked.hold_near_m * 1000, far)
    except InvalidInputError as error:
        return _NOTHING | {"text": error.message, "next": None}
    told = bench.answer(plane, exact, narrower=True)
    wanted = f"from {bench.both(asked.hold_near_m)} to {bench.both(asked.hold_far_m)}"
    return (
        told
        | _words(bench, told, f"holds {wanted}")
        | {"next": _next_for_depth(bench, told, asked.hold_near_m * 1000, far)}
    )


def _movement(bench: _Bench) -> dict[str, Any]:
    state = bench.state
    near = max(state.subject_m - state.movement_m / 2, 0.001)
    far = state.subject_m + state.movement_m / 2
    words = f"holds the movement from {bench.both(near)} to {bench.both(far)}"
    found: dict[str, Any] = {}
    for name in ("kept", "best"):
        try:
            if name == "kept":
                plane = bench.lens.focused(state.subject_m * 1000)
                if near * 1000 - plane.origin_mm <= 0:
                    raise InvalidInputError("It comes nearer than the lens.")
                exact = bench.lens.stop_for(plane, near * 1000, far * 1000)
            else:
                plane, exact = hold(bench.lens, near * 1000, far * 1000)
        except InvalidInputError as error:
            found[name] = _NOTHING | {"text": error.message, "next": None}
            continue
        told = bench.answer(plane, exact, narrower=True)
        found[name] = told | _words(bench, told, words)
        found[name]["next"] = _next_for_depth(bench, told, near * 1000, far * 1000)
    return found


def _words(bench: _Bench, told: dict[str, Any], what: str) -> dict[str, str]:
    exact, focus = bench.mark(told["exact"]), bench.both(told["focus_m"])
    if told["too_close"]:
        close = bench.both(bench.setting.lens.close_focus_m or 0.0)
        return {"text": f"Focus would have to be at {focus}, and this lens focuses no closer than {close}."}
    if told["holds_open"]:
        return {"text": f"Wide open, {bench.mark(bench.stops[0])} at {focus}, it {what} (exactly {exact})."}
    if told["mark"] is None:
        last = bench.mark(bench.stops[-1])
        span = span_words(told["near_m"], told["far_m"], told["focus_m"], bench.state.unit)
        return {
            "text": f"No stop of this lens {what}: it would take {exact}. {last} at {focus} holds {span}."
        }
    return {"text": f"{bench.mark(told['mark'])} at {focus} {what} (exactly {exact})."}


def _next_for_depth(bench: _Bench, told: dict[str, Any], near: float, far: float) -> str | None:
    """The longest shorter lens of the kit that goes on this body and holds it."""
    if told["mark"] is not None or told["exact"] is None:
        return None
    for _, lens in sorted(bench.package.lenses.values(), key=lambda pair: -pair[1].focal_max_mm):
        focal = lens.focal_max_mm * bench.setting.magnification
        if lens.projection != "rectilinear" or focal >= bench.lens.focal_mm:
            continue
        if mounting_of(bench.package, lens, bench.setting.adapters, bench.found.chosen.body).reasons:
            continue
        try:
            plane, exact = hold(ThinLens(focal, bench.coc_mm, lens.pupil_magnification), near, far)
        except InvalidInputError:
            continue
        if exact * bench.to_mark <= MARKED[-1] and exact * bench.to_mark <= bench.stops[-1]:
            wider = lens.focal_max_mm / bench.setting.focal_mm
            return (
                f"{lens.name} at {lens.focal_max_mm:g} mm holds it at {bench.mark(exact * bench.to_mark)}, focused at "
                f"{bench.both(plane.distance_mm / 1000)}; its field is {1 / wider:.2f} times as wide. Or step back: "
                "depth grows with distance."
            )
    return "Step back, or take a shorter lens: no lens of the kit holds it from here."


def _softness(bench: _Bench, asked: DepthAsk) -> dict[str, Any]:
    wanted_mm = asked.softness_percent / 100 * bench.picture_w
    point = math.inf if asked.background_m is None else asked.background_m * 1000
    where = "at infinity" if asked.background_m is None else f"at {bench.both(asked.background_m)}"
    try:
        exact = stop_for_softness(bench.lens, bench.plane, point, wanted_mm)
    except InvalidInputError as error:
        return _NOTHING | {"text": error.message, "next": None, "percent": None}
    if exact is None:
        text = f"A background {where} is in focus: no stop makes it soft."
        return _NOTHING | {"text": text, "next": "Move the background away.", "percent": 0.0}
    told = bench.answer(bench.plane, exact, narrower=False)
    set_to = told["mark"] if told["mark"] is not None else bench.stops[0]
    percent = asked.softness_percent * exact * bench.to_mark / set_to
    what = f"a background {where} becomes {percent:.2f} % of the width soft"
    if told["mark"] is not None:
        text = f"At {bench.mark(set_to)} {what} (exactly {asked.softness_percent:g} % at {bench.mark(told['exact'])})."
        return told | {"text": text, "next": None, "percent": percent}
    text = (f"It would take {bench.mark(told['exact'])}; wide open, at {bench.mark(set_to)}, {what}.")  # fmt: skip
    return told | {"text": text, "next": _next_for_softness(bench, wanted_mm), "percent": percent}


def _next_for_softness(bench: _Bench, wanted_mm: float) -> str:
    widest_n = bench.stops[0] / bench.to_mark
    away = distance_for_softness(bench.lens, bench.plane, widest_n, wanted_mm)
    if away is not None:
        return f"Wide open a background {bench.both(away / 1000)} away would be so soft."
    return "No background is far enough at this distance: go closer, or take a longer lens or a wider stop."


def _most(bench: _Bench) -> dict[str, Any]:
    assert bench.f_number is not None
    plane = hyperfocal(bench.lens, bench.f_number)
    near, _ = bench.lens.limits(plane, bench.f_number)
    focus = plane.distance_mm / 1000
    text = (
        f"At {bench.mark(bench.setting.stop or 0)} most is sharp focused at {bench.both(focus)}: "
        f"{span_words(near / 1000, None, focus, bench.state.unit)}."
    )
    return {"focus_m": focus, "near_m": near / 1000, "text": text}


def _shown(bench: _Bench) -> list[int]:
    order = bench.found.order
    return [key for key in dict.fromkeys([bench.state.format_id, *bench.state.pinned]) if key in order]


def _curves(bench: _Bench) -> list[dict[str, Any]]:
    """Depth along distance and stop, and blur along the background's distance, of the chosen and the pinned formats."""
    result, state = bench.found.evaluation, bench.state
    n = bench.f_number
    assert n is not None
    focal = bench.lens.focal_mm
    least = max(bench.setting.lens.close_focus_m or 0.0, 4.2 * focal / 1000)
    focus = bench.plane.distance_mm / 1000
    far_end = max(focus * 6, least * 4)
    distances = np.geomspace(least, far_end, _CURVE_STEPS)
    marks = np.array(bench.stops) / bench.to_mark
    behind = np.geomspace(1.02, 200, _CURVE_STEPS) * focus
    curves = []
    for key in _shown(bench):
        i = bench.found.order[key]
        size = float(result.columns.picture_w[i]), float(result.columns.picture_h[i])
        coc, wide = float(result.coc_mm[i]), size[0] * bench.setting.lens.squeeze
        common: dict[str, Any] = {"wide_mm": size[0], "high_mm": size[1], "focal_mm": focal, "coc_mm": coc,
                                  "pupil_magnification": bench.lens.pupil_magnification}  # fmt: skip
        along = trace(distance_mm=distances * 1000, f_number=n, **common)
        by_stop = trace(distance_mm=np.full(marks.shape, focus * 1000), f_number=marks, **common)
        z_b = behind * 1000 - bench.plane.origin_mm
        blur = depth.blur_disc_mm(bench.plane.z_mm, z_b, focal, bench.plane.magnification, n)
        infinity = float(bench.plane.magnification * focal / n)
        curves.append(
            {
                "format_id": key,
                "chosen": key == state.format_id,
                "coc_mm": coc,
                "by_distance": _limits(distances, along.near_mm, along.far_mm),
                "by_stop": _limits(np.array(bench.stops), by_stop.near_mm, by_stop.far_mm),
                "blur": [
                    {"x": float(x), "percent": 100 * float(b) / wide}
                    for x, b in zip(behind, blur, strict=True)
                ],
                "blur_at_infinity": 100 * infinity / wide,
            }
        )
    return curves


def _limits(xs: Floats, near: Floats, far: Floats) -> list[dict[str, Any]]:
    return [
        {"x": float(x), "near_m": float(n) / 1000, "far_m": float(f) / 1000 if math.isfinite(f) else None}
        for x, n, f in zip(xs, np.broadcast_to(near, xs.shape), np.broadcast_to(far, xs.shape), strict=True)
        if not math.isnan(n)
    ]


def _table(bench: _Bench) -> dict[str, Any]:
    """Near and far by distance and whole stops, for a sheet."""
    unit = bench.state.unit
    known = TABLE_M if unit == "m" else tuple(x * FOOT_M for x in TABLE_FT)
    close = bench.setting.lens.close_focus_m
    least = max(close or 0.0, 4.01 * bench.lens.focal_mm / 1000)
    distances = [x for x in known if x > least * 1.001]
    if close is not None and close >= 4.01 * bench.lens.focal_mm / 1000:
        distances.insert(0, close)
    whole = [s for s in bench.stops if s in MARKED and (MARKED.index(s) - MARKED.index(1.0)) % 3 == 0]
    stops = ([bench.stops[0]] + [s for s in whole if s > bench.stops[0] * 1.1])[:_TABLE_STOPS]
    rows = []
    for metres in distances:
        plane = bench.lens.focused(metres * 1000)
        cells = []
        for stop in stops:
            near, far = bench.lens.limits(plane, stop / bench.to_mark)
            cells.append({"near_m": near / 1000, "far_m": None if math.isinf(far) else far / 1000})
        rows.append({"distance_m": metres, "cells": cells})
    return {
        "marks": bench.setting.marks,
        "stops": stops,
        "hyperfocal_m": [hyperfocal(bench.lens, s / bench.to_mark).distance_mm / 1000 for s in stops],
        "rows": rows,
    }
