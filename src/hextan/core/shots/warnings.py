"""What to watch out for with a choice: each warning is a row of a table."""

from __future__ import annotations

import math
from collections.abc import Callable

from hextan.core.base import both_units, distance_words, just_covers_words, m_from_mm, stops_words
from hextan.core.bench import EARS_M, NOSE_M
from hextan.core.light import flicker
from hextan.core.optics import MARGINAL_SHARE, depth, upscaled
from hextan.core.shots.answers import ShotWarning
from hextan.core.shots.cells import RIGHT_STOPS, Cells
from hextan.core.shots.checks import head_of
from hextan.core.shots.judge import Judged
from hextan.core.shots.told import exposed
from hextan.core.shots.words import movement

#: A face whose nose is drawn so much larger than its ears looks stretched (common practice, no source).
NOSE_CAUTION = 1.2


def warnings_of(judged: Judged, k: int) -> list[ShotWarning]:
    """What to watch out for with a cell."""
    cells = judged.cells
    i, j = judged.at(k)
    found = [warning for make in _WARNINGS for warning in make(cells, i, j)]
    return [{"code": code, "text": text} for code, text in found]


def _read_softly(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    here, columns = cells.layout.places[j], cells.layout.columns
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
        [("circle", f"{name} {just_covers_words(circle - needed)}: look at the corners.")]
        if circle / needed - 1 < MARGINAL_SHARE
        and (circle >= needed or float(cells.dark(False)[i, j]) <= cells.layout.package.seen_dark)
        else []
    )


def _face(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    z = m_from_mm(float(cells.pupil_z_mm[i, j]))
    wanted = cells.needs.wanted
    if wanted is None or not wanted.face or not z > NOSE_M * 1.01:
        return []
    ratio = (z + EARS_M) / (z - NOSE_M)
    at = float(cells.distance_m[i, j])
    if ratio <= NOSE_CAUTION:
        return []
    return [
        (
            "face",
            f"From {both_units(at, cells.settings.unit, cells.settings.brackets)} the nose of a face is drawn {100 * (ratio - 1):.0f} % larger than its ears.",
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
    unit, both = cells.settings.unit, cells.settings.brackets
    by = cells.needs.shot.keep_out_by.strip() or "nobody who is named"
    at = float(cells.distance_m[i, j])
    if at < keep * (1 - 1e-9):
        stands = f"this plan breaks it at {both_units(at, unit, both)}: take a longer lens or a tighter window from farther back"
    else:
        stands = f"this plan stands at {both_units(at, unit, both)}"
    return [("keep_out", f"Keep-out of {both_units(keep, unit, both)}, set by {by}: {stands}. No distance is called safe here: whoever "
             "is responsible decides on the day.")]  # fmt: skip


def _exposed(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    """What is left of the light where no EI and no ND is right, and the ring has nowhere to go."""
    ei, nd, _, over = exposed(cells, i, j)
    if over is None or abs(over) <= RIGHT_STOPS + 1e-9:
        return []
    needed = float(cells.needed_ei[i, j])
    above = [(math.log2(e / needed) - f.stops, e, f.stops) for e, f in cells.exposures(j)]
    more = min(((o, e, f) for o, e, f in above if o > RIGHT_STOPS), default=None)
    cure = "" if more is None else f": {_set_to(more[1], more[2] + round(3 * more[0]) / 3)} would be right"
    told = f"{stops_words(abs(over))} {'over' if over > 0 else 'under'} at {_set_to(ei, nd)}"
    return [("exposure", f"{told}{cure}.")]


def _set_to(ei: int | None, nd_stops: float | None) -> str:
    return f"EI {ei}" + (f" with ND {0.3 * nd_stops:.1f}" if nd_stops else "")


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
    notes = layout.package.rig.notes_on(lens.name, here.body.name)
    return [("pair", f"{lens.name} on {here.body.name}: {note}.") for note in notes]


def _unplaced(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    if cells.placed or (cells.needs.hold is None and cells.needs.soft is None):
        return []
    return [("distance", "Nothing says how far away it is: depth is told for 3 m.")]


def _moves(cells: Cells, i: int, j: int) -> list[tuple[str, str]]:
    moved = movement(cells.needs.shot.distance, cells.settings.unit)
    if moved is None:
        return []
    first, last = (distance_words(metres, cells.settings.unit) for metres in moved)
    near = distance_words(min(moved), cells.settings.unit)
    return [
        (
            "distance",
            f"It moves from {first} to {last}: it is framed at {near}, and the rest of the way is wider.",
        )
    ]


_WARNINGS: tuple[Callable[[Cells, int, int], list[tuple[str, str]]], ...] = (
    _kept_out,
    _flickers,
    _face,
    _read_softly,
    _delivered,
    _covered,
    _diffraction,
    _exposed,
    _weighed,
    _mounted,
    _unplaced,
    _moves,
)
