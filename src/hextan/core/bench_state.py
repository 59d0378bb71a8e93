"""What the Bench is set to: kept with the production, and in the address of the page."""

from __future__ import annotations

from typing import Annotated, Any, Literal, TypeAlias

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from hextan.core.contract import Coc, FocalMm, Fps, Metres, Stop, faults_of
from hextan.core.errors import InvalidInputError, NotFoundError
from hextan.core.light import Light
from hextan.core.package import Package
from hextan.core.references import By
from hextan.core.scene import Scene

SCHEMA = "hextan.bench"
SCHEMA_VERSION = 1
Id: TypeAlias = Annotated[int, Field(ge=1, le=2**53)]


class _Part(BaseModel):
    model_config = ConfigDict(strict=True, extra="forbid", allow_inf_nan=False)


class BenchReference(_Part):
    """Super 35, full frame, or the window of a scan mode of this production."""

    name: Literal["super35", "full_frame", "scan_mode"] = "super35"
    scan_mode_id: Id | None = None
    by: By = "width"


#: A movement of less than this is none, metres.
LEAST_MOVEMENT_M = 0.001


class BenchDelivery(_Part):
    """The picture on the screen; without an aspect it is as recorded."""

    aspect: Annotated[float, Field(ge=0.1, le=10)] | None = None
    long_edge_px: Annotated[int, Field(ge=16, le=100_000)] | None = 3840
    protect: Annotated[float, Field(ge=0, le=0.9)] = 0.0

    def for_recording(self, raster: tuple[int, int], squeeze: float) -> dict[str, Any] | None:
        """Write the delivery in the public evaluation format, for one recording's raster."""
        aspect = self.aspect or raster[0] / raster[1] * squeeze
        delivered = None
        if self.long_edge_px is not None:
            long_edge = self.long_edge_px
            wide = aspect >= 1
            delivered = (
                [long_edge, round(long_edge / aspect)] if wide else [round(long_edge * aspect), long_edge]
            )
        return {"aspect": aspect, "raster": delivered, "protect": self.protect}


class LadderFilter(_Part):
    """Which recording formats the ladder shows."""

    scope: Literal["body", "all"] = "all"
    classes: Annotated[list[str], Field(max_length=10)] = []
    covers: bool = False
    oversampled: bool = False
    least_fps: Fps | None = None


class BenchState(_Part):
    """The Bench. Distances in metres from the sensor plane."""

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
    delivery: BenchDelivery = BenchDelivery()
    reference: BenchReference = BenchReference()
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


def parse_state(data: Any) -> BenchState:
    """Check a Bench state given as plain data.

    Raises
    ------
    InvalidInputError
        Names each field that breaks a rule.
    """
    try:
        return BenchState.model_validate(data)
    except ValidationError as error:
        raise InvalidInputError.of(*faults_of(error, "state")) from None


def mended(state: BenchState, package: Package) -> tuple[BenchState, list[str]]:
    """Put what is there in the place of equipment that is gone from the package, and say so.

    Raises
    ------
    NotFoundError
        When the package has no recording format or no lens at all.
    """
    if not package.formats or not package.lenses:
        raise NotFoundError(
            "This production has no recording format or no lens yet: enter a body and a lens first."
        )
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
    if state.reference.name == "scan_mode" and state.reference.scan_mode_id not in package.modes:
        change["reference"] = BenchReference(by=state.reference.by)
        notes.append("The window of reference is not in the package any more: Super 35 is the reference.")
    change["pinned"] = [key for key in state.pinned if key in package.formats]
    return state.model_copy(update=change), notes
