"""OpenTrackIO samples: what a camera says of itself and its lens, one JSON object for each set-up; and samples read back.

The structure is that of the documented samples of the standard (SMPTE RIS-OSVP OpenTrackIO 1.0, from memory): its JSON schema could not be had where
this was written. What is read may say more and less: unknown keys are passed over, and everything is optional.
"""

from __future__ import annotations

import json
import uuid
from fractions import Fraction
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field, ValidationError
from pydantic.alias_generators import to_camel

from hextan.core.base import Fault, InvalidInputError
from hextan.core.handover import CameraFacts, SeenCamera
from hextan.formats.text import decode_json

_OWN = "hextan"
MOST_SAMPLES = 2000


class _Said(BaseModel):
    """Everything may be missing, and there may be more."""

    model_config = ConfigDict(
        extra="allow", allow_inf_nan=False, alias_generator=to_camel, populate_by_name=True
    )


class Rational(_Said):
    """A rate or a squeeze as two whole numbers."""

    num: Annotated[int, Field(ge=0, le=2**53)]
    denom: Annotated[int, Field(ge=1, le=2**53)]

    @property
    def value(self) -> float:
        """As one number."""
        return self.num / self.denom


class Size(_Said):
    """Millimetres, or photosites."""

    width: Annotated[float, Field(gt=0, le=1e6)] | None = None
    height: Annotated[float, Field(gt=0, le=1e6)] | None = None


class StaticCamera(_Said):
    """What does not change from frame to frame."""

    active_sensor_physical_dimensions: Size = Size()
    active_sensor_resolution: Size = Size()
    anamorphic_squeeze: Rational | None = None
    capture_frame_rate: Rational | None = None
    iso_speed: Annotated[float, Field(gt=0, le=1e8)] | None = None
    shutter_angle: Annotated[float, Field(ge=0, le=360)] | None = None
    make: str | None = None
    model: str | None = None
    label: str | None = None


class StaticLens(_Said):
    """The lens by its name."""

    make: str | None = None
    model: str | None = None
    nominal_focal_length: Annotated[float, Field(gt=0, le=1e5)] | None = None


class Static(_Said):
    """What does not change from frame to frame."""

    camera: StaticCamera = StaticCamera()
    lens: StaticLens = StaticLens()


class Lens(_Said):
    """What changes: millimetres; distances in metres from the sensor plane."""

    f_stop: Annotated[float, Field(gt=0, le=1e4)] | None = None
    t_stop: Annotated[float, Field(gt=0, le=1e4)] | None = None
    focus_distance: Annotated[float, Field(gt=0, le=1e9)] | None = None
    pinhole_focal_length: Annotated[float, Field(gt=0, le=1e5)] | None = None
    entrance_pupil_offset: Annotated[float, Field(ge=-100, le=100)] | None = None


class Translation(_Said):
    """Metres; Z is up."""

    x: Annotated[float, Field(ge=-1e7, le=1e7)] = 0.0
    y: Annotated[float, Field(ge=-1e7, le=1e7)] = 0.0
    z: Annotated[float, Field(ge=-1e7, le=1e7)] = 0.0


class Transform(_Said):
    """Where the camera stands."""

    translation: Translation = Translation()


class Sample(_Said):
    """One sample."""

    static: Static = Static()
    lens: Lens = Lens()
    transforms: Annotated[list[Transform], Field(max_length=100)] = []


def _rational(value: float) -> dict[str, int]:
    """As television writes its rates: 23.976 is 24000/1001; else the simplest fraction within a millionth."""
    for denom in (1, 1001):
        num = round(value * denom / (1 if denom == 1 else 1000)) * (1 if denom == 1 else 1000)
        if abs(num / denom / value - 1) < 2e-5:
            return {"num": num, "denom": denom}
    exact = Fraction(value).limit_denominator(100_000)
    return {"num": exact.numerator, "denom": exact.denominator}


def sample_of(each: CameraFacts) -> dict[str, Any]:
    """One set-up as a sample."""
    f = each["f_number"]
    told = {"body": each["body"], "mode": each["mode"], "format": each["format"], "lens": each["lens"], "adapters": each["adapters"],
            "setMm": each["set_mm"], "subjectDistance": each["subject_m"], "stop": each["stop"], "name": each["name"]}  # fmt: skip
    identity = json.dumps([told, each["fps"], each["focus_m"], each["ei"]], sort_keys=True)
    lens: dict[str, Any] = {
        "focusDistance": each["focus_m"],
        "pinholeFocalLength": each["image_mm"],
        "entrancePupilOffset": each["pupil_m"],
    }
    if f is not None:
        lens["fStop"] = f
    if each["marks"] == "T" and each["stop"] is not None:
        lens["tStop"] = each["stop"]
    camera: dict[str, Any] = {
        "activeSensorPhysicalDimensions": {"width": each["recorded_mm"][0], "height": each["recorded_mm"][1]},
        "activeSensorResolution": {"width": each["raster"][0], "height": each["raster"][1]},
        "anamorphicSqueeze": _rational(each["squeeze"]),
        "captureFrameRate": _rational(each["fps"]),
        "shutterAngle": each["shutter_deg"],
        "make": each["maker"],
        "model": each["body"],
        "label": each["name"],
    }
    if each["ei"] is not None:
        camera["isoSpeed"] = each["ei"]
    return {
        "protocol": {"name": "OpenTrackIO", "version": [1, 0, 0]},
        "sampleId": f"urn:uuid:{uuid.uuid5(uuid.NAMESPACE_OID, identity)}",
        "static": {
            "camera": camera,
            "lens": {"make": each["lens_set"], "model": each["lens"], "nominalFocalLength": each["set_mm"]},
        },
        "lens": lens,
        "transforms": [
            {
                "id": "Camera",
                "translation": {"x": 0.0, "y": 0.0, "z": each["camera_height_m"]},
                "rotation": {"pan": 0.0, "tilt": 0.0, "roll": 0.0},
            }
        ],
        _OWN: told,
    }


def write(setups: list[CameraFacts], title: str) -> bytes:
    """Write one sample, or a list of them."""
    del title
    samples = [sample_of(each) for each in setups]
    plain: Any = samples[0] if len(samples) == 1 else samples
    return (json.dumps(plain, indent=1, ensure_ascii=False) + "\n").encode()


def read(data: bytes) -> list[SeenCamera]:
    """Read one sample, a list, or one in each line.

    Raises
    ------
    InvalidInputError
        Text that is no JSON, or samples whose figures cannot be.
    """
    stripped = data.strip()
    lines = stripped.splitlines()
    plain: Any
    if len(lines) > 1 and all(
        line.strip().startswith(b"{") and line.strip().endswith(b"}") for line in lines if line.strip()
    ):
        plain = [decode_json(line) for line in lines[:MOST_SAMPLES] if line.strip()]
    else:
        plain = decode_json(stripped)
    samples = plain if isinstance(plain, list) else [plain]
    if not samples or len(samples) > MOST_SAMPLES or not all(isinstance(each, dict) for each in samples):
        rule = f"must hold one to {MOST_SAMPLES} samples, each an object"
        raise InvalidInputError.of(Fault("file", "(OpenTrackIO)", rule))
    return [_seen(each, i) for i, each in enumerate(samples)]


def _seen(plain: dict[str, Any], index: int) -> SeenCamera:
    try:
        sample = Sample.model_validate(plain)
    except ValidationError as error:
        faults = [
            Fault(
                f"sample {index + 1}: {'.'.join(str(step) for step in each['loc'])}",
                each.get("input"),
                each["msg"],
            )
            for each in error.errors()[:20]
        ]
        raise InvalidInputError.of(*faults) from None
    if (
        not sample.model_fields_set & {"static", "lens", "transforms", "protocol", "timing", "sampleId"}
        and "protocol" not in plain
    ):
        raise InvalidInputError.of(
            Fault(f"sample {index + 1}", "(object)", "says nothing of a camera or a lens")
        )
    camera, lens = sample.static.camera, sample.lens
    own = plain.get(_OWN) if isinstance(plain.get(_OWN), dict) else {}
    assert isinstance(own, dict)

    def word(name: str) -> str | None:
        value = own.get(name)
        return value if isinstance(value, str) else None

    def number(name: str) -> float | None:
        value = own.get(name)
        return (
            float(value)
            if isinstance(value, int | float) and not isinstance(value, bool) and 0 < value < 1e9
            else None
        )

    adapters = own.get("adapters")
    set_mm = number("setMm") or sample.static.lens.nominal_focal_length
    squeeze = camera.anamorphic_squeeze.value if camera.anamorphic_squeeze is not None else 1.0
    wide = camera.active_sensor_physical_dimensions.width
    stop = number("stop") or lens.t_stop
    return SeenCamera(
        name=camera.label or f"Sample {index + 1}",
        body=word("body") or camera.model,
        mode=word("mode"),
        format=word("format"),
        lens=word("lens") or sample.static.lens.model,
        adapters=tuple(a for a in adapters if isinstance(a, str)) if isinstance(adapters, list) else None,
        focal_mm=lens.pinhole_focal_length,
        set_mm=set_mm,
        wide_mm=None if wide is None else wide * squeeze,
        recorded_mm=wide,
        stop=stop,
        f_number=None if stop is not None else lens.f_stop,
        focus_m=lens.focus_distance,
        subject_m=number("subjectDistance"),
        fps=camera.capture_frame_rate.value
        if camera.capture_frame_rate is not None and camera.capture_frame_rate.num
        else None,
        shutter_deg=camera.shutter_angle or None,
        ei=None if camera.iso_speed is None else round(camera.iso_speed),
        camera_height_m=sample.transforms[0].translation.z
        if sample.transforms and sample.transforms[0].translation.z > 0
        else None,
    )
