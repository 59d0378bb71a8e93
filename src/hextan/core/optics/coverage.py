"""Does the image circle cover the window? Sizes as they lie on the sensor, in mm."""

from __future__ import annotations

from typing import Literal, TypeAlias

import numpy as np

from hextan.core.base import Counts, Floats, Real, positive

Corner: TypeAlias = Literal["top left", "top right", "bottom left", "bottom right"]
#: What a circle does: covers, just covers (`MARGINAL_SHARE` to spare, or `DARK_SHARE` dark), is short, or is not stated.
Verdict: TypeAlias = Literal["covers", "marginal", "short", "unknown"]
#: The verdicts by the numbers of `coverage_numbers`.
VERDICTS: tuple[Verdict, ...] = ("covers", "marginal", "short", "unknown")
#: Below this share of the needed circle a margin is marginal: makers measure circles differently.
MARGINAL_SHARE = 0.02
#: So much of a picture may be dark and nobody calls it dark corners (common practice, no source).
DARK_SHARE = 0.001
#: The signs of x (right) and y (down) of each corner, seen as the picture is seen.
CORNERS: dict[Corner, tuple[int, int]] = {
    "top left": (-1, -1),
    "top right": (1, -1),
    "bottom left": (-1, 1),
    "bottom right": (1, 1),
}


def needed_circle_mm(
    width_mm: Real, height_mm: Real, offset_x_mm: Real = 0.0, offset_y_mm: Real = 0.0
) -> Floats:
    """Diameter of the circle on the axis that reaches the window's farthest corner.

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite sizes.

    >>> float(needed_circle_mm(3.0, 4.0))
    5.0
    """
    positive(width_mm=width_mm, height_mm=height_mm)
    return np.asarray(
        2.0
        * np.hypot(
            np.abs(offset_x_mm) + np.asarray(width_mm) / 2.0,
            np.abs(offset_y_mm) + np.asarray(height_mm) / 2.0,
        )
    )


def coverage_numbers(circle_mm: Real, needed_mm: Real, dark: Real, seen: float = DARK_SHARE) -> Counts:
    """Judge circles: numbers of `VERDICTS`, of the shape of all together. A circle of NaN is not stated.

    Parameters
    ----------
    dark : share of the window that the circle leaves dark (`dark_where_short`)
    seen : from which share on that is called dark corners
    """
    circle, needed = np.asarray(circle_mm, dtype=float), np.asarray(needed_mm, dtype=float)
    with np.errstate(invalid="ignore"):
        spare = circle - needed
        covered = np.where(spare < needed * MARGINAL_SHARE, 1, 0)
        return np.where(np.isnan(circle), 3, np.where((spare < 0) & ~(np.asarray(dark) <= seen), 2, covered))


def coverage_verdict(
    circle_mm: float | None, needed_mm: float, dark: float | None, seen: float = DARK_SHARE
) -> Verdict:
    """Say how a circle does; None is not stated.

    >>> [coverage_verdict(mm, 29.2, dark) for mm, dark in ((31.5, 0.0), (29.5, 0.0), (29.1, 2e-5), (28.0, 5e-3), (None, None))]
    ['covers', 'marginal', 'marginal', 'short', 'unknown']
    """
    return VERDICTS[
        int(
            coverage_numbers(
                np.nan if circle_mm is None else circle_mm, needed_mm, np.nan if dark is None else dark, seen
            )
        )
    ]


def dark_where_short(
    circle_mm: Real, width_mm: Real, height_mm: Real, offset_x_mm: Real = 0.0, offset_y_mm: Real = 0.0
) -> Floats:
    """`dark_share` of many windows, computed only where a circle is short; NaN where it is not stated.

    >>> dark_where_short([5.0, np.nan], 3.0, [3.9, 4.0]).tolist()
    [0.0, nan]
    """
    needed = needed_circle_mm(width_mm, height_mm, offset_x_mm, offset_y_mm)
    circle, *lies = np.broadcast_arrays(circle_mm, width_mm, height_mm, offset_x_mm, offset_y_mm)
    dark = np.where(np.isnan(circle), np.nan, 0.0)
    short = circle < needed
    if short.any():
        dark[short] = dark_share(circle[short], *(x[short] for x in lies))
    return np.asarray(dark)


def dark_share(
    circle_mm: Real, width_mm: Real, height_mm: Real, offset_x_mm: Real = 0.0, offset_y_mm: Real = 0.0
) -> Floats:
    """Share of the window's area that lies outside the image circle, 0 to 1.

    Notes
    -----
    Exact: the area of circle and rectangle, as the signed sum of four rectangles that have a corner
    on the axis.

    >>> round(float(dark_share(2.0, 2.0, 2.0)), 6) == round(1 - np.pi / 4, 6)
    True
    """
    positive(circle_mm=circle_mm, width_mm=width_mm, height_mm=height_mm)
    radius = np.asarray(circle_mm, dtype=float) / 2.0
    if not (np.any(offset_x_mm) or np.any(offset_y_mm)):
        # Centred on the axis all four quarters are alike.
        quarter = _area_to_corner(np.asarray(width_mm) / 2.0, np.asarray(height_mm) / 2.0, radius)
        return np.asarray(np.clip(1.0 - 4.0 * quarter / (np.asarray(width_mm) * height_mm), 0.0, 1.0))
    left, right = offset_x_mm - np.asarray(width_mm) / 2.0, offset_x_mm + np.asarray(width_mm) / 2.0
    top, bottom = offset_y_mm - np.asarray(height_mm) / 2.0, offset_y_mm + np.asarray(height_mm) / 2.0
    lit = (
        _area_to_corner(right, bottom, radius)
        - _area_to_corner(left, bottom, radius)
        - _area_to_corner(right, top, radius)
        + _area_to_corner(left, top, radius)
    )
    return np.asarray(np.clip(1.0 - lit / (np.asarray(width_mm) * height_mm), 0.0, 1.0))


def _area_to_corner(x: Floats, y: Floats, radius: Floats) -> Floats:
    """Signed area of the circle inside the rectangle from the axis to (x, y)."""
    a, b = np.minimum(np.abs(x), radius), np.minimum(np.abs(y), radius)
    inside = np.hypot(a, b) <= radius
    # Where the corner lies outside the circle: the strip below the arc from x0 to a, b high before it.
    x0 = np.sqrt(np.maximum(radius**2 - b**2, 0.0))
    arc = b * x0 + _below_arc(a, radius) - _below_arc(np.minimum(x0, a), radius)
    return np.asarray(np.sign(x) * np.sign(y) * np.where(inside, a * b, arc))


def _below_arc(x: Floats, radius: Floats) -> Floats:
    """Integral of sqrt(r^2 - t^2) from 0 to x."""
    return 0.5 * (x * np.sqrt(np.maximum(radius**2 - x**2, 0.0)) + radius**2 * np.arcsin(x / radius))


def dark_corners(
    circle_mm: float, width_mm: float, height_mm: float, offset_x_mm: float = 0.0, offset_y_mm: float = 0.0
) -> list[Corner]:
    """Name the corners of the window that the circle does not reach.

    >>> dark_corners(30.0, 24.0, 18.0, offset_x_mm=2.0)
    ['top right', 'bottom right']
    """
    return [
        name
        for name, (sx, sy) in CORNERS.items()
        if float(np.hypot(offset_x_mm + sx * width_mm / 2.0, offset_y_mm + sy * height_mm / 2.0))
        > circle_mm / 2.0 * (1 + 1e-12)
    ]


def largest_window_mm(circle_mm: Real, aspect: Real) -> tuple[Floats, Floats]:
    """Largest centred window of an aspect inside a circle: height = circle/sqrt(1+a*a).

    >>> [round(float(x), 3) for x in largest_window_mm(5.0, 0.75)]
    [3.0, 4.0]
    """
    positive(circle_mm=circle_mm, aspect=aspect)
    height = np.asarray(circle_mm) / np.sqrt(1.0 + np.asarray(aspect) ** 2)
    return np.asarray(height * aspect), np.asarray(height)
