"""What the Bench says about depth: limits with their rule, answers asked backwards, curves, and a table for sheets."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Annotated, Any

import numpy as np
from pydantic import Field

from hextan.core.base import (
    MARKED,
    Floats,
    HextanError,
    InvalidInputError,
    Metres,
    Part,
    both_units,
    m_from_mm,
    mm_from_m,
    span_words,
    stops_of_lens,
    um_from_mm,
)
from hextan.core.bench.depth_answers import (
    ApertureRead,
    CocRead,
    DepthCell,
    DepthCurve,
    DepthRow,
    DepthTable,
    DepthView,
    LimitsAt,
    MostDepth,
    MovementAnswer,
    SoftnessAnswer,
    StopAnswer,
    StopFigures,
)
from hextan.core.bench.result import BenchResult, compute_bench
from hextan.core.bench.state import LEAST_MOVEMENT_M, BenchState
from hextan.core.equipment import Lens, Package, mounting_of
from hextan.core.evaluation import assumption
from hextan.core.optics import (
    Plane,
    ThinLens,
    close_up_growth,
    close_up_stops,
    depth,
    distance_for_softness,
    hold,
    hyperfocal,
    marked_stop,
    stop_for_softness,
    trace,
)

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
        self.plane = self.lens.focused(mm_from_m(focus))

    def both(self, metres: float | None) -> str:
        return "infinity" if metres is None else both_units(metres, self.state.unit, self.package.brackets)

    def mark(self, value: float) -> str:
        return f"{self.setting.marks}{value:.3g}"

    def answer(self, plane: Plane, exact_n: float | None, narrower: bool) -> StopFigures:
        """An exact stop as a mark of this lens, and what the limits are at that mark."""
        if exact_n is None or not self.stops:
            return _NOTHING
        exact = exact_n * self.to_mark
        mark = marked_stop(exact, self.stops, narrower)
        told: StopFigures = {
            "focus_m": m_from_mm(plane.distance_mm),
            "exact": exact,
            "mark": mark,
            "near_m": None,
            "far_m": None,
            "holds_open": bool(narrower and exact <= self.stops[0]),
            "too_close": self._too_close(plane),
        }
        set_to = mark if mark is not None else (self.stops[-1] if narrower else self.stops[0])
        near, far = self.lens.limits(plane, set_to / self.to_mark)
        told["near_m"], told["far_m"] = m_from_mm(near), None if math.isinf(far) else m_from_mm(far)
        return told

    def _too_close(self, plane: Plane) -> bool:
        close = self.setting.lens.close_focus_m
        return close is not None and plane.distance_mm < mm_from_m(close) * (1 - 1e-9)


_NOTHING: StopFigures = {
    "focus_m": None,
    "exact": None,
    "mark": None,
    "near_m": None,
    "far_m": None,
    "holds_open": False,
    "too_close": False,
}


def depth_view(package: Package, asked: DepthAsk) -> DepthView:
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


def _rule(bench: _Bench) -> CocRead:
    c, assumes = bench.coc_mm, assumption(bench.found.evaluation.request.coc)
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


def _aperture(bench: _Bench) -> ApertureRead:
    """What the aperture does: which number counts, light lost close up, diffraction."""
    n, setting = bench.f_number, bench.setting
    if n is None:
        return {"f_number": None, "from_t": False, "working": None, "lost_stops": None, "airy_mm": None,
                "diffraction": False, "text": "This lens has no stop, so that no depth can be told."}  # fmt: skip
    growth = float(close_up_growth(bench.plane.magnification, bench.lens.pupil_magnification))
    airy = float(depth.airy_disc_mm(n, bench.plane.magnification, bench.lens.pupil_magnification))
    from_t = "f_number" in setting.lens.assumed
    limited = bool(airy > bench.coc_mm)
    words = [
        f"Depth goes by f/{n:.3g} behind the adapter"
        if setting.magnification != 1
        else f"Depth goes by f/{n:.3g}"
    ]
    if from_t:
        words[0] += f", taken {setting.lens.wider_than_t}, because the lens states no f-number"
    lost = float(close_up_stops(bench.plane.magnification, bench.lens.pupil_magnification))
    if lost >= 0.05:
        words.append(f"focused so close the lens works at f/{n * growth:.3g} and loses {lost:.1f} stops")
    if limited:
        words.append(
            f"diffraction blurs every point to {um_from_mm(airy):.0f} µm, more than the circle of confusion: "
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


def _hold(bench: _Bench, asked: DepthAsk) -> StopAnswer:
    far = math.inf if asked.hold_far_m is None else mm_from_m(asked.hold_far_m)
    try:
        plane, exact = hold(bench.lens, mm_from_m(asked.hold_near_m), far)
    except InvalidInputError as error:
        return {**_NOTHING, "text": error.message, "next": None}
    wanted = f"from {bench.both(asked.hold_near_m)} to {bench.both(asked.hold_far_m)}"
    return _held(
        bench,
        bench.answer(plane, exact, narrower=True),
        f"holds {wanted}",
        (mm_from_m(asked.hold_near_m), far),
    )


def _held(bench: _Bench, told: StopFigures, what: str, limits_mm: tuple[float, float]) -> StopAnswer:
    return {**told, "text": _words(bench, told, what), "next": _next_for_depth(bench, told, *limits_mm)}


def _movement(bench: _Bench) -> MovementAnswer:
    state = bench.state
    near = max(state.subject_m - state.movement_m / 2, 0.001)
    far = state.subject_m + state.movement_m / 2
    words = f"holds the movement from {bench.both(near)} to {bench.both(far)}"

    def stop(aim: Callable[[], tuple[Plane, float]]) -> StopAnswer:
        try:
            plane, exact = aim()
        except InvalidInputError as error:
            return {**_NOTHING, "text": error.message, "next": None}
        return _held(
            bench, bench.answer(plane, exact, narrower=True), words, (mm_from_m(near), mm_from_m(far))
        )

    def focus_kept() -> tuple[Plane, float]:
        plane = bench.lens.focused(mm_from_m(state.subject_m))
        if mm_from_m(near) - plane.origin_mm <= 0:
            raise InvalidInputError("It comes nearer than the lens.")
        return plane, bench.lens.stop_for(plane, mm_from_m(near), mm_from_m(far))

    return {"kept": stop(focus_kept), "best": stop(lambda: hold(bench.lens, mm_from_m(near), mm_from_m(far)))}


def _words(bench: _Bench, told: StopFigures, what: str) -> str:
    if told["exact"] is None or told["focus_m"] is None or told["near_m"] is None:
        return "This lens has no stop, so that no depth can be told."
    exact, focus = bench.mark(told["exact"]), bench.both(told["focus_m"])
    if told["too_close"]:
        close = bench.both(bench.setting.lens.close_focus_m or 0.0)
        return f"Focus would have to be at {focus}, and this lens focuses no closer than {close}."
    if told["holds_open"]:
        return f"Wide open, {bench.mark(bench.stops[0])} at {focus}, it {what} (exactly {exact})."
    if told["mark"] is None:
        last = bench.mark(bench.stops[-1])
        span = span_words(
            told["near_m"], told["far_m"], told["focus_m"], bench.state.unit, bench.package.brackets
        )
        return f"No stop of this lens {what}: it would take {exact}. {last} at {focus} holds {span}."
    return f"{bench.mark(told['mark'])} at {focus} {what} (exactly {exact})."


def _marked_on(bench: _Bench, lens: Lens, exact_n: float) -> str | None:
    """An exact f-number behind the adapters as a mark of another lens, narrow enough; None where its ring has none."""
    other = bench.state.model_copy(
        update={"lens_id": lens.id, "focal_mm": lens.focal_max_mm, "stop": None, "focus_m": None}
    )
    try:
        found = compute_bench(bench.package, other, format_ids=())
    except HextanError:
        return None
    open_n, setting = found.evaluation.f_number, found.setting
    if open_n is None or setting.stop is None:
        return None
    mark = marked_stop(exact_n * setting.stop / open_n, setting.stops, True)
    return None if mark is None else f"{setting.marks}{mark:.3g}"


def _next_for_depth(bench: _Bench, told: StopFigures, near: float, far: float) -> str | None:
    """The longest shorter lens of the kit that goes on this body and holds it."""
    if told["mark"] is not None or told["exact"] is None:
        return None
    for _, lens in sorted(bench.package.lenses.values(), key=lambda pair: -pair[1].focal_max_mm):
        focal = lens.focal_max_mm * bench.setting.magnification
        if lens.projection != "rectilinear" or focal >= bench.lens.focal_mm:
            continue
        if mounting_of(bench.package.rig, lens, bench.setting.adapters, bench.found.chosen.body).reasons:
            continue
        try:
            plane, exact = hold(ThinLens(focal, bench.coc_mm, lens.pupil_magnification), near, far)
        except InvalidInputError:
            continue
        if plane.distance_mm < mm_from_m(lens.close_focus_m or 0.0) * (1 - 1e-9):
            continue
        set_to = _marked_on(bench, lens, exact)
        if set_to is not None:
            wider = lens.focal_max_mm / bench.setting.focal_mm
            return (
                f"{lens.name} at {lens.focal_max_mm:g} mm holds it at {set_to}, focused at "
                f"{bench.both(m_from_mm(plane.distance_mm))}; its field is {1 / wider:.2f} times as wide. Or step back: "
                "depth grows with distance."
            )
    return "Step back, or take a shorter lens: no lens of the kit holds it from here."


def _softness(bench: _Bench, asked: DepthAsk) -> SoftnessAnswer:
    wanted_mm = asked.softness_percent / 100 * bench.picture_w
    point = math.inf if asked.background_m is None else mm_from_m(asked.background_m)
    where = "at infinity" if asked.background_m is None else f"at {bench.both(asked.background_m)}"
    try:
        exact = stop_for_softness(bench.lens, bench.plane, point, wanted_mm)
    except InvalidInputError as error:
        return {**_NOTHING, "text": error.message, "next": None, "percent": None}
    if exact is None:
        text = f"A background {where} is in focus: no stop makes it soft."
        return {**_NOTHING, "text": text, "next": "Move the background away.", "percent": 0.0}
    told = bench.answer(bench.plane, exact, narrower=False)
    set_to = told["mark"] if told["mark"] is not None else bench.stops[0]
    percent = asked.softness_percent * exact * bench.to_mark / set_to
    what = f"a background {where} becomes {percent:.2f} % of the width soft"
    exactly = bench.mark(exact * bench.to_mark)
    if told["mark"] is not None:
        text = f"At {bench.mark(set_to)} {what} (exactly {asked.softness_percent:g} % at {exactly})."
        return {**told, "text": text, "next": None, "percent": percent}
    text = (f"It would take {exactly}; wide open, at {bench.mark(set_to)}, {what}.")  # fmt: skip
    return {**told, "text": text, "next": _next_for_softness(bench, wanted_mm), "percent": percent}


def _next_for_softness(bench: _Bench, wanted_mm: float) -> str:
    widest_n = bench.stops[0] / bench.to_mark
    away = distance_for_softness(bench.lens, bench.plane, widest_n, wanted_mm)
    if away is not None:
        return f"Wide open a background {bench.both(m_from_mm(away))} away would be so soft."
    return "No background is far enough at this distance: go closer, or take a longer lens or a wider stop."


def _most(bench: _Bench) -> MostDepth:
    assert bench.f_number is not None
    plane = hyperfocal(bench.lens, bench.f_number)
    near, _ = bench.lens.limits(plane, bench.f_number)
    focus = m_from_mm(plane.distance_mm)
    text = (
        f"At {bench.mark(bench.setting.stop or 0)} most is sharp focused at {bench.both(focus)}: "
        f"{span_words(m_from_mm(near), None, focus, bench.state.unit, bench.package.brackets)}."
    )
    return {"focus_m": focus, "near_m": m_from_mm(near), "text": text}


def _shown(bench: _Bench) -> list[int]:
    order = bench.found.order
    return [key for key in dict.fromkeys([bench.state.format_id, *bench.state.pinned]) if key in order]


def _curves(bench: _Bench) -> list[DepthCurve]:
    """Depth along distance and stop, and blur along the background's distance, of the chosen and the pinned formats."""
    result, state = bench.found.evaluation, bench.state
    n = bench.f_number
    assert n is not None
    focal = bench.lens.focal_mm
    least = max(bench.setting.lens.close_focus_m or 0.0, m_from_mm(4.2 * focal))
    focus = m_from_mm(bench.plane.distance_mm)
    far_end = max(focus * 6, least * 4)
    distances = np.geomspace(least, far_end, _CURVE_STEPS)
    marks = np.array(bench.stops) / bench.to_mark
    behind = np.geomspace(1.02, 200, _CURVE_STEPS) * focus
    curves: list[DepthCurve] = []
    for key in _shown(bench):
        i = bench.found.order[key]
        size = float(result.columns.picture_w[i]), float(result.columns.picture_h[i])
        coc, wide = float(result.coc_mm[i]), size[0] * bench.setting.lens.squeeze
        common: dict[str, Any] = {"wide_mm": size[0], "high_mm": size[1], "focal_mm": focal, "coc_mm": coc,
                                  "pupil_magnification": bench.lens.pupil_magnification}  # fmt: skip
        along = trace(distance_mm=mm_from_m(distances), f_number=n, **common)
        by_stop = trace(distance_mm=np.full(marks.shape, mm_from_m(focus)), f_number=marks, **common)
        z_b = mm_from_m(behind) - bench.plane.origin_mm
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
                    {"x": float(x), "percent": 100 * float(b)}
                    for x, b in zip(behind, depth.blur_of_width(blur, wide), strict=True)
                ],
                "blur_at_infinity": 100 * float(depth.blur_of_width(infinity, wide)),
            }
        )
    return curves


def _limits(xs: Floats, near: Floats, far: Floats) -> list[LimitsAt]:
    return [
        {
            "x": float(x),
            "near_m": m_from_mm(float(n)),
            "far_m": m_from_mm(float(f)) if math.isfinite(f) else None,
        }
        for x, n, f in zip(xs, np.broadcast_to(near, xs.shape), np.broadcast_to(far, xs.shape), strict=True)
        if not math.isnan(n)
    ]


def _table(bench: _Bench) -> DepthTable:
    """Near and far by distance and whole stops, for a sheet."""
    unit = bench.state.unit
    known = TABLE_M if unit == "m" else tuple(x * FOOT_M for x in TABLE_FT)
    close = bench.setting.lens.close_focus_m
    least = max(close or 0.0, m_from_mm(4.01 * bench.lens.focal_mm))
    distances = [x for x in known if x > least * 1.001]
    if close is not None and close >= m_from_mm(4.01 * bench.lens.focal_mm):
        distances.insert(0, close)
    whole = [s for s in bench.stops if s in MARKED and (MARKED.index(s) - MARKED.index(1.0)) % 3 == 0]
    stops = ([bench.stops[0]] + [s for s in whole if s > bench.stops[0] * 1.1])[:_TABLE_STOPS]
    rows: list[DepthRow] = []
    for metres in distances:
        plane = bench.lens.focused(mm_from_m(metres))
        cells: list[DepthCell] = []
        for stop in stops:
            near, far = bench.lens.limits(plane, stop / bench.to_mark)
            cells.append({"near_m": m_from_mm(near), "far_m": None if math.isinf(far) else m_from_mm(far)})
        rows.append({"distance_m": metres, "cells": cells})
    return {
        "marks": bench.setting.marks,
        "stops": stops,
        "hyperfocal_m": [m_from_mm(hyperfocal(bench.lens, s / bench.to_mark).distance_mm) for s in stops],
        "rows": rows,
    }
