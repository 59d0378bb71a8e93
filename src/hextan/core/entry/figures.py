"""Figures as people type them, with what their digits leave open."""

from __future__ import annotations

import re
from dataclasses import dataclass

from hextan.core.base import Fault, InvalidInputError, either_way

#: What a body or a lens set is called where nobody says more.
UNKNOWN_MAKER = "unknown maker"
_NUMBER = re.compile(r"\d+(?:[.,]\d+)?")
_TIMES = re.compile(r"\s*(?:[x×X*]|by)\s*")


@dataclass(frozen=True)
class Figure:
    """A figure and half of its last digit: 38.1 is anything from 38.05 to 38.15."""

    value: float
    error: float = 0.0

    @property
    def share(self) -> float:
        """The error as a share of the figure."""
        return self.error / self.value

    def over(self, other: Figure) -> Figure:
        """This one divided by another; their shares add up, as the worst case has it."""
        value = self.value / other.value
        return Figure(value, value * (self.share + other.share))

    def times(self, other: Figure) -> Figure:
        """This one multiplied by another."""
        value = self.value * other.value
        return Figure(value, value * (self.share + other.share))

    def agrees(self, other: Figure) -> bool:
        """Whether both can be the same figure, as far as their digits tell."""
        return abs(self.value - other.value) <= (self.error + other.error) * (1 + 1e-9)


def read_figure(text: str, field: str, what: str) -> Figure:
    """Read one positive figure; units and other words around it are left to who asks.

    Parameters
    ----------
    what : an example, for the refusal

    Raises
    ------
    InvalidInputError
        No figure, zero, or a comma that may mean thousands or decimals: that one is asked about.

    >>> read_figure("38.1", "size", "38.1"), read_figure("6,40", "pitch", "6.4")
    (Figure(value=38.1, error=0.05), Figure(value=6.4, error=0.005))
    """
    told = text.strip()
    either = either_way(told)
    if either is not None:
        raise InvalidInputError.of(Fault(field, text, either))
    if not _NUMBER.fullmatch(told) or float(told.replace(",", ".")) == 0:
        raise InvalidInputError.of(Fault(field, text, f"write it like {what}"))
    whole, _, decimals = told.replace(",", ".").partition(".")
    return Figure(float(f"{whole}.{decimals or 0}"), 0.5 * 10.0 ** -len(decimals))


def read_pair(text: str, field: str, what: str) -> tuple[Figure, Figure]:
    """Read a width and a height.

    Raises
    ------
    InvalidInputError
        Not two figures with a sign between them.

    >>> [figure.value for figure in read_pair("38.1 x 20.1", "size", "38.1 x 20.1")]
    [38.1, 20.1]
    """
    parts = [part for part in _TIMES.split(text.strip()) if part]
    if len(parts) != 2:
        raise InvalidInputError.of(Fault(field, text, f"write width and height, like {what}"))
    return read_figure(parts[0], field, what), read_figure(parts[1], field, what)


def whole_pair(text: str, field: str, what: str) -> tuple[int, int]:
    """Read two counts.

    Raises
    ------
    InvalidInputError
        Not two whole numbers.
    """
    w, h = read_pair(text, field, what)
    if w.value != int(w.value) or h.value != int(h.value):
        raise InvalidInputError.of(Fault(field, text, f"photosites are whole numbers, like {what}"))
    return int(w.value), int(h.value)


def without_unit(text: str, *units: str) -> str:
    """The text without one of these units at its end, in any case.

    >>> without_unit("38.1 x 20.1 mm", "mm"), without_unit("24 MP", "mp", "megapixels")
    ('38.1 x 20.1', '24')
    """
    pattern = "|".join(sorted(map(re.escape, units), key=len, reverse=True))
    return re.sub(rf"\s*(?:{pattern})\s*$", "", text.strip(), flags=re.IGNORECASE)
