"""Image circles that change along the zoom, with the stop or with focus: small tables of a few rows."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal, TypeAlias

import numpy as np

CircleAxis: TypeAlias = Literal["focal", "stop", "focus"]


def circle_along_mm(by: CircleAxis, rows: Sequence[tuple[float, float]], at: float) -> float:
    """Image circle between the rows of a table.

    Parameters
    ----------
    by : what the rows are along: focal length (mm), stop (as marked), or focus (metres, inf for infinity)
    rows : (where, circle in mm), at least one
    at : where it is wanted

    Returns
    -------
    Millimetres. Between two rows in proportion to the logarithm of focal length or stop, and to the
    reciprocal of the focus distance, as these scales are engraved; beyond the ends as at the end.

    >>> circle_along_mm("stop", [(2.0, 28.0), (4.0, 30.0)], 2.8284271247461903)
    29.0
    >>> circle_along_mm("focus", [(1.0, 31.0), (math.inf, 29.0)], 2.0)
    30.0
    """
    places = sorted((_scale(by, where), mm) for where, mm in rows)
    return round(float(np.interp(_scale(by, at), [p for p, _ in places], [mm for _, mm in places])), 9)


def _scale(by: CircleAxis, at: float) -> float:
    return -1.0 / at if by == "focus" else math.log(at)


def covering_from(by: CircleAxis, rows: Sequence[tuple[float, float]], needed_mm: float) -> float | None:
    """First place along the table, upwards, from which the circle reaches what is needed.

    Returns
    -------
    Focal length, stop or metres; None when even the largest row is too small.

    >>> round(covering_from("stop", [(2.0, 28.0), (4.0, 30.0)], 29.0), 4)
    2.8284
    """
    places = sorted((_scale(by, where), mm) for where, mm in rows)
    before: tuple[float, float] | None = None
    for place, mm in places:
        if mm >= needed_mm:
            if before is None or mm == before[1]:
                return _unscale(by, place)
            share = (needed_mm - before[1]) / (mm - before[1])
            return _unscale(by, before[0] + share * (place - before[0]))
        before = (place, mm)
    return None


def _unscale(by: CircleAxis, place: float) -> float:
    if by == "focus":
        return math.inf if place == 0 else -1.0 / place
    return math.exp(place)
