"""The answer of the public evaluation format, for the OpenAPI document and the generated types.

The core builds plain data; `tests/api/test_contract.py` holds it against these shapes.
"""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict


class Shape(BaseModel):
    """Base of answers: all keys are always there."""

    model_config = ConfigDict(extra="forbid")


class SizeMm(Shape):
    """Sizes on the sensor, not de-squeezed."""

    width: float | None
    height: float | None
    diagonal: float | None


class Axes(Shape):
    """Angles in degrees."""

    horizontal: float | None
    vertical: float | None
    diagonal: float | None


class CropLink(Shape):
    """One link of the crop chain."""

    name: str
    factor: float


class CropAnswer(Shape):
    """Crop against the reference."""

    links: list[CropLink]
    total: float
    by_width: float
    by_height: float
    by_diagonal: float


class FieldM(Shape):
    """Field in the plane of focus."""

    width: float | None
    height: float | None


class DepthAnswer(Shape):
    """Depth of field; null for infinity or unknown."""

    coc_mm: float | None
    near_m: float | None
    far_m: float | None
    total_m: float | None
    hyperfocal_m: float | None
    airy_mm: float | None
    diffraction_limited: bool | None


class BackgroundAnswer(Shape):
    """Blur of a background point; distance null is infinity."""

    distance_m: float | None
    blur_mm: float | None
    blur_fraction_of_width: float | None
    blur_across_fraction_of_width: float | None


class EquivalentAnswer(Shape):
    """What on the reference gives the same field and the same depth; stops are null where they are not given."""

    focal_mm: float
    f_number: float | None
    t_stop: float | None


class CoverageAnswer(Shape):
    """Image circle against the recording."""

    needed_mm: float
    circle_mm: float | None
    margin_mm: float | None
    covers: bool | None
    dark_share: float | None


class SpeedAnswer(Shape):
    """Frame rates in frames a second."""

    max_fps: float | None
    limited_by: Literal["readout", "stated"] | None
    requested_ok: bool | None
    readout_ms: float | None
    slow_motion_at_24: float | None


class PixelAnswer(Shape):
    """Photosites and pixels."""

    sampled: list[int] | None
    megapixels: float | None
    recorded_megapixels: float | None
    picture_megapixels: float | None
    oversampling: float | None
    delivery_headroom: float | None


class Note(Shape):
    """What to watch out for."""

    level: Literal["info", "warn", "stop"]
    code: str
    text: str


class FormatAnswer(Shape):
    """One recording format."""

    id: str | None
    window_mm: SizeMm
    recorded_mm: SizeMm
    picture_mm: SizeMm
    framed_mm: SizeMm
    crop: CropAnswer
    effective_focal_mm: float
    angle_deg: Axes
    angle_at_focus_deg: Axes
    field_m: FieldM
    magnification: float | None
    subject_distance_m: float | None
    depth: DepthAnswer
    background: list[BackgroundAnswer]
    equivalent: EquivalentAnswer
    coverage: CoverageAnswer
    speed: SpeedAnswer
    pixels: PixelAnswer
    notes: list[Note]


class ReferenceAnswer(Shape):
    """The reference used."""

    name: str | None
    width_mm: float
    height_mm: float
    by: Literal["width", "height", "diagonal"]


class LensAnswer(Shape):
    """The lens with its adapter."""

    optical_focal_mm: float
    f_number: float | None
    t_stop: float | None
    image_circle_mm: float | None


class EvaluationAnswer(Shape):
    """One answer."""

    reference: ReferenceAnswer
    lens: LensAnswer
    formats: list[FormatAnswer]


class FaultBody(Shape):
    """One thing that is wrong."""

    field: str
    value: Any
    rule: str


class ErrorBody(Shape):
    """What went wrong. `given` and `stored` come with a stale write, `more` counts the faults that are not told."""

    model_config = ConfigDict(extra="allow")
    code: str
    message: str
    faults: list[FaultBody]


class ErrorAnswer(Shape):
    """The body of every error."""

    error: ErrorBody
