"""What would do more: need by need, the smallest change with which something would do the shot."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from hextan.core.base import distance_words, highest_rate, mm_from_m, stops_words
from hextan.core.shots.checks import Check, head_of
from hextan.core.shots.judge import Judged, judge
from hextan.core.shots.told import with_what
from hextan.core.shots.words import Span

MOST_CHANGES = 4


def changes_of(judged: Judged, k: int) -> list[str]:
    """What would do more, the smallest change of each kind; the nearest first."""
    if judged.verdict(k) == "does":
        return []
    musts = [check for check in judged.checks if check.must]
    i, j = judged.at(k)
    failing = [check for check in musts if not check.met[i, j]]
    # First what the best cell lacks, then every other must without which something would do.
    asked = [*failing, *(check for check in musts if check not in failing and not check.met.all())]
    told: list[tuple[float, str]] = []
    for check in asked:
        if check.name == "mounts":
            continue
        alone = judged.cells.layout.mounts & (judged.missed == 1) & ~check.met
        if not alone.any():
            continue
        share = np.where(alone, check.share, -1.0)
        near = set(np.flatnonzero(share.ravel() >= share.max() - 1e-9).tolist())
        best = next(cell for cell in judged.order if cell in near)
        told += [(1 - float(share.max()), text) for text in _changes(judged, check, best)]
    if not told and len(failing) > 1:
        told.append(
            (
                1.0,
                f"nearest: {with_what(judged, k)}; without {' and without '.join(f'“{c.label}”' for c in failing)} it would do",
            )
        )
    return list(dict.fromkeys(text for _, text in sorted(told, key=lambda each: each[0])))[:MOST_CHANGES]


def _changes(judged: Judged, check: Check, k: int) -> list[str]:
    makers = {"framing": _other_field, "stop": _other_stop, "place": _other_place, "rate": _other_rate}
    make = makers.get(check.name)
    found = make(judged, k) if make is not None else []
    if check.name == "carried":
        i, j = judged.at(k)
        found = [f"carry what is missing ({check.has(i, j)}): {with_what(judged, k)}"]
    return found or [f"without “{check.label}”: {with_what(judged, k)}"]


def _other_field(judged: Judged, k: int) -> list[str]:
    """Another distance, another focal length, or cropping afterwards."""
    cells = judged.cells
    i, j = judged.at(k)
    unit, name = cells.settings.unit, with_what(judged, k)
    told = []
    exact, at = float(cells.exact_m[i, j]), float(cells.distance_m[i, j])
    wider = float(cells.wider[i, j])
    if math.isfinite(exact):
        way = "nearer" if exact < at else "farther back"
        allowed = float(cells.nearest_m[i, j]) <= exact * (1 + 1e-9) and exact <= cells.farthest_m
        if allowed:
            told.append(f"{distance_words(abs(exact - at), unit)} {way}: {name}")
    focal = float(cells.focal_mm[i, j] / cells.layout.magnification[i, j])
    wanted = cells.needs.wanted
    if wanted is not None and wanted.field_m is not None:
        # The focal length that frames it from there, with the adapter taken off again.
        m = float(cells.side_mm[i, j]) / mm_from_m(wanted.field_m)
        needed = mm_from_m(at) * m / (1 + m) ** 2 / float(cells.layout.magnification[i, j])
    else:
        needed = focal * wider
    if math.isfinite(needed) and needed > 0:
        told.append(f"a {needed:.1f} mm instead of the {focal:.3g}: {name}")
    if (
        wider > 1
        and cells.needs.deliveries
        and cells.needs.deliveries[0].long_edge_px
        and float(head_of(cells, 0)[i, j]) >= wider
    ):
        told.append(f"cropped ×{wider:.2f} afterwards, pixels are left: {name}")
    return told


def _other_stop(judged: Judged, k: int) -> list[str]:
    cells = judged.cells
    i, j = judged.at(k)
    least, most = cells.no_wider.binding(i, j, True), cells.no_narrower.binding(i, j, False)
    wide, narrow = float(cells.no_wider.tightest(True)[i, j]), float(cells.no_narrower.tightest(False)[i, j])
    name = with_what(judged, k)
    if not (0 < narrow < math.inf and 0 < wide < math.inf):
        return []
    short = 2 * math.log2(wide / narrow)
    told = []
    if most == "the light":
        high = float(cells.ei_span[1][j])
        told.append(
            f"{stops_words(short)} more light, or EI {_third_ei(high * 2**short)} instead of {high:.0f}: {name}"
        )
    if least == "the depth":
        told.append(f"depth for T{narrow:.2g} instead of T{wide:.2g}: {name}")
    if least == "the lens":
        told.append(f"a lens that opens to T{narrow:.2g}: {name}")
    if least == "too much light":
        told.append(f"{stops_words(short)} more ND: {name}")
    return told or [f"{stops_words(short)} between {least} and {most}: {name}"]


def _third_ei(ei: float) -> int:
    """The next EI in thirds of a stop, as menus have them."""
    thirds = math.ceil(3 * math.log2(ei / 100) - 1e-6)
    rounded = 100 * 2 ** (thirds / 3)
    step = 10 ** max(math.floor(math.log10(rounded)) - 1, 0)
    return int(round(rounded / step) * step)


def _other_place(judged: Judged, k: int) -> list[str]:
    cells = judged.cells
    i, j = judged.at(k)
    unit, name = cells.settings.unit, with_what(judged, k)
    at, near, far = float(cells.distance_m[i, j]), float(cells.nearest_m[i, j]), cells.farthest_m
    if at < near:
        # From there another lens may be the right one.
        there = replace(cells.needs, distance=Span(near, near))
        again = judge(cells.layout.package, cells.settings, there)
        first = None if again is None or not again.order else again.order[0]
        if again is not None and first is not None and again.verdict(first) != "cannot":
            name = with_what(again, first)
        return [f"{distance_words(near - at, unit)} farther back, from {distance_words(near, unit)}: {name}"]
    if at > far:
        return [f"{distance_words(at - far, unit)} more room: {name}"]
    return []


def _other_rate(judged: Judged, k: int) -> list[str]:
    cells = judged.cells
    j = judged.at(k)[1]
    highest = cells.layout.kit.highest[j].usable_fps
    if highest is None or highest >= cells.needs.fps.high:
        return []
    return [f"{highest_rate(highest)} fps instead of {cells.needs.fps.high:g}: {with_what(judged, k)}"]
