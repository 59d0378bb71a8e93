"""Facts of clips, stills and the tables beside them, out of their first and last bytes."""

from __future__ import annotations

import json
import re
import tempfile
from collections.abc import Iterable
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any, BinaryIO

from hextan.core.base import Fault, HextanError, InvalidInputError
from hextan.core.record import ClipFacts
from hextan.formats.children import TooMuchError, TooSlowError, run
from hextan.formats.spreadsheets import rows_of_csv
from hextan.formats.text import decode_json
from hextan.formats.tracked import heard_of
from hextan.media.aliases import known, number_of

#: So much is read of a file at its beginning, and at its end.
HEAD, TAIL = 3_000_000, 4_000_000
#: A head takes so long at most, seconds; and a table has so many rows.
PATIENCE_S, MOST_ROWS = 15.0, 5000
#: Larger files than there are on a card's file system are not told, and no more is read of what a head says. Bytes.
MOST_SIZE, MOST_TOLD = 1 << 43, 1_000_000
CLIPS = (".mov", ".mp4", ".m4v", ".mxf", ".mkv", ".avi")
STILLS = (".jpg", ".jpeg", ".tif", ".tiff", ".png")
TABLES = (".csv", ".json", ".jsonl", ".ndjson")
_TIMECODE = re.compile(r"(\d\d:\d\d:\d\d[:;.]\d\d)")


def is_read(name: str) -> bool:
    """Whether a file is one of those that are looked at."""
    return name.lower().endswith((*CLIPS, *STILLS, *TABLES))


def of_path(path: Path, offset_min: int = 0) -> list[ClipFacts]:
    """Facts of a file where it lies. Refuses what `of_bytes` refuses."""
    size = path.stat().st_size
    with path.open("rb") as file:
        head = file.read(HEAD)
        tail = _tail(file, size)
    return of_bytes(path.name, head, tail, size, offset_min)


def _tail(file: BinaryIO, size: int) -> bytes:
    start = max(size - TAIL, HEAD)
    file.seek(start)
    return file.read(TAIL) if start < size else b""


def of_bytes(name: str, head: bytes, tail: bytes, size: int, offset_min: int = 0) -> list[ClipFacts]:
    """Facts of a file by its first and last bytes.

    Parameters
    ----------
    size : of the whole file, bytes
    offset_min : how far the clock of a still that does not say its zone is from UTC

    Returns
    -------
    One, but for a table: one for each of its rows.

    Raises
    ------
    InvalidInputError
        A file that cannot be read; says why.
    """
    lower = name.lower()
    try:
        if lower.endswith(TABLES):
            if size > HEAD:
                raise InvalidInputError.of(
                    Fault(name, size, f"is larger than a table may be ({HEAD / 1e6:.0f} MB)")
                )
            return _of_table(name, head)
        if lower.endswith(CLIPS):
            return [_clip(name, size, _read("clip", name, head, tail, size), offset_min)]
        if lower.endswith(STILLS):
            return [_clip(name, size, _read("still", name, head, tail, size), offset_min)]
    except HextanError as error:
        raise InvalidInputError(error.message, error.faults) from None
    raise InvalidInputError.of(Fault(name, lower[-10:], "is no clip, still or table that is known"))


def _read(kind: str, name: str, head: bytes, tail: bytes, size: int) -> dict[str, Any]:
    """Let the process with limits look at a copy: what lies between head and tail is a hole in it."""
    if size > MOST_SIZE:
        raise InvalidInputError.of(Fault(name, size, "is larger than a file can be that is read here (8 TB)"))
    if size < len(head) + len(tail):
        raise InvalidInputError.of(Fault(name, size, "is smaller than what was sent of it"))
    with tempfile.TemporaryDirectory(prefix="hextan-head-") as folder:
        copy = Path(folder) / "file"
        with copy.open("wb") as file:
            file.write(head)
            if tail:
                file.seek(size - len(tail))
                file.write(tail)
            file.truncate(size)
        try:
            done = run("hextan.media.child", [kind, str(copy)], b"", PATIENCE_S, MOST_TOLD)
        except TooSlowError:
            raise InvalidInputError.of(Fault(name, size, "takes too long to read")) from None
        except TooMuchError:
            raise InvalidInputError.of(Fault(name, size, "tells more of itself than is read")) from None
    if done.code != 0:
        raise InvalidInputError.of(Fault(name, size, done.said() or "ended the process that reads it"))
    found: dict[str, Any] = json.loads(done.answer)
    return found


def _clip(name: str, size: int | None, read: dict[str, Any], offset_min: int) -> ClipFacts:
    tags = read.get("tags", {})
    said = known(tags)
    raster = read.get("raster")
    if raster is None and number_of(said.get("width", "")) and number_of(said.get("height", "")):
        raster = [round(number_of(said["width"]) or 0), round(number_of(said["height"]) or 0)]
    fps = read.get("fps") or number_of(said.get("fps", ""))
    pitch = read.get("pitch_um")
    plain: dict[str, Any] = {
        "name": Path(name).name or "clip",
        "bytes": size,
        "raster": raster if raster and min(raster) >= 1 else None,
        "pixel_aspect": read.get("pixel_aspect") or number_of(said.get("pixel_aspect", "")),
        "fps": fps,
        "codec": str(read.get("codec") or said.get("codec", ""))[:120],
        "bits": read.get("bits") or _whole(said.get("bits")),
        "timecode": _timecode(tags, said),
        "seconds": read.get("seconds")
        if read.get("seconds") is not None
        else number_of(said.get("seconds", "")),
        "at": _at(tags, offset_min),
        "reel": str(said.get("reel", ""))[:120],
        "body": str(said.get("body", ""))[:120].strip(),
        "lens": str(said.get("lens", ""))[:120].strip(),
        "focal_mm": number_of(said.get("focal_mm", "")),
        "f_number": number_of(said.get("f_number", "")),
        "t_stop": number_of(said.get("t_stop", "")),
        "ei": _whole(said.get("ei")),
        "shutter_deg": _shutter(said, fps),
        "focus_m": number_of(said.get("focus_m", "")),
        "read_mm": read.get("read_mm"),
        "pitch_um": pitch,
        "still": bool(read.get("still")),
        "tags": {key: str(value) for key, value in tags.items()},
    }
    if pitch and raster and plain["read_mm"] is None:
        plain["read_mm"] = [raster[0] * pitch / 1000, raster[1] * pitch / 1000]
    return _checked(plain)


def _checked(plain: dict[str, Any]) -> ClipFacts:
    """What cannot be is left out, field by field: a clip with one odd figure is still a clip."""
    from pydantic import ValidationError  # noqa: PLC0415

    for _ in range(len(plain)):
        try:
            return ClipFacts.model_validate(plain)
        except ValidationError as error:
            odd = {str(each["loc"][0]) for each in error.errors()}
            if "name" in odd:
                plain["name"] = "".join(c for c in plain["name"] if c.isprintable())[:255] or "clip"
                odd.discard("name")
            plain = {key: value for key, value in plain.items() if key not in odd}
    return ClipFacts(name="clip")


def _whole(value: Any) -> int | None:
    found = number_of(value) if value is not None else None
    return None if found is None or found < 1 else round(found)


def _shutter(said: dict[str, Any], fps: float | None) -> float | None:
    angle = number_of(said.get("shutter_deg", ""))
    if angle is not None:
        return angle
    time_s = number_of(said.get("shutter_s", ""))
    return None if time_s is None or not fps else min(360 * fps * time_s, 360.0)


def _timecode(tags: dict[str, Any], said: dict[str, Any]) -> str:
    for text in (
        str(said.get("timecode", "")),
        *(str(v) for k, v in tags.items() if "timecode" in k.lower()),
    ):
        found = _TIMECODE.search(text)
        if found:
            return found[1]
    return ""


def _at(tags: dict[str, Any], offset_min: int) -> str | None:
    """When it was shot: a clip tells UTC, a still the local time, with its zone or without."""
    lower = {key.lower(): str(value) for key, value in tags.items()}
    still = re.fullmatch(r"(\d{4}):(\d\d):(\d\d) (\d\d:\d\d:\d\d)", lower.get("datetimeoriginal", ""))
    text = next(
        (v for k, v in lower.items() if k.endswith("creation_time") or k.endswith("creationdate")), ""
    )
    try:
        if still:
            at = datetime.fromisoformat(f"{still[1]}-{still[2]}-{still[3]}T{still[4]}")
            zone = re.fullmatch(r"([+-])(\d\d):(\d\d)", lower.get("offsettimeoriginal", ""))
            minutes = (
                offset_min
                if zone is None
                else (1 if zone[1] == "+" else -1) * (60 * int(zone[2]) + int(zone[3]))
            )
            return f"{at - timedelta(minutes=minutes):%Y-%m-%dT%H:%M:%S}Z"
        at = datetime.fromisoformat(text.replace("Z", "+00:00"))
        at = at.astimezone(UTC) if at.tzinfo is not None else at
        # A container without a clock counts from its own beginning of time.
        return None if at.year < 1980 else f"{at:%Y-%m-%dT%H:%M:%S}Z"
    except ValueError:
        return None


def _of_table(name: str, data: bytes) -> list[ClipFacts]:
    """A table of clips (CSV, or a JSON list of objects), or a camera's samples beside a clip of the same name."""
    if name.lower().endswith(".csv"):
        titles, *rows = rows_of_csv(data, MOST_ROWS + 1) or [[]]
        return _rows(name, [dict(zip(titles, row, strict=False)) for row in rows])
    stripped = data.strip()
    lines = stripped.splitlines()
    if len(lines) > 1 and lines[0].rstrip().endswith(b"}"):
        plain: Any = [decode_json(line) for line in lines[:MOST_ROWS] if line.strip()]
    else:
        plain = decode_json(stripped)
    listed = plain if isinstance(plain, list) else [plain]
    if not listed or not all(isinstance(each, dict) for each in listed):
        raise InvalidInputError.of(Fault(name, "(JSON)", "must be an object, or a list of them"))
    if any("static" in each or "protocol" in each for each in listed):
        return [_of_samples(name, listed)]
    return _rows(name, listed[:MOST_ROWS])


def _rows(name: str, rows: list[dict[str, Any]]) -> list[ClipFacts]:
    found = []
    for row in rows:
        tags = {
            str(key)[:120]: value
            for key, value in row.items()
            if key and isinstance(value, str | int | float) and not isinstance(value, bool)
        }
        own = known(tags).get("name")
        if own is None and len(rows) > 1:
            continue
        found.append(_clip(str(own or Path(name).stem), None, {"tags": dict(list(tags.items())[:150])}, 0))
    if not found:
        raise InvalidInputError.of(
            Fault(name, "(table)", "names no clips: one column has to be called Clip, Name or File")
        )
    return found


def _of_samples(name: str, samples: list[dict[str, Any]]) -> ClipFacts:
    """What a camera said while a clip was shot: the last word of each thing, as at its end."""
    heard = heard_of(json.dumps(samples[-1]).encode())
    first = heard_of(json.dumps(samples[0]).encode())
    plain = {
        "name": Path(name).stem, "raster": None if heard.raster is None else list(heard.raster), "fps": heard.fps,
        "body": heard.body or "", "lens": heard.lens or "", "focal_mm": heard.focal_mm, "t_stop": heard.t_stop,
        "f_number": heard.f_number, "ei": heard.ei, "shutter_deg": heard.shutter_deg, "focus_m": heard.focus_m,
        "read_mm": None if heard.read_mm is None else list(heard.read_mm),
        "at": None if first.clock_s is None or not 0 < first.clock_s < 4e9 else f"{datetime.fromtimestamp(first.clock_s, UTC):%Y-%m-%dT%H:%M:%S}Z",
    }  # fmt: skip
    return _checked(plain)


def merged(facts: Iterable[ClipFacts]) -> list[ClipFacts]:
    """Put together what several files say of one clip: they have its name but for the ending, and a clip's own head counts first."""
    found: dict[str, ClipFacts] = {}
    for each in sorted(facts, key=lambda f: f.bytes is None):
        stem = Path(each.name).stem.lower() if Path(each.name).suffix else each.name.lower()
        before = found.get(stem)
        if before is None:
            found[stem] = each
            continue
        missing = {
            name: value
            for name, value in each
            if name not in ("name", "tags", "still")
            and value not in (None, "")
            and getattr(before, name) in (None, "")
        }
        tags = dict(list((each.tags | before.tags).items())[:200])
        found[stem] = before.model_copy(update=missing | {"tags": tags})
    return list(found.values())
