"""Angle of view and field, by the projection of the lens.

A rectilinear lens keeps straight lines straight (r = f tan theta). A fisheye does not, and each law
is computed by itself: no fisheye is ever put through the tangent.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal, TypeAlias, get_args

import numpy as np

from hextan.core.base import Floats, Real, positive

Projection: TypeAlias = Literal["rectilinear", "equidistant", "equisolid", "stereographic", "orthographic"]
PROJECTIONS: tuple[Projection, ...] = get_args(Projection)


@dataclass(frozen=True)
class Law:
    """How a lens draws; lengths in units of the focal length, angles in radians."""

    #: Field angle of an image height, odd in it; NaN where there is no such image height.
    field_angle: Callable[[Floats], Floats]
    #: Image height of a field angle: the law the other way round.
    image_height: Callable[[Floats], Floats]
    #: For derivations and notes.
    words: str


LAWS: dict[Projection, Law] = {
    "rectilinear": Law(np.arctan, np.tan, "r = f·tan θ"),
    "equidistant": Law(
        lambda r: np.asarray(np.where(np.abs(r) <= np.pi, r, np.nan)), lambda angle: angle, "r = f·θ"
    ),
    "equisolid": Law(
        lambda r: 2.0 * np.arcsin(r / 2.0), lambda angle: 2.0 * np.sin(angle / 2.0), "r = 2f·sin(θ/2)"
    ),
    "stereographic": Law(
        lambda r: 2.0 * np.arctan(r / 2.0), lambda angle: 2.0 * np.tan(angle / 2.0), "r = 2f·tan(θ/2)"
    ),
    "orthographic": Law(np.arcsin, np.sin, "r = f·sin θ"),
}


def field_angle_rad(image_height_mm: Real, focal_mm: Real, projection: Projection = "rectilinear") -> Floats:
    """Angle from the optical axis at an image height.

    Parameters
    ----------
    image_height_mm : signed distance from the axis on the sensor, mm
    focal_mm : focal length (or f(1+m/p) when focused nearer than infinity), mm
    projection : one of `PROJECTIONS`

    Returns
    -------
    Angle in radians with the sign of the image height; NaN where the law does not reach.

    Raises
    ------
    InvalidInputError
        A focal length that is not above zero.
    KeyError
        An unknown projection.

    >>> round(float(np.degrees(2 * field_angle_rad(18.0, 50.0))), 3)
    39.598
    """
    positive(focal_mm=focal_mm)
    with np.errstate(invalid="ignore"):
        return LAWS[projection].field_angle(np.asarray(image_height_mm, dtype=float) / focal_mm)


def image_height_mm(angle_rad: Real, focal_mm: Real, projection: Projection = "rectilinear") -> Floats:
    """Distance from the axis, on the sensor, at which a field angle is imaged; refuses what `field_angle_rad` does.

    >>> round(float(image_height_mm(np.pi / 2, 10.0, "equidistant")), 3)
    15.708
    """
    positive(focal_mm=focal_mm)
    return np.asarray(focal_mm * LAWS[projection].image_height(np.asarray(angle_rad, dtype=float)))


def angle_of_view_deg(
    size_mm: Real, focal_mm: Real, offset_mm: Real = 0.0, projection: Projection = "rectilinear"
) -> Floats:
    """Angle seen along one axis of a window; both sides of an off-centre window are summed.

    Parameters
    ----------
    size_mm : de-squeezed size of the window along the axis, mm
    focal_mm : focal length, mm
    offset_mm : window centre from the optical axis, along the same axis, mm
    projection : one of `PROJECTIONS`

    Returns
    -------
    Degrees; NaN where a fisheye's law does not reach the edge.

    Raises
    ------
    InvalidInputError
        A size or focal length that is not above zero.

    >>> round(float(angle_of_view_deg(24.0, 50.0)), 3)
    26.991
    """
    positive(size_mm=size_mm, focal_mm=focal_mm)
    half = np.asarray(size_mm, dtype=float) / 2.0
    with np.errstate(invalid="ignore"):
        return _along(half, offset_mm, focal_mm, LAWS[projection].field_angle, not np.any(offset_mm))


def _along(half: Floats, offset: Real, focal: Real, law: Callable[[Floats], Floats], centred: bool) -> Floats:
    if centred:
        return np.degrees(2.0 * law(half / focal))
    return np.degrees(law((offset + half) / focal) - law((offset - half) / focal))


def view_angles_deg(
    width_mm: Real,
    height_mm: Real,
    focal_mm: Real,
    offset_x_mm: Real = 0.0,
    offset_y_mm: Real = 0.0,
    projection: Projection = "rectilinear",
) -> tuple[Floats, Floats, Floats]:
    """Horizontal, vertical and diagonal angle of a de-squeezed window, degrees.

    Raises
    ------
    InvalidInputError
        A size or focal length that is not above zero.

    >>> [round(float(a), 3) for a in view_angles_deg(36.0, 24.0, 50.0)]
    [39.598, 26.991, 46.793]
    """
    positive(width_mm=width_mm, height_mm=height_mm, focal_mm=focal_mm)
    half_w, half_h = np.asarray(width_mm, dtype=float) / 2.0, np.asarray(height_mm, dtype=float) / 2.0
    law = LAWS[projection].field_angle
    centred = not (np.any(offset_x_mm) or np.any(offset_y_mm))
    with np.errstate(invalid="ignore"):
        across = _along(half_w, offset_x_mm, focal_mm, law, centred)
        down = _along(half_h, offset_y_mm, focal_mm, law, centred)
        if centred:
            return across, down, _along(np.hypot(half_w, half_h), 0.0, focal_mm, law, True)
    falling = _corner_to_corner(offset_x_mm, offset_y_mm, half_w, half_h, focal_mm, projection)
    rising = _corner_to_corner(offset_x_mm, offset_y_mm, half_w, -half_h, focal_mm, projection)
    return across, down, np.degrees(np.maximum(falling, rising))


def _corner_to_corner(
    dx: Real, dy: Real, half_w: Floats, half_h: Floats, focal_mm: Real, projection: Projection
) -> Floats:
    """Angle between the rays to two opposite corners, radians.

    A ray lies at the field angle of its image height, in the direction of its corner about the axis.
    """
    corners = (dx - half_w, dy - half_h), (dx + half_w, dy + half_h)
    (first, one), (second, two) = (_ray(x, y, focal_mm, projection) for x, y in corners)
    across = np.sqrt(sum((one[k - 1] * two[k - 2] - one[k - 2] * two[k - 1]) ** 2 for k in range(3)))
    along = sum(a * b for a, b in zip(one, two, strict=True))
    between = np.arctan2(across, along)
    # Corners on opposite sides of a fisheye's axis whose field angles add to more than half a turn.
    x1, y1, x2, y2 = *corners[0], *corners[1]
    wraps = (first + second > np.pi) & (x1 * x2 + y1 * y2 < 0)
    return np.asarray(np.where(wraps, 2.0 * np.pi - between, between))


def _ray(
    x: Floats, y: Floats, focal_mm: Real, projection: Projection
) -> tuple[Floats, tuple[Floats, Floats, Floats]]:
    """Field angle of a point of the image, and the unit vector of its ray."""
    height = np.hypot(x, y)
    angle = field_angle_rad(height, focal_mm, projection)
    safe = np.where(height > 0, height, 1.0)
    return angle, (np.sin(angle) * x / safe, np.sin(angle) * y / safe, np.cos(angle))


def image_distance_mm(focal_mm: Real, magnification: Real, pupil_magnification: Real = 1.0) -> Floats:
    """Distance f(1 + m/p) that sets the angle when the lens is focused at magnification m."""
    return np.asarray(focal_mm * (1.0 + magnification / np.asarray(pupil_magnification)))
