"""Distances as people write them: metres, feet and inches."""

from __future__ import annotations

import re
from typing import Literal, TypeAlias

from hextan.core.base.errors import Fault, InvalidInputError
from hextan.core.base.typed import either_way, figure_of

Unit: TypeAlias = Literal["m", "ft"]
METRES: dict[str, float] = {"m": 1.0, "cm": 0.01, "mm": 0.001, "ft": 0.3048, "in": 0.0254}
_ALIASES = {
    "'": "ft", "′": "ft", "’": "ft", "feet": "ft", "foot": "ft", "ft": "ft",
    '"': "in", "″": "in", "”": "in", "''": "in", "inch": "in", "inches": "in", "in": "in",
    "m": "m", "metre": "m", "metres": "m", "meter": "m", "meters": "m", "cm": "cm", "mm": "mm",
}  # fmt: skip
_NUMBER = r"(?:\d+[.,]\d*|[.,]\d+|\d+)"
_PART = re.compile(
    rf"\s*(?:(?:(?P<whole>{_NUMBER})(?:\s+|-))?(?P<over>\d+)/(?P<under>\d+)|(?P<only>{_NUMBER}))"
    rf"\s*(?P<unit>''|[′’'″”\"]|[a-z]+)?",
    re.IGNORECASE,
)
_HALVES = {"½": " 1/2", "¼": " 1/4", "¾": " 3/4"}
_EXAMPLES = "write it like 2.9, 2.9m, 9'6\", 9ft 6in or 115in"


def parse_distance_m(text: str, bare_unit: Unit = "m", field: str = "distance") -> float:
    """Read a distance.

    Parameters
    ----------
    text : ``2.9``, ``2.9m``, ``290 cm``, ``9'6"``, ``9ft 6 1/2in``, ``115in``; a comma may stand for
        the decimal point
    bare_unit : what a number without a unit is in
    field : name told in errors

    Returns
    -------
    Metres.

    Raises
    ------
    InvalidInputError
        Text that is no distance, a unit twice, zero.

    >>> round(parse_distance_m("9'6\\""), 4), parse_distance_m("2,9"), round(parse_distance_m("115in"), 3)
    (2.8956, 2.9, 2.921)
    """
    rest = text.strip()
    for sign, spelled in _HALVES.items():
        rest = rest.replace(sign, spelled)
    total, used, last = 0.0, set[str](), ""
    while rest.strip():
        part = _PART.match(rest)
        if part is None or (part["under"] and int(part["under"]) == 0):
            raise InvalidInputError.of(Fault(field, text, _EXAMPLES))
        written = part["only"] or part["whole"] or "0"
        asked = either_way(written)
        if asked is not None:
            raise InvalidInputError.of(Fault(field, text, f"{written} {asked}"))
        value = figure_of(written)
        if part["over"]:
            value += int(part["over"]) / int(part["under"])
        # After feet, a bare number is inches: 9'6.
        unit = "in" if part["unit"] is None and last == "ft" else _unit(part["unit"], bare_unit)
        if unit is None or unit in used or (used and {last, unit} != {"ft", "in"}) or last == "in":
            raise InvalidInputError.of(Fault(field, text, _EXAMPLES))
        used.add(unit)
        last = unit
        total += value * METRES[unit]
        rest = rest[part.end() :]
    if not used:
        raise InvalidInputError.of(Fault(field, text, _EXAMPLES))
    if not 0 < total <= 1_000_000:
        raise InvalidInputError.of(Fault(field, text, "must be above zero and at most 1 000 000 m"))
    return total


def _unit(written: str | None, bare_unit: Unit) -> str | None:
    return bare_unit if written is None else _ALIASES.get(written.lower())
