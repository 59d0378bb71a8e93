"""The windows that a crop factor is measured against.

A cinematographer thinks in Super 35 as 1.0, a stills photographer in full frame as 1.0; the same
windows get other numbers. Which dimension sets the factor is a choice as well and is always stated.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal, TypeAlias, get_args

By: TypeAlias = Literal["width", "height", "diagonal"]
DIMENSIONS: tuple[By, ...] = get_args(By)


@dataclass(frozen=True)
class ReferenceWindow:
    """A window of reference, in millimetres on the sensor or film, and the dimension that counts."""

    name: str | None
    width_mm: float
    height_mm: float
    by: By = "width"

    @property
    def diagonal_mm(self) -> float:
        """Diagonal in mm."""
        return math.hypot(self.width_mm, self.height_mm)


#: Super 35: the full camera aperture of 35 mm film, 24.89 x 18.66 mm (SMPTE ST 59, from memory).
#: Full frame: the 135 stills frame, 36 x 24 mm (ISO 1007, from memory).
NAMED: dict[str, tuple[float, float]] = {"super35": (24.89, 18.66), "full_frame": (36.0, 24.0)}
LABELS: dict[str, str] = {"super35": "Super 35", "full_frame": "full frame"}


def named_reference(name: str, by: By = "width") -> ReferenceWindow:
    """Look up a named reference.

    Raises
    ------
    KeyError
        When there is no such name.

    >>> named_reference("super35").width_mm
    24.89
    """
    width_mm, height_mm = NAMED[name]
    return ReferenceWindow(name, width_mm, height_mm, by)
