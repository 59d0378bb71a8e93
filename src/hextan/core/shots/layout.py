"""Every lens on every recording format, laid out once for a delivered picture: what the judging of all shots reads from.

Rows are lenses through one chain of adapters, shape (L,); columns recording formats, shape (F,); cells (L, F).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from hextan.core.base import Counts, Flags, Floats
from hextan.core.equipment import (
    Body,
    FormatInPackage,
    Highest,
    Lens,
    LensSet,
    MainFormat,
    Mounting,
    Package,
    nearness,
)
from hextan.core.evaluation import BenchDelivery, FormatColumns, circle_of_confusion_mm
from hextan.core.kit import KitAsk, kit_of
from hextan.core.optics import ReferenceWindow, needed_circle_mm
from hextan.core.shots.words import Picture

#: What the name of an in-camera crop says when it steadies the picture.
STEADIES = ("stabil", "steady")
#: A ring goes no further, by the marks of most lenses (common practice, no source).
NARROWEST = 22.0


@dataclass(frozen=True)
class Row:
    """A lens, with the way it is put on each body."""

    lens_set: LensSet
    lens: Lens
    by_body: dict[int, Mounting]


#: The fields of a layout that have a figure for every cell.
_CELLS = (
    "low_mm", "high_mm", "picture_w", "picture_h", "recorded_w", "recorded_h", "needed_mm", "picture_needed_mm", "magnification", "transmission", "coc_mm",
)  # fmt: skip


@dataclass(frozen=True)
class Layout:
    """All choices of a package. Lengths in mm; NaN where a lens cannot be put on the body."""

    package: Package
    reference: ReferenceWindow
    rows: list[Row]
    places: list[FormatInPackage]
    #: Of each format: its figures, its highest rate, and where it stands among all formats of the package.
    columns: FormatColumns
    highest: list[Highest]
    numbers: Counts
    #: Shortest and longest focal length with adapter.
    low_mm: Floats
    high_mm: Floats
    #: The delivered picture, and all that is recorded, on the sensor.
    picture_w: Floats
    picture_h: Floats
    recorded_w: Floats
    recorded_h: Floats
    #: The circle that all of the recording needs, and the one that the delivered picture needs alone.
    needed_mm: Floats
    picture_needed_mm: Floats
    magnification: Floats
    transmission: Floats
    coc_mm: Floats
    #: Of each format: whether it can be stabilised, and corrected, in camera.
    steadied: Flags
    corrected: Flags

    def part(self, mask: Flags) -> Layout:
        """The lenses and formats with any cell in a mask, and no others."""
        rows, columns = np.flatnonzero(mask.any(axis=1)), np.flatnonzero(mask.any(axis=0))
        block = np.ix_(rows, columns)
        return replace(
            self,
            rows=[self.rows[i] for i in rows],
            places=[self.places[j] for j in columns],
            columns=self.columns.taken(columns),
            highest=[self.highest[j] for j in columns],
            numbers=self.numbers[columns],
            steadied=self.steadied[columns],
            corrected=self.corrected[columns],
            **{name: getattr(self, name)[block] for name in _CELLS},
        )

    @property
    def shape(self) -> tuple[int, int]:
        """Lenses by formats."""
        return len(self.rows), len(self.places)

    @cached_property
    def mounts(self) -> Flags:
        """Where the lens can be put on the body."""
        return ~np.isnan(self.magnification)

    @cached_property
    def inside(self) -> Flags:
        """Where a lens goes on a body with nothing but what the plan carries; wherever it goes, as long as there is no plan."""
        plan = self.package.plan
        if plan is None:
            return self.mounts
        lenses = np.array([plan.has("lens", row.lens.name, row.lens_set.name) for row in self.rows])
        bodies = np.array([plan.has("body", here.body.name) for here in self.places])
        found = self.mounts & lenses[:, None] & bodies
        for i, j in np.argwhere(found & (self.adapters > 0)):
            found[i, j] = all(plan.has("adapter", adapter.name) for adapter in self.way(i, j).adapters)
        return np.asarray(found)

    @cached_property
    def squeeze(self) -> Floats:
        """Of each lens, shape (L, 1)."""
        return self._of_lens(lambda lens: lens.squeeze)

    def assumed(self, figure: str) -> Flags:
        """Of which lenses a figure stands in that nobody stated, shape (L, 1)."""
        return np.asarray(self._of_lens(lambda lens: float(figure in lens.assumed)) > 0)

    def nearness(self, main: MainFormat) -> Counts:
        """How near each format is to a main one, shape (F,): 3 is it, 0 another body."""
        return np.array([nearness(here, main) for here in self.places], dtype=np.int64)

    @cached_property
    def pupil(self) -> Floats:
        """Pupil magnification, shape (L, 1)."""
        return self._of_lens(lambda lens: lens.pupil_magnification)

    @cached_property
    def close_m(self) -> Floats:
        """Close focus from the sensor plane, shape (L, 1); 0 where it is not stated."""
        return self._of_lens(lambda lens: lens.close_focus_m or 0.0)

    @cached_property
    def rectilinear(self) -> Flags:
        """Shape (L, 1): a fisheye has no flat field."""
        return np.asarray(self._of_lens(lambda lens: float(lens.projection == "rectilinear")) > 0)

    @cached_property
    def adapters(self) -> Floats:
        """How many adapters stand behind the lens."""
        return self._by_body(lambda way: float(len(way.adapters)))

    @cached_property
    def lens_kg(self) -> Floats:
        """Shape (L, 1); NaN where it is not stated."""
        return self._of_lens(lambda lens: np.nan if lens.weight_kg is None else lens.weight_kg)

    @cached_property
    def body_kg(self) -> Floats:
        """Shape (F,); NaN where it is not stated."""
        weights = [here.body.weight_kg for here in self.places]
        return np.array([np.nan if weight is None else weight for weight in weights], dtype=float)

    @cached_property
    def ends(self) -> tuple[Floats, Floats, Floats, Floats]:
        """Widest T (f where there is none) and f (T where there is none) at both ends of the range, each (L, 1)."""

        def at(lens: Lens, focal: float) -> tuple[float, float]:
            f, t = lens.widest_at(focal)
            known = t if t is not None else f if f is not None else np.nan
            return known, f if f is not None else known

        found = [
            (*at(row.lens, row.lens.focal_min_mm), *at(row.lens, row.lens.focal_max_mm)) for row in self.rows
        ]
        table = np.array(found, dtype=float).reshape(-1, 4)
        return table[:, :1], table[:, 2:3], table[:, 1:2], table[:, 3:]

    def widest(self, focal_mm: Floats) -> tuple[Floats, Floats]:
        """Widest T that reaches the sensor, and the f-number that goes with it, at focal lengths with adapter.

        Light lost in glass counts for T, and never for depth.
        """
        t_short, t_long, f_short, f_long = self.ends
        with np.errstate(divide="ignore", invalid="ignore"):
            share = np.log(focal_mm / self.low_mm) / np.log(self.high_mm / self.low_mm)
        share = np.where(np.isfinite(share), share, 0.0)
        t = t_short * (t_long / t_short) ** share * self.magnification / np.sqrt(self.transmission)
        return t, f_short * (f_long / f_short) ** share * self.magnification

    def circle_mm(self, focal_mm: Floats) -> Floats:
        """Image circle behind the adapters, wide open and at infinity; NaN where it is not stated."""
        circle = np.broadcast_to(self._one_circle, self.shape).copy()
        for i, marks in self._circle_tables:
            bare = focal_mm[i] / self.magnification[i]
            focals, sizes = np.array(marks, dtype=float).T
            # As between the marks of a zoom: with the logarithm of the focal length.
            circle[i] = np.where(
                np.isnan(bare), np.nan, np.interp(np.log(np.nan_to_num(bare, nan=1.0)), np.log(focals), sizes)
            )
        return circle * self.magnification

    @cached_property
    def _one_circle(self) -> Floats:
        """Of a lens whose circle is the same all along its range, (L, 1); NaN where it is not stated."""
        found = [row.lens.circle_marks() for row in self.rows]
        alike = [
            marks[0][1] if marks and len({size for _, size in marks}) == 1 else np.nan for marks in found
        ]
        return np.array(alike, dtype=float).reshape(-1, 1)

    @cached_property
    def _circle_tables(self) -> list[tuple[int, list[tuple[float, float]]]]:
        """The other lenses that state one: their marks along the range."""
        found = [(i, row.lens.circle_marks()) for i, row in enumerate(self.rows)]
        return [(i, marks) for i, marks in found if marks and np.isnan(self._one_circle[i, 0])]

    def way(self, i: int, j: int) -> Mounting:
        """How a lens is put on the body of a format."""
        return self.rows[i].by_body[self.places[j].body.id]

    def _of_lens(self, value: Callable[[Lens], float]) -> Floats:
        return np.array([[value(row.lens)] for row in self.rows], dtype=float).reshape(-1, 1)

    def _by_body(self, value: Callable[[Mounting], float]) -> Floats:
        return _by_body(self.rows, self.places, value)


def _flags(places: list[FormatInPackage], crops: Callable[[FormatInPackage], list[int]]) -> Flags:
    """On which formats there are such crops, shape (F,)."""
    return np.array([not here.recording.raw and bool(crops(here)) for here in places], dtype=bool)


def _by_body(rows: list[Row], places: list[FormatInPackage], value: Callable[[Mounting], float]) -> Floats:
    bodies = list(dict.fromkeys(here.body.id for here in places))
    at = [bodies.index(here.body.id) for here in places]
    table = [[value(row.by_body[body]) if body in row.by_body else np.nan for body in bodies] for row in rows]
    return np.array(table, dtype=float).reshape(len(rows), len(bodies))[:, at]


def steady_crops(body: Body, mode_id: int, raster: tuple[int, int]) -> list[int]:
    """The in-camera crops that steady the picture in a scan mode; the gentlest first."""
    found = [
        (factor, crop.id)
        for crop in body.crops
        if any(word in crop.name.lower() for word in STEADIES)
        and (factor := crop.factor(mode_id, raster)) is not None
    ]
    return [crop for _, crop in sorted(found)]


def crops_on(here: FormatInPackage, picture: Picture) -> list[int]:
    """The in-camera crops that a shot's picture has switched on: the gentlest stabiliser, the correction of the lens.

    None ever acts on raw; those that are always on are not among them.
    """
    if here.recording.raw:
        return []
    steady = steady_crops(here.body, here.mode.id, here.recording.raster)[:1] if picture.stabiliser else []
    return [*steady, *(correction_crops(here) if picture.corrected else [])]


def correction_crops(here: FormatInPackage) -> list[int]:
    """The in-camera crops that correct a lens's distortion, where they can be switched on."""
    return [
        crop.id
        for crop in here.body.crops
        if crop.lens == "corrected" and crop.factor(here.mode.id, here.recording.raster) is not None
    ]


def layout_of(package: Package, delivery: BenchDelivery, picture: Picture) -> Layout:
    """Lay a package out for a delivered picture, with the in-camera crops that a shot has on."""
    key = (
        "shots",
        delivery.aspect,
        delivery.long_edge_px,
        delivery.protect,
        picture.stabiliser,
        picture.corrected,
    )
    kept = package.worked_out
    if key not in kept:
        kept[key] = _layout_of(package, delivery, picture)
    found: Layout = kept[key]
    return found


def _layout_of(package: Package, delivery: BenchDelivery, picture: Picture) -> Layout:
    on = sorted({crop for here in package.formats.values() for crop in crops_on(here, picture)})
    kit = kit_of(package, KitAsk(delivery=delivery, crop_ids=on[:50], mounted="every"))
    wide = [i for i, entry in enumerate(kit.entries) if entry.end != "long"]
    long = [i + 1 if kit.entries[i].end == "wide" else i for i in wide]
    rows = [Row(kit.entries[i].lens_set, kit.entries[i].lens, kit.entries[i].by_body) for i in wide]
    pictures = replace(kit.columns, picture_w=kit.picture_w[wide], picture_h=kit.picture_h[wide])
    shape = (len(rows), len(kit.places))
    return Layout(
        package=package,
        reference=kit.reference,
        rows=rows,
        places=kit.places,
        columns=kit.columns,
        highest=kit.highest,
        numbers=np.arange(len(kit.places)),
        low_mm=kit.focal_mm[wide],
        high_mm=kit.focal_mm[long],
        picture_w=kit.picture_w[wide],
        picture_h=kit.picture_h[wide],
        recorded_w=kit.recorded_w[wide],
        recorded_h=kit.recorded_h[wide],
        needed_mm=kit.needed_mm[wide],
        picture_needed_mm=needed_circle_mm(
            kit.picture_w[wide], kit.picture_h[wide], kit.columns.offset_x, kit.columns.offset_y
        )
        if rows and kit.places
        else np.empty(shape),
        magnification=kit.magnification[wide],
        transmission=_by_body(rows, kit.places, lambda way: way.transmission),
        coc_mm=np.broadcast_to(circle_of_confusion_mm(package.coc, pictures), shape)
        if rows and kit.places
        else np.empty(shape),
        steadied=_flags(
            kit.places, lambda here: steady_crops(here.body, here.mode.id, here.recording.raster)
        ),
        corrected=_flags(kit.places, correction_crops),
    )
