"""The things that a kit can be made of: what each weighs and costs, and since which day it is there."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from hextan.core.equipment import Package, ThingKind, ThingName
from hextan.core.packing.document import Packing, Stock

#: The key of what no row of the stock speaks of.
UNSTATED = "unstated"
#: Days of a week for which one price is paid.
WEEK = 7


@dataclass(frozen=True)
class Thing:
    """One body, lens or adapter, with what the production knows of it."""

    kind: ThingKind
    id: int
    name: str
    of: str
    weight_kg: float | None
    stock: Stock

    @property
    def told(self) -> ThingName:
        """By its name."""
        return ThingName(kind=self.kind, name=self.name, of=self.of)


@dataclass(frozen=True)
class Things:
    """All things of a package, and where each stands."""

    every: tuple[Thing, ...]
    hire_days: int

    @property
    def index(self) -> dict[tuple[ThingKind, int], int]:
        """Place by kind and id."""
        return {(thing.kind, thing.id): t for t, thing in enumerate(self.every)}

    def of_kind(self, kind: ThingKind) -> list[int]:
        """Places of all bodies, lenses or adapters."""
        return [t for t, thing in enumerate(self.every) if thing.kind == kind]

    def named(self, names: Iterable[ThingName]) -> set[int]:
        """Places of what is named; a lens set is all its lenses. Names that nothing has are left out."""
        return {t for name in names for t, thing in enumerate(self.every) if meant(name, thing)}

    def unknown(self, names: Iterable[ThingName]) -> list[ThingName]:
        """Names that nothing has."""
        return [name for name in names if not any(meant(name, thing) for thing in self.every)]

    def cost(self, t: int, days: int | None = None) -> float | None:
        """What one costs for the days that it is rented; None where no price is stated."""
        return cost_of(self.every[t].stock, self.hire_days if days is None else days)


def meant(name: ThingName, thing: Thing) -> bool:
    """Whether a name means a thing.

    >>> meant(ThingName(kind="lens", of="Wren"), Thing("lens", 1, "Wren 50", "Wren", None, None))
    True
    """
    return name.kind == thing.kind and name.name in ("", thing.name) and (not name.of or name.of == thing.of)


def cost_of(stock: Stock, days: int) -> float | None:
    """The least that a thing costs for some days; nothing where it is owned, None where no price is stated.

    Days are paid by the day, by the week, or as whole weeks and days; what cannot be rented is bought.

    >>> cost_of(Stock(thing=ThingName(kind="body", name="a"), per_day=100.0, per_week=300.0), 9)
    500.0
    """
    if stock.owned:
        return 0.0
    day, week = stock.per_day, stock.per_week
    ways: list[float] = []
    if day is not None:
        ways.append(days * day)
    if week is not None:
        ways.append(math.ceil(days / WEEK) * week)
    if day is not None and week is not None:
        ways.append(days // WEEK * week + days % WEEK * day)
    if not ways and stock.to_buy is not None:
        ways.append(stock.to_buy)
    return min(ways, default=None)


def buying_pays_after(stock: Stock) -> int | None:
    """The day of hire on which buying becomes cheaper than renting; None where it never does or is not known.

    >>> buying_pays_after(Stock(thing=ThingName(kind="body", name="a"), per_day=100.0, to_buy=950.0))
    10
    """
    if stock.owned or stock.to_buy is None or not (stock.per_day or stock.per_week):
        return None
    # A day costs at least so much in the long run, so that the search ends.
    slowest = min(x for x in (stock.per_day, stock.per_week and stock.per_week / WEEK) if x)
    most = math.ceil(stock.to_buy / slowest) + WEEK
    if most > 20_000:
        return None
    return next((day for day in range(1, most + 1) if (cost_of(stock, day) or 0) > stock.to_buy), None)


def things_of(package: Package, packing: Packing, shooting_days: int) -> Things:
    """Everything that a package has, with what the stock says of it."""
    rows = {(each.thing.kind, each.thing.of, each.thing.name): each for each in packing.stock}

    def stock(kind: ThingKind, name: str, of: str = "") -> Stock:
        known = rows.get((kind, of, name)) or rows.get((kind, "", name))
        if known is None and of:
            # What is said of a whole set is said of each of its lenses.
            known = rows.get((kind, of, ""))
        return known or Stock(key=UNSTATED, thing=ThingName(kind=kind, name=name, of=of))

    found: list[Thing] = []
    for body in package.bodies:
        row = stock("body", body.name)
        found.append(Thing("body", body.id, body.name, "", body.weight_kg or row.weight_kg, row))
    for lens_set, lens in package.lenses.values():
        row = stock("lens", lens.name, lens_set.name)
        found.append(Thing("lens", lens.id, lens.name, lens_set.name, lens.weight_kg or row.weight_kg, row))
    for adapter in package.adapters:
        row = stock("adapter", adapter.name)
        found.append(Thing("adapter", adapter.id, adapter.name, "", row.weight_kg, row))
    return Things(tuple(found), packing.hire_days or max(shooting_days, 1))
