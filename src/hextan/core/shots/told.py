"""A judged shot in words: the choice, what binds, the runner-up, what would do more, what to watch out for."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np

from hextan.core.base import (
    both_units,
    distance_words,
    highest_rate,
    m_from_mm,
    margin_words,
    mm_from_m,
    stops_words,
)
from hextan.core.bench import EARS_M, NOSE_M
from hextan.core.light import flicker, nd_choices
from hextan.core.optics import MARGINAL_SHARE, depth, upscaled
from hextan.core.shots.answers import ShotChoice, ShotReason, ShotWarning
from hextan.core.shots.cells import ASSUMED_EI, Cells
from hextan.core.shots.checks import PLENTY, Check, head_of
from hextan.core.shots.judge import Judged, judge
from hextan.core.shots.layout import steady_crops
from hextan.core.shots.words import Span

#: A face whose nose is drawn so much larger than its ears looks stretched (common practice, no source).
NOSE_CAUTION = 1.2
#: Off by less than half of a third of a stop, an exposure is right.
RIGHT_STOPS = 1 / 6
MOST_CHANGES = 4
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
    ei, nd, parts = _exposed(cells, i, j)
    focus = float(cells.held[1][i, j])
    crops = steady_crops(here.body, here.mode.id, here.recording.raster) if needs.picture.stabiliser else []
    formed = math.isfinite(magnification)
    placed = cells.placed
    ratio = 1.0 if lens.t_stop is not None else float(cells.f_of_t[i, j])
    return {
        "format_id": here.recording.id,
        "format": here.recording.name,
        "mode": here.mode.name,
        "body": here.body.name,
        "lens_id": lens.id,
        "lens": lens.name,
        "lens_set": row.lens_set.name,
        "adapter_ids": list(way.key),
        "adapters": [adapter.name for adapter in way.adapters],
        "focal_mm": float(cells.focal_mm[i, j]) / m,
        "is_zoom": lens.is_zoom,
        "effective_mm": _effective(cells, i, j),
        "distance_m": float(cells.distance_m[i, j]) if placed else None,
        "focus_m": focus if needs.hold is not None and math.isfinite(focus) and abs(focus / float(cells.distance_m[i, j]) - 1) > 1e-3 else None,
        "stop": t * math.sqrt(way.transmission) / m * ratio if math.isfinite(t) and t > 0 else None,
        "marks": "T" if lens.t_stop is not None else "f/",
        "fps": needs.fps.high,
        "shutter_deg": cells.settings.shutter_deg,
        "ei": ei,
        "nd_stops": nd,
        "nd_parts": parts,
        "crop_ids": [] if here.recording.raw else crops[:1],
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
    return float(cells.focal_mm[i, j]) * layout.kit.reference.width_mm / wide


def _exposed(cells: Cells, i: int, j: int) -> tuple[int | None, float | None, list[str]]:
    """Sensitivity and ND for the stop in the light there is: native values first, then the least ND."""
    needed = float(cells.needed_ei[i, j])
    if not math.isfinite(needed) or needed <= 0:
        return None, None, []
    body = cells.layout.places[j].body
    low, high = float(cells.ei_span[0][j]), float(cells.ei_span[1][j])
    eis = [ei for ei in (body.eis or body.base_eis or [int(e) for e in ASSUMED_EI]) if low <= ei <= high]
    best: tuple[tuple[float, ...], int, float, list[str]] | None = None
    for ei in eis:
        for nd in nd_choices(body.nd_stops, cells.layout.package.filters):
            off = abs(math.log2(ei / needed) - nd.stops)
            cost = (0.0 if off <= RIGHT_STOPS else off, float(ei not in body.base_eis), nd.stops, float(ei))
            if best is None or cost < best[0]:
                best = (cost, ei, nd.stops, list(nd.parts))
    return (None, None, []) if best is None else (best[1], best[2], best[3])


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


def runner_up(judged: Judged, k: int) -> int | None:
    """The best cell with another lens or on another body."""
    i, j = judged.at(k)
    layout = judged.cells.layout
    mine = (layout.rows[i].lens.id, layout.places[j].body.id)
    for other in judged.order:
        a, b = judged.at(other)
        if (layout.rows[a].lens.id, layout.places[b].body.id) != mine:
            return other
    return None


def with_what(judged: Judged, k: int) -> str:
    """A cell in a few words."""
    i, j = judged.at(k)
    layout = judged.cells.layout
    here, row = layout.places[j], layout.rows[i]
    focal = float(judged.cells.focal_mm[i, j] / layout.magnification[i, j])
    name = f"{row.lens.name} at {focal:.0f}" if row.lens.is_zoom else row.lens.name
    return f"{name} on {here.body.name}, {here.recording.name}"


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
        near = np.flatnonzero(share.ravel() >= share.max() - 1e-9)
        best = next(cell for cell in judged.order if cell in set(near.tolist()))
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


def warnings_of(judged: Judged, k: int) -> list[ShotWarning]:
    """What to watch out for with a cell."""
    cells = judged.cells
    i, j = judged.at(k)
    found = [warning for make in _WARNINGS for warning in make(cells, i, j)]
    return [{"code": code, "text": text} for code, text in found]


def _read_softly(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    here, columns = cells.layout.places[j], cells.layout.kit.columns
    if here.mode.method != "full":
        return [
            (
                "softened",
                f"{here.mode.name} is {'binned' if here.mode.method == 'binned' else 'line-skipped'}: softer, and fine patterns may shimmer.",
            )
        ]
    over = float(
        columns.samples_across[j] * columns.recorded_w[j] / columns.read_w[j] / columns.given.raster_w[j]
    )
    return [("softened", f"{here.recording.name} is upscaled in camera.")] if upscaled(over) else []


def _delivered(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    if not cells.needs.deliveries or not cells.needs.deliveries[0].long_edge_px:
        return []
    head = float(head_of(cells, 0)[i, j])
    name = cells.needs.deliveries[0].name
    return (
        [("delivery", f"{name} has more pixels than are recorded: it is upscaled ×{1 / head:.2f}.")]
        if head < 1 - 1e-3
        else []
    )


def _covered(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    circle, needed = float(cells.circle_mm[i, j]), float(cells.layout.needed_mm[i, j])
    name = cells.layout.rows[i].lens.name
    if math.isnan(circle):
        return [("circle", f"The image circle of {name} is not stated: test the corners.")]
    return (
        [("circle", f"{name} {margin_words(circle - needed)}: look at the corners.")]
        if 0 <= circle / needed - 1 < MARGINAL_SHARE
        else []
    )


def _face(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    z = m_from_mm(float(cells.pupil_z_mm[i, j]))
    wanted = cells.needs.wanted
    if (
        wanted is None
        or not cells.needs.shot.framing.strip()
        or "mm" in wanted.words
        or not z > NOSE_M * 1.01
    ):
        return []
    ratio = (z + EARS_M) / (z - NOSE_M)
    at = float(cells.distance_m[i, j])
    if ratio <= NOSE_CAUTION:
        return []
    return [
        (
            "face",
            f"From {both_units(at, cells.settings.unit)} the nose of a face is drawn {100 * (ratio - 1):.0f} % larger than its ears.",
        )
    ]


def _diffraction(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    n, m = float(cells.stop_t[i, j] * cells.f_of_t[i, j]), float(cells.magnification[i, j])
    coc = float(cells.layout.coc_mm[i, j])
    if not (math.isfinite(n) and n > 0 and math.isfinite(m) and math.isfinite(coc)):
        return []
    airy = float(depth.airy_disc_mm(n, m, float(cells.layout.pupil[i, 0])))
    return (
        [("diffraction", f"At f/{n:.2g} diffraction is wider than what counts as sharp.")]
        if airy > coc
        else []
    )


def _flickers(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    hz = cells.needs.flicker_hz
    if hz is None:
        return []
    told = []
    for fps in sorted({cells.needs.fps.low, cells.needs.fps.high}):
        time = cells.settings.shutter_deg / 360 / fps
        safe = flicker.nearest_safe(hz, fps, time)
        if safe is not None and abs(float(safe) / time - 1) < 1e-6:
            continue
        if safe is None:
            told.append(
                f"At {fps:g} fps no shutter holds a whole pulse of lamps at {hz:g} Hz: bands or beating are to be expected."
            )
        else:
            told.append(
                f"Lamps at {hz:g} Hz: at {fps:g} fps take 1/{1 / float(safe):.4g} s ({360 * fps * float(safe):.1f}°) and test."
            )
    return [("flicker", text) for text in told]


def _kept_out(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    keep = cells.needs.keep_out_m
    if keep is None:
        return []
    unit, by = cells.settings.unit, cells.needs.shot.keep_out_by.strip() or "nobody who is named"
    at = float(cells.distance_m[i, j])
    if at < keep * (1 - 1e-9):
        stands = f"this plan breaks it at {both_units(at, unit)}: take a longer lens or a tighter window from farther back"
    else:
        stands = f"this plan stands at {both_units(at, unit)}"
    return [("keep_out", f"Keep-out of {both_units(keep, unit)}, set by {by}: {stands}. No distance is called safe here: whoever "
             "is responsible decides on the day.")]  # fmt: skip


def _weighed(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    if cells.needs.rig.limit_kg is None:
        return []
    layout = cells.layout
    silent = [name for name, kg in ((layout.rows[i].lens.name, layout.lens_kg[i, 0]), (layout.places[j].body.name, layout.body_kg[j]))
              if math.isnan(float(kg))]  # fmt: skip
    return [("weight", f"The weight of {' and '.join(silent)} is not stated: weigh it.")] if silent else []


def _mounted(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    layout = cells.layout
    here, lens = layout.places[j], layout.rows[i].lens
    notes = [
        note.note
        for note in layout.package.rig.pair_notes
        if (note.glass, note.body) == (lens.name, here.body.name)
    ]
    return [("pair", f"{lens.name} on {here.body.name}: {note}.") for note in notes]


def _unplaced(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    if cells.placed or (cells.needs.hold is None and cells.needs.soft is None):
        return []
    return [("distance", "Nothing says how far away it is: depth is told for 3 m.")]


_WARNINGS: tuple[Any, ...] = (
    _kept_out,
    _flickers,
    _face,
    _read_softly,
    _delivered,
    _covered,
    _diffraction,
    _weighed,
    _mounted,
    _unplaced,
)
