"""A judged shot in words: the choice, what it has of every need, what binds, and the runner-up."""

from __future__ import annotations

import math

import numpy as np

from hextan.core.base import m_from_mm
from hextan.core.equipment import main_words
from hextan.core.shots.answers import ShotChoice, ShotReason
from hextan.core.shots.cells import RIGHT_STOPS, Cells
from hextan.core.shots.checks import PLENTY
from hextan.core.shots.judge import Judged
from hextan.core.shots.layout import crops_on

#: With this much to spare, in stops or octaves, nothing binds.
PLENTIFUL = 1.0


def choice_of(judged: Judged, k: int) -> ShotChoice:
    """How a cell would be set."""
    cells = judged.cells
    layout, needs = cells.layout, cells.needs
    i, j = judged.at(k)
    here, row, way = layout.places[j], layout.rows[i], layout.way(i, j)
    lens, m = row.lens, float(layout.magnification[i, j])
    magnification = float(cells.magnification[i, j])
    wide, high = float(layout.picture_w[i, j]) * lens.squeeze, float(layout.picture_h[i, j])
    t = float(cells.stop_t[i, j])
    ei, nd, parts, off = exposed(cells, i, j)
    focus = float(cells.held[1][i, j])
    formed = math.isfinite(magnification)
    placed = cells.placed
    return {
        "format_id": here.recording.id,
        "format": here.recording.name,
        "mode": here.mode.name,
        "body": here.body.name,
        "lens_id": lens.id,
        "lens": lens.name,
        "lens_set": row.lens_set.name,
        "lens_told": layout.package.lens_words(lens.name, row.lens_set.name),
        "adapter_ids": list(way.key),
        "adapters": [adapter.name for adapter in way.adapters],
        "focal_mm": float(cells.focal_mm[i, j]) / m,
        "is_zoom": lens.is_zoom,
        "effective_mm": _effective(cells, i, j),
        "distance_m": float(cells.distance_m[i, j]) if placed else None,
        "focus_m": focus if needs.hold is not None and math.isfinite(focus) and abs(focus / float(cells.distance_m[i, j]) - 1) > 1e-3 else None,
        "stop": t * math.sqrt(way.transmission) / m if math.isfinite(t) and t > 0 else None,
        "marks": "T" if lens.t_stop is not None else "f/",
        "fps": needs.fps.high,
        "shutter_deg": cells.settings.shutter_deg,
        "ei": ei,
        "nd_stops": nd,
        "nd_parts": parts,
        "over_stops": off,
        "crop_ids": crops_on(here, needs.picture),
        "field_width_m": m_from_mm(wide / magnification) if formed and placed else None,
        "field_height_m": m_from_mm(high / magnification) if formed and placed else None,
        "percent": 100 * (float(cells.wider[i, j]) - 1) if needs.wanted is not None and math.isfinite(float(cells.wider[i, j])) else None,
    }  # fmt: skip


def _effective(cells: Cells, i: int, j: int) -> float | None:
    """What it frames like on the window of reference, by its width."""
    layout = cells.layout
    if not layout.rectilinear[i, 0]:
        return None
    wide = float(layout.picture_w[i, j] * layout.squeeze[i, 0])
    return float(cells.focal_mm[i, j]) * layout.reference.width_mm / wide


def exposed(cells: Cells, i: int, j: int) -> tuple[int | None, float | None, list[str], float | None]:
    """Sensitivity and ND for the stop in the light there is, and by how many stops that is over: native values first, then the
    least ND."""
    needed = float(cells.needed_ei[i, j])
    if not math.isfinite(needed) or needed <= 0:
        return None, None, [], None
    here = cells.layout.places[j]
    best: tuple[tuple[float, ...], int, float, list[str], float] | None = None
    for ei, nd in cells.exposures(j):
        over = math.log2(ei / needed) - nd.stops
        off = abs(over)
        native = float(ei not in here.body.base_eis)
        cost = (0.0 if off <= RIGHT_STOPS + 1e-9 else off, native, nd.stops, float(ei))
        if best is None or cost < best[0]:
            best = (cost, ei, nd.stops, list(nd.parts), over)
    return (None, None, [], None) if best is None else best[1:]


def reasons_of(judged: Judged, k: int) -> list[ShotReason]:
    """Every need, and what a cell has of it."""
    i, j = judged.at(k)
    return [
        {"name": check.name, "wanted": check.label, "has": check.has(i, j), "met": bool(check.met[i, j]), "must": check.must}
        for check in judged.checks
    ]  # fmt: skip


def binds_of(judged: Judged, k: int) -> str:
    """What fails, or the need with the least to spare."""
    i, j = judged.at(k)
    failing = [check for check in judged.checks if check.must and not check.met[i, j]]
    if failing:
        return "; ".join(f"{check.label}: {check.has(i, j)}" for check in failing)
    measured = [check for check in judged.checks if check.must and check.spare[i, j] < PLENTY]
    if not measured:
        return "nothing binds"
    least = min(measured, key=lambda check: float(check.spare[i, j]))
    far = "nothing binds closely; " if least.spare[i, j] > PLENTIFUL else ""
    return f"{far}{least.label}: {least.has(i, j)}"


def off_main_of(judged: Judged, k: int) -> str:
    """What forces a shot off its unit's main format; empty where it is on it, or has none."""
    main, layout = judged.cells.needs.main, judged.cells.layout
    check = next((check for check in judged.checks if check.name == "main"), None)
    if main is None or check is None or check.met[judged.at(k)]:
        return ""
    off = f"Off the main format, {main_words(main)}"
    there = next((other for other in judged.order if check.met[judged.at(other)]), None)
    if there is None:
        known = bool(np.any(check.met))
        return f"{off}: {'no lens goes on it' if known else 'it is not in the package'}."
    i, j = judged.at(there)
    failing = [each for each in judged.checks if each.must and each.name != "main" and not each.met[i, j]]
    if failing:
        reasons = "; ".join(f"{each.label}: {each.has(i, j)}" for each in failing)
        return f"{off}: {reasons} (with {layout.rows[i].lens.name})."
    return f"{off}, for its wishes: {judged.settled_by(k, there)}."


def runner_up(judged: Judged, k: int) -> int | None:
    """The best cell with another lens or on another body, of what is carried."""
    i, j = judged.at(k)
    layout = judged.cells.layout
    mine = (layout.rows[i].lens.id, layout.places[j].body.id)
    for other in judged.order_inside:
        a, b = judged.at(other)
        if (layout.rows[a].lens.id, layout.places[b].body.id) != mine:
            return other
    return None


def with_what(judged: Judged, k: int) -> str:
    """A cell in a few words."""
    i, j = judged.at(k)
    layout = judged.cells.layout
    here, row = layout.places[j], layout.rows[i]
    focal = judged.set_mm(k)
    told = layout.package.lens_words(row.lens.name, row.lens_set.name)
    name = f"{told} at {focal:.0f}" if row.lens.is_zoom else told
    return f"{name} on {here.body.name}, {here.recording.name}"
