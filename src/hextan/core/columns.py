"""The recording formats of a request as columns of numbers, so that one formula serves all of them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from hextan.core.contract import Format
from hextan.core.errors import Fault, InvalidInputError
from hextan.core.numbers import Floats
from hextan.core.windows import extract_picture, trim_to_aspect

NAN = math.nan


@dataclass(frozen=True)
class FormatColumns:
    """One entry a format, shape (F,); NaN where a thing is not stated.

    Sizes in mm lie on the sensor. `read_*` is the window, `recorded_*` what the raster shows,
    `picture_*` what the delivery frame shows (or the recording, without a delivery).
    """

    pitch_um: Floats
    read_w: Floats
    read_h: Floats
    sites_w: Floats
    sites_h: Floats
    offset_x: Floats
    offset_y: Floats
    sampling_h: Floats
    sampling_v: Floats
    row_time_us: Floats
    overhead_us: Floats
    stated_fps: Floats
    raster_w: Floats
    raster_h: Floats
    raw: Floats
    interlaced: Floats
    fps: Floats
    crop: Floats
    screen_aspect: Floats
    delivered_w: Floats
    protect: Floats
    trimmed_w: Floats
    trimmed_h: Floats
    recorded_w: Floats
    recorded_h: Floats
    picture_w: Floats
    picture_h: Floats


def columns_of(formats: Sequence[Format], squeeze: float) -> FormatColumns:
    """Lay formats out as columns and compute their windows.

    Raises
    ------
    InvalidInputError
        A window outside its sensor, a raster that a cropped mapping cannot fill, a crop on raw, or
        a mapping that needs photosites where only millimetres are known.
    """
    table = np.array([_row(f) for f in formats], dtype=float).T
    (
        pitch,
        given_w,
        given_h,
        sites_w,
        sites_h,
        off_x,
        off_y,
        samp_h,
        samp_v,
        row_us,
        over_us,
        stated,
        raster_w,
        raster_h,
        mapped,
        raw,
        inter,
        fps,
        crop,
        aspect,
        deliv_w,
        protect,
        sensor_w,
        sensor_h,
    ) = table
    from_mm = np.isnan(sites_w)
    sites_w, sites_h = (
        np.where(from_mm, given_w * 1000 / pitch, sites_w),
        np.where(from_mm, given_h * 1000 / pitch, sites_h),
    )
    read_w, read_h = (
        np.where(from_mm, given_w, sites_w * pitch / 1000),
        np.where(from_mm, given_h, sites_h * pitch / 1000),
    )
    faults = _faults(
        formats,
        read_w,
        read_h,
        sites_w,
        sites_h,
        sensor_w,
        sensor_h,
        off_x,
        off_y,
        pitch,
        raster_w,
        raster_h,
        mapped,
        samp_h,
        samp_v,
    )
    if faults:
        raise InvalidInputError.of(*faults)
    no_raster = np.isnan(raster_w)
    shown_aspect = np.where(no_raster, read_w / read_h, raster_w / raster_h)
    trimmed_w, trimmed_h = trim_to_aspect(read_w, read_h, shown_aspect)
    cropped = mapped > 0
    if cropped.any():
        trimmed_w = np.where(cropped, raster_w * samp_h * pitch / 1000, trimmed_w)
        trimmed_h = np.where(cropped, raster_h * samp_v * pitch / 1000, trimmed_h)
    recorded_w, recorded_h = trimmed_w / crop, trimmed_h / crop
    screen = np.where(np.isnan(aspect), recorded_w * squeeze / recorded_h, aspect)
    picture_w, picture_h = extract_picture(recorded_w, recorded_h, squeeze, screen)
    return FormatColumns(
        pitch, read_w, read_h, sites_w, sites_h,
        np.where(off_x == 0, 0.0, off_x * pitch / 1000), np.where(off_y == 0, 0.0, off_y * pitch / 1000),
        samp_h, samp_v, row_us, over_us, stated, raster_w, raster_h, raw, inter, fps, crop, aspect, deliv_w,
        protect, trimmed_w, trimmed_h, recorded_w, recorded_h, picture_w, picture_h,
    )  # fmt: skip


def _or_nan(value: float | None) -> float:
    return NAN if value is None else value


def _row(f: Format) -> tuple[float, ...]:
    sensor, window, timing, rec, delivery = f.sensor, f.window, f.timing, f.recording, f.delivery
    sites, raster = window.photosites or (NAN, NAN), rec.raster or (NAN, NAN)
    whole = sensor.photosites if sensor else (NAN, NAN)
    aspect = delivered_w = NAN
    if delivery is not None:
        if delivery.raster is not None:
            delivered_w, delivered_h = delivery.raster
            aspect = delivered_w / delivered_h
        aspect = aspect if delivery.aspect is None else delivery.aspect
    crop = 1.0
    for link in f.crops:
        crop *= link.factor
    return (
        sensor.pitch_um if sensor else NAN, _or_nan(window.width_mm), _or_nan(window.height_mm),
        sites[0], sites[1], window.offset[0], window.offset[1],
        f.sampling.horizontal, f.sampling.vertical,
        _or_nan(timing.row_time_us), timing.overhead_us, _or_nan(timing.max_fps),
        raster[0], raster[1], rec.map == "crop", rec.raw, rec.interlaced, _or_nan(rec.fps), crop,
        aspect, delivered_w, delivery.protect if delivery else 0.0, whole[0], whole[1],
    )  # fmt: skip


def _faults(
    formats: Sequence[Format], read_w: Floats, read_h: Floats, sites_w: Floats, sites_h: Floats,
    sensor_w: Floats, sensor_h: Floats, off_x: Floats, off_y: Floats, pitch: Floats,
    raster_w: Floats, raster_h: Floats, mapped: Floats, samp_h: Floats, samp_v: Floats,
) -> list[Fault]:  # fmt: skip
    """Find what contradicts itself within a format; only offenders cost time."""
    faults = [
        Fault(f"formats[{i}].crops", [c.name for c in f.crops],
              "a raw recording is unaltered sensor data, so in-camera crops cannot act on it")
        for i, f in enumerate(formats) if f.crops and f.recording.raw
    ]  # fmt: skip
    # Half a photosite of grace: millimetres are printed rounded.
    over_x = np.abs(off_x) + (sites_w - sensor_w) / 2
    over_y = np.abs(off_y) + (sites_h - sensor_h) / 2
    for i in np.flatnonzero((over_x > 0.5) | (over_y > 0.5)).tolist():
        faults.append(_outside(i, formats[i], read_w[i], read_h[i], over_x[i], over_y[i], pitch[i]))
    no_sites = np.isnan(sites_w)
    for i in np.flatnonzero(no_sites & (mapped > 0)).tolist():
        faults.append(Fault(f"formats[{i}].recording.map", "crop",
                            "taking photosites for pixels needs a sensor with photosites and pitch"))  # fmt: skip
    for i in np.flatnonzero(no_sites & ((off_x != 0) | (off_y != 0))).tolist():
        faults.append(Fault(f"formats[{i}].window.offset", formats[i].window.offset,
                            "an offset in photosites needs a sensor with photosites and pitch"))  # fmt: skip
    have_w, have_h = sites_w / samp_h, sites_h / samp_v
    for i in np.flatnonzero((mapped > 0) & ((raster_w > have_w) | (raster_h > have_h))).tolist():
        faults.append(Fault(
            f"formats[{i}].recording.raster", formats[i].recording.raster,
            f"map crop takes photosites for pixels, and this window has {have_w[i]:.0f} x {have_h[i]:.0f} "
            f"samples"))  # fmt: skip
    return faults


def _outside(
    i: int, f: Format, width_mm: float, height_mm: float, over_x: float, over_y: float, pitch_um: float
) -> Fault:
    sensor = f.sensor
    assert sensor is not None
    whole_w, whole_h = (n * pitch_um / 1000 for n in sensor.photosites)
    ways = [
        f"{over * pitch_um / 1000:.2f} mm too far {way}"
        for over, way in ((over_x, "across"), (over_y, "up and down"))
        if over > 0.5
    ]
    moved = f", moved by {f.window.offset[0]}, {f.window.offset[1]}," if any(f.window.offset) else ""
    rule = (
        f"the window is {width_mm:.2f} x {height_mm:.2f} mm{moved} but the sensor is {whole_w:.2f} x "
        f"{whole_h:.2f} mm: it reaches {' and '.join(ways)}"
    )
    return Fault(f"formats[{i}].window", f.window.photosites or [f.window.width_mm, f.window.height_mm], rule)
