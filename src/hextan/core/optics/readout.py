"""How fast a window can be read, and what that allows.

Only rows count: frame time = rows read x row time + overhead. Interlaced recording needs the sensor
scanned at the field rate.
"""

from __future__ import annotations

import numpy as np

from hextan.core.base import Flags, Floats, Real

#: Printed limits are rounded ("30" for 29.97): rates that agree this well are the same.
#: A wanted rate that is nearer to the limit than this is the same, printed otherwise (23.976 is 24000/1001).
BY_A_HAIR = 2e-5
RATE_TOLERANCE = 1e-3


def frame_time_us(rows: Real, row_time_us: Real, overhead_us: Real = 0.0) -> Floats:
    """Time to read one frame, microseconds; NaN where the row time is unknown.

    >>> float(frame_time_us(2430, 6.6, 400))
    16438.0
    """
    return np.asarray(np.asarray(rows, dtype=float) * row_time_us + overhead_us)


def highest_rate(frame_us: Real, stated_fps: Real, interlaced: bool | Flags = False) -> tuple[Floats, Flags]:
    """Highest frame rate of a recording.

    Parameters
    ----------
    frame_us : frame time, NaN when unknown
    stated_fps : the maker's limit on the scan rate, NaN when none is stated
    interlaced : true where two scans (fields) make one frame

    Returns
    -------
    (frames per second, true where the readout binds and not the stated limit). The rate is NaN
    where neither is known.

    >>> rate, by_readout = highest_rate(16438.0, np.nan, True)
    >>> round(float(rate), 3), bool(by_readout)
    (30.417, True)
    """
    readout = 1e6 / np.asarray(frame_us, dtype=float)
    scan = np.fmin(readout, stated_fps)
    by_readout = ~(np.asarray(stated_fps) < readout) & ~np.isnan(readout)
    return np.asarray(np.where(interlaced, scan / 2.0, scan)), np.asarray(by_readout)


def rate_fits(wanted_fps: Real, highest_fps: Real) -> Flags:
    """Tell whether a wanted rate is within a limit, with 0.1 % for printed figures.

    >>> bool(rate_fits(30.0, 29.97))
    True
    """
    return np.asarray(
        np.asarray(wanted_fps) <= np.asarray(highest_fps) / (1.0 - RATE_TOLERANCE) * (1 + 1e-12)
    )
