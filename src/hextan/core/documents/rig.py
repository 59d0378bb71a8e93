"""Mounts, adapters and filters of a production, as one document."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import ConfigDict, Field, model_validator

from hextan.core.base import (
    Fault,
    InconsistentError,
    Name,
    Note,
    Part,
    Row,
    Schema,
    new_key,
    parser_of,
)
from hextan.core.documents.answers import FilterMarking, RigSheet
from hextan.core.equipment import Mount, MountAdapter, Package, PairNote, combinations
from hextan.core.light import NdFilter
from hextan.core.optics import FormatClass

RIG_SCHEMA = Schema("hextan.rig", 1)
#: The tables of the document whose rows are told apart by name.
ROWS = ("mounts", "adapters", "filters")


class MountDocument(Row):
    """A lens mount."""

    flange_mm: Annotated[float, Field(gt=0, le=500)] | None = None
    throat_mm: Annotated[float, Field(gt=0, le=500)] | None = None
    note: Note = ""


class AdapterDocument(Row):
    """What goes between lens and body."""

    lens_mount: Name
    body_mount: Name
    magnification: Annotated[float, Field(ge=0.2, le=10)] = 1.0
    #: Share of the light that comes through.
    transmission: Annotated[float, Field(gt=0.01, le=1)] = 1.0
    glass: bool = False
    classes: Annotated[list[FormatClass], Field(max_length=10)] = []
    passes_iris: bool = True
    passes_data: bool = True

    @model_validator(mode="after")
    def _one_story(self) -> AdapterDocument:
        if self.magnification != 1 and not self.glass:
            raise ValueError("a magnification other than 1 needs glass: set glass to true")
        if self.transmission < 1 and not self.glass:
            raise ValueError("without glass all light comes through: set glass to true, or transmission to 1")
        return self


class FilterDocument(Row):
    """A neutral density filter; 0.3 of density is one stop, and an ND4 two."""

    stops: Annotated[float, Field(gt=0, le=30)]
    count: Annotated[int, Field(ge=1, le=100)] = 1


class PairDocument(Row):
    """What is known of a lens, or of every lens of a set (its name), on one body."""

    body: Name
    note: Annotated[str, Field(min_length=1, max_length=500)]


class RigDocument(Part):
    """All mounts, adapters and filters of a production, and what is known of lenses on bodies."""

    schema_name: Literal["hextan.rig"] = Field("hextan.rig", alias="schema")
    schema_version: Literal[1] = 1
    mounts: Annotated[list[MountDocument], Field(max_length=200)] = []
    adapters: Annotated[list[AdapterDocument], Field(max_length=500)] = []
    filters: Annotated[list[FilterDocument], Field(max_length=100)] = []
    pairs: Annotated[list[PairDocument], Field(max_length=500)] = []

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    @model_validator(mode="after")
    def _keys(self) -> RigDocument:
        for rows in (self.mounts, self.adapters, self.filters, self.pairs):
            keys = [row.key for row in rows]
            if len(set(keys)) != len(keys):
                raise ValueError("two rows have the same key")
        return self


def check_rig(document: RigDocument, field: str = "") -> None:
    """Refuse names that are there twice.

    Raises
    ------
    InconsistentError
        Mounts, or adapters, of one name.
    """
    prefix = f"{field}." if field else ""
    faults = []
    for name in ROWS:
        seen: set[str] = set()
        rows: list[Row] = getattr(document, name)
        for i, row in enumerate(rows):
            if row.name in seen:
                rule = "this name is already taken here"
                faults.append(Fault(f"{prefix}{name}[{i}].name", row.name, rule))
            seen.add(row.name)
    if faults:
        raise InconsistentError.of(*faults)


#: Checks a document given as plain data, and what it must not combine.
parse_rig = parser_of(RigDocument, then=check_rig)


def with_rigs(here: RigDocument, others: Sequence[RigDocument]) -> RigDocument:
    """Take mounts and adapters over from other documents: those of the same name are changed, others added."""
    merged: dict[str, list[Any]] = {}
    for name in ROWS:
        rows: dict[str, Any] = {row.name: row for row in getattr(here, name)}
        for other in others:
            for row in getattr(other, name):
                # A row that is here keeps its key, and with it its number.
                key = rows[row.name].key if row.name in rows else new_key()
                rows[row.name] = row.model_copy(update={"key": key})
        merged[name] = list(rows.values())
    return here.model_copy(update=merged)


def adapter_of(document: AdapterDocument, adapter_id: int = 0) -> MountAdapter:
    """Make the package's record of an adapter."""
    return MountAdapter(
        id=adapter_id,
        name=document.name,
        magnification=document.magnification,
        lens_mount=document.lens_mount,
        body_mount=document.body_mount,
        transmission=document.transmission,
        glass=document.glass,
        classes=tuple(document.classes),
        passes_iris=document.passes_iris,
        passes_data=document.passes_data,
    )


def filter_of(document: FilterDocument) -> NdFilter:
    """Make the package's record of a filter."""
    return NdFilter(document.name, document.stops, document.count)


def pair_notes_of(document: RigDocument) -> tuple[PairNote, ...]:
    """Make the package's record of what is known of lenses on bodies."""
    return tuple(PairNote(pair.name, pair.body, pair.note) for pair in document.pairs)


def mount_of(document: MountDocument) -> Mount:
    """Make the package's record of a mount."""
    return Mount(document.name, document.flange_mm, document.throat_mm)


def rig_sheet(document: RigDocument, package: Package) -> RigSheet:
    """Judge every combination of lens, adapters and body as a document would make it.

    Parameters
    ----------
    package : the bodies and lenses that it is judged for

    Raises
    ------
    InconsistentError
        What `check_rig` refuses.
    """
    check_rig(document)
    as_typed = replace(
        package,
        mounts=tuple(mount_of(mount) for mount in document.mounts),
        adapters=tuple(adapter_of(adapter, i) for i, adapter in enumerate(document.adapters, 1)),
        pair_notes=pair_notes_of(document),
    ).rig
    return {
        "notes": rig_notes(document) | _pair_notes(document, package),
        "filters": filter_markings(document),
        "combinations": combinations(as_typed, (lens for _, lens in package.lenses.values()), package.bodies),
    }


def _pair_notes(document: RigDocument, package: Package) -> dict[str, list[str]]:
    """What a note on a pair does not find in the package, by its key."""
    glass = {lens.name for _, lens in package.lenses.values()} | {kit.name for kit in package.lens_sets}
    bodies = {body.name for body in package.bodies}
    return {
        pair.key: [
            *([] if pair.name in glass else [f"No lens and no lens set is called {pair.name}."]),
            *([] if pair.body in bodies else [f"No body is called {pair.body}."]),
        ]
        for pair in document.pairs
    }


def filter_markings(document: RigDocument) -> dict[str, FilterMarking]:
    """Density and factor of each filter as they are engraved, by its key."""
    return {f.key: {"density": f.stops * math.log10(2), "factor": 2.0**f.stops} for f in document.filters}


def rig_notes(document: RigDocument) -> dict[str, list[str]]:
    """What looks wrong about each adapter, by its key: nothing is refused for it."""
    mounts = {mount.name: mount for mount in document.mounts}
    notes: dict[str, list[str]] = {}
    for adapter in document.adapters:
        told = [
            f"The mount {name} is not described: its flange distance is not known."
            for name in dict.fromkeys((adapter.lens_mount, adapter.body_mount))
            if name not in mounts
        ]
        lens, camera = mounts.get(adapter.lens_mount), mounts.get(adapter.body_mount)
        if (
            lens
            and camera
            and lens.flange_mm is not None
            and camera.flange_mm is not None
            and not adapter.glass
        ):
            room = lens.flange_mm - camera.flange_mm
            told.append(
                f"{room:.2f} mm long."
                if room > 0
                else f"Impossible without glass: {lens.name} sits {-room:.2f} mm too near, infinity is out of reach."
            )
        notes[adapter.key] = told
    return notes
