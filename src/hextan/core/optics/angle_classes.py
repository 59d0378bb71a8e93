"""Very wide to very long: what a lens is, by its angle of view and never by its number."""

from __future__ import annotations

import math
from typing import Literal, TypeAlias

import numpy as np

from hextan.core.base import Floats
from hextan.core.optics.angles import angle_of_view_deg
from hextan.core.optics.references import NAMED

ViewClass: TypeAlias = Literal["very wide", "wide", "normal", "long", "very long"]
VIEW_CLASSES: tuple[ViewClass, ...] = ("very wide", "wide", "normal", "long", "very long")
#: On Super 35, 18 to 24 mm feel wide, 35 to 50 normal, 85 and more long (common practice, no source). The
#: bounds are 18 mm itself, the geometric means between neighbouring classes, and twice 85 mm.
_BOUNDS_ON_SUPER35_MM = (18.0, math.sqrt(24 * 35), math.sqrt(50 * 85), 170.0)
#: Horizontal angles, degrees, down to which each class but the last reaches: 69.3, 46.5, 21.6, 8.4.
LEAST_ANGLE_DEG: tuple[float, ...] = tuple(
    float(angle_of_view_deg(NAMED["super35"][0], focal)) for focal in _BOUNDS_ON_SUPER35_MM
)


def view_classes(angles_deg: Floats) -> list[ViewClass | None]:
    """Name the classes of many angles; None where there is none.

    >>> view_classes(np.array([39.2, np.nan, 90.0]))
    ['normal', None, 'very wide']
    """
    # The same bounds as `view_class`: all but the first belong to the wider class.
    bounds = np.array([LEAST_ANGLE_DEG[0] * (1 + 1e-9), *(b * (1 - 1e-9) for b in LEAST_ANGLE_DEG[1:])])
    index = np.searchsorted(-bounds, -np.asarray(angles_deg), side="left")
    good = np.isfinite(angles_deg).tolist()
    return [VIEW_CLASSES[i] if ok else None for i, ok in zip(index.tolist(), good, strict=True)]


def view_class(angle_deg: float) -> ViewClass:
    """Name the class of a horizontal angle of view.

    >>> [view_class(a) for a in (39.2, 58.7, 18.6, 90.0, 5.0)]
    ['normal', 'wide', 'long', 'very wide', 'very long']
    """
    for name, least in zip(VIEW_CLASSES, LEAST_ANGLE_DEG, strict=False):
        # The bound itself belongs to the wider class, but for the first: 18 mm is wide, not very wide.
        if angle_deg > least * (1 + 1e-9) or (name != "very wide" and angle_deg >= least * (1 - 1e-9)):
            return name
    return "very long"
