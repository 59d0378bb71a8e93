"""Shapes of lens sets, mounts and adapters."""

from __future__ import annotations

from hextan.api.evaluation_schema import Shape
from hextan.api.schemas import MountingRead
from hextan.core.lens_document import LensSetDocument
from hextan.core.rig_document import RigDocument
from hextan.core.view_classes import ViewClass


class LensSetSummary(Shape):
    """A lens set in the list."""

    id: int
    version: int
    maker: str
    name: str
    lenses: int
    focal_min_mm: float | None
    focal_max_mm: float | None
    squeezes: list[float]
    mounts: list[str]
    #: How many changes the catalogue offers.
    changes: int
    catalogue_lens_set_id: int | None


class LensSetList(Shape):
    """The lens sets of a production, and those that were taken out and can be brought back."""

    lens_sets: list[LensSetSummary]
    removed: list[LensSetSummary]


class LensSetKept(Shape):
    """A lens set with its version, for the next write."""

    id: int
    version: int
    document: LensSetDocument


class LensSetWrite(Shape):
    """A lens set to keep, changed from a known version."""

    version: int
    document: LensSetDocument


class LensSetNew(Shape):
    """A lens set to add: a document, a copy from the catalogue, or a copy of another one here."""

    document: LensSetDocument | None = None
    catalogue_lens_set_id: int | None = None
    lens_set_id: int | None = None


class CloseFigures(Shape):
    """At close focus, with the longest focal length, on a width of 24.89 mm."""

    magnification: float
    field_m: float
    #: Share of the frame's width that extension alone takes; other constructions breathe less or the other way.
    extension_percent: float


class LensFigures(Shape):
    """What follows from a lens."""

    key: str
    #: Horizontal, on the Super 35 width; two for a zoom.
    angle_deg: list[float | None]
    view_class: ViewClass | None
    circle_mm: list[float] | None
    covers: str | None
    transmission: float | None
    close: CloseFigures | None
    notes: list[str]


class UsualWindow(Shape):
    """A window that circles are held against, mm."""

    name: str
    width: float
    height: float


class LensSetSheet(Shape):
    """What a lens set's page shows beside what is typed."""

    lenses: list[LensFigures]
    windows: list[UsualWindow]


class RigKept(Shape):
    """Mounts and adapters with their version, for the next write."""

    version: int
    document: RigDocument


class RigWrite(Shape):
    """Mounts and adapters to keep, changed from a known version (0: none were kept yet)."""

    version: int
    document: RigDocument


class Way(MountingRead):
    """One way from a lens to a body."""

    adapter_ids: list[int]
    name: str
    magnification: float
    stops_lost: float


class Combination(Shape):
    """A lens on a body: all ways, the least trouble first."""

    lens_id: int
    body_id: int
    verdict: str
    why_not: str | None
    ways: list[Way]


class FilterMarking(Shape):
    """An ND filter as it is engraved."""

    density: float
    factor: float


class RigSheet(Shape):
    """What follows from mounts, adapters and filters: notes by adapter, and every combination as it would be."""

    notes: dict[str, list[str]]
    filters: dict[str, FilterMarking]
    combinations: list[Combination]
