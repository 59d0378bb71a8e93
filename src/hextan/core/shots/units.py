"""Bare figures of distances get the unit in which they were meant, so that another unit of the production never reads them anew."""

from __future__ import annotations

import re
from collections.abc import Callable

from hextan.core.base import Unit
from hextan.core.shots import words
from hextan.core.shots.document import Shot, ShotList
from hextan.core.shots.words import NotReadError

#: Cells that hold distances, each with its reader; the figure that has no unit is the last one, or that before a word.
_READERS: dict[str, Callable[[str, Unit], object]] = {
    "height": words.distance,
    "framing": words.framing,
    "distance": words.distances,
    "room": words.distance,
    "nearest": words.distance,
    "keep_out": words.distance,
    "hold": words.hold,
    "background": words.background,
}
_NUMBER = r"\d+(?:[.,]\d+)?"
#: Where a bare figure may stand: at the end, before wide, high, tall and infinity, and in the place of a field or a background.
_BARE = (
    re.compile(rf"({_NUMBER})(?=\s*$)"),
    re.compile(rf"({_NUMBER})(?=\s+(?:wide|high|tall)\b)", re.IGNORECASE),
    re.compile(rf"({_NUMBER})(?=\s*(?:to|-|–)\s*(?:infinity|inf|∞)\s*$)", re.IGNORECASE),
)


def with_units(document: ShotList, unit: Unit) -> ShotList:
    """Write the unit behind every bare distance of a list.

    Parameters
    ----------
    unit : in which bare figures are meant
    """
    shots = [_with_units(shot, unit) for shot in document.shots]
    same = all(a is b for a, b in zip(shots, document.shots, strict=True))
    return document if same else document.model_copy(update={"shots": shots})


def _with_units(shot: Shot, unit: Unit) -> Shot:
    found = {
        name: told
        for name in _READERS
        if (text := getattr(shot, name).strip()) and (told := _written(name, text, unit)) is not None
    }
    return shot.model_copy(update=found) if found else shot


def _written(name: str, text: str, unit: Unit) -> str | None:
    """The cell with its unit; None where it says one, says no distance, or would not mean the same.

    >>> _written("distance", "2-4", "m"), _written("framing", "1.9 wide", "m"), _written("hold", "2 to infinity", "ft")
    ('2-4 m', '1.9 m wide', '2 ft to infinity')
    """
    read = _READERS[name]
    other: Unit = "ft" if unit == "m" else "m"
    try:
        meant = read(text, unit)
        if meant == read(text, other):
            return None
        for bare in _BARE:
            told = bare.sub(rf"\g<1> {unit}", text, count=1)
            if told != text and read(told, unit) == read(told, other) == meant:
                return told
    except NotReadError:
        pass
    return None
