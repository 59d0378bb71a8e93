"""Image circles that change along the zoom, with the stop or with focus: small tables of a few rows."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from itertools import pairwise
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


#: An end that lies where the circle just reaches is moved inside by this share, so that rounding does not undo it.
_INSIDE = 1e-7


def spans_where(
    marks: list[tuple[float, float]], fits: Callable[[float], bool], levels: list[float]
) -> list[tuple[float, float]]:
    """Where along a zoom's range a circle fits.

    Parameters
    ----------
    marks : (focal length, circle), rising; between them the circle goes with the logarithm of the focal length
    fits : judges a circle; it may change its mind at the levels only

    >>> [(round(a, 4), b) for a, b in spans_where([(20.0, 30.0), (80.0, 50.0)], lambda c: c >= 40.0, [40.0])]
    [(40.0, 80.0)]
    """
    at, circles = np.log([f for f, _ in marks]), np.array([c for _, c in marks])
    nodes = set(at.tolist())
    for k in range(len(marks) - 1):
        (a, b), (p, q) = circles[k : k + 2].tolist(), at[k : k + 2].tolist()
        nodes |= {p + (level - a) / (b - a) * (q - p) for level in levels if min(a, b) < level < max(a, b)}
    ordered = sorted(nodes)

    def holds(x: float) -> bool:
        return fits(float(np.interp(x, at, circles)))

    found: list[tuple[float, float]] = []
    for p, q in pairwise(ordered):
        if holds((p + q) / 2):
            start = p if holds(p) else p + _INSIDE * (q - p)
            end = q if holds(q) else q - _INSIDE * (q - p)
            if found and found[-1][1] == start:
                start = found.pop()[0]
            found.append((start, end))
        elif holds(p) and (not found or found[-1][1] != p):
            found.append((p, p))
    if holds(ordered[-1]) and (not found or found[-1][1] != ordered[-1]):
        found.append((ordered[-1], ordered[-1]))
    # The ends of a range are themselves, to the last digit.
    known = dict(zip(at.tolist(), [f for f, _ in marks], strict=True))
    return [(known.get(p, math.exp(p)), known.get(q, math.exp(q))) for p, q in found]
