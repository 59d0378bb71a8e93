"""Depth of field, exact: from the blur disc, not from the hyperfocal short cut.

Distances here count from the entrance pupil (z) unless a name says otherwise; the lens stays put
while the limits are read off. See [depth] in docs/bibliography.md.
"""

from __future__ import annotations

import numpy as np

from hextan.core.base import Floats, Real, positive

#: Above this q the far limit is infinite: guards against rounding at the hyperfocal distance.
FAR_IS_INFINITE = 1.0 - 1e-9
#: Wavelength for the Airy disc: green, 0.55 micrometres, in mm.
GREEN_MM = 0.00055


def depth_limits(
    z_mm: Real, focal_mm: Real, magnification: Real, f_number: Real, coc_mm: Real
) -> tuple[Floats, Floats]:
    """Near and far limits around the plane in focus.

    Parameters
    ----------
    z_mm : entrance pupil to the plane in focus
    focal_mm, magnification, f_number, coc_mm : as everywhere

    Returns
    -------
    (near, far) from the entrance pupil in mm; far is `inf` at and beyond the hyperfocal distance.

    Raises
    ------
    InvalidInputError
        Zero, negative or infinite input, or NaN anywhere but in `coc_mm` (where it means unknown).

    Notes
    -----
    q = c*N/(f*m); near = z/(1+q), far = z/(1-q).

    >>> near, far = depth_limits(3000.0, 50.0, 50.0 / 2950.0, 2.8, 43.2666 / 1500)
    >>> round(float(far - near), 1)
    577.1
    """
    positive(z_mm=z_mm, focal_mm=focal_mm, magnification=magnification, f_number=f_number)
    q = np.asarray(coc_mm, dtype=float) * f_number / (np.asarray(focal_mm) * magnification)
    with np.errstate(divide="ignore"):
        far = np.where(q >= FAR_IS_INFINITE, np.inf, z_mm / np.where(q >= FAR_IS_INFINITE, 0.5, 1.0 - q))
    return np.asarray(z_mm / (1.0 + q)), np.where(np.isnan(q), np.nan, far)


def hyperfocal_from_lens_mm(focal_mm: Real, f_number: Real, coc_mm: Real) -> Floats:
    """Hyperfocal distance from the front principal plane: f*f/(N*c) + f.

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite focal length or f-number.

    >>> round(float(hyperfocal_from_lens_mm(50.0, 2.8, 0.025)), 2)
    35764.29
    """
    positive(focal_mm=focal_mm, f_number=f_number)
    f = np.asarray(focal_mm, dtype=float)
    return np.asarray(f * f / (f_number * np.asarray(coc_mm)) + f)


def hyperfocal_from_sensor_mm(focal_mm: Real, f_number: Real, coc_mm: Real) -> Floats:
    """Hyperfocal distance from the sensor plane, with the lens focused there.

    At m = c*N/f the distance is f(1+m)^2/m.

    >>> round(float(hyperfocal_from_sensor_mm(50.0, 2.8, 0.025)), 2)
    35814.36
    """
    positive(focal_mm=focal_mm, f_number=f_number)
    m = np.asarray(coc_mm, dtype=float) * f_number / focal_mm
    return np.asarray(focal_mm * (1.0 + m) ** 2 / m)


def blur_disc_mm(z_mm: Real, point_z_mm: Real, focal_mm: Real, magnification: Real, f_number: Real) -> Floats:
    """Diameter, on the sensor, of the disc that a point off the plane of focus becomes.

    Parameters
    ----------
    z_mm : entrance pupil to the plane in focus
    point_z_mm : entrance pupil to the point; `inf` for infinity

    Returns
    -------
    b = m*(f/N)*|z_b - z|/z_b in mm; m*f/N at infinity.

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite input (but for the point, which may be at infinity).

    >>> round(float(blur_disc_mm(3000.0, float("inf"), 50.0, 0.01, 2.0)), 3)
    0.25
    """
    positive(z_mm=z_mm, focal_mm=focal_mm, magnification=magnification, f_number=f_number)
    positive(point_z_mm=np.minimum(point_z_mm, 1e300))
    ratio = np.asarray(z_mm) / np.asarray(point_z_mm, dtype=float)
    return np.asarray(magnification * np.asarray(focal_mm) / f_number * np.abs(1.0 - ratio))


def blur_of_width(disc_mm: Real, picture_w_mm: Real, squeeze: Real = 1.0) -> Floats:
    """How soft a point is drawn: the taller extent of its disc, as a share of the width of the de-squeezed picture.

    Parameters
    ----------
    disc_mm : on the sensor, in the plane that is not squeezed
    picture_w_mm : width of the picture as it lies on the sensor

    >>> round(float(blur_of_width(0.5, 25.0, 2.0)), 4)
    0.01
    """
    return np.asarray(disc_mm / (np.asarray(picture_w_mm, dtype=float) * squeeze))


def disc_for_blur_mm(share: Real, picture_w_mm: Real, squeeze: Real = 1.0) -> Floats:
    """The disc that is drawn as soft as a share of the picture's width, mm: `blur_of_width` the other way round."""
    return np.asarray(share * (np.asarray(picture_w_mm, dtype=float) * squeeze))


def airy_disc_mm(f_number: Real, magnification: Real = 0.0, pupil_magnification: Real = 1.0) -> Floats:
    """Diameter of the Airy disc for green light: 2.44*lambda*N(1+m/p), mm.

    >>> round(float(airy_disc_mm(11.0)), 4)
    0.0148
    """
    positive(f_number=f_number)
    working = f_number * (1.0 + np.asarray(magnification) / pupil_magnification)
    return np.asarray(2.44 * GREEN_MM * working)
