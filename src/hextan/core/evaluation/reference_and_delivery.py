"""What a production measures against, and what it delivers: resolved into the public format for each recording."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from hextan.core.base import Id, Millimetres, Name, Part
from hextan.core.evaluation.contract import Delivery
from hextan.core.optics import NAMED, NAMED_WINDOWS, By


class OwnWindow(Part):
    """A window of reference of a production's own: the format that its people think in."""

    name: Name
    width_mm: Millimetres
    height_mm: Millimetres


#: Windows that are ready to be a reference: all that have a name but those of `NAMED` themselves.
READY_REFERENCES: tuple[OwnWindow, ...] = tuple(
    OwnWindow(name=window.name, width_mm=window.width_mm, height_mm=window.height_mm)
    for window in NAMED_WINDOWS
    if (window.width_mm, window.height_mm) not in NAMED.values()
)


class BenchReference(Part):
    """Super 35, full frame, the window of a scan mode of this production, or one of its own."""

    name: Literal["super35", "full_frame", "scan_mode", "own"] = "super35"
    scan_mode_id: Id | None = None
    own: OwnWindow | None = None
    by: By = "width"

    @model_validator(mode="after")
    def _own_has_a_size(self) -> BenchReference:
        if (self.name == "own") != (self.own is not None):
            raise ValueError("a reference of one's own has its window in own, and no other has one")
        return self


class BenchDelivery(Part):
    """The picture on the screen; without an aspect it is as recorded."""

    aspect: Annotated[float, Field(ge=0.1, le=10)] | None = None
    long_edge_px: Annotated[int, Field(ge=16, le=100_000)] | None = 3840
    protect: Annotated[float, Field(ge=0, le=0.9)] = 0.0

    def for_recording(self, raster: tuple[int, int], squeeze: float) -> Delivery:
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
