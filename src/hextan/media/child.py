"""The process that reads the head of one file: it limits itself first, opens that file alone, and prints facts as JSON.

``python -m hextan.media.child clip|still PATH``; the path is a copy in an otherwise empty folder.
"""

from __future__ import annotations

import json
import math
import resource
import sys
from pathlib import Path
from typing import Any

#: Memory, bytes; time on the processor, seconds.
MEMORY, SECONDS = 1 << 30, 5
MOST_TAGS, MOST_LETTERS = 150, 400


class HeadError(Exception):
    """What is wrong with the file, in words."""


def limit() -> None:
    """Limit memory, time, files and output of this process, for good."""
    for what, most in ((resource.RLIMIT_AS, MEMORY), (resource.RLIMIT_CPU, SECONDS), (resource.RLIMIT_FSIZE, 0),
                       (resource.RLIMIT_NOFILE, 64), (resource.RLIMIT_CORE, 0)):  # fmt: skip
        resource.setrlimit(what, (most, most))


#: Containers by the bytes that they begin with: what is none of them is not opened, whatever it is called.
_BOXES = (b"ftyp", b"moov", b"mdat", b"wide", b"free", b"skip", b"pnot")


def container_of(head: bytes) -> str | None:
    """The name of a container, as the library calls it.

    >>> container_of(bytes(4) + b"ftypqt  "), container_of(b"#EXTM3U"), container_of(bytes.fromhex("060e2b34") + bytes(8))
    ('mov', None, 'mxf')
    """
    if head[4:8] in _BOXES:
        return "mov"
    if head[:4] == bytes.fromhex("060e2b34"):
        return "mxf"
    if head[:4] == bytes.fromhex("1a45dfa3"):
        return "matroska"
    return "avi" if head[:4] == b"RIFF" and head[8:12] == b"AVI " else None


def clip(path: str) -> dict[str, Any]:
    """Read the head of a clip; nothing of its pictures is decoded."""
    import av  # noqa: PLC0415  # not before the limits hold

    av.logging.set_level(None)
    with Path(path).open("rb") as file:
        container = container_of(file.read(16))
    if container is None:
        raise HeadError("is no clip that is known: MOV, MP4, MXF, MKV or AVI")
    options = {
        "protocol_whitelist": "file",
        "probesize": "5000000",
        "analyzeduration": "0",
        "enable_drefs": "0",
    }
    with av.open(path, format=container, options=options) as opened:
        if not opened.streams.video:
            raise HeadError("has no picture")
        stream = opened.streams.video[0]
        context = stream.codec_context
        shape = context.format
        rate = stream.average_rate or stream.guessed_rate
        seconds = None
        if stream.duration and stream.time_base:
            seconds = float(stream.duration * stream.time_base)
        elif opened.duration:
            seconds = opened.duration / 1e6
        aspect = stream.sample_aspect_ratio
        tags = dict(opened.metadata)
        for each in opened.streams:
            tags |= {key: value for key, value in each.metadata.items() if key not in tags}
        return {
            "raster": [context.width, context.height],
            "pixel_aspect": float(aspect) if aspect else None,
            "fps": float(rate) if rate else None,
            "codec": _codec(context),
            "bits": shape.components[0].bits if shape is not None and shape.components else None,
            "seconds": seconds,
            "tags": tags,
        }


def _codec(context: Any) -> str:
    """Codec as the library calls it, whether every picture stands for itself, and how colour is sampled."""
    descriptor = context.codec
    # What is not known to stand for itself picture by picture may all the same.
    intra = "intra" if getattr(descriptor, "intra_only", False) else ""
    name = str(context.name)
    shape = context.format
    chroma = ""
    if shape is not None and len(shape.components) >= 3:
        luma, second = shape.components[0], shape.components[1]
        wide = luma.width / max(second.width, 1) if luma.width else 1
        high = luma.height / max(second.height, 1) if luma.height else 1
        chroma = {(1, 1): "4:4:4", (2, 1): "4:2:2", (2, 2): "4:2:0"}.get((round(wide), round(high)), "")
    return " ".join(part for part in (name, intra, chroma) if part)


#: Tags of EXIF 2.32 that are read (JEITA CP-3451, from memory), by their numbers.
_EXIF = {0x829A: "ExposureTime", 0x829D: "FNumber", 0x8827: "ISOSpeedRatings", 0x9003: "DateTimeOriginal", 0x9011: "OffsetTimeOriginal",
         0x9206: "SubjectDistance", 0x920A: "FocalLength", 0xA20E: "FocalPlaneXResolution", 0xA210: "FocalPlaneResolutionUnit",
         0xA405: "FocalLengthIn35mm", 0xA434: "LensModel"}  # fmt: skip
#: Micrometres of the unit in which the focal plane's resolution is told.
_UNITS = {2: 25_400.0, 3: 10_000.0, 4: 1000.0, 5: 1.0}


def still(path: str) -> dict[str, Any]:
    """Read the size and the EXIF of a still; its pixels are not decoded."""
    from PIL import ExifTags, Image, UnidentifiedImageError  # noqa: PLC0415  # not before the limits hold

    try:
        with Image.open(path) as image:
            size, exif = image.size, image.getexif()
            inside = exif.get_ifd(ExifTags.IFD.Exif)
    except UnidentifiedImageError:
        raise HeadError("is no still that is known: JPEG, TIFF or PNG") from None
    tags = {_EXIF.get(number, ""): _plain(value) for number, value in inside.items() if number in _EXIF}
    tags |= {
        name: _plain(exif.get(number))
        for name, number in (("Make", 0x010F), ("Model", 0x0110))
        if exif.get(number)
    }
    resolution, unit = tags.get("FocalPlaneXResolution"), tags.get("FocalPlaneResolutionUnit")
    pitch = None
    if isinstance(resolution, int | float) and resolution > 0:
        pitch = _UNITS.get(int(unit) if isinstance(unit, int | float) else 2, 25_400.0) / resolution
    return {"raster": list(size), "pitch_um": pitch, "tags": tags, "still": True}


def _plain(value: Any) -> Any:
    """A rational as a number; one over nothing is none."""
    try:
        number = float(value)
    except (TypeError, ValueError, ZeroDivisionError):
        return str(value)[:MOST_LETTERS]
    return number if math.isfinite(number) and abs(number) < 1e12 else None


def main(kind: str, path: str) -> int:
    """Read one file; 1 and a line that begins with ``file:`` for a bad one."""
    limit()
    try:
        facts = {"clip": clip, "still": still}[kind](path)
    except HeadError as error:
        print(f"file: {error}", file=sys.stderr)
        return 1
    except MemoryError:
        print("file: takes more memory than a head may", file=sys.stderr)
        return 1
    except Exception as error:  # whatever a library makes of a foreign file is the file's fault
        print(f"file: cannot be read ({type(error).__name__})", file=sys.stderr)
        return 1
    tags = {
        str(k)[:120]: v if isinstance(v, int | float) else str(v)[:MOST_LETTERS]
        for k, v in facts["tags"].items()
        if v is not None
    }
    facts["tags"] = dict(list(tags.items())[:MOST_TAGS])
    sys.stdout.write(json.dumps(facts))
    return 0


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:3]))
