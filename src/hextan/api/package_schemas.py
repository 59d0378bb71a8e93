"""Shapes of the Package view's answers: bodies, their sheets, speed, the finder, pixels and data."""

from __future__ import annotations

from typing import Any, Literal

from hextan.api.shape import Listed, Shape, Version
from hextan.core.documents import BodyDocument
from hextan.core.equipment import PackageSettings
from hextan.core.optics import FormatClass


class BodySummary(Shape):
    """A body in the list."""

    id: int
    version: Version
    maker: str
    name: str
    mount: str
    firmware: str
    photosites: list[int]
    width_mm: float
    height_mm: float
    format_class: FormatClass | None
    modes: int
    formats: int
    #: The highest rate on any of its menus; None without a recording format.
    offered_fps: float | None
    #: How many changes the catalogue offers.
    changes: int
    catalogue_body_id: int | None


class BodyList(Listed[BodySummary]):
    """The bodies of a production."""


class BodyKept(Shape):
    """A body with its version, for the next write."""

    id: int
    version: Version
    document: BodyDocument


class BodyWrite(Shape):
    """A body to keep, changed from a known version."""

    version: Version
    document: BodyDocument


class BodyNew(Shape):
    """A body to add: a document, a copy from the catalogue, or a copy of another body here."""

    document: BodyDocument | None = None
    catalogue_body_id: int | None = None
    body_id: int | None = None


class Removal(Shape):
    """Take something out of a production, or bring it back."""

    version: Version
    removed: bool


class CatalogueChange(Shape):
    """One difference from the catalogue."""

    path: str
    where: str
    field: str
    kind: Literal["changed", "added", "gone"]
    taken: Any
    catalogue: Any
    here: Any
    touched: bool


class CatalogueChanges(Listed[CatalogueChange]):
    """What the catalogue says differently."""


class ChangesSettled(Shape):
    """Which changes of the catalogue are taken, and which are left for good."""

    version: Version
    take: list[str] = []
    leave: list[str] = []


class SettingsKept(Shape):
    """The package's settings with the production's version."""

    version: Version
    settings: PackageSettings


class SettingsWrite(Shape):
    """Settings to keep, changed from a known version."""

    version: Version
    settings: PackageSettings
