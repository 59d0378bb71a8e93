"""What the Bench is set to: kept with the production, and in the address of the page."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from hextan.core.base import (
    FocalMm,
    Fps,
    Id,
    Metres,
    NothingYetError,
    Part,
    Schema,
    Stop,
    parser_of,
)
from hextan.core.bench.scene import Scene
from hextan.core.equipment import Package
from hextan.core.evaluation import BenchDelivery, BenchReference, Coc
from hextan.core.light import Light

BENCH_SCHEMA = Schema("hextan.bench", 1)


#: A movement of less than this is none, metres.
LEAST_MOVEMENT_M = 0.001


class LadderFilter(Part):
    """Which recording formats the ladder shows."""

    scope: Literal["body", "all"] = "all"
    classes: Annotated[list[str], Field(max_length=10)] = []
    #: Only those of bodies on which the lens goes as it is set; the chosen one stays in sight.
    mounts: bool = True
    covers: bool = False
    oversampled: bool = False
    least_fps: Fps | None = None


class LensUp(Part):
    """A lens on a recording format. Distances in metres from the sensor plane."""

    format_id: Id
    lens_id: Id
    adapter_id: Id | None = None
    #: Between the first adapter and the body.
    second_adapter_id: Id | None = None
    focal_mm: FocalMm | None = None
    stop: Stop | None = None
    subject_m: Metres = 3.0
    focus_m: Metres | None = None
    fps: Fps = 25.0
    crop_ids: Annotated[list[Id], Field(max_length=50)] = []


class BenchState(LensUp):
    """The Bench. Distances in metres from the sensor plane."""

    delivery: BenchDelivery = BenchDelivery()
    #: The production's where none is named.
    reference: BenchReference | None = None
    #: This look's own rule; without one the production's holds.
    coc: Coc | None = None
    #: How far the subject moves back and forth along the axis, from end to end.
    movement_m: Annotated[float, Field(ge=0, le=1000)] = 0.0
    scene: Scene = Scene()
    light: Light = Light()
    unit: Literal["m", "ft"] = "m"
    pinned: Annotated[list[Id], Field(max_length=4)] = []
    ladder: LadderFilter = LadderFilter()
    columns: Annotated[list[str], Field(max_length=40)] | None = None
    sort: Annotated[str, Field(max_length=40)] | None = None
    descending: bool = False


#: Checks a Bench given as plain data.
parse_state = parser_of(BenchState, "state")


def mended(state: BenchState, package: Package) -> tuple[BenchState, list[str]]:
    """Put what is there in the place of equipment that is gone from the package, and say so.

    Raises
    ------
    NothingYetError
        When the package has no recording format or no lens at all.
    """
    if not package.formats or not package.lenses:
        raise NothingYetError
    change: dict[str, Any] = {}
    notes = []
    if state.format_id not in package.formats:
        here = next(iter(package.formats.values()))
        change["format_id"] = here.recording.id
        notes.append(
            f"The recording format is not in the package any more: {here.recording.name} is shown instead."
        )
    if state.lens_id not in package.lenses:
        _, lens = next(iter(package.lenses.values()))
        change |= {"lens_id": lens.id, "focal_mm": None}
        notes.append(f"The lens is not in the package any more: {lens.name} is shown instead.")
    known = {None, *(a.id for a in package.adapters)}
    if state.adapter_id not in known or state.second_adapter_id not in known:
        change |= {"adapter_id": None, "second_adapter_id": None}
        notes.append("The adapter is not in the package any more.")
    asked = state.reference
    if asked is not None and asked.name == "scan_mode" and asked.scan_mode_id not in package.modes:
        change["reference"] = None
        notes.append(
            "The window of reference is not in the package any more: the production's is the reference."
        )
    change["pinned"] = [key for key in state.pinned if key in package.formats]
    return state.model_copy(update=change), notes
