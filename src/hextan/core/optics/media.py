"""Pixels turned into data: rates, card minutes, storage, buffers; and what is left for re-framing.

GB is 10^9 bytes and GiB is 2^30 (IEC 80000-13, from memory); which one is meant is always printed.
"""

from __future__ import annotations

from typing import Literal, TypeAlias

import numpy as np

from hextan.core.base import Floats, Real, positive

CapacityUnit: TypeAlias = Literal["GB", "GiB"]
BYTES: dict[CapacityUnit, int] = {"GB": 10**9, "GiB": 2**30}
#: Samples that a pixel carries on average: one for raw; luma and chroma for the rest (ITU-R BT.601
#: sampling structures, from memory).
SAMPLES: dict[str, float] = {"raw": 1.0, "4:2:0": 1.5, "4:2:2": 2.0, "4:4:4": 3.0}


def frame_bytes(raster_w: Real, raster_h: Real, samples: Real, bits: Real, compression: Real = 1.0) -> Floats:
    """Bytes of one recorded frame: pixels x samples x bits / 8 / compression.

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite input.

    >>> float(frame_bytes(3840, 2160, 2.0, 10, 5.0))
    4147200.0
    """
    positive(raster_w=raster_w, raster_h=raster_h, samples=samples, bits=bits, compression=compression)
    return np.asarray(np.asarray(raster_w, dtype=float) * raster_h * samples * bits / 8 / compression)


def bytes_per_second(
    per_frame: Real, fps: Real, megabits: Real = np.nan, megabits_at_fps: Real = np.nan
) -> Floats:
    """Data rate of a recording at a frame rate.

    Parameters
    ----------
    per_frame : bytes of a frame by pixels, samples and compression; used where no bit rate is stated
    fps : frames a second
    megabits : stated bit rate in 10^6 bit/s, NaN when none is stated
    megabits_at_fps : frame rate at which it is stated and with which it grows; NaN when it is the
        same at every rate

    >>> float(bytes_per_second(4e6, 50.0)), float(bytes_per_second(4e6, 50.0, 240.0, 25.0)) / 1e6
    (200000000.0, 60.0)
    """
    scale = np.where(np.isnan(megabits_at_fps), 1.0, np.asarray(fps) / megabits_at_fps)
    stated = np.asarray(megabits) * 1e6 / 8 * scale
    return np.where(np.isnan(stated), np.asarray(per_frame, dtype=float) * fps, stated)


def highest_rate_by_data(
    per_frame: Real, write_bytes_s: Real, megabits: Real, megabits_at_fps: Real
) -> Floats:
    """Frame rate at which the data reach what can be written; infinite where they never do.

    >>> float(highest_rate_by_data(4e6, 400e6, np.nan, np.nan))
    100.0
    """
    at_one = bytes_per_second(per_frame, 1.0, megabits, megabits_at_fps)
    fixed = ~np.isnan(megabits) & np.isnan(megabits_at_fps)
    grows = np.asarray(write_bytes_s) / at_one
    return np.where(fixed, np.where(at_one <= write_bytes_s, np.inf, 0.0), grows)


def card_minutes(capacity: Real, unit: CapacityUnit, bytes_s: Real) -> Floats:
    """Minutes of recording that a card holds.

    >>> round(float(card_minutes(512, "GB", 100e6)), 2), round(float(card_minutes(512, "GiB", 100e6)), 2)
    (85.33, 91.63)
    """
    positive(capacity=capacity, bytes_s=bytes_s)
    return np.asarray(np.asarray(capacity, dtype=float) * BYTES[unit] / bytes_s / 60)


def storage_bytes(minutes: Real, bytes_s: Real) -> Floats:
    """Bytes of so many minutes of running camera.

    >>> float(storage_bytes(40, 100e6)) / BYTES["GB"]
    240.0
    """
    return np.asarray(np.asarray(minutes, dtype=float) * 60 * bytes_s)


def buffer_seconds(buffer_bytes: Real, bytes_s: Real, write_bytes_s: Real) -> Floats:
    """How long a burst can last: buffer / (data rate - what is written meanwhile); infinite when it keeps up.

    >>> float(buffer_seconds(8e9, 900e6, 400e6)), float(buffer_seconds(8e9, 300e6, 400e6))
    (16.0, inf)
    """
    excess = np.asarray(bytes_s, dtype=float) - write_bytes_s
    return np.where(excess <= 0, np.inf, np.asarray(buffer_bytes) / np.where(excess <= 0, 1.0, excess))


def levelling_degrees(recorded_w: Real, recorded_h: Real, delivered_w: Real, delivered_h: Real) -> Floats:
    """Largest rotation that still leaves every delivered pixel a recorded one.

    Parameters
    ----------
    recorded_w, recorded_h, delivered_w, delivered_h : pixels, de-squeezed alike

    Returns
    -------
    Degrees, at most 45; NaN where the delivery does not fit even without rotation.

    Notes
    -----
    The delivered rectangle (w, h), turned by t, lies inside when w cos t + h sin t <= W and
    w sin t + h cos t <= H. With r its diagonal, the left sides are r cos(t - atan(h/w)) and
    r cos(t - atan(w/h)).

    >>> round(float(levelling_degrees(4096, 2304, 3840, 2160)), 2)
    2.17
    """
    positive(recorded_w=recorded_w, recorded_h=recorded_h, delivered_w=delivered_w, delivered_h=delivered_h)
    w, h = np.asarray(delivered_w, dtype=float), np.asarray(delivered_h, dtype=float)
    r = np.hypot(w, h)
    fits = (w <= np.asarray(recorded_w) * (1 + 1e-12)) & (h <= np.asarray(recorded_h) * (1 + 1e-12))
    across = np.arctan2(h, w) - np.arccos(np.clip(recorded_w / r, 0.0, 1.0))
    down = np.arctan2(w, h) - np.arccos(np.clip(recorded_h / r, 0.0, 1.0))
    free_across, free_down = np.asarray(recorded_w) >= r, np.asarray(recorded_h) >= r
    limit = np.minimum(np.where(free_across, np.pi, across), np.where(free_down, np.pi, down))
    return np.where(fits, np.degrees(np.clip(limit, 0.0, np.pi / 4)), np.nan)
