"""Where a circle does not cover, or only just: what can be done about it, the cheapest first.

Everything is counted in stops, so that light, field and handling can be ranked together: light lost counts
as it is, field lost as the light gathered on it (2 log2 of the factor), handling by `HANDLING_STOPS`
(common practice, no source). The rules stand here and in `docs/kit.md`.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from hextan.core.base import (
    MARKED,
    crop_words,
    just_covers_words,
    margin_words,
    mm_from_um,
    stops_between,
    stops_words,
)
from hextan.core.equipment import (
    FormatInPackage,
    LensOnBody,
    LensSetting,
    Mounting,
    Package,
    Rig,
    format_requests,
    ways,
)
from hextan.core.evaluation import columns_of
from hextan.core.kit.answers import Change, ChangeKind, Option
from hextan.core.kit.arrays import UNKNOWN, Kit, kit_of
from hextan.core.kit.ask import KitAsk
from hextan.core.kit.reach import reaches
from hextan.core.optics import (
    MARGINAL_SHARE,
    coverage_verdict,
    covering_from,
    dark_corners,
    dark_where_short,
    largest_window_mm,
    needed_circle_mm,
)

#: What a change costs besides light and field, in stops.
HANDLING_STOPS: dict[ChangeKind, float] = {
    "nothing": 0.0,
    "focal": 0.05,
    "stop": 0.0,
    "crop": 0.1,
    "format": 0.25,
    "lens": 0.5,
    "adapter": 0.75,
    "correct": 1.5,
}
MARGINAL_TEXT = "Makers measure circles differently: test it before the shoot."


@dataclass(frozen=True)
class Lies:
    """What is recorded, and the picture in it, as they lie on the sensor; mm from the optical axis."""

    recorded: tuple[float, float]
    picture: tuple[float, float]
    offset: tuple[float, float]

    @property
    def needed_mm(self) -> float:
        """The circle for all that is recorded."""
        return float(needed_circle_mm(*self.recorded, *self.offset))

    @property
    def picture_needed_mm(self) -> float:
        """The circle for the delivered picture alone."""
        return float(needed_circle_mm(*self.picture, *self.offset))


def lies_of(here: FormatInPackage, ask: KitAsk, setting: LensSetting) -> Lies:
    """Lay a format out with the in-camera crops that are in force."""
    c = columns_of(format_requests([here], ask.delivery, setting, ask.crop_ids), setting.lens.squeeze)
    return Lies(
        (float(c.recorded_w[0]), float(c.recorded_h[0])),
        (float(c.picture_w[0]), float(c.picture_h[0])),
        (float(c.offset_x[0]), float(c.offset_y[0])),
    )


def advice(package: Package, here: FormatInPackage, setting: LensSetting, ask: KitAsk) -> list[Option]:
    """List what can be done, the cheapest first; empty where the circle covers with room to spare.

    Returns
    -------
    For each: ``kind``, ``text``, ``cost_stops``, and what the Bench would have to be set to (``set``).
    """
    circle, lies = setting.circle_mm, lies_of(here, ask, setting)
    if circle is None:
        text = "The image circle is not stated: ask for it or test the lens on this window, at both ends and wide open."
        return [_option("nothing", text, 0.0)]
    needed = lies.needed_mm
    verdict = coverage_verdict(
        circle, needed, float(dark_where_short(circle, *lies.recorded, *lies.offset)), package.seen_dark
    )
    if verdict == "covers":
        return []
    if verdict == "marginal":
        return [_option("nothing", f"It {just_covers_words(circle - needed)}. {MARGINAL_TEXT}", 0.0)]
    found = [
        *_picture_only(circle, lies),
        *_set_otherwise(setting, lies),
        *_in_camera(here, setting, ask, circle, lies),
        *_other_format(here, setting, ask, lies),
        *_free_window(here, circle, lies),
        *_extender(package.rig, here, setting, lies),
        *_other_lens(package, here, setting, ask),
        _correct(circle, lies),
    ]
    return sorted(found, key=lambda option: option["cost_stops"])


def _option(kind: ChangeKind, text: str, cost: float, change: Change | None = None) -> Option:
    return {"kind": kind, "text": text, "cost_stops": cost + HANDLING_STOPS[kind], "set": change or {}}


def _field_cost(factor: float) -> float:
    return 2 * math.log2(max(factor, 1.0))


def _picture_only(circle: float, lies: Lies) -> list[Option]:
    if circle < lies.picture_needed_mm:
        return []
    text = (
        f"Leave it: the delivered picture needs {lies.picture_needed_mm:.1f} mm and is covered; only what lies outside it is "
        "dark. It cannot be re-framed into the corners."
    )
    return [_option("nothing", text, 0.0)]


def _set_otherwise(setting: LensSetting, lies: Lies) -> list[Option]:
    """Stop down, or zoom in, where the lens's own table says that the circle grows."""
    lens, m = setting.lens, setting.magnification
    if lens.circle_by not in ("stop", "focal"):
        return []
    at = covering_from(lens.circle_by, lens.circle_rows, lies.needed_mm / m)
    if at is None:
        return []
    if lens.circle_by == "focal":
        if at <= setting.focal_mm or at > lens.focal_max_mm:
            return []
        text = f"Zoom in to {at:.1f} mm or longer: from there the circle covers."
        return [_option("focal", text, _field_cost(at / setting.focal_mm), {"focal_mm": round(at + 0.05, 1)})]
    if setting.stop is None or at <= setting.stop:
        return []
    marked = next((stop for stop in MARKED if stop >= at * (1 - 1e-9)), at)
    marks = "T" if lens.t_stop is not None else "f/"
    lost = stops_between(setting.stop, marked)
    text = f"Stop down to {marks}{marked:g}: from {marks}{at:.1f} on the circle covers. It costs {stops_words(lost)} of light."
    return [_option("stop", text, lost, {"stop": marked})]


def _in_camera(
    here: FormatInPackage, setting: LensSetting, ask: KitAsk, circle: float, lies: Lies
) -> list[Option]:
    on_body = LensOnBody(setting.lens.squeeze, False)
    options = []
    for crop in here.body.crops:
        factor = crop.factor(here.mode.id, here.recording.raster)
        if crop.id in ask.crop_ids or factor is None or here.crop_reason(crop, on_body) is not None:
            continue
        w, h = (size / factor for size in lies.recorded)
        left = circle - float(needed_circle_mm(w, h, *lies.offset))
        if left < 0:
            continue
        text = f"Switch {crop.name} on: ×{factor:g} tighter, and it {margin_words(left)}."
        options.append(_option("crop", text, _field_cost(factor), {"crop_ids": [*ask.crop_ids, crop.id]}))
    return options


def _other_format(here: FormatInPackage, setting: LensSetting, ask: KitAsk, lies: Lies) -> list[Option]:
    """The largest picture of this body, in the wanted aspect, that is covered."""
    best: tuple[float, FormatInPackage, Lies] | None = None
    for other in here.body.places:
        if other.recording.id == here.recording.id:
            continue
        there = lies_of(other, ask, setting)
        circle = setting.circle_mm
        if circle is None or circle < there.needed_mm:
            continue
        width = there.picture[0]
        # Of formats with the same picture the one that is most like what was chosen.
        if best is None or (round(width, 6), _like(other, here)) > (round(best[0], 6), _like(best[1], here)):
            best = (width, other, there)
    if best is None:
        return []
    width, other, _ = best
    factor = lies.picture[0] / width
    fps = "" if factor <= 1 else f", ×{factor:.2f} tighter"
    text = f"Record {other.recording.name} ({other.mode.name}): the largest picture of {here.body.name} that is covered{fps}."
    return [_option("format", text, _field_cost(factor), {"format_id": other.recording.id})]


def _like(other: FormatInPackage, here: FormatInPackage) -> int:
    return (other.recording.raw == here.recording.raw) + (other.recording.raster == here.recording.raster)


def _free_window(here: FormatInPackage, circle: float, lies: Lies) -> list[Option]:
    if not here.body.free_windows or any(lies.offset):
        return []
    w, h = (float(x) for x in largest_window_mm(circle, lies.recorded[0] / lies.recorded[1]))
    mm = mm_from_um(here.body.pitch_um)
    sites = [2 * math.floor(size / mm / 2) for size in (w, h)]
    factor = lies.recorded[0] / w
    text = (
        f"Set a window of {sites[0]} × {sites[1]} photosites ({w:.2f} × {h:.2f} mm): ×{factor:.2f} tighter."
    )
    return [_option("format", text, _field_cost(factor))]


def _extender(rig: Rig, here: FormatInPackage, setting: LensSetting, lies: Lies) -> list[Option]:
    bare = setting.bare_circle_mm
    assert bare is not None
    options = []
    for way in ways(rig, setting.lens, here.body):
        grows = way.magnification / setting.magnification
        if way.verdict == "impossible" or grows <= 1 or bare * way.magnification < lies.needed_mm:
            continue
        dark = way.stops_lost - Mounting(setting.adapters).stops_lost
        text = (
            f"Mount {way.name}: ×{grows:.2f} tighter, {stops_words(dark)} darker, and "
            f"it {margin_words(bare * way.magnification - lies.needed_mm)}."
        )
        options.append(_option("adapter", text, dark + _field_cost(grows), {"adapter_ids": list(way.key)}))
    return options[:1]


def _other_lens(package: Package, here: FormatInPackage, setting: LensSetting, ask: KitAsk) -> list[Option]:
    """The lens of the kit nearest in field that covers here."""
    kit: Kit = kit_of(
        package, ask.model_copy(update={"format_ids": [here.recording.id], "mounted": "simplest"})
    )
    focal = setting.focal_mm * setting.magnification
    squeezed = setting.lens.squeeze
    best: tuple[float, int, float] | None = None
    for i, entry in enumerate(kit.entries):
        if entry.lens.id == setting.lens.id or entry.end == "long" or not kit.rectilinear[i, 0]:
            continue
        # A scope lens is replaced by a scope lens: the squeeze belongs to the look.
        if entry.lens.squeeze != squeezed or kit.verdict[i, 0] == UNKNOWN:
            continue
        for reach in reaches(kit, i, 0, spare=MARGINAL_SHARE):
            near = min(max(focal, reach.low_mm), reach.high_mm)
            off = abs(math.log(near / focal))
            if reach.covers and (best is None or off < best[0] - 1e-9):
                best = (off, i, near)
    if best is None:
        return []
    off, i, near = best
    entry = kit.entries[i]
    way = entry.by_body[here.body.id]
    via = f" ({way.name})" if way.adapters else ""
    at = f" at {near / way.magnification:.1f} mm" if entry.end else ""
    change = 100 * (focal / near - 1)
    told = (
        "the same field"
        if abs(change) < 0.5
        else f"{abs(change):.0f} % {'wider' if change > 0 else 'tighter'}"
    )
    text = f"Take {entry.lens.name}{at}{via}: {told}, and it covers."
    cost = _field_cost(math.exp(off))
    return [
        _option(
            "lens",
            text,
            cost,
            {"lens_id": entry.lens.id, "focal_mm": near / way.magnification, "adapter_ids": list(way.key)},
        )
    ]


def _correct(circle: float, lies: Lies) -> Option:
    """Accept it, and crop or brighten afterwards."""
    needed = lies.picture_needed_mm
    corners = dark_corners(circle, *lies.recorded, *lies.offset)
    where = "all four corners" if len(corners) == 4 else " and ".join(corners)
    if circle >= needed:
        return _option("correct", f"Accept dark {where} outside the picture.", 0.0)
    dx, dy = (abs(x) for x in lies.offset)
    factor = _post_crop(circle, lies.picture, (dx, dy))
    if math.isinf(factor):
        text = "Nothing can be done afterwards: not even the middle of this window is lit."
        return _option("correct", text, 100.0)
    text = f"Accept it: crop {crop_words(factor)} afterwards, or brighten {where}, where detail is missing and noise shows."
    return _option("correct", text, _field_cost(factor))


def _post_crop(circle: float, picture: tuple[float, float], offset: tuple[float, float]) -> float:
    """By how much a centred crop has to shrink the picture until its farthest corner is lit."""
    a = (picture[0] / 2) ** 2 + (picture[1] / 2) ** 2
    b = offset[0] * picture[0] / 2 + offset[1] * picture[1] / 2
    c = offset[0] ** 2 + offset[1] ** 2 - (circle / 2) ** 2
    if c >= 0:
        return math.inf
    share = (-b + math.sqrt(b * b - a * c)) / a
    return 1 / share
