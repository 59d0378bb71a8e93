"""A lens as it is set and put on: focal length within its range, stop no wider than it opens, adapters."""

from __future__ import annotations

import math
from collections.abc import Iterable

from hextan.core.base import InvalidInputError, no_longer_here, stops_of_lens
from hextan.core.equipment.mounting import Mounting, mounting_of
from hextan.core.equipment.package import (
    Body,
    FormatInPackage,
    Lens,
    LensOnBody,
    MountAdapter,
    Rig,
)
from hextan.core.evaluation import Note
from hextan.core.optics import covering_from

#: Focal lengths that a zoom's range is marked with (common practice, no source).
MARKED_FOCALS_MM = (
    4, 6, 8, 10, 12, 14, 16, 18, 21, 25, 28, 32, 35, 40, 50, 65, 75, 85, 100, 135, 150, 180, 200, 250, 300, 400, 500,
    600, 800, 1000, 1500,
)  # fmt: skip


class LensSetting:
    """A lens as it is set."""

    def __init__(
        self,
        rig: Rig,
        lens: Lens,
        adapters: tuple[MountAdapter, ...] = (),
        focal_mm: float | None = None,
        stop: float | None = None,
        focus_m: float = math.inf,
    ) -> None:
        self.rig, self.lens, self.adapters, self.focus_m = rig, lens, adapters, focus_m
        self.notes: list[Note] = []
        wanted = lens.focal_min_mm if focal_mm is None else focal_mm
        self.focal_mm = (
            min(max(wanted, lens.focal_min_mm), lens.focal_max_mm) if lens.is_zoom else lens.focal_min_mm
        )
        if lens.is_zoom and self.focal_mm != wanted:
            self._note(
                "focal_clamped", f"{lens.name} does not reach {wanted:g} mm: set to {self.focal_mm:g} mm."
            )
        self.marks = "T" if lens.t_stop is not None else "f/"
        self.widest_f, self.widest_t = lens.widest_at(self.focal_mm)
        widest = self.widest_t if self.widest_t is not None else self.widest_f
        self.widest = widest
        self.stop = widest if stop is None or widest is None else max(stop, widest)
        if stop is not None and widest is not None and stop < widest * (1 - 1e-6):
            self._note("stop_clamped", f"{self.marks}{stop:g} is wider than this lens opens: "
                       f"set to {self.marks}{widest:.3g}.")  # fmt: skip
        self._on_bodies: dict[int, Mounting] = {}

    def _note(self, code: str, text: str) -> None:
        self.notes.append({"level": "warn", "code": code, "text": text})

    @property
    def f_number(self) -> float | None:
        """The f-number that goes with the stop set."""
        if self.stop is None or self.widest_f is None or self.widest_t is None:
            return self.stop if self.widest_t is None else None
        return self.stop * self.widest_f / self.widest_t

    @property
    def t_stop(self) -> float | None:
        """The T-stop set, where the lens has T marks."""
        return self.stop if self.widest_t is not None else None

    @property
    def magnification(self) -> float:
        """Of the adapters, 1 without."""
        return Mounting(self.adapters).magnification

    @property
    def bare_circle_mm(self) -> float | None:
        """The image circle as the lens is set, without adapters."""
        return self.lens.circle_at_mm(self.focal_mm, self.stop, self.focus_m)

    @property
    def circle_mm(self) -> float | None:
        """The image circle behind the adapters."""
        circle = self.bare_circle_mm
        return None if circle is None else circle * self.magnification

    @property
    def front_mm(self) -> float | None:
        """From the sensor plane to the lens's front rim: flange focal distance and length.

        None where either is not stated, or behind glass, which may lengthen the way.
        """
        mount = self.rig.mounts_by_name.get(self.lens.mount)
        if self.lens.length_mm is None or mount is None or mount.flange_mm is None:
            return None
        return None if any(a.glass for a in self.adapters) else mount.flange_mm + self.lens.length_mm

    def mounting(self, body: Body) -> Mounting:
        """Judge how lens, adapters and a body go together."""
        found = self._on_bodies.get(body.id)
        if found is None:
            found = mounting_of(self.rig, self.lens, self.adapters, body)
            self._on_bodies[body.id] = found
        return found

    @property
    def stops(self) -> list[float]:
        """The stops that it can be set to, from its widest."""
        return [] if self.widest is None else stops_of_lens(self.widest)

    def zoom_marks_mm(self) -> list[float]:
        """Marks along a zoom's range: its ends, and the usual focal lengths that are not crowded by them."""
        low, high = self.lens.focal_min_mm, self.lens.focal_max_mm
        if not self.lens.is_zoom:
            return []
        inner = [float(f) for f in MARKED_FOCALS_MM if low * 1.08 < f < high / 1.08]
        return [low, *inner, high]

    def covers_from_mm(self, needed_mm: float) -> float | None:
        """Focal length from which a zoom's circle covers, where its table says that it does not at once."""
        lens = self.lens
        if lens.circle_by != "focal":
            return None
        found = covering_from("focal", lens.circle_rows, needed_mm / self.magnification)
        return None if found is None or found <= lens.focal_min_mm * (1 + 1e-9) else found

    def on_body(self, here: FormatInPackage) -> LensOnBody:
        """Tell what in-camera crops have to know of the lens as it is mounted."""
        circle = self.circle_mm
        covers = None if circle is None else circle >= here.needed_circle_mm
        return LensOnBody(self.lens.squeeze, covers, self.lens.correction_at(self.focal_mm))


def adapters_by_id(
    adapters: Iterable[MountAdapter], ids: list[int | None], field: str
) -> tuple[MountAdapter, ...]:
    """Find the adapters of a chain; None stands for no adapter.

    Raises
    ------
    InvalidInputError
        Names the first that the production does not have.
    """
    known = {a.id: a for a in adapters}
    for key in ids:
        if key is not None and key not in known:
            raise InvalidInputError.plainly(no_longer_here("adapter", field, key))
    return tuple(known[key] for key in ids if key is not None)
