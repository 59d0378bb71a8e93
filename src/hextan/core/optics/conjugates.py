"""Conjugates and magnification of a thin lens, and what adapters do to it.

f focal length in mm (with adapter), s subject distance from the front principal plane, D from the
sensor plane, m magnification (positive), p pupil magnification. See [conjugates] in
docs/bibliography.md.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from hextan.core.base import Floats, Real, positive


def magnification_from_sensor(focal_mm: Real, distance_mm: Real) -> Floats:
    """Magnification at a distance measured from the sensor plane, as the focus mark counts.

    Parameters
    ----------
    focal_mm : focal length, mm
    distance_mm : subject to sensor plane, mm

    Returns
    -------
    m; NaN where D < 4f, because no position of the lens forms an image there.

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite input.

    Notes
    -----
    With q = D/f, m = 2 / ((q-2) + sqrt(q(q-4))): the form that loses no digits far away.

    >>> round(float(50 * (1 + 1 / magnification_from_sensor(50.0, 3000.0))), 3)
    2949.138
    """
    positive(focal_mm=focal_mm, distance_mm=distance_mm)
    q = np.asarray(distance_mm, dtype=float) / focal_mm
    with np.errstate(invalid="ignore"):
        return np.asarray(2.0 / ((q - 2.0) + np.sqrt(q * (q - 4.0))))


def magnification_from_lens(focal_mm: Real, distance_mm: Real) -> Floats:
    """Magnification at a distance measured from the front principal plane, as tables assume.

    Returns
    -------
    m = f/(s-f); NaN where s <= f.

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite input.

    >>> float(magnification_from_lens(100.0, 200.0))
    1.0
    """
    positive(focal_mm=focal_mm, distance_mm=distance_mm)
    beyond = np.asarray(distance_mm, dtype=float) - focal_mm
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.asarray(np.where(beyond > 0, focal_mm / beyond, np.nan))


def distance_for_magnification(focal_mm: Real, magnification: Real) -> tuple[Floats, Floats]:
    """Subject distances that give a magnification.

    Returns
    -------
    (from the lens, from the sensor plane) in mm: s = f(1 + 1/m), D = f(1+m)^2/m.

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite input.

    >>> [float(x) for x in distance_for_magnification(100.0, 1.0)]
    [200.0, 400.0]
    """
    positive(focal_mm=focal_mm, magnification=magnification)
    f = np.asarray(focal_mm, dtype=float)
    return f * (1 + 1 / magnification), f * (1 + magnification) ** 2 / magnification


def pupil_to_subject(focal_mm: Real, magnification: Real, pupil_magnification: Real = 1.0) -> Floats:
    """Distance z from the entrance pupil to the plane in focus: z = f(1/m + 1/p), mm."""
    return np.asarray(focal_mm * (1.0 / magnification + 1.0 / np.asarray(pupil_magnification)))


@dataclass(frozen=True)
class LensAsMounted:
    """A lens with its adapter: what the camera sees. Lengths in mm, None where unknown."""

    focal_mm: float
    f_number: float | None
    t_stop: float | None
    image_circle_mm: float | None


def behind_adapter(
    focal_mm: float,
    f_number: float | None,
    t_stop: float | None,
    image_circle_mm: float | None,
    magnification: float,
) -> LensAsMounted:
    """Put a reducer (below 1) or an extender (above 1) behind a lens.

    Focal length, f-number, T-stop and image circle are all multiplied; the aperture's diameter f/N
    stays what it was.

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite focal length or magnification.

    >>> round(behind_adapter(50.0, 2.8, 2.0, 43.3, 0.71).t_stop, 2)
    1.42
    """
    positive(focal_mm=focal_mm, magnification=magnification)
    return LensAsMounted(
        focal_mm=focal_mm * magnification,
        f_number=None if f_number is None else f_number * magnification,
        t_stop=None if t_stop is None else t_stop * magnification,
        image_circle_mm=None if image_circle_mm is None else image_circle_mm * magnification,
    )


def close_up_growth(magnification: Real, pupil_magnification: Real = 1.0) -> Floats:
    """By how much a lens that is focused close grows its f-number: 1 + m/p; NaN where no image is formed.

    >>> float(close_up_growth(1.0))
    2.0
    """
    return np.asarray(1.0 + np.asarray(magnification, dtype=float) / pupil_magnification)


def close_up_stops(magnification: Real, pupil_magnification: Real = 1.0) -> Floats:
    """Light that is lost close up, in stops: 2 log2(1 + m/p); NaN where no image is formed.

    >>> float(close_up_stops(1.0))
    2.0
    """
    return np.asarray(2.0 * np.log2(close_up_growth(magnification, pupil_magnification)))


def stops_of_adapter(magnification: Real) -> Floats:
    """Light lost (positive) or won (negative) behind an adapter: 2*log2(m_a) stops.

    >>> round(float(stops_of_adapter(0.71)), 3)
    -0.988
    """
    positive(magnification=magnification)
    return np.asarray(2.0 * np.log2(magnification))
