"""The recording formats of a request as columns of numbers, so that one formula serves all of them."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, fields
from typing import Any

import numpy as np

from hextan.core.base import Counts, Fault, Flags, Floats, InvalidInputError, mm_from_um
from hextan.core.evaluation.contract import Format
from hextan.core.optics import extract_picture, trim_to_aspect

NAN = math.nan
#: How a window is sampled, as it stands in the column `method`.
METHODS = {"full": 0, "binned": 1, "skipped": 2}


@dataclass(frozen=True)
class GivenColumns:
    """What the request states, one entry a format, shape (F,); NaN where a thing is not stated."""

    pitch_um: Floats
    sensor_w: Floats
    sensor_h: Floats
    sites_w: Floats
    sites_h: Floats
    width_mm: Floats
    height_mm: Floats
    offset_x: Floats
    offset_y: Floats
    sampling_h: Floats
    sampling_v: Floats
    method: Floats
    row_time_us: Floats
    overhead_us: Floats
    stated_fps: Floats
    raster_w: Floats
    raster_h: Floats
    mapped: Floats
    raw: Floats
    interlaced: Floats
    fps: Floats
    crop: Floats
    delivered: Floats
    screen_aspect: Floats
    delivered_w: Floats
    protect: Floats


@dataclass(frozen=True)
class FormatColumns:
    """What is computed of the windows, shape (F,); sizes and offsets in mm as they lie on the sensor.

    `read_*` is the window, `trimmed_*` what the raster takes of it, `recorded_*` that after the
    in-camera crops, `picture_*` what the delivery frame shows (or the recording, without a delivery).
    """

    given: GivenColumns
    sites_w: Floats
    sites_h: Floats
    read_w: Floats
    read_h: Floats
    offset_x: Floats
    offset_y: Floats
    trimmed_w: Floats
    trimmed_h: Floats
    recorded_w: Floats
    recorded_h: Floats
    picture_w: Floats
    picture_h: Floats

    def taken(self, indices: Counts) -> FormatColumns:
        """Some of the formats, in the order of their indices."""
        given = GivenColumns(*(getattr(self.given, f.name)[indices] for f in fields(GivenColumns)))
        rest = {f.name: getattr(self, f.name)[indices] for f in fields(FormatColumns) if f.name != "given"}
        return FormatColumns(given=given, **rest)

    @property
    def samples_across(self) -> Floats:
        """Samples across the window."""
        return self.sites_w / self.given.sampling_h

    @property
    def samples_down(self) -> Floats:
        """Samples down the window: the rows that are read."""
        return self.sites_h / self.given.sampling_v


def columns_of(formats: Sequence[Format], squeeze: float) -> FormatColumns:
    """Lay formats out as columns and compute their windows.

    Raises
    ------
    InvalidInputError
        A format that contradicts itself: see `_refuse_contradictions`.
    """
    given = GivenColumns(*np.array([_row(f) for f in formats], dtype=float).T)
    from_mm = np.isnan(given.sites_w)
    per_mm = mm_from_um(given.pitch_um)
    sites_w, sites_h = given.sites_w, given.sites_h
    read_w, read_h = sites_w * per_mm, sites_h * per_mm
    if from_mm.any():
        sites_w = np.where(from_mm, given.width_mm / per_mm, sites_w)
        sites_h = np.where(from_mm, given.height_mm / per_mm, sites_h)
        read_w, read_h = np.where(from_mm, given.width_mm, read_w), np.where(from_mm, given.height_mm, read_h)
    _refuse_contradictions(formats, given, sites_w, sites_h)
    raster_aspect = given.raster_w / given.raster_h
    shown_aspect = np.where(np.isnan(raster_aspect), read_w / read_h, raster_aspect)
    trimmed_w, trimmed_h = trim_to_aspect(read_w, read_h, shown_aspect)
    cropped = given.mapped > 0
    if cropped.any():
        trimmed_w = np.where(cropped, given.raster_w * given.sampling_h * per_mm, trimmed_w)
        trimmed_h = np.where(cropped, given.raster_h * given.sampling_v * per_mm, trimmed_h)
    recorded_w, recorded_h = trimmed_w / given.crop, trimmed_h / given.crop
    screen = np.where(np.isnan(given.screen_aspect), recorded_w * squeeze / recorded_h, given.screen_aspect)
    picture_w, picture_h = extract_picture(recorded_w, recorded_h, squeeze, screen)
    moved = given.offset_x.any() or given.offset_y.any()
    return FormatColumns(
        given=given,
        sites_w=sites_w,
        sites_h=sites_h,
        read_w=read_w,
        read_h=read_h,
        # Without an offset the pitch may be unknown.
        offset_x=np.where(given.offset_x == 0, 0.0, given.offset_x * per_mm) if moved else given.offset_x,
        offset_y=np.where(given.offset_y == 0, 0.0, given.offset_y * per_mm) if moved else given.offset_y,
        trimmed_w=trimmed_w,
        trimmed_h=trimmed_h,
        recorded_w=recorded_w,
        recorded_h=recorded_h,
        picture_w=picture_w,
        picture_h=picture_h,
    )


_NOTHING: dict[str, Any] = {}
_NO_PAIR = (NAN, NAN)


def _row(f: Any) -> tuple[float, ...]:
    """Lay one checked format out in the order of `GivenColumns`."""
    sensor, window = f.get("sensor"), f["window"]
    sampling, timing = f.get("sampling", _NOTHING), f.get("timing", _NOTHING)
    recording, delivery = f.get("recording", _NOTHING), f.get("delivery")
    pitch, (sensor_w, sensor_h) = (sensor["pitch_um"], sensor["photosites"]) if sensor else (NAN, _NO_PAIR)
    sites_w, sites_h = window.get("photosites") or _NO_PAIR
    offset_x, offset_y = window.get("offset") or (0, 0)
    raster_w, raster_h = recording.get("raster") or _NO_PAIR
    aspect = delivered_w = NAN
    protect = 0.0
    if delivery is not None:
        raster, protect = delivery.get("raster"), delivery.get("protect", 0.0)
        if raster:
            delivered_w = raster[0]
            aspect = raster[0] / raster[1]
        aspect = delivery.get("aspect") or aspect
    crop = 1.0
    for link in f.get("crops", ()):
        crop *= link["factor"]
    return (
        pitch, sensor_w, sensor_h, sites_w, sites_h, window.get("width_mm") or NAN, window.get("height_mm") or NAN,
        offset_x, offset_y, sampling.get("horizontal", 1), sampling.get("vertical", 1),
        METHODS[sampling.get("method", "full")],
        timing.get("row_time_us") or NAN, timing.get("overhead_us", 0.0), timing.get("max_fps") or NAN,
        raster_w, raster_h, recording.get("map") == "crop", recording.get("raw", False),
        recording.get("interlaced", False), recording.get("fps") or NAN, crop,
        delivery is not None, aspect, delivered_w, protect,
    )  # fmt: skip


def _refuse_contradictions(
    formats: Sequence[Format], given: GivenColumns, sites_w: Floats, sites_h: Floats
) -> None:
    """Find what contradicts itself within a format; only offenders cost time."""
    has_sites, has_w, has_h = (~np.isnan(x) for x in (given.sites_w, given.width_mm, given.height_mm))
    known = ~np.isnan(sites_w)
    cropped, moved = given.mapped > 0, (given.offset_x != 0) | (given.offset_y != 0)
    # Half a photosite of grace: millimetres are printed rounded.
    over_x = np.abs(given.offset_x) + (sites_w - given.sensor_w) / 2
    over_y = np.abs(given.offset_y) + (sites_h - given.sensor_h) / 2
    have_w, have_h = sites_w / given.sampling_h, sites_h / given.sampling_v
    checks: tuple[tuple[Flags, str, Callable[[int], str]], ...] = (
        ((has_sites == (has_w | has_h)) | (has_w != has_h), "window",
         lambda i: "give photosites, or width_mm and height_mm"),
        (has_sites & np.isnan(given.pitch_um), "window.photosites",
         lambda i: "a window in photosites needs the sensor (photosites and pitch_um)"),
        ((over_x > 0.5) | (over_y > 0.5), "window",
         lambda i: _outside(given, i, sites_w, sites_h, over_x, over_y)),
        (~known & ~has_sites & moved, "window.offset",
         lambda i: "an offset in photosites needs a sensor with photosites and pitch"),
        ((given.method == 0) & ((given.sampling_h > 1) | (given.sampling_v > 1)), "sampling",
         lambda i: "method full reads every photosite: horizontal and vertical must be 1"),
        (cropped & np.isnan(given.raster_w), "recording",
         lambda i: "map crop takes photosites for pixels and needs a raster"),
        (cropped & ~known & ~has_sites, "recording.map",
         lambda i: "taking photosites for pixels needs a sensor with photosites and pitch"),
        (cropped & ((given.raster_w > have_w) | (given.raster_h > have_h)), "recording.raster",
         lambda i: f"map crop takes photosites for pixels, and this window has {have_w[i]:.0f} x {have_h[i]:.0f} samples"),
        ((given.raw > 0) & np.array([bool(f.get("crops")) for f in formats]), "crops",
         lambda i: "a raw recording is unaltered sensor data, so in-camera crops cannot act on it"),
        ((given.delivered > 0) & np.isnan(given.screen_aspect), "delivery", lambda i: "give aspect or raster"),
    )  # fmt: skip
    if not np.logical_or.reduce([wrong for wrong, _, _ in checks]).any():
        return
    faults = [
        Fault(f"formats[{i}].{path}", _given_at(formats[i], path), rule(i))
        for wrong, path, rule in checks
        for i in np.flatnonzero(wrong).tolist()
    ]
    raise InvalidInputError.of(*faults)


def _given_at(asked: Any, path: str) -> Any:
    """What the request says at a path; the names of crops, the photosites of a window."""
    for step in path.split("."):
        asked = asked.get(step)
    if path == "crops":
        return [crop["name"] for crop in asked]
    return asked["photosites"] if path == "window" and asked.get("photosites") else asked


def _outside(
    given: GivenColumns, i: int, sites_w: Floats, sites_h: Floats, over_x: Floats, over_y: Floats
) -> str:
    mm = mm_from_um(float(given.pitch_um[i]))
    ways = [
        f"{over[i] * mm:.2f} mm too far {way}"
        for over, way in ((over_x, "across"), (over_y, "up and down"))
        if over[i] > 0.5
    ]
    x, y = int(given.offset_x[i]), int(given.offset_y[i])
    moved = f", moved by {x}, {y}," if x or y else ""
    return (
        f"the window is {sites_w[i] * mm:.2f} x {sites_h[i] * mm:.2f} mm{moved} but the sensor is "
        f"{given.sensor_w[i] * mm:.2f} x {given.sensor_h[i] * mm:.2f} mm: it reaches {' and '.join(ways)}"
    )
