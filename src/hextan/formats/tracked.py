"""What a camera says while it runs: one OpenTrackIO sample at a time, from a datagram or a line, checked before it counts.

The sample's structure, and the head that stands before it in a datagram, are those of the standard (SMPTE RIS-OSVP
OpenTrackIO 1.0, from memory; see `opentrackio.py`). Firmware that names things otherwise is understood by `ALIASES`.
"""

from __future__ import annotations

import struct
from collections.abc import Iterator
from typing import Any

import orjson
from pydantic import ValidationError

from hextan.core.base import Fault, InvalidInputError
from hextan.core.record import Heard
from hextan.formats.opentrackio import Sample

#: Of one sample, and of its head in a datagram: name, reserved, encoding, sequence, offset, length with the last bit, sum.
MOST_BYTES = 65_507
HEAD = struct.Struct(">4sBBHIHH")
MARK, AS_JSON = b"OTrk", 1
_LAST, _LENGTH = 0x8000, 0x7FFF
MOST_DEEP = 12

#: Other names for what the standard names, in lower case without signs between: whoever writes them means the same.
ALIASES: dict[str, str] = {
    "iso": "isoSpeed", "exposureindex": "isoSpeed", "ei": "isoSpeed", "isospeed": "isoSpeed", "asa": "isoSpeed",
    "framerate": "captureFrameRate", "fps": "captureFrameRate", "sensorfps": "captureFrameRate", "captureframerate": "captureFrameRate",
    "shutter": "shutterAngle", "shutterdegrees": "shutterAngle", "shutterangle": "shutterAngle",
    "tstop": "tStop", "iris": "tStop", "fstop": "fStop", "fnumber": "fStop",
    "focus": "focusDistance", "focusdistance": "focusDistance", "focusdistancem": "focusDistance",
    "squeeze": "anamorphicSqueeze", "anamorphicsqueeze": "anamorphicSqueeze", "lenssqueeze": "anamorphicSqueeze",
    "activesensorphysicaldimensions": "activeSensorPhysicalDimensions", "sensorsize": "activeSensorPhysicalDimensions",
    "activesensorresolution": "activeSensorResolution", "sensorresolution": "activeSensorResolution", "recordedresolution": "activeSensorResolution",
    "nominalfocallength": "nominalFocalLength", "focallength": "nominalFocalLength",
    "sourceid": "sourceId", "sequencenumber": "sequenceNumber", "sensormode": "sensorMode", "scanmode": "sensorMode",
    "recording": "recording", "isrecording": "recording", "slate": "slate", "clipname": "slate",
}  # fmt: skip
#: Fields that the standard tells as two whole numbers; a plain number is taken as well.
_RATIONAL = ("captureFrameRate", "anamorphicSqueeze")


def payload_of(datagram: bytes) -> bytes:
    """Take the sample out of a datagram; one without a head is a sample by itself.

    Raises
    ------
    InvalidInputError
        A head that does not hold, a sample in several parts, or one that is not JSON.
    """
    if not datagram.startswith(MARK):
        return datagram
    if len(datagram) < HEAD.size:
        raise InvalidInputError.of(Fault("datagram", len(datagram), "ends within its head"))
    _, _, encoding, _, offset, length, _ = HEAD.unpack_from(datagram)
    if encoding != AS_JSON:
        raise InvalidInputError.of(Fault("encoding", encoding, "must be 1, JSON: set the camera to it"))
    if offset != 0 or not length & _LAST:
        raise InvalidInputError.of(
            Fault("segment", offset, "is a part of a sample: set the camera to shorter ones")
        )
    payload = datagram[HEAD.size :]
    if len(payload) != length & _LENGTH:
        raise InvalidInputError.of(Fault("length", length & _LENGTH, f"and {len(payload)} bytes follow"))
    return payload


def datagram_of(payload: bytes, sequence: int = 0) -> bytes:
    """Put a sample into a datagram with its head."""
    return (
        HEAD.pack(MARK, 0, AS_JSON, sequence & 0xFFFF, 0, _LAST | len(payload), fletcher16(payload)) + payload
    )


def fletcher16(data: bytes) -> int:
    """The sum that stands in the head: Fletcher's, of bytes.

    >>> hex(fletcher16(b"abcde"))
    '0xc8f0'
    """
    low = high = 0
    for byte in data:
        low = (low + byte) % 255
        high = (high + low) % 255
    return high << 8 | low


def heard_of(data: bytes) -> Heard:
    """Read one sample.

    Raises
    ------
    InvalidInputError
        Text that is no JSON, or a figure that cannot be; each with its place.
    """
    if len(data) > MOST_BYTES:
        raise InvalidInputError.of(Fault("sample", len(data), f"may have {MOST_BYTES} bytes"))
    try:
        plain = orjson.loads(data)
    except ValueError:
        raise InvalidInputError.of(Fault("sample", "(text)", "is no JSON")) from None
    if not isinstance(plain, dict):
        raise InvalidInputError.of(Fault("sample", type(plain).__name__, "must be an object"))
    named = _named(plain)
    try:
        sample = Sample.model_validate(named)
    except ValidationError as error:
        faults = [
            Fault(".".join(map(str, each["loc"])), each.get("input"), each["msg"])
            for each in error.errors()[:5]
        ]
        raise InvalidInputError.of(*faults) from None
    camera, lens = sample.static.camera, sample.lens
    size, raster = camera.active_sensor_physical_dimensions, camera.active_sensor_resolution
    rate = camera.capture_frame_rate.value if camera.capture_frame_rate is not None else None
    tracker = _part(named, "tracker")
    return Heard(
        source=_word(named, "sourceId") or "",
        sequence=_whole(_part(named, "timing"), "sequenceNumber"),
        body=camera.model,
        mode=_word(_part(_part(named, "static"), "camera"), "sensorMode"),
        read_mm=None if size.width is None or size.height is None else (size.width, size.height),
        raster=None
        if raster.width is None or raster.height is None
        else (round(raster.width), round(raster.height)),
        squeeze=None if camera.anamorphic_squeeze is None else camera.anamorphic_squeeze.value or None,
        fps=rate if rate and rate <= 1e6 else None,
        ei=None
        if camera.iso_speed is None or round(camera.iso_speed) < 1
        else min(round(camera.iso_speed), 10_000_000),
        shutter_deg=camera.shutter_angle or None,
        lens=sample.static.lens.model,
        focal_mm=_focal(sample.static.lens.nominal_focal_length),
        t_stop=lens.t_stop,
        f_number=lens.f_stop,
        focus_m=None if lens.focus_distance is None else min(lens.focus_distance, 1e6),
        recording=_truth(tracker, "recording"),
        slate=_word(tracker, "slate"),
        clock_s=_seconds(_part(_part(named, "timing"), "sampleTimestamp")),
    )


def source_of(data: bytes) -> str | None:
    """What the sender of a sample goes by; empty where it does not say, None where it is no sample.

    It is looked at before anything else of it, since anybody may send to a port.
    """
    try:
        plain = orjson.loads(data) if len(data) <= MOST_BYTES else None
    except ValueError:
        return None
    return (
        (_word(plain, "sourceId") or _word(_named_flat(plain), "sourceId") or "")
        if isinstance(plain, dict)
        else None
    )


def _named_flat(plain: dict[str, Any]) -> dict[str, Any]:
    """Its first level with the standard's names."""
    return {
        ALIASES.get("".join(c for c in key.lower() if c.isalnum()), key): value
        for key, value in plain.items()
    }


def _named(plain: Any, deep: int = 0) -> Any:
    """The same with the standard's names; what is nested without end is refused."""
    if deep > MOST_DEEP:
        raise InvalidInputError.of(Fault("sample", "(object)", f"is nested more than {MOST_DEEP} deep"))
    if isinstance(plain, list):
        return [_named(each, deep + 1) for each in plain]
    if not isinstance(plain, dict):
        return plain
    found: dict[str, Any] = {}
    for key, value in plain.items():
        bare = "".join(c for c in key.lower() if c.isalnum())
        name = str(ALIASES.get(bare) or key)
        # The standard's own name wins over another for the same thing.
        if name not in found or key == name:
            found[name] = _rational(value) if name in _RATIONAL else _named(value, deep + 1)
    return found


def _rational(value: Any) -> Any:
    if isinstance(value, bool) or not isinstance(value, int | float):
        return value
    if not 0 < value < 1e6:
        return {"num": value, "denom": 1}
    for denom in (1, 1001):
        over = round(value * denom / (1 if denom == 1 else 1000)) * (1 if denom == 1 else 1000)
        if abs(over / denom / value - 1) < 2e-5:
            return {"num": over, "denom": denom}
    return {"num": round(value * 1000), "denom": 1000}


def _part(plain: Any, name: str) -> dict[str, Any]:
    found = plain.get(name) if isinstance(plain, dict) else None
    return found if isinstance(found, dict) else {}


def _word(plain: dict[str, Any], name: str) -> str | None:
    value = plain.get(name)
    text = "".join(c for c in value if c.isprintable())[:120].strip() if isinstance(value, str) else ""
    return text or None


def _whole(plain: dict[str, Any], name: str) -> int | None:
    value = plain.get(name)
    return value if isinstance(value, int) and not isinstance(value, bool) and 0 <= value < 2**63 else None


def _truth(plain: dict[str, Any], name: str) -> bool | None:
    value = plain.get(name)
    return value if isinstance(value, bool) else None


def _seconds(plain: dict[str, Any]) -> float | None:
    whole, part = _whole(plain, "seconds"), _whole(plain, "nanoseconds")
    return None if whole is None else whole + (part or 0) / 1e9


def _focal(value: float | None) -> float | None:
    return value if value is not None and 0.5 < value <= 5000 else None


def lines_of(chunks: Iterator[bytes], most: int = MOST_BYTES) -> Iterator[bytes]:
    """Cut a stream into lines; one that does not end is dropped, and counts as one that is none."""
    rest, over = b"", False
    for chunk in chunks:
        rest += chunk
        *whole, rest = rest.split(b"\n")
        for line in whole:
            if over:
                over = False
                yield b""
            elif line.strip():
                yield line
        if len(rest) > most:
            rest, over = b"", True
