"""Weights as people write them: kilograms and grams, pounds and ounces; told in pounds where distances are told in feet."""

from __future__ import annotations

import re

from hextan.core.base.distances import Unit
from hextan.core.base.errors import Fault, InvalidInputError
from hextan.core.base.typed import either_way, figure_of

#: Kilograms of a pound, by the agreement of 1959 on the yard and the pound; an ounce is a sixteenth of it.
KG_OF_LB = 0.45359237
_KG = {"kg": 1.0, "g": 0.001, "lb": KG_OF_LB, "oz": KG_OF_LB / 16}
_ALIASES = {
    "kg": "kg", "kgs": "kg", "kilo": "kg", "kilos": "kg", "kilogram": "kg", "kilograms": "kg",
    "g": "g", "gr": "g", "gram": "g", "grams": "g", "lb": "lb", "lbs": "lb", "pound": "lb", "pounds": "lb",
    "oz": "oz", "ounce": "oz", "ounces": "oz",
}  # fmt: skip
_PART = re.compile(r"\s*(\d+[.,]\d*|[.,]\d+|\d+)\s*([a-z]+)?\.?", re.IGNORECASE)
_EXAMPLES = "write it like 1.8, 1.8 kg, 1800 g, 4 lb or 4 lb 6 oz"


def weight_unit(unit: Unit) -> str:
    """The unit of weights that goes with one of distances."""
    return "lb" if unit == "ft" else "kg"


def weight_figure(kg: float, unit: Unit) -> float:
    """Kilograms as the figure that is shown.

    >>> weight_figure(1.8, "m"), round(weight_figure(1.8, "ft"), 3)
    (1.8, 3.968)
    """
    return kg / KG_OF_LB if unit == "ft" else kg


def weight_words(kg: float, unit: Unit, digits: int = 1) -> str:
    """Write a weight.

    >>> weight_words(10, "m"), weight_words(10, "ft", 2)
    ('10.0 kg', '22.05 lb')
    """
    return f"{weight_figure(kg, unit):.{digits}f} {weight_unit(unit)}"


def limit_words(kg: float, unit: Unit) -> str:
    """Write what may be carried at most, with no more digits than it has.

    >>> limit_words(4.5, "m"), limit_words(4.5359237, "ft")
    ('4.5 kg', '10 lb')
    """
    return f"{weight_figure(kg, unit):.4g} {weight_unit(unit)}"


def parse_weight_kg(text: str, bare_unit: str = "kg", field: str = "weight") -> float:
    """Read a weight.

    Parameters
    ----------
    text : ``1.8``, ``1,8 kg``, ``1800 g``, ``4 lb``, ``4 lb 6 oz``, ``4.1lbs``
    bare_unit : what a number without a unit is in: kg, g, lb or oz
    field : name told in errors

    Returns
    -------
    Kilograms.

    Raises
    ------
    InvalidInputError
        Text that is no weight, a comma that may part thousands, zero.

    >>> parse_weight_kg("1,8 kg"), round(parse_weight_kg("4 lb 6 oz"), 4), parse_weight_kg("950", "g")
    (1.8, 1.9845, 0.95)
    """
    rest, total, used = text.strip(), 0.0, list[str]()
    while rest:
        part = _PART.match(rest)
        # After pounds, a bare number is ounces.
        written = None if part is None else part[2] or ("oz" if used == ["lb"] else bare_unit)
        unit = None if written is None else _ALIASES.get(written.lower())
        if part is None or unit is None or (used and (used, unit) != (["lb"], "oz")):
            raise InvalidInputError.of(Fault(field, text, _EXAMPLES))
        asked = either_way(part[1])
        if asked is not None:
            raise InvalidInputError.of(Fault(field, text, f"{part[1]} {asked}"))
        used.append(unit)
        total += figure_of(part[1]) * _KG[unit]
        rest = rest[part.end() :].strip()
    if not total > 0:
        raise InvalidInputError.of(Fault(field, text, "must be above zero" if used else _EXAMPLES))
    return round(total, 9)
