"""Classes of formats, one list for all: the windows that the trade names, and which class a window belongs to.

Settings' references, plain windows, what lenses are made for and what people write about bodies all go by it.
"""

from __future__ import annotations

import math
from functools import lru_cache
from typing import Literal, NamedTuple, TypeAlias, get_args

FormatClass: TypeAlias = Literal[
    "large format", "65 mm", "8-perforation 35", "full frame", "Super 35", "APS-C", "four thirds", "1 inch",
    "Super 16", "2/3 inch",
]  # fmt: skip


class NamedWindow(NamedTuple):
    """A window that has a name: its class, its size in mm, and where the figures come from."""

    name: str
    #: None for a window that stands for no class.
    of_class: FormatClass | None
    width_mm: float
    height_mm: float
    source: str = "common practice, no source"


#: The first of a class is what its name alone stands for. Two figures of 3:2 are both called APS-C.
NAMED_WINDOWS: tuple[NamedWindow, ...] = (
    NamedWindow("large format", "large format", 54.12, 25.58),
    NamedWindow("65 mm, 5 perforations", "65 mm", 52.48, 23.01, "SMPTE ST 215, from memory"),
    NamedWindow("8-perforation 35", "8-perforation 35", 37.72, 24.92, "from memory"),
    NamedWindow("8-perforation 35, 17:9", "8-perforation 35", 40.96, 21.6),
    NamedWindow("full frame", "full frame", 36.0, 24.0, "ISO 1007, from memory"),
    NamedWindow("full frame in 16:9", "full frame", 36.0, 20.25, "the width of ISO 1007 in 16:9"),
    NamedWindow("Super 35 in 16:9", "Super 35", 24.89, 14.0, "the width of SMPTE ST 59 in 16:9"),
    NamedWindow("Super 35, 4 perforations", "Super 35", 24.89, 18.66, "SMPTE ST 59, full aperture, from memory"),
    NamedWindow("Super 35, 3 perforations", "Super 35", 24.89, 13.87),
    NamedWindow("35 mm, 2 perforations", "Super 35", 24.89, 9.35),
    NamedWindow("35 mm, 4 perforations for 2x", "Super 35", 21.95, 18.6),
    NamedWindow("35 mm, Academy", None, 21.95, 16.0, "SMPTE ST 59, from memory"),
    NamedWindow("half frame", None, 24.0, 18.0),
    NamedWindow("APS-C, 23.6 mm", "APS-C", 23.6, 15.6),
    NamedWindow("APS-C, 22.3 mm", "APS-C", 22.3, 14.9),
    NamedWindow("micro four thirds", "four thirds", 17.3, 13.0),
    NamedWindow("1 inch", "1 inch", 13.2, 8.8),
    NamedWindow("Super 16", "Super 16", 12.52, 7.41, "SMPTE ST 201, from memory"),
    NamedWindow("16 mm", None, 10.26, 7.49, "SMPTE ST 7, from memory"),
    NamedWindow("2/3 inch", "2/3 inch", 9.6, 5.4),
    NamedWindow("2/3 inch in 4:3", "2/3 inch", 8.8, 6.6),
)  # fmt: skip
#: The largest class first.
CLASSES: tuple[FormatClass, ...] = get_args(FormatClass)
#: Real windows of a class are this near to a named one, as a share of each side, and may be cut in height down to half.
#: Common practice, no source.
CLASS_ERROR = 0.085
_LEAST_OF_HEIGHT = 0.5
#: A lens that is made for a class has a circle of at least this share of the class's largest diagonal
#: (common practice, no source): a delivery in 2.39 needs that much.
_LEAST_CIRCLE = 0.85


def windows_of(of_class: FormatClass) -> list[NamedWindow]:
    """The named windows of a class, the one that its name alone stands for first."""
    return [window for window in NAMED_WINDOWS if window.of_class == of_class]


def class_size_mm(of_class: FormatClass) -> tuple[float, float]:
    """Width and height in mm that the name of a class alone stands for.

    >>> class_size_mm("Super 35"), class_size_mm("1 inch")
    ((24.89, 14.0), (13.2, 8.8))
    """
    first = windows_of(of_class)[0]
    return first.width_mm, first.height_mm


def class_circle_mm(of_class: FormatClass) -> float:
    """Diameter in mm of the circle that a lens made for a class is taken to have: its largest named diagonal, rounded up.

    Rounded down it would not reach the corners of its own class.

    >>> class_circle_mm("Super 35"), class_circle_mm("full frame")
    (31.2, 43.3)
    """
    largest = max(math.hypot(window.width_mm, window.height_mm) for window in windows_of(of_class))
    return math.ceil(largest * 10 - 1e-9) / 10


def least_circle_mm(of_class: FormatClass) -> float:
    """Diameter in mm below which a circle is doubted that is said to be made for a class."""
    return round(_LEAST_CIRCLE * class_circle_mm(of_class), 1)


@lru_cache(maxsize=4096)
def format_class(width_mm: float, height_mm: float) -> FormatClass | None:
    """Name the class of a recorded window; None where it is of no named size, within `CLASS_ERROR`.

    >>> format_class(24.89, 14.0), format_class(17.3, 13.0), format_class(13.2, 8.8), format_class(30.0, 16.0)
    ('Super 35', 'four thirds', '1 inch', None)
    """
    near: list[tuple[float, FormatClass | None]] = []
    for window in NAMED_WINDOWS:
        wider = abs(math.log(width_mm / window.width_mm))
        higher = math.log(height_mm / window.height_mm)
        if wider <= CLASS_ERROR and math.log(_LEAST_OF_HEIGHT) <= higher <= CLASS_ERROR:
            near.append((wider + abs(higher) / 2, window.of_class))
    return min(near, key=lambda row: row[0])[1] if near else None


def class_words(width_mm: float, height_mm: float) -> str:
    """The class of a window in words; its size where it has none.

    >>> class_words(24.9, 14.0), class_words(30.0, 16.0)
    ('Super 35', '30.0 × 16.0 mm')
    """
    return format_class(width_mm, height_mm) or f"{width_mm:.1f} × {height_mm:.1f} mm"
