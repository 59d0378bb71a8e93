"""Shapes of lens sets, mounts and adapters."""

from __future__ import annotations

from hextan.api.shape import Listed, Shape, Version
from hextan.core.documents import LensSetDocument, RigDocument
from hextan.core.optics import FormatClass


class LensSetSummary(Shape):
    """A lens set in the list."""

    id: int
    version: Version
    maker: str
    name: str
    lenses: int
    focal_min_mm: float | None
    focal_max_mm: float | None
    squeezes: list[float]
    mounts: list[str]
    #: Classes that its lenses were made for, and the largest circle among them where one is stated.
    classes: list[FormatClass]
    largest_circle_mm: float | None
    #: How many changes the catalogue offers.
    changes: int
    catalogue_lens_set_id: int | None


class LensSetList(Listed[LensSetSummary]):
    """The lens sets of a production."""


class LensSetKept(Shape):
    """A lens set with its version, for the next write."""

    id: int
    version: Version
    document: LensSetDocument


class LensSetWrite(Shape):
    """A lens set to keep, changed from a known version."""

    version: Version
    document: LensSetDocument


class LensSetNew(Shape):
    """A lens set to add: a document, a copy from the catalogue, or a copy of another one here."""

    document: LensSetDocument | None = None
    catalogue_lens_set_id: int | None = None
    lens_set_id: int | None = None


class RigKept(Shape):
    """Mounts and adapters with their version, for the next write."""

    version: Version
    document: RigDocument


class RigWrite(Shape):
    """Mounts and adapters to keep, changed from a known version (0: none were kept yet)."""

    version: Version
    document: RigDocument
