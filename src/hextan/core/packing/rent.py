"""What a kit costs, thing by thing: for how many days, for which shot alone, and what cheaper could stand in."""

from __future__ import annotations

import math

from hextan.core.packing.answers import KitThing, RentRow
from hextan.core.packing.choices import Choices
from hextan.core.packing.reasons import in_place, share_of
from hextan.core.packing.smallest import Solution
from hextan.core.packing.things import buying_pays_after
from hextan.core.packing.told import money, plural

#: A stop that is wider or narrower by less is the same.
_SAME_STOPS = 1 / 6


def rent_of(whole: Choices, solution: Solution, told: list[KitThing]) -> list[RentRow]:
    """What everything costs, the dearest first; nothing where no price is stated at all."""
    things = whole.things
    if all(things.cost(t) is None and not things.every[t].stock.owned for t in solution.counts):
        return []
    rows: list[RentRow] = []
    for (t, count), thing in zip(solution.counts.items(), told, strict=True):
        stock = things.every[t].stock
        cost = things.cost(t)
        names = {shot["key"]: shot["name"] for shot in thing["without"]}
        only = next(iter(names.values())) if len(thing["needed"]) == len(thing["used"]) == 1 else ""
        rows.append(
            {
                "name": things.every[t].name,
                "kind": things.every[t].kind,
                "count": count,
                "owned": stock.owned,
                "per_day": stock.per_day,
                "cost": None if cost is None else cost * count,
                "to_buy": stock.to_buy,
                "pays_after": buying_pays_after(stock),
                "only_for": only,
                "instead": _instead(whole, solution, t) if cost else "",
            }
        )
    return sorted(rows, key=lambda row: -(row["cost"] or 0.0))


def _instead(whole: Choices, solution: Solution, t: int) -> str:
    """The cheaper thing that loses least, and what is lost."""
    things = whole.things
    mine = things.cost(t) or 0.0
    best: tuple[tuple[float, ...], int, list[int]] | None = None
    for u in things.of_kind(things.every[t].kind):
        cost = things.cost(u)
        if u in solution.counts or u not in whole.allowed or cost is None or cost >= mine:
            continue
        other = solution.with_things([u], without=t)
        lost = [
            s
            for s in range(len(whole.shots))
            if solution.does(whole, s) and not whole.open_to(share_of(whole, other, s), s)
        ]
        rank = (float(len(lost)), cost, float(u))
        if best is None or rank < best[0]:
            best = (rank, u, lost)
    if best is None:
        return ""
    _, u, lost = best
    saved = money(mine - (things.cost(u) or 0.0), whole.packing.currency)
    other = solution.with_things([u], without=t)
    return f"{things.every[u].name} saves {saved}: {_loss(whole, solution, other, lost)}"


def _loss(whole: Choices, solution: Solution, other: Solution, lost: list[int]) -> str:
    """What another kit loses, in plain words."""
    told = [
        f"{whole.shots[s].shot.name} {in_place(whole, whole.shots[s], share_of(whole, other, s))}"
        for s in lost[:2]
    ]
    if len(lost) > 2:
        told.append(f"{plural(len(lost) - 2, 'more shot')} lost")
    narrower = [
        stops
        for s in range(len(whole.shots))
        if solution.does(whole, s)
        and s not in lost
        and (stops := stops_between(whole, s, share_of(whole, solution, s), share_of(whole, other, s)))
        < -_SAME_STOPS
    ]
    if narrower:
        told.append(f"up to {-min(narrower):.1f} stops deeper in {plural(len(narrower), 'shot')}")
    return "; ".join(told) or "nothing is lost"


def stops_between(whole: Choices, s: int, first: frozenset[int], second: frozenset[int]) -> float:
    """How much wider a shot is made with the second kit than with the first, in stops; 0 where one does not do it."""
    shot = whole.shots[s]
    stops = []
    for kit in (first, second):
        open_ = whole.open_to(kit, s)
        at = None if not open_ else shot.best_of(whole.ways_for(kit, shot))
        if at is None or shot.judged is None:
            return 0.0
        stops.append(float(shot.judged.cells.stop_t[shot.judged.at(at)]))
    if not all(math.isfinite(t) and t > 0 for t in stops):
        return 0.0
    return 2 * math.log2(stops[0] / stops[1])
