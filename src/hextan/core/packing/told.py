"""Figures of a kit in words."""

from __future__ import annotations

from hextan.core.base import weight_words
from hextan.core.packing.answers import KitStep
from hextan.core.packing.choices import MISSED_PARTS, Choices
from hextan.core.packing.program import Found
from hextan.core.packing.smallest import Solution

_PROVED = {
    "shots": "no more can be done together",
    "lenses": "proved: no fewer do",
    "weight": "proved: nothing lighter does",
    "cost": "proved: nothing cheaper does",
    "changes": "proved: no fewer with as good a kit",
    "wishes": "proved: none is nearer",
}
_COUNTED = {
    "shots": ("shot", "shots", " given up"),
    "lenses": ("lens", "lenses", ""),
    "changes": ("change", "changes", ""),
}


def plural(count: int, one: str, more: str = "") -> str:
    """Write a count.

    >>> plural(1, "lens", "lenses"), plural(2, "shot")
    ('1 lens', '2 shots')
    """
    return f"{count} {one if count == 1 else more or one + 's'}"


def figure_words(whole: Choices, by: str, value: float) -> str:
    """Write one figure of a kit."""
    if by == "weight":
        return weight_words(value, whole.settings.unit)
    if by == "cost":
        return money(value, whole.packing.currency)
    if by == "wishes":
        return "every wish met" if value == 0 else f"{100 * value / MISSED_PARTS:.0f} % missed in all"
    if by == "shots" and value == 0:
        return "all can be done"
    one, more, end = _COUNTED[by]
    return plural(round(value), one, more) + end


def money(value: float, currency: str) -> str:
    """Write an amount; thousands are set apart.

    >>> money(12345.5, "EUR"), money(20.0, "")
    ('12 345.50 EUR', '20')
    """
    whole = f"{value:,.0f}" if abs(value - round(value)) < 0.005 else f"{value:,.2f}"
    return f"{whole.replace(',', ' ')} {currency}".strip()


def steps_of(whole: Choices, solution: Solution) -> list[KitStep]:
    """Each figure that was made least, and what is proved of it."""
    return [_step(whole, solution, by, found) for by, found in solution.found.items()]


def _step(whole: Choices, solution: Solution, by: str, found: Found) -> KitStep:
    value, bound = (value_of(whole, solution, by, each) for each in (found.value, found.bound))
    return {
        "by": by,
        "value": value,
        "told": _beside_the_least(whole, solution, by, value),
        "proved": found.proved,
        "proof": _PROVED[by] if found.proved else _open(whole, by, value, bound),
    }


def _beside_the_least(whole: Choices, solution: Solution, by: str, least: float) -> str:
    """The least of a figure; where some of it was given up for the next ones, what the kit has of it as well."""
    things = whole.things
    each = {
        "lenses": lambda t: float(things.every[t].kind == "lens"),
        "weight": lambda t: things.every[t].weight_kg or 0.0,
        "cost": lambda t: things.cost(t) or 0.0,
    }.get(by)
    words = figure_words(whole, by, least)
    if each is None:
        return words
    told = figure_words(whole, by, sum(each(t) * n for t, n in solution.counts.items()))
    return words if told == words else f"{told}, {words} at least"


def value_of(whole: Choices, solution: Solution, by: str, value: float) -> float:
    """A figure as it is told: the first set-up of a day is no change."""
    if by != "changes":
        return value
    begun = sum(any(solution.does(whole, s) for s in group.shots) for group in whole.groups)
    return max(0.0, value - begun)


def _open(whole: Choices, by: str, value: float, bound: float) -> str:
    if by == "shots":
        return f"not proved: at most {plural(round(value - bound), 'shot')} more could be done"
    if by in _COUNTED:
        one, more, _ = _COUNTED[by]
        return f"not proved: at most {plural(round(value - bound), one, more)} fewer could do"
    return f"not proved: no less than {figure_words(whole, by, bound)} could do"
