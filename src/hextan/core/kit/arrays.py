"""The whole kit at once: every lens, on every body that takes it, in every recording format.

Columns are recording formats, shape (F,); rows are lenses as set (a zoom gives two, its ends), each
through one chain of adapters, shape (E, F). One pass over arrays serves matrix, ladder and matching.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Literal, TypeAlias

import numpy as np

from hextan.core.base import Counts, Flags, Floats, InvalidInputError, mm_from_um, no_longer_here
from hextan.core.equipment import (
    Body,
    FormatInPackage,
    Highest,
    KitVerdict,
    Lens,
    LensOnBody,
    LensSet,
    Mounting,
    Package,
    Rig,
    ScanMode,
    ThePlan,
    highest_of,
    needs_words,
    ways,
)
from hextan.core.evaluation import BenchReference, FormatColumns, columns_of
from hextan.core.kit.answers import PictureRead
from hextan.core.kit.ask import KitAsk, WidenedAsk
from hextan.core.optics import VERDICTS as OF_CIRCLES
from hextan.core.optics import (
    ReferenceWindow,
    angle_of_view_deg,
    class_words,
    coverage_numbers,
    crop_factors,
    dark_where_short,
    named_reference,
)

End: TypeAlias = Literal["", "wide", "long"]
#: Verdicts of coverage by number; the last means that the lens cannot be put on the body.
VERDICTS: tuple[KitVerdict, ...] = (*OF_CIRCLES, "impossible")
COVERS, MARGINAL, SHORT, UNKNOWN, IMPOSSIBLE = range(5)
#: So much is kept of a package before it is laid out anew.
MOST_KEPT = 4000


@dataclass(frozen=True)
class KitEntry:
    """A lens as set, with the way it is put on each body (None: not at all)."""

    lens_set: LensSet
    lens: Lens
    focal_mm: float
    end: End
    by_body: dict[int, Mounting]

    @property
    def name(self) -> str:
        """The lens by its name; a zoom with the end that is meant."""
        return self.name_at(self.focal_mm)

    def name_at(self, focal_mm: float) -> str:
        """The lens by its name; a zoom with the focal length (without adapter) at which it is set."""
        return f"{self.lens.name} at {round(focal_mm, 1):g}" if self.end else self.lens.name


@dataclass(frozen=True)
class Kit:
    """Lenses by formats; arrays of shape (E, F), NaN where a lens cannot be put on the body."""

    rig: Rig
    #: Names of the accessories and licences that are there.
    carried: frozenset[str]
    #: From which share of a recording on what a circle leaves dark is called dark corners.
    seen_dark: float
    #: Whether sentences tell distances in both units.
    brackets: bool
    reference: ReferenceWindow
    entries: list[KitEntry]
    places: list[FormatInPackage]
    columns: FormatColumns
    highest: list[Highest]
    #: Picture as it lies on the sensor, and the recording.
    picture_w: Floats
    picture_h: Floats
    recorded_w: Floats
    recorded_h: Floats
    squeeze: Floats
    magnification: Floats
    focal_mm: Floats
    circle_mm: Floats
    #: By column: what the small-circle crop divides by where it acts (1: none is switched on), and the circle that
    #: is needed without any crop, from which on it does not act.
    small_circle: Floats
    needed_whole_mm: Floats

    @property
    def mounts(self) -> Flags:
        """Where the lens can be put on the body."""
        return ~np.isnan(self.magnification)

    @cached_property
    def rectilinear(self) -> Flags:
        """Which entries follow the tangent; shape (E, 1)."""
        return np.array([[e.lens.projection == "rectilinear"] for e in self.entries])

    @cached_property
    def crop(self) -> Floats:
        """Crop factor against the reference, by its dimension."""
        factors = crop_factors(
            self.picture_w, self.picture_h, self.squeeze, self.reference.width_mm, self.reference.height_mm
        )
        return factors[("width", "height", "diagonal").index(self.reference.by)]

    @cached_property
    def effective_mm(self) -> Floats:
        """Effective focal length."""
        return self.focal_mm * self.crop

    @cached_property
    def angle_deg(self) -> Floats:
        """Horizontal angle of view at infinity, degrees, by the lens's own projection."""
        offset = self.columns.offset_x * self.squeeze
        wide = self.picture_w * self.squeeze
        focal = np.where(self.mounts, self.focal_mm, 1.0)
        angle = angle_of_view_deg(wide, focal, offset)
        for i, entry in enumerate(self.entries):
            if entry.lens.projection != "rectilinear":
                angle[i] = angle_of_view_deg(wide[i], focal[i], offset[i], entry.lens.projection)
        return np.where(self.mounts, angle, np.nan)

    @cached_property
    def needed_mm(self) -> Floats:
        """The circle that reaches the farthest corner of what is recorded."""
        dx, dy = np.abs(self.columns.offset_x), np.abs(self.columns.offset_y)
        return np.asarray(2 * np.hypot(dx + self.recorded_w / 2, dy + self.recorded_h / 2))

    @cached_property
    def verdict(self) -> Counts:
        """Index into `VERDICTS`, shape (E, F)."""
        return np.where(
            self.mounts,
            coverage_numbers(self.circle_mm, self.needed_mm, self.dark, self.seen_dark),
            IMPOSSIBLE,
        )

    @cached_property
    def dark(self) -> Floats:
        """Share of the recording that stays dark; computed only where the circle is short."""
        circle = np.where(self.mounts, self.circle_mm, np.nan)
        w, h = (np.where(self.mounts, size, 1.0) for size in (self.recorded_w, self.recorded_h))
        return dark_where_short(circle, w, h, self.columns.offset_x, self.columns.offset_y)

    @property
    def usable(self) -> Flags:
        """Where a lens can be put on and its circle is not known to be short."""
        return np.asarray((self.verdict != SHORT) & (self.verdict != IMPOSSIBLE))


def kit_of(package: Package, ask: KitAsk) -> Kit:
    """Lay out the kit.

    Raises
    ------
    InvalidInputError
        A window of reference that the production does not have.
    """
    reference = window_of_reference(package.modes, ask.reference or package.reference)
    places = _places(package, ask)
    ids = tuple(p.recording.id for p in places)
    which = (
        None if ask.lens_set_ids is None else tuple(ask.lens_set_ids),
        ask.mounted,
        _plan(package, ask) is not None,
    )
    entries = _kept(package, ("entries", *which), lambda: _entries(package, ask))
    shape = (len(entries), len(places))
    squeezes = sorted({e.lens.squeeze for e in entries}) or [1.0]
    frame = (ask.delivery.aspect, ask.delivery.long_edge_px, ask.delivery.protect)
    by_squeeze = [
        _kept(package, ("columns", ids, frame, squeeze), lambda s=squeeze: _columns(places, ask, s))
        for squeeze in squeezes
    ]
    columns = by_squeeze[0]
    at = np.array([squeezes.index(e.lens.squeeze) for e in entries], dtype=int)
    picture_w = np.array([c.picture_w for c in by_squeeze])[at].reshape(shape)
    picture_h = np.array([c.picture_h for c in by_squeeze])[at].reshape(shape)
    magnification = _kept(package, ("magnification", *which, ids), lambda: _magnifications(entries, places))
    squeeze = np.array([[e.lens.squeeze] for e in entries]).reshape(-1, 1)
    focal = np.array([[e.focal_mm] for e in entries]).reshape(-1, 1)
    circles = [e.lens.circle_at_mm(e.focal_mm) for e in entries]
    circle = np.array([[np.nan if c is None else c] for c in circles]).reshape(-1, 1)
    # A lens with an unknown circle may still be put on: its circle stays NaN.
    circle_mm = circle * magnification
    needed_whole = np.array([p.needed_circle_mm for p in places])
    crops = _crops(ask, places, entries, circle_mm, needed_whole)
    return Kit(
        rig=package.rig,
        carried=package.carried,
        seen_dark=package.seen_dark,
        brackets=package.brackets,
        reference=reference,
        entries=entries,
        places=places,
        columns=columns,
        highest=_kept(package, ("highest", ids), lambda: [highest_of(p) for p in places]),
        picture_w=picture_w / crops,
        picture_h=picture_h / crops,
        recorded_w=columns.recorded_w / crops,
        recorded_h=columns.recorded_h / crops,
        squeeze=squeeze,
        magnification=magnification,
        focal_mm=focal * magnification,
        circle_mm=circle_mm,
        small_circle=_small_circle(ask, places),
        needed_whole_mm=needed_whole,
    )


def _kept(package: Package, key: tuple[Any, ...], make: Any) -> Any:
    """What is laid out of a package once, for questions that differ in other things; none of it is ever written to."""
    kept = package.worked_out
    if key not in kept:
        if len(kept) > MOST_KEPT:
            kept.clear()
        kept[key] = make()
    return kept[key]


def window_of_reference(modes: dict[int, tuple[Body, ScanMode]], asked: BenchReference) -> ReferenceWindow:
    """Give a reference by its name, or by the scan mode whose window it is.

    Parameters
    ----------
    modes : the production's scan modes by their ids, with their bodies
    """
    name, scan_mode_id, by = asked.name, asked.scan_mode_id, asked.by
    if asked.own is not None:
        return ReferenceWindow(None, asked.own.width_mm, asked.own.height_mm, by)
    if name != "scan_mode":
        return named_reference(name, by)
    if scan_mode_id not in modes:
        fault = no_longer_here("window of reference", "reference.scan_mode_id", scan_mode_id)
        raise InvalidInputError.plainly(fault)
    body, mode = modes[scan_mode_id]
    w, h = (mm_from_um(n * body.pitch_um) for n in mode.window)
    return ReferenceWindow(None, w, h, by)


def _places(package: Package, ask: KitAsk) -> list[FormatInPackage]:
    places = package.places(_plan(package, ask) is not None)
    if ask.body_ids is not None:
        places = [p for p in places if p.body.id in set(ask.body_ids)]
    if ask.format_ids is not None:
        wanted = set(ask.format_ids)
        places = [p for p in places if p.recording.id in wanted]
    if ask.least_fps is not None:
        least = ask.least_fps
        # What is not known to be possible does not count as fast.
        places = [p for p in places if highest_of(p).reaches(least)]
    return places


def _entries(package: Package, ask: KitAsk) -> list[KitEntry]:
    entries = []
    plan = _plan(package, ask)
    for lens_set, lens in package.lenses.values():
        if ask.lens_set_ids is not None and lens_set.id not in ask.lens_set_ids:
            continue
        if plan is not None and not plan.has("lens", lens.name, lens_set.name):
            continue
        ends: list[tuple[float, End]] = [(lens.focal_min_mm, "")]
        if lens.is_zoom:
            ends = [(lens.focal_min_mm, "wide"), (lens.focal_max_mm, "long")]
        for by_body in _ways(package, lens, ask):
            entries += [KitEntry(lens_set, lens, focal, end, by_body) for focal, end in ends]
    return entries


def _plan(package: Package, ask: KitAsk) -> ThePlan | None:
    """The plan, where only what it carries is looked at."""
    return package.plan if isinstance(ask, WidenedAsk) and ask.planned else None


def _ways(package: Package, lens: Lens, ask: KitAsk) -> list[dict[int, Mounting]]:
    """How a lens is put on: by body the simplest way, then (when asked) every other magnification."""
    plan = _plan(package, ask)
    possible = {
        body.id: [
            way
            for way in ways(package.rig, lens, body)
            if way.verdict != "impossible"
            and (plan is None or all(plan.has("adapter", adapter.name) for adapter in way.adapters))
        ]
        for body in package.bodies
    }
    rows = [{body: found[0] for body, found in possible.items() if found}]
    if ask.mounted == "every":
        # Two ways with the same magnification make the same picture.
        others: dict[float, dict[int, Mounting]] = {}
        for body, found in possible.items():
            seen = {round(found[0].magnification, 6)} if found else set()
            for way in found[1:]:
                m = round(way.magnification, 6)
                if m not in seen:
                    seen.add(m)
                    others.setdefault(m, {})[body] = way
        rows += [others[m] for m in sorted(others, key=lambda m: abs(math.log(m)))]
    return rows


def _columns(places: list[FormatInPackage], ask: KitAsk, squeeze: float) -> FormatColumns:
    requests = [
        here.as_request(delivery=ask.delivery.for_recording(here.recording.raster, squeeze), lens=None)
        for here in places
    ]
    return columns_of(requests, squeeze) if requests else _no_columns()


def _no_columns() -> FormatColumns:
    nothing: Any = np.empty(0)
    return FormatColumns(*([nothing] * len(FormatColumns.__dataclass_fields__)))


def _magnifications(entries: list[KitEntry], places: list[FormatInPackage]) -> Floats:
    bodies = list(dict.fromkeys(p.body.id for p in places))
    table = np.full((len(entries), len(bodies)), np.nan)
    for i, entry in enumerate(entries):
        for j, body in enumerate(bodies):
            if body in entry.by_body:
                table[i, j] = entry.by_body[body].magnification
    return table[:, [bodies.index(p.body.id) for p in places]] if places else table[:, :0]


def _small_circle(ask: KitAsk, places: list[FormatInPackage]) -> Floats:
    """What the crops for short circles divide by where they act, shape (F,); 1 where none is on."""
    factors = np.ones(len(places))
    for j, here in enumerate(places):
        for crop in () if here.recording.raw else here.body.crops:
            if crop.lens == "short_circle" and (crop.id in ask.crop_ids or crop.always):
                factors[j] *= crop.factor(here.mode.id, here.recording.raster) or 1.0
    return factors


def _crops(
    ask: KitAsk, places: list[FormatInPackage], entries: list[KitEntry], circle_mm: Floats, needed_mm: Floats
) -> Floats:
    """Product of the in-camera crops that act, shape (E, F): as each lens has them act on each format."""
    whole = np.ones((len(entries), len(places)))
    switched_on = frozenset(ask.crop_ids)
    stated = [entry.lens.correction_at(entry.focal_mm) for entry in entries]
    for j, here in enumerate(places):
        if not any(crop.id in switched_on or crop.always for crop in here.body.crops):
            continue
        factors: dict[LensOnBody, float] = {}
        for i, entry in enumerate(entries):
            circle = float(circle_mm[i, j])
            # With a circle that is not stated the mode for short ones can be switched on as well.
            covers = None if np.isnan(circle) else bool(circle >= needed_mm[j])
            lens = LensOnBody(entry.lens.squeeze, covers, stated[i])
            if lens not in factors:
                acting = here.crops_that_apply(switched_on, lens)
                factors[lens] = math.prod(factor for _, factor in acting)
            whole[i, j] = factors[lens]
    return whole


def faster(kit: Kit, group: list[int]) -> str:
    """Which other format of a group goes faster than the one that it is named by, and how fast; empty where none does."""
    best = max(group, key=lambda j: kit.highest[j].usable_fps or 0.0)
    if (kit.highest[best].usable_fps or 0.0) <= (kit.highest[group[0]].usable_fps or 0.0):
        return ""
    return f"{kit.places[best].recording.name} {kit.highest[best].text} fps"


def told_picture(kit: Kit, group: list[int]) -> PictureRead:
    """What is told of formats that show the same picture."""
    place, highest = kit.places[group[0]], kit.highest[group[0]]
    return {
        "format_id": place.recording.id,
        "format_ids": [kit.places[j].recording.id for j in group],
        "names": [kit.places[j].recording.name for j in group],
        "mode": place.mode.name,
        "body": place.body.name,
        "highest_fps": highest.usable_fps,
        "rate_text": highest.text,
        "faster": faster(kit, group),
        "needs": needs_words(place, kit.carried),
    }


def pictures(kit: Kit) -> list[list[int]]:
    """Group the columns that show the same picture of the same body: sizes to 0.05 mm, and coverage for every lens."""
    groups: dict[tuple[Any, ...], list[int]] = {}
    c, verdict = kit.columns, kit.verdict
    for j, place in enumerate(kit.places):
        sizes = (
            c.recorded_w[j],
            c.recorded_h[j],
            c.picture_w[j],
            c.picture_h[j],
            c.offset_x[j],
            c.offset_y[j],
        )
        crops = np.round(kit.picture_w[:, j] * 20).tobytes()
        key = (place.body.id, *(round(float(x) * 20) for x in sizes), crops, verdict[:, j].tobytes())
        groups.setdefault(key, []).append(j)
    return list(groups.values())


def class_columns(kit: Kit) -> list[list[int]]:
    """For each class of formats the column with the largest recording, then the others of the class."""
    groups: dict[str, list[int]] = {}
    c = kit.columns
    diagonal = np.hypot(c.recorded_w, c.recorded_h)
    for j in np.argsort(-diagonal, kind="stable").tolist():
        groups.setdefault(class_words(float(c.recorded_w[j]), float(c.recorded_h[j])), []).append(j)
    return list(groups.values())
