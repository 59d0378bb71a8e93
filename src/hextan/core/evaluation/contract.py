"""The public evaluation format: what may be asked, checked on its way in.

One description serves the endpoint, the command and Python. Names are fixed: they may be extended,
never renamed. Unknown keys are refused. Lengths carry their unit in the name.
"""

from __future__ import annotations

from typing import Annotated, Any, Literal, NotRequired, TypeAlias

from pydantic import ConfigDict, Field, TypeAdapter, ValidationError, model_validator, with_config
from typing_extensions import TypedDict

from hextan.core.base import (
    FocalMm,
    Fps,
    InvalidInputError,
    Metres,
    Millimetres,
    Pair,
    Squeeze,
    Stop,
    Strict,
    faults_of,
)
from hextan.core.optics import By, Projection


class Reference(Strict):
    """What crop factors are measured against: a name, or a size of one's own."""

    name: Literal["super35", "full_frame"] | None = None
    width_mm: Millimetres | None = None
    height_mm: Millimetres | None = None
    by: By = "width"

    @model_validator(mode="after")
    def _name_or_size(self) -> Reference:
        sized = (self.width_mm is not None) + (self.height_mm is not None)
        if self.name is not None and sized:
            raise ValueError("give a name or width_mm and height_mm, not both")
        if sized == 1:
            raise ValueError("width_mm and height_mm belong together")
        return self


class Subject(Strict):
    """What is in focus: a distance, or the width or height of the field that is wanted there."""

    distance_m: Metres | None = None
    measured_from: Literal["sensor_plane", "lens"] = "sensor_plane"
    width_m: Metres | None = None
    height_m: Metres | None = None

    @model_validator(mode="after")
    def _one_of(self) -> Subject:
        if sum(v is not None for v in (self.distance_m, self.width_m, self.height_m)) > 1:
            raise ValueError("give one of distance_m, width_m and height_m")
        return self


class Lens(Strict):
    """The lens as made, without adapter."""

    focal_mm: FocalMm
    f_number: Stop | None = None
    t_stop: Stop | None = None
    squeeze: Squeeze = 1.0
    image_circle_mm: Millimetres | None = None
    close_focus_m: Annotated[float, Field(ge=0, le=1000)] | None = None
    pupil_magnification: Annotated[float, Field(ge=0.05, le=20)] = 1.0
    projection: Projection = "rectilinear"

    @model_validator(mode="after")
    def _squeezed_fisheye(self) -> Lens:
        if self.projection != "rectilinear" and self.squeeze != 1.0:
            raise ValueError("a fisheye projection and a squeeze other than 1 cannot be computed together")
        return self


class Adapter(Strict):
    """Reducer (below 1), extender (above 1) or plain adapter (1)."""

    magnification: Annotated[float, Field(ge=0.2, le=10)] = 1.0


class CocByDiagonal(Strict):
    """Picture diagonal on the sensor / divisor."""

    rule: Literal["picture_diagonal"] = "picture_diagonal"
    divisor: Annotated[float, Field(ge=100, le=20_000)] = 1500.0


class CocFixed(Strict):
    """A gauge value in mm."""

    rule: Literal["fixed"]
    mm: Annotated[float, Field(gt=0, le=1)]


class CocPhotosite(Strict):
    """A number of photosites of the sampled grid."""

    rule: Literal["photosite"]
    factor: Annotated[float, Field(gt=0, le=100)] = 2.0


class CocPixel(Strict):
    """A number of delivered pixels as wide as they lie on the sensor."""

    rule: Literal["pixel"]
    factor: Annotated[float, Field(gt=0, le=100)] = 1.0


class CocEye(Strict):
    """What a viewer resolves."""

    rule: Literal["eye"]
    arcmin: Annotated[float, Field(gt=0, le=60)] = 1.0
    picture_heights: Annotated[float, Field(gt=0, le=100)] = 3.0


Coc: TypeAlias = Annotated[
    CocByDiagonal | CocFixed | CocPhotosite | CocPixel | CocEye, Field(discriminator="rule")
]


# The parts of a format are typed dictionaries and not models: a request holds many of them, and they are
# checked in half the time. What they must not combine is found in `columns`, for all formats at once.
_STRICT = ConfigDict(strict=True, extra="forbid", allow_inf_nan=False)


@with_config(_STRICT)
class Sensor(TypedDict):
    """The whole sensor."""

    photosites: Pair
    pitch_um: Annotated[float, Field(ge=0.3, le=100)]


@with_config(_STRICT)
class Window(TypedDict):
    """The part that is read: photosites (with a sensor) or millimetres; offset from the centre."""

    photosites: NotRequired[Pair | None]
    width_mm: NotRequired[Millimetres | None]
    height_mm: NotRequired[Millimetres | None]
    offset: NotRequired[
        Annotated[list[Annotated[int, Field(ge=-100_000, le=100_000)]], Field(min_length=2, max_length=2)]
    ]


@with_config(_STRICT)
class Sampling(TypedDict):
    """How many photosites become one sample along each axis (1), and how (full)."""

    horizontal: NotRequired[Annotated[int, Field(ge=1, le=16)]]
    vertical: NotRequired[Annotated[int, Field(ge=1, le=16)]]
    method: NotRequired[Literal["full", "binned", "skipped"]]


@with_config(_STRICT)
class Timing(TypedDict):
    """What a scan takes, and what the maker states."""

    row_time_us: NotRequired[Annotated[float, Field(gt=0, le=10_000)] | None]
    overhead_us: NotRequired[Annotated[float, Field(ge=0, le=1_000_000)]]
    max_fps: NotRequired[Fps | None]


@with_config(_STRICT)
class Recording(TypedDict):
    """What is made of the window: raster, mapping (scale), rate."""

    raster: NotRequired[Pair | None]
    map: NotRequired[Literal["scale", "crop"]]
    raw: NotRequired[bool]
    interlaced: NotRequired[bool]
    fps: NotRequired[Fps | None]
    shutter_deg: NotRequired[Annotated[float, Field(gt=0, le=360)] | None]


@with_config(_STRICT)
class Crop(TypedDict):
    """A crop that the camera applies to what it has read."""

    name: Annotated[str, Field(min_length=1, max_length=80)]
    factor: Annotated[float, Field(ge=1, le=20)]


@with_config(_STRICT)
class Delivery(TypedDict):
    """The picture on the screen: aspect or raster, and the share that is protected all round (0)."""

    aspect: NotRequired[Annotated[float, Field(ge=0.1, le=10)] | None]
    raster: NotRequired[Pair | None]
    protect: NotRequired[Annotated[float, Field(ge=0, le=0.9)]]


@with_config(_STRICT)
class Format(TypedDict):
    """One recording format: sensor, window, sampling, timing, recording, crops, delivery."""

    id: NotRequired[Annotated[str, Field(max_length=120)] | None]
    sensor: NotRequired[Sensor | None]
    window: Window
    sampling: NotRequired[Sampling]
    timing: NotRequired[Timing]
    recording: NotRequired[Recording]
    crops: NotRequired[Annotated[list[Crop], Field(max_length=16)]]
    delivery: NotRequired[Delivery | None]


class EvaluationRequest(Strict):
    """One lens, one distance, any number of recording formats."""

    reference: Reference = Reference()
    subject: Subject = Subject()
    background_m: Annotated[list[Metres | None], Field(max_length=64)] = []
    lens: Lens
    adapter: Adapter = Adapter()
    coc: Coc = CocByDiagonal()
    formats: Annotated[list[Format], Field(min_length=1, max_length=5000)]


_REQUEST = TypeAdapter(EvaluationRequest)


def parse_request(data: Any) -> EvaluationRequest:
    """Check one request given as JSON text (bytes or str) or as plain data.

    Raises
    ------
    InvalidInputError
        With one fault for each thing that is wrong: field, value, rule.

    >>> parse_request({"lens": {"focal_mm": 40}, "formats": [{"window": {"width_mm": -1}}]})
    Traceback (most recent call last):
    ...
    hextan.core.base.errors.InvalidInputError: formats[0].window.width_mm: must be greater than 0 (given: -1).
    """
    try:
        if isinstance(data, bytes | str):
            return _REQUEST.validate_json(data)
        return _REQUEST.validate_python(data)
    except ValidationError as error:
        raise InvalidInputError.of(*faults_of(error)) from None
