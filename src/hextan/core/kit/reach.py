"""What a lens of the kit can be set to in a picture: the parts of a zoom's range that its circle covers."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from hextan.core.kit.arrays import (
    IMPOSSIBLE,
    UNKNOWN,
    Kit,
)
from hextan.core.optics import angle_of_view_deg, coverage_numbers, dark_share, spans_where

#: Where a circle just reaches, its last digits are the noise of a table that is interpolated.
_NOISE_MM = 1e-8


@dataclass(frozen=True)
class Reach:
    """Focal lengths with adapter, in one picture, at which a lens covers (or all, where it covers nowhere).

    `smaller` scales the picture that the kit holds for the entry: the small-circle crop acts in a part of a zoom's
    range and not in the rest.
    """

    entry: int
    low_mm: float
    high_mm: float
    covers: bool
    smaller: float = 1.0

    @property
    def prime(self) -> bool:
        """Whether it is one focal length."""
        return self.high_mm == self.low_mm


def reaches(kit: Kit, i: int, j: int, spare: float = 0.0) -> list[Reach]:
    """Find what a prime, or a zoom by its wide entry, can be set to in a column.

    Parameters
    ----------
    spare : how much more than what is needed the circle has to reach, as a share

    Returns
    -------
    From the shortest. Nothing for a lens that does not go on the body; one `Reach` that does not cover for a lens
    whose circle covers nowhere; everything where the circle is not stated.
    """
    if not kit.mounts[i, j]:
        return []
    ends = (i, i + 1) if kit.entries[i].end else (i, i)
    low, high = (float(kit.focal_mm[e, j]) for e in ends)
    verdicts = {int(kit.verdict[e, j]) for e in ends}
    marks = kit.entries[i].lens.circle_marks()
    m = float(kit.magnification[i, j])
    if low == high or UNKNOWN in verdicts or not marks:
        margin = float(kit.circle_mm[i, j]) / float(kit.needed_mm[i, j])
        return [Reach(i, low, high, not margin < 1 + spare)]
    small, whole = float(kit.small_circle[j]), float(kit.needed_whole_mm[j])
    acts = small != 1.0 and not kit.circle_mm[i, j] >= whole
    # The circle that is needed while the small-circle crop does not act; none acts where it is not switched on.
    needed = (1 + spare) * (float(kit.needed_mm[i, j]) if not acts else _grown(kit, i, j, small))
    parts: list[tuple[float, Callable[[float], bool], list[float]]] = [
        (
            small if acts else 1.0,
            lambda c: c * m >= (max(needed, whole) if small != 1.0 else needed),
            [needed, whole],
        )
    ]
    if small != 1.0:
        tight = (1 + spare) * (float(kit.needed_mm[i, j]) if acts else _grown(kit, i, j, 1 / small))
        parts.append((1.0 if acts else 1 / small, lambda c: tight <= c * m < whole, [tight, whole]))
    found = [
        Reach(i, max(a * m, low), min(b * m, high), True, scale)
        for scale, fits, levels in parts
        for a, b in spans_where(marks, fits, [level / m for level in levels])
    ]
    return sorted(found, key=lambda r: r.low_mm) or [Reach(i, low, high, False)]


def _grown(kit: Kit, i: int, j: int, by: float) -> float:
    """The circle that a picture needs which is so many times as large."""
    dx, dy = abs(float(kit.columns.offset_x[j])), abs(float(kit.columns.offset_y[j]))
    return 2 * math.hypot(
        dx + float(kit.recorded_w[i, j]) * by / 2, dy + float(kit.recorded_h[i, j]) * by / 2
    )


def picture_scale(kit: Kit, i: int, j: int, focal_mm: float) -> float:
    """The picture at a focal length with adapter, as a multiple of the one that the kit holds for the entry."""
    small = float(kit.small_circle[j])
    if small == 1.0:
        return 1.0
    whole = float(kit.needed_whole_mm[j])
    acts, acts_there = not kit.circle_mm[i, j] >= whole, not _circle_at(kit, i, j, focal_mm) >= whole
    return 1.0 if acts == acts_there else small if acts else 1 / small


def _circle_at(kit: Kit, i: int, j: int, focal_mm: float) -> float:
    m = float(kit.magnification[i, j])
    circle = kit.entries[i].lens.circle_at_mm(focal_mm / m)
    return math.nan if circle is None else circle * m


def verdict_at(kit: Kit, i: int, j: int, focal_mm: float) -> int:
    """Judge coverage at a focal length with adapter: an index into `VERDICTS`."""
    if not kit.mounts[i, j]:
        return IMPOSSIBLE
    circle, needed = _circle_at(kit, i, j, focal_mm), _grown(kit, i, j, picture_scale(kit, i, j, focal_mm))
    return int(coverage_numbers(circle + _NOISE_MM, needed, dark_at(kit, i, j, focal_mm), kit.seen_dark))


def dark_at(kit: Kit, i: int, j: int, focal_mm: float) -> float:
    """Share of the recording that stays dark at a focal length with adapter; NaN where the circle is not stated."""
    circle, scale = _circle_at(kit, i, j, focal_mm), picture_scale(kit, i, j, focal_mm)
    if math.isnan(circle):
        return math.nan
    lies = (
        kit.recorded_w[i, j] * scale,
        kit.recorded_h[i, j] * scale,
        kit.columns.offset_x[j],
        kit.columns.offset_y[j],
    )
    return float(dark_share(circle, *lies))


def angle_at(kit: Kit, i: int, j: int, focal_mm: float, smaller: float = 1.0) -> float:
    """Horizontal angle of view at infinity of a rectilinear lens, degrees, at a focal length with adapter."""
    squeeze = kit.entries[i].lens.squeeze
    wide = float(kit.picture_w[i, j]) * squeeze * smaller
    return float(angle_of_view_deg(wide, focal_mm, float(kit.columns.offset_x[j]) * squeeze))
