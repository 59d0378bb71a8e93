"""How a read does for the raster that is made of it: more samples than pixels, photosite for pixel, or softened."""

from __future__ import annotations

from typing import Literal, TypeAlias

import numpy as np

from hextan.core.base import Flags, Real

#: More samples than pixels; photosite for pixel; or softened: upscaled, binned, skipped.
Sharpness: TypeAlias = Literal["oversampled", "1:1", "softened"]
#: Rasters are whole pixels, so a ratio this close to one is photosite for pixel.
ONE_TO_ONE = 1e-3


def upscaled(samples_a_pixel: Real) -> Flags:
    """Whether there are fewer samples than pixels; not where that is unknown (NaN).

    >>> upscaled([0.998, 0.9995, 1.2]).tolist()
    [True, False, False]
    """
    return np.asarray(np.asarray(samples_a_pixel, dtype=float) < 1 - ONE_TO_ONE)


def oversampled(samples_a_pixel: Real) -> Flags:
    """Whether there are more samples than pixels; not where that is unknown (NaN).

    >>> oversampled([0.9995, 1.0005, 1.2]).tolist()
    [False, False, True]
    """
    return np.asarray(np.asarray(samples_a_pixel, dtype=float) > 1 + ONE_TO_ONE)


def sharpness(whole: bool, samples_a_pixel: float | None) -> Sharpness:
    """Rank a read.

    Parameters
    ----------
    whole : every photosite is read for itself, neither binned nor skipped
    samples_a_pixel : across; None where it is not known

    >>> sharpness(True, 1.5), sharpness(True, 1.0), sharpness(False, 1.5), sharpness(True, None)
    ('oversampled', '1:1', 'softened', 'softened')
    """
    if not whole or samples_a_pixel is None or upscaled(samples_a_pixel):
        return "softened"
    return "oversampled" if oversampled(samples_a_pixel) else "1:1"
