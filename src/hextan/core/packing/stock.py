"""All things of a package as packing sees them: what each weighs, costs, and when it is there."""

from __future__ import annotations

import re

from typing_extensions import TypedDict

from hextan.core.equipment import Package, ThingKind
from hextan.core.packing.document import Packing
from hextan.core.packing.things import UNSTATED, Thing, Things, things_of
from hextan.core.shots import ShotList, day_order


class StockThing(TypedDict):
    """A thing with what is known of it, from its own row or its set's."""

    kind: ThingKind
    name: str
    of: str
    weight_kg: float | None
    owned: bool
    count: int
    from_day: str
    #: For the days of hire; None where no price is stated.
    cost: float | None
    #: Whether a row of the stock speaks of it.
    stated: bool


class PackingView(TypedDict):
    """The things of a package, the days and units of its shots, and names that nothing has."""

    things: list[StockThing]
    #: Days in their order, and those of them on which two units or more work.
    days: list[str]
    units_on: dict[str, list[str]]
    hire_days: int
    #: Rows of the stock that speak of nothing in the package, by their keys.
    gone: list[str]


def serials_of(package: Package, packing: Packing) -> dict[tuple[str, str], list[str]]:
    """Numbers on lenses of which there are several, by set and name: as they are written, with commas or spaces between."""
    found: dict[tuple[str, str], list[str]] = {}
    for thing in things_of(package, packing, 1).every:
        numbers = re.split(r"[\s,;/]+", thing.stock.serial.strip())
        if thing.kind == "lens" and thing.stock.thing.name and len(numbers) > 1:
            found[thing.of, thing.name] = numbers
    return found


def packing_view(package: Package, packing: Packing, shots: ShotList) -> PackingView:
    """Tell what there is to pack."""
    names = sorted({(shot.day.strip(), shot.unit.strip()) for shot in shots.shots}, key=day_order)
    days = list(dict.fromkeys(day for day, _ in names))
    things = things_of(package, packing, len([day for day in days if day]))
    return {
        "things": [_told(things, t, thing) for t, thing in enumerate(things.every)],
        "days": days,
        "units_on": {day: [unit for other, unit in names if other == day] for day in days},
        "hire_days": things.hire_days,
        "gone": [row.key for row in packing.stock if things.unknown([row.thing])],
    }


def _told(things: Things, t: int, thing: Thing) -> StockThing:
    stock = thing.stock
    return {
        "kind": thing.kind,
        "name": thing.name,
        "of": thing.of,
        "weight_kg": thing.weight_kg,
        "owned": stock.owned,
        "count": stock.count,
        "from_day": stock.from_day,
        "cost": things.cost(t),
        "stated": stock.key != UNSTATED,
    }
