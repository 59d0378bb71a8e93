"""The circle of confusion: the largest blur disc, on the sensor, that still counts as sharp.

People disagree about it, so every rule is offered and stated beside its results. The default scales
with the delivered picture, because formats are compared at one size on one screen.
"""

from __future__ import annotations

import math

import numpy as np

from hextan.core.base import Floats, Real, mm_from_um, positive


def coc_from_diagonal_mm(picture_diagonal_mm: Real, divisor: Real = 1500.0) -> Floats:
    """Diagonal of the delivered picture on the sensor / divisor (also 1730 in use).

    >>> round(float(coc_from_diagonal_mm(43.2666)), 4)
    0.0288
    """
    positive(picture_diagonal_mm=picture_diagonal_mm, divisor=divisor)
    return np.asarray(np.asarray(picture_diagonal_mm, dtype=float) / divisor)


def coc_from_photosites_mm(pitch_um: Real, sampling: Real = 1.0, factor: Real = 2.0) -> Floats:
    """A number of photosites of the sampled grid (binned by 2 doubles its pitch); NaN for an unknown pitch.

    >>> round(float(coc_from_photosites_mm(5.9)), 4)
    0.0118
    """
    positive(pitch_um=np.where(np.isnan(pitch_um), 1.0, pitch_um), sampling=sampling, factor=factor)
    return np.asarray(mm_from_um(factor * np.asarray(pitch_um, dtype=float) * sampling))


def coc_from_pixel_mm(picture_width_mm: Real, delivered_width_px: Real, factor: Real = 1.0) -> Floats:
    """A number of delivered pixels, as wide as they lie on the sensor.

    >>> round(float(coc_from_pixel_mm(24.0, 3840)), 5)
    0.00625
    """
    positive(picture_width_mm=picture_width_mm, factor=factor)
    return np.asarray(factor * np.asarray(picture_width_mm, dtype=float) / delivered_width_px)


def coc_from_eye_mm(picture_height_mm: Real, picture_heights: Real = 3.0, arcmin: Real = 1.0) -> Floats:
    """What a viewer resolves from a distance counted in picture heights.

    >>> round(float(coc_from_eye_mm(14.0, 3.0)), 5)
    0.01222
    """
    positive(picture_height_mm=picture_height_mm, picture_heights=picture_heights, arcmin=arcmin)
    per_height = np.asarray(picture_heights) * np.tan(np.asarray(arcmin) * math.pi / 180.0 / 60.0)
    return np.asarray(np.asarray(picture_height_mm, dtype=float) * per_height)
