"""The optics of the whole chain for any number of pictures, lenses and distances at once.

`trace` is the one place where the formulas are put together; a slider, a ladder of sixty formats and
a table of a hundred thousand rows all go through it.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from hextan.core.base import Floats, Real
from hextan.core.optics import angles, conjugates, depth


@dataclass(frozen=True)
class Traced:
    """What the chain gives. Every array has the broadcast shape of what it depends on.

    Angles in degrees, lengths in mm, de-squeezed. `near`, `far` and `hyperfocal` count from where
    the subject distance counts; NaN where something needed is unknown or impossible.
    """

    angle_w_deg: Floats
    angle_h_deg: Floats
    angle_d_deg: Floats
    focus_angle_w_deg: Floats
    focus_angle_h_deg: Floats
    focus_angle_d_deg: Floats
    field_w_mm: Floats
    field_h_mm: Floats
    magnification: Floats
    distance_mm: Floats
    pupil_z_mm: Floats
    origin_mm: Floats
    near_mm: Floats
    far_mm: Floats
    hyperfocal_mm: Floats
    airy_mm: Floats


def trace(
    *,
    wide_mm: Real,
    high_mm: Real,
    focal_mm: Real,
    distance_mm: Real | None = None,
    magnification: Real | None = None,
    from_lens: bool = False,
    f_number: Real | None = None,
    coc_mm: Real = np.nan,
    offset_x_mm: Real = 0.0,
    offset_y_mm: Real = 0.0,
    pupil_magnification: Real = 1.0,
    projection: angles.Projection = "rectilinear",
) -> Traced:
    """Follow the light from the subject to a picture.

    Parameters
    ----------
    wide_mm, high_mm : the picture's size, de-squeezed (W*S and H)
    focal_mm : focal length with adapter
    distance_mm : subject distance; or `magnification`, when a field sets the distance
    from_lens : count distances from the front principal plane and not from the sensor plane
    f_number : with adapter; no depth without it
    coc_mm : circle of confusion
    offset_x_mm, offset_y_mm : the picture's centre from the axis, de-squeezed

    Returns
    -------
    Traced

    Raises
    ------
    InvalidInputError
        Sizes, focal lengths, distances or stops that are not above zero.

    Notes
    -----
    A fisheye has no field plane to speak of: its field is NaN; its depth holds on the axis only.

    >>> t = trace(wide_mm=36.0, high_mm=24.0, focal_mm=50.0, distance_mm=3000.0)
    >>> round(float(t.angle_w_deg), 3), round(float(t.field_w_mm), 1)
    (39.598, 2087.4)
    """
    nan = np.asarray(np.nan)
    p = pupil_magnification
    infinity = angles.view_angles_deg(wide_mm, high_mm, focal_mm, offset_x_mm, offset_y_mm, projection)
    if distance_mm is not None:
        find = conjugates.magnification_from_lens if from_lens else conjugates.magnification_from_sensor
        m = find(focal_mm, distance_mm)
        away = np.asarray(distance_mm, dtype=float)
    elif magnification is not None:
        m = np.asarray(magnification, dtype=float)
        away = conjugates.distance_for_magnification(focal_mm, m)[0 if from_lens else 1]
    else:
        return Traced(*infinity, *([nan] * 13))
    ok = np.isfinite(m)
    m_safe = m if ok.all() else np.where(ok, m, 1.0)
    focused = nan, nan, nan
    field_w = field_h = nan
    if projection == "rectilinear":
        image_mm = angles.image_distance_mm(focal_mm, m_safe, p)
        focused = angles.view_angles_deg(wide_mm, high_mm, image_mm, offset_x_mm, offset_y_mm, projection)
        field_w, field_h = np.asarray(wide_mm / m_safe), np.asarray(high_mm / m_safe)
    z = conjugates.pupil_to_subject(focal_mm, m_safe, p)
    origin = away - z
    near = far = hyperfocal = airy = nan
    if f_number is not None:
        near, far = (x + origin for x in depth.depth_limits(z, focal_mm, m_safe, f_number, coc_mm))
        find_hyperfocal = depth.hyperfocal_from_lens_mm if from_lens else depth.hyperfocal_from_sensor_mm
        hyperfocal = find_hyperfocal(focal_mm, f_number, coc_mm)
        airy = depth.airy_disc_mm(f_number, m_safe, p)
    parts: tuple[Floats, ...] = (
        *focused,
        field_w,
        field_h,
        m_safe,
        away,
        z,
        origin,
        near,
        far,
        hyperfocal,
        airy,
    )
    if not ok.all():
        parts = tuple(np.where(ok, part, np.nan) for part in parts)
    return Traced(*infinity, *parts)
