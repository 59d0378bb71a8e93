"""The answer of the public evaluation format: what each key holds. None is infinity or unknown."""

from __future__ import annotations

from typing import Literal, TypeAlias

from typing_extensions import TypedDict


class SizeMm(TypedDict):
    """Sizes on the sensor, not de-squeezed."""

    width: float
    height: float
    diagonal: float


class Axes(TypedDict):
    """Angles in degrees."""

    horizontal: float | None
    vertical: float | None
    diagonal: float | None


class CropLink(TypedDict):
    """One link of the crop chain."""

    name: str
    factor: float


class CropAnswer(TypedDict):
    """Crop against the reference."""

    links: list[CropLink]
    total: float
    by_width: float
    by_height: float
    by_diagonal: float


class FieldM(TypedDict):
    """Field in the plane of focus."""

    width: float | None
    height: float | None


class DepthAnswer(TypedDict):
    """Depth of field; null for infinity or unknown."""

    coc_mm: float | None
    near_m: float | None
    far_m: float | None
    total_m: float | None
    hyperfocal_m: float | None
    airy_mm: float | None
    diffraction_limited: bool | None


class BackgroundAnswer(TypedDict):
    """Blur of a background point; distance null is infinity."""

    distance_m: float | None
    blur_mm: float | None
    blur_fraction_of_width: float | None
    blur_across_fraction_of_width: float | None


class EquivalentAnswer(TypedDict):
    """What on the reference gives the same field and the same depth; stops are null where they are not given."""

    focal_mm: float
    f_number: float | None
    t_stop: float | None


class CoverageAnswer(TypedDict):
    """Image circle against the recording."""

    needed_mm: float
    circle_mm: float | None
    margin_mm: float | None
    covers: bool | None
    dark_share: float | None


class SpeedAnswer(TypedDict):
    """Frame rates in frames a second."""

    max_fps: float | None
    limited_by: Literal["readout", "stated"] | None
    requested_ok: bool | None
    readout_ms: float | None
    slow_motion_at_24: float | None


class PixelAnswer(TypedDict):
    """Photosites and pixels."""

    sampled: list[int] | None
    megapixels: float | None
    recorded_megapixels: float | None
    picture_megapixels: float | None
    oversampling: float | None
    delivery_headroom: float | None


#: `info` explains, `warn` costs quality, `stop` means that it cannot be shot like this.
Level: TypeAlias = Literal["info", "warn", "stop"]


class Note(TypedDict):
    """What to watch out for."""

    level: Level
    code: str
    text: str


class FormatAnswer(TypedDict):
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


class ReferenceAnswer(TypedDict):
    """The reference used."""

    name: str | None
    width_mm: float
    height_mm: float
    by: Literal["width", "height", "diagonal"]


class LensAnswer(TypedDict):
    """The lens with its adapter."""

    optical_focal_mm: float
    f_number: float | None
    t_stop: float | None
    image_circle_mm: float | None


class EvaluationAnswer(TypedDict):
    """One answer."""

    reference: ReferenceAnswer
    lens: LensAnswer
    formats: list[FormatAnswer]


class Step(TypedDict):
    """One step of a derivation."""

    link: str
    what: str
    formula: str
    numbers: str
    result: str
