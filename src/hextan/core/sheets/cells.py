"""Cells of distances and limits: as they are shown, and as numbers in the unit of their column."""

from __future__ import annotations

import math

from hextan.core.base import METRES, Unit, distance_words, limits
from hextan.core.sheets.sheet import Cell, figure, words

#: Digits of a metre (a foot) in table files: limits go inwards at the last one.
_FILE_DIGITS = 4
#: From here on, metres or feet, a far limit is told in whole ones.
_WHOLE_FROM = {"m": 100.0, "ft": 330.0}


def distance_cell(metres: float | None, unit: Unit) -> Cell:
    """A distance; metres without their unit, feet as feet and inches.

    >>> distance_cell(2.9, "m")["text"], distance_cell(2.9, "ft")["text"], distance_cell(math.inf, "m")["text"]
    ('2.90', '9\\' 6"', '∞')
    """
    if metres is None or math.isnan(metres):
        return words("–", "quiet")
    if math.isinf(metres):
        return words("∞")
    text = distance_words(metres, unit)
    return figure(round(metres / METRES[unit], 5), text.removesuffix(" m") if unit == "m" else text)


def limit_cells(near_m: float | None, far_m: float | None, mark_m: float, unit: Unit) -> list[Cell]:
    """Near and far limits inwards; a dash where they are not known. A far limit of None or infinity is infinite.

    >>> [cell["text"] for cell in limit_cells(2.4123, 3.9678, 3.0, "m")], limit_cells(2.4123, 3.9678, 3.0, "m")[1]["value"]
    (['2.42', '3.96'], 3.9678)
    """
    if near_m is None or math.isnan(near_m):
        return [words("–", "quiet"), words("–", "quiet")]
    far = None if far_m is None or math.isinf(far_m) else far_m
    shown = limits(near_m, far, mark_m, unit)
    about = f" {shown.unit}" if shown.about else ""
    scale = 10**_FILE_DIGITS
    near_value = math.ceil(near_m / METRES[unit] * scale - 1e-6) / scale
    if far is None:
        return [figure(near_value, f"{shown.near}{about}"), words("∞")]
    far_value = math.floor(far / METRES[unit] * scale + 1e-6) / scale
    return [
        figure(near_value, f"{shown.near}{about}"),
        figure(far_value, _far_text(far, unit, f"{shown.far}{about}")),
    ]


def _far_text(far_m: float, unit: Unit, shown: str) -> str:
    """Far away without decimals, still rounded down."""
    far = far_m / METRES[unit]
    if far < _WHOLE_FROM[unit]:
        return shown
    return f"{math.floor(far)}" if unit == "m" else f"{math.floor(far)}' 0\""
