"""Figures as people type them: a comma is a decimal point, unless it may part thousands or the figures of a list; then it is asked."""

from __future__ import annotations

import re

#: A comma before three digits: thousands to some, decimals to others.
_THOUSANDS = re.compile(r"\d{1,3},\d{3}")
_ONE_COMMA = re.compile(r"(\d+),(\d+)")


def either_way(text: str) -> str | None:
    """What has to be asked of a figure whose comma may part thousands or decimals; None of any other.

    >>> either_way("1,234"), either_way("38,1")
    ('may mean 1234 or 1.234: write it without the comma, or with a point', None)
    """
    if not _THOUSANDS.fullmatch(text.strip()):
        return None
    plain, point = text.strip().replace(",", ""), text.strip().replace(",", ".")
    return f"may mean {plain} or {point}: write it without the comma, or with a point"


def one_or_two(text: str) -> str | None:
    """What has to be asked of one entry of a list with a comma in it: one figure, or two; None of any other.

    >>> one_or_two("1,5"), one_or_two("1.5")
    ('may mean 1.5, or 1 and 5: write 1.5, or 1 5 with a space', None)
    """
    found = _ONE_COMMA.fullmatch(text.strip())
    if found is None:
        return None
    a, b = found.groups()
    return f"may mean {a}.{b}, or {a} and {b}: write {a}.{b}, or {a} {b} with a space"


def figure_of(text: str) -> float:
    """Read a figure that is known to be one, with a point or a comma before its decimals.

    >>> figure_of("2,8"), figure_of("2.8")
    (2.8, 2.8)
    """
    return float(text.replace(",", "."))
