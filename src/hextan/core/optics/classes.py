"""Which class of format a recorded window belongs to, by its diagonal."""

from __future__ import annotations

from typing import Literal, TypeAlias

FormatClass: TypeAlias = Literal["65 mm", "full frame", "Super 35", "Super 16", "2/3 inch"]
#: Least diagonal in mm of each class: the geometric means between the diagonals that the trade names
#: (65 mm digital about 60, full frame 43.3, Super 35 in 16:9 28.5, Super 16 14.5, 2/3 inch 11).
#: Common practice, no source.
LEAST_DIAGONAL_MM: dict[FormatClass, float] = {
    "65 mm": 51.0,
    "full frame": 35.1,
    "Super 35": 20.3,
    "Super 16": 12.6,
    "2/3 inch": 0.0,
}


def format_class(diagonal_mm: float) -> FormatClass:
    """Name the class of a recorded window.

    >>> format_class(28.5), format_class(43.27), format_class(14.5)
    ('Super 35', 'full frame', 'Super 16')
    """
    return next(name for name, least in LEAST_DIAGONAL_MM.items() if diagonal_mm >= least)
