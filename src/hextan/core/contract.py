"""The public evaluation format: what may be asked, checked on its way in.

One description serves the endpoint, the command and Python. Names are fixed: they may be extended,
never renamed. Unknown keys are refused. Lengths carry their unit in the name.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Literal, NotRequired, Protocol, TypeAlias

from pydantic import BaseModel, ConfigDict, Field, TypeAdapter, ValidationError, model_validator, with_config
from typing_extensions import TypedDict

from hextan.core.angles import Projection
from hextan.core.errors import Fault, InvalidInputError
from hextan.core.references import By

#: Bounds beyond which a figure is a slip of the pen, not a camera.
Millimetres: TypeAlias = Annotated[float, Field(gt=0, le=1000)]
FocalMm: TypeAlias = Annotated[float, Field(gt=0.5, le=5000)]
Stop: TypeAlias = Annotated[float, Field(ge=0.3, le=256)]
Metres: TypeAlias = Annotated[float, Field(gt=0, le=1_000_000)]
Count: TypeAlias = Annotated[int, Field(ge=1, le=100_000)]
Pair: TypeAlias = Annotated[list[Count], Field(min_length=2, max_length=2)]
Fps: TypeAlias = Annotated[float, Field(gt=0, le=1_000_000)]
Squeeze: TypeAlias = Annotated[float, Field(ge=0.5, le=4)]


class Strict(BaseModel):
    """Base of the format's parts: no unknown keys, no text for numbers, no NaN, no changes."""

    model_config = ConfigDict(strict=True, extra="forbid", frozen=True, allow_inf_nan=False)


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
    hextan.core.errors.InvalidInputError: formats[0].window.width_mm: must be greater than 0 (given: -1).
    """
    try:
        if isinstance(data, bytes | str):
            return _REQUEST.validate_json(data)
        return _REQUEST.validate_python(data)
    except ValidationError as error:
        raise InvalidInputError.of(*faults_of(error)) from None


class Complaint(Protocol):
    """What a validation error of the library, or of the web framework, has in common."""

    def errors(self) -> Sequence[Any]:
        """List what is wrong."""
        ...


def faults_of(error: Complaint, prefix: str = "", skip: tuple[str, ...] = ()) -> list[Fault]:
    """Turn what the validation library says into our faults, in our words.

    Parameters
    ----------
    prefix : put before every path
    skip : first steps of a path that say nothing to the user
    """
    faults = []
    for item in error.errors():
        steps = tuple(item["loc"])
        steps = steps[1:] if steps and steps[0] in skip else steps
        kind = item["type"]
        if kind == "too_short" and isinstance(item.get("input"), str):
            kind = "string_too_short"
        rule = _rule(kind, item.get("ctx"), item["msg"])
        faults.append(Fault(_path(steps, prefix), item.get("input"), rule))
    return faults


_COC_RULES = frozenset({"picture_diagonal", "fixed", "photosite", "pixel", "eye"})


def _path(loc: tuple[int | str, ...], prefix: str) -> str:
    path = prefix
    for depth, step in enumerate(loc):
        if isinstance(step, int):
            path += f"[{step}]"
        elif not (depth and loc[depth - 1] == "coc" and step in _COC_RULES):
            path += f".{step}" if path else step
    return path or "request"


#: The library's error types in our words; `{}` names come from its context.
_RULES: dict[str, str] = {
    "missing": "is required",
    "extra_forbidden": "is not a key of this format",
    "greater_than": "must be greater than {gt:g}",
    "greater_than_equal": "must be at least {ge:g}",
    "less_than": "must be less than {lt:g}",
    "less_than_equal": "must be at most {le:g}",
    "finite_number": "must be a finite number",
    "float_type": "must be a number",
    "int_type": "must be a whole number",
    "int_from_float": "must be a whole number",
    "bool_type": "must be true or false",
    "string_type": "must be text",
    "list_type": "must be a list",
    "int_parsing": "must be a whole number",
    "int_parsing_size": "is too large a number",
    "float_parsing": "must be a number",
    "bool_parsing": "must be true or false",
    "string_pattern_mismatch": "has characters that do not go here (it has to match {pattern})",
    "string_unicode": "must be text that can be written",
    "none_required": "must be null",
    "dict_attributes_type": "must be an object with named fields",
    "invalid_key": "must have text as the names of its fields",
    "tuple_type": "must be a list",
    "bytes_type": "must be a file",
    "mapping_type": "must be an object with named fields",
    "iterable_type": "must be a list",
    "recursion_loop": "is nested in itself",
    "recursion_depth_exceeded": "is nested too deeply",
    "json_type": "must be JSON",
    "frozen_dict_type": "must be an object with named fields",
    "set_type": "must be a list",
    "too_short": "must have at least {min_length} entries",
    "too_long": "must have at most {max_length} entries",
    "string_too_short": "must have at least {min_length} characters",
    "string_too_long": "must have at most {max_length} characters",
    "literal_error": "must be one of {expected}",
    "dict_type": "must be an object with named fields",
    "model_type": "must be an object with named fields",
    "model_attributes_type": "must be an object with named fields",
    "union_tag_invalid": "the rule must be one of {expected_tags}",
    "union_tag_not_found": "must name its rule",
    "json_invalid": "is not valid JSON ({error})",
    "value_error": "{error}",
}


def _rule(kind: str, context: dict[str, Any] | None, message: str) -> str:
    told = _RULES.get(kind)
    return message if told is None else told.format(**(context or {}))
