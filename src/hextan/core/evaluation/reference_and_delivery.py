"""What a production measures against, and what it delivers: resolved into the public format for each recording."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from hextan.core.base import Id, Part
from hextan.core.evaluation.contract import Delivery
from hextan.core.optics import By


class BenchReference(Part):
    """Super 35, full frame, or the window of a scan mode of this production."""

    name: Literal["super35", "full_frame", "scan_mode"] = "super35"
    scan_mode_id: Id | None = None
    by: By = "width"


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
