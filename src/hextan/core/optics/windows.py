"""Windows on the sensor: from photosites to millimetres, trimmed, extracted and compared.

All sizes lie on the sensor (not de-squeezed) unless a name says so. Functions take scalars or arrays
of any shape and broadcast.
"""

from __future__ import annotations

import numpy as np

from hextan.core.base import Floats, Real, positive

#: Two aspects that differ by less than this are the same picture: rasters are whole pixels.
ASPECT_TOLERANCE = 1e-6


def trim_to_aspect(width_mm: Real, height_mm: Real, aspect: Real) -> tuple[Floats, Floats]:
    """Trim a window to an aspect, on the longer side only, centred.

    Parameters
    ----------
    width_mm, height_mm : window as it lies on the sensor
    aspect : wanted width / height on the sensor

    Returns
    -------
    (width_mm, height_mm) of the trimmed window. An aspect that agrees within `ASPECT_TOLERANCE`
    leaves the window as it is.

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite input.

    >>> w, h = trim_to_aspect(36.0, 24.0, 2.39)
    >>> round(float(h), 3)
    15.063
    """
    positive(width_mm=width_mm, height_mm=height_mm, aspect=aspect)
    width = np.asarray(width_mm, dtype=float)
    height = np.asarray(height_mm, dtype=float)
    same = np.abs(width / height / aspect - 1.0) <= ASPECT_TOLERANCE
    return (
        np.where(same, width, np.minimum(width, height * aspect)),
        np.where(same, height, np.minimum(height, width / aspect)),
    )


def extract_picture(
    width_mm: Real, height_mm: Real, squeeze: Real, screen_aspect: Real
) -> tuple[Floats, Floats]:
    """Largest centred picture of a screen aspect inside a recorded window.

    Parameters
    ----------
    width_mm, height_mm : recorded part of the sensor, not de-squeezed
    squeeze : of the lens, 1 for spherical
    screen_aspect : width / height on the screen, after de-squeezing

    Returns
    -------
    (width_mm, height_mm) as lying on the sensor: h = min(H, W*S/a), w = h*a/S.

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite input.

    >>> w, h = extract_picture(21.51, 18.0, 2.0, 2.39)
    >>> round(float(w), 3), round(float(h), 3)
    (21.51, 18.0)
    """
    positive(squeeze=squeeze, screen_aspect=screen_aspect)
    return trim_to_aspect(width_mm, height_mm, np.asarray(screen_aspect, dtype=float) / squeeze)


def crop_factors(
    width_mm: Real, height_mm: Real, squeeze: Real, reference_width_mm: Real, reference_height_mm: Real
) -> tuple[Floats, Floats, Floats]:
    """Crop of a de-squeezed window against a reference, by width, height and diagonal.

    Returns
    -------
    (by_width, by_height, by_diagonal): W_ref/(W*S), H_ref/H, diagonal / diagonal. The diagonal
    factor of a chain is not a function of the other two; it is always computed from the sizes.

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite input.

    >>> [round(float(k), 4) for k in crop_factors(24.89, 18.66, 1.0, 36.0, 24.0)]
    [1.4464, 1.2862, 1.3909]
    """
    positive(
        width_mm=width_mm,
        height_mm=height_mm,
        squeeze=squeeze,
        reference_width_mm=reference_width_mm,
        reference_height_mm=reference_height_mm,
    )
    wide = np.asarray(width_mm, dtype=float) * squeeze
    high = np.asarray(height_mm, dtype=float)
    return (
        reference_width_mm / wide,
        reference_height_mm / high,
        np.hypot(reference_width_mm, reference_height_mm) / np.hypot(wide, high),
    )
