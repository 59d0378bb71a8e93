"""Coverage of a lens in a recording format: drawn, in words, along its range, beside the rest of the kit."""

from __future__ import annotations

import math

import numpy as np

from hextan.core.base import InvalidInputError, no_longer_here, stops_of_lens
from hextan.core.equipment import (
    FormatInPackage,
    LensSetting,
    MapRect,
    Package,
    adapters_by_id,
    dark_of_rect,
    evaluation_request,
    format_requests,
    simplest,
    why_not,
    window_map,
)
from hextan.core.evaluation import compute
from hextan.core.kit.answers import CircleAlong, CirclePlace, CoverageOfLens, CoverageView
from hextan.core.kit.arrays import IMPOSSIBLE, SHORT, VERDICTS, Kit, kit_of
from hextan.core.kit.ask import CoverageAsk
from hextan.core.kit.dark_corners import MARGINAL_TEXT, advice
from hextan.core.optics import MARGINAL_SHARE, coverage_verdict, dark_corners

#: Points along a zoom's range or the focus scale.
_STEPS = 24


def coverage_view(package: Package, ask: CoverageAsk) -> CoverageView:
    """Show how a lens covers a format, what to do about it, and how the other lenses do.

    Raises
    ------
    InvalidInputError
        A lens, format or adapter that the production does not have.
    """
    here, setting = _resolve(package, ask)
    formats = format_requests([here], ask.delivery, setting, ask.crop_ids)
    result = compute(evaluation_request(setting, formats), package.terms(ask.unit))
    drawn = window_map(result, 0, here.body, here.mode)
    on_body = setting.mounting(here.body)
    needed, circle = drawn["needed_mm"], drawn["circle_mm"]
    return {
        "lens": {
            "lens_id": setting.lens.id,
            "name": setting.lens.name,
            "focal_mm": setting.focal_mm,
            "stop": setting.stop,
            "stops": setting.stops,
            "marks": setting.marks,
            "adapter_ids": [a.id for a in setting.adapters],
            "notes": setting.notes,
            "stands_in": setting.lens.stands_in,
            "mounting": on_body.told,
        },
        "map": drawn,
        "margin_mm": None if circle is None else circle - needed,
        "marginal": MARGINAL_TEXT if drawn["verdict"] == "marginal" else None,
        "along": _along(setting, needed, drawn["recorded"], package.seen_dark),
        "advice": [] if on_body.reasons else advice(package, here, setting, ask),
        "lenses": _lenses(kit_of(package, ask.model_copy(update={"format_ids": [here.recording.id],
                                                                 "mounted": "simplest"})), here),
    }  # fmt: skip


def _resolve(package: Package, ask: CoverageAsk) -> tuple[FormatInPackage, LensSetting]:
    faults = []
    if ask.format_id not in package.formats:
        faults.append(no_longer_here("recording format", "format_id", ask.format_id))
    if ask.lens_id not in package.lenses:
        faults.append(no_longer_here("lens", "lens_id", ask.lens_id))
    if faults:
        raise InvalidInputError.plainly(*faults)
    here, lens = package.formats[ask.format_id], package.lenses[ask.lens_id][1]
    if ask.adapter_ids is not None:
        adapters = adapters_by_id(package.adapters, [*ask.adapter_ids], "adapter_ids")
    else:
        way = simplest(package.rig, lens, here.body)
        adapters = () if way is None else way.adapters
    focus = math.inf if ask.focus_m is None else ask.focus_m
    return here, LensSetting(package.rig, lens, adapters, ask.focal_mm, ask.stop, focus)


def _along(setting: LensSetting, needed_mm: float, lies: MapRect, seen: float) -> CircleAlong | None:
    """The circle along the zoom's range, or along what its table says; None where it is one value."""
    lens = setting.lens
    by = lens.circle_by or ("focal" if lens.is_zoom else None)
    if by is None or setting.circle_mm is None:
        return None
    if by == "focal":
        ends = (lens.focal_min_mm, lens.focal_max_mm)
        places = np.geomspace(*ends, _STEPS).tolist() if lens.is_zoom else [lens.focal_min_mm]
        circles = [lens.circle_at_mm(at, setting.stop, setting.focus_m) for at in places]
        now = setting.focal_mm
    elif by == "stop":
        places = stops_of_lens(setting.widest) if setting.widest else [row[0] for row in lens.circle_rows]
        circles = [lens.circle_at_mm(setting.focal_mm, at, setting.focus_m) for at in places]
        now = setting.stop or places[0]
    else:
        nearest = lens.close_focus_m or min(at for at, _ in lens.circle_rows)
        places = [*np.geomspace(nearest, 30 * nearest, _STEPS - 1).tolist(), math.inf]
        circles = [lens.circle_at_mm(setting.focal_mm, setting.stop, at) for at in places]
        now = setting.focus_m
    m = setting.magnification
    points: list[CirclePlace] = [
        {
            "at": None if math.isinf(at) else at,
            "circle_mm": circle * m,
            "verdict": coverage_verdict(circle * m, needed_mm, dark_of_rect(circle * m, lies), seen),
        }
        for at, circle in zip(places, circles, strict=True)
        if circle is not None
    ]
    return {
        "by": by,
        "now": None if math.isinf(now) else now,
        "needed_mm": needed_mm,
        "safe_mm": needed_mm * (1 + MARGINAL_SHARE),
        "points": points,
    }


def _lenses(kit: Kit, here: FormatInPackage) -> list[CoverageOfLens]:
    rows: list[CoverageOfLens] = []
    for i, entry in enumerate(kit.entries):
        verdict = int(kit.verdict[i, 0])
        circle, needed = float(kit.circle_mm[i, 0]), float(kit.needed_mm[i, 0])
        known = not math.isnan(circle)
        way = entry.by_body.get(here.body.id)
        c = kit.columns
        lies = (
            float(kit.recorded_w[i, 0]),
            float(kit.recorded_h[i, 0]),
            float(c.offset_x[0]),
            float(c.offset_y[0]),
        )
        rows.append(
            {
                "lens_id": entry.lens.id,
                "name": entry.name,
                "set": entry.lens_set.name,
                "focal_mm": entry.focal_mm,
                "adapter_ids": [] if way is None else list(way.key),
                "via": way.name if way is not None and way.adapters else None,
                "verdict": VERDICTS[verdict],
                "effective_mm": float(kit.effective_mm[i, 0])
                if verdict != IMPOSSIBLE and kit.rectilinear[i, 0]
                else None,
                "angle_deg": None if math.isnan(kit.angle_deg[i, 0]) else float(kit.angle_deg[i, 0]),
                "circle_mm": circle if known else None,
                "needed_mm": needed,
                "margin_mm": circle - needed if known else None,
                "dark_share": float(kit.dark[i, 0]) if known else None,
                "dark_corners": list(dark_corners(circle, *lies)) if verdict == SHORT else [],
                "why_not": why_not(kit.rig, entry.lens, here.body) if verdict == IMPOSSIBLE else None,
            }
        )
    return rows
