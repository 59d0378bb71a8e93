"""Depth of field asked backwards: which stop and focus hold from here to there, move with somebody, or give softness.

Distances are those of the focus mark, from the sensor plane; inside, limits count from the entrance pupil, which moves
with the lens as it is focused. See [depth] in docs/bibliography.md.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from hextan.core.base import Fault, InvalidInputError, m_from_mm, stops_between

#: A mark this near to the exact stop counts as it, in stops.
MARK_TOLERANCE = 0.02
_ROUNDS = 80


@dataclass(frozen=True)
class Plane:
    """A lens focused at a distance: all lengths in mm, z and E as everywhere."""

    distance_mm: float
    magnification: float
    z_mm: float
    origin_mm: float


@dataclass(frozen=True)
class ThinLens:
    """What depth goes by: focal length with adapter, pupil magnification, circle of confusion; mm."""

    focal_mm: float
    coc_mm: float
    pupil_magnification: float = 1.0

    def focused(self, distance_mm: float) -> Plane:
        """Focus at a distance from the sensor plane.

        Raises
        ------
        InvalidInputError
            Nearer than four focal lengths no image is formed.
        """
        f, q = self.focal_mm, distance_mm / self.focal_mm
        if not q >= 4:
            rule = f"a {f:g} mm lens forms no image of anything nearer than {m_from_mm(4 * f):g} m"
            raise InvalidInputError.of(Fault("focus", m_from_mm(distance_mm), rule))
        m = 2.0 / ((q - 2.0) + math.sqrt(q * (q - 4.0)))
        z = f * (1 / m + 1 / self.pupil_magnification)
        return Plane(distance_mm, m, z, distance_mm - z)

    def at_pupil_distance(self, z_mm: float) -> Plane:
        """Focus so that the plane lies at z from the entrance pupil."""
        f = self.focal_mm
        m = f / (z_mm - f / self.pupil_magnification)
        distance = f * (1 + m) ** 2 / m
        return Plane(distance, m, z_mm, distance - z_mm)

    def stop_for(self, plane: Plane, near_mm: float, far_mm: float) -> float:
        """The f-number at which, focused so, both limits (from the sensor plane) are just sharp.

        The larger of what the near and the far limit ask for: q = z/n - 1 and q = 1 - z/r, N = q*f*m/c.
        """
        q_near = plane.z_mm / (near_mm - plane.origin_mm) - 1
        q_far = 1 - plane.z_mm / (far_mm - plane.origin_mm)
        # Limits that are the same to the last digit ask for no depth at all: for the widest stop there is.
        return max(q_near, q_far, 1e-12) * self.focal_mm * plane.magnification / self.coc_mm

    def limits(self, plane: Plane, f_number: float) -> tuple[float, float]:
        """Near and far limit from the sensor plane; far is `inf` from the hyperfocal distance on."""
        q = self.coc_mm * f_number / (self.focal_mm * plane.magnification)
        far = math.inf if q >= 1 - 1e-9 else plane.z_mm / (1 - q) + plane.origin_mm
        return plane.z_mm / (1 + q) + plane.origin_mm, far


def hold(lens: ThinLens, near_mm: float, far_mm: float) -> tuple[Plane, float]:
    """Focus and f-number that just hold from near to far.

    Parameters
    ----------
    near_mm, far_mm : from the sensor plane; far may be `inf`

    Returns
    -------
    (the lens focused, the exact f-number).

    Raises
    ------
    InvalidInputError
        Limits in the wrong order, or nearer than the lens can form an image.

    Notes
    -----
    From the pupil: focus at 2nr/(n+r), N = (f*m/c)*(r-n)/(r+n); with r infinite 2n and f*m/c. The pupil moves with
    the focus, so that both are found together.

    >>> plane, n = hold(ThinLens(50.0, 0.025), 2500.0, 4000.0)
    >>> round(plane.distance_mm, 1), round(n, 2)
    (3074.2, 7.88)
    """
    if not near_mm < far_mm:
        rule = "must lie nearer than the far limit"
        raise InvalidInputError.of(Fault("near_m", m_from_mm(near_mm), rule))
    plane = lens.focused(max(near_mm, 4.0 * lens.focal_mm))
    for _ in range(_ROUNDS):
        n, r = near_mm - plane.origin_mm, far_mm - plane.origin_mm
        if n <= lens.focal_mm:
            rule = f"lies so near that a {lens.focal_mm:g} mm lens forms no image of it"
            raise InvalidInputError.of(Fault("near_m", m_from_mm(near_mm), rule))
        z = 2 * n if math.isinf(r) else 2 * n * r / (n + r)
        found = lens.at_pupil_distance(z)
        if abs(found.distance_mm - plane.distance_mm) < 1e-9 * plane.distance_mm:
            plane = found
            break
        plane = found
    return plane, lens.stop_for(plane, near_mm, far_mm)


def stop_for_softness(lens: ThinLens, plane: Plane, point_mm: float, disc_mm: float) -> float | None:
    """The f-number at which a point (from the sensor plane, may be `inf`) becomes a disc of this size.

    Returns
    -------
    N = m*f*|z_b - z|/(z_b*b); None for a point in the plane of focus, which no stop makes soft.

    >>> lens = ThinLens(50.0, 0.025)
    >>> round(stop_for_softness(lens, lens.focused(3000.0), math.inf, 0.36), 3)
    2.395
    """
    z_b = point_mm - plane.origin_mm
    if z_b <= 0:
        raise InvalidInputError.of(
            Fault("background_m", m_from_mm(point_mm), "lies behind the entrance pupil")
        )
    off = 1.0 if math.isinf(z_b) else abs(z_b - plane.z_mm) / z_b
    return None if off < 1e-9 else lens.focal_mm * plane.magnification * off / disc_mm


def distance_for_softness(lens: ThinLens, plane: Plane, f_number: float, disc_mm: float) -> float | None:
    """How far (from the sensor plane) a background has to be to become this soft; None where none is far enough."""
    share = disc_mm * f_number / (lens.focal_mm * plane.magnification)
    return None if share >= 1 - 1e-9 else plane.z_mm / (1 - share) + plane.origin_mm


def hyperfocal(lens: ThinLens, f_number: float) -> Plane:
    """Focus for most depth: from half of it to infinity."""
    m = lens.coc_mm * f_number / lens.focal_mm
    return lens.focused(lens.focal_mm * (1 + m) ** 2 / m)


def marked_stop(exact: float, stops: list[float], narrower: bool) -> float | None:
    """The marked stop next to an exact one, among those of a lens.

    Parameters
    ----------
    narrower : take the next one that is no wider (for depth), else no narrower (for softness)

    Returns
    -------
    None where the lens has none on that side.

    >>> marked_stop(4.1, [2.8, 4.0, 4.5], True), marked_stop(4.02, [2.8, 4.0, 4.5], True), marked_stop(6, [4.0], True)
    (4.5, 4.0, None)
    """
    if narrower:
        fit = [s for s in stops if stops_between(exact, s) >= -MARK_TOLERANCE]
        return min(fit, default=None)
    fit = [s for s in stops if stops_between(exact, s) <= MARK_TOLERANCE]
    return max(fit, default=None)
