"""What each shot can be made with: every combination of body, lens and adapters that does it, as the shots' judgement has it.

A combination is what has to be carried; window, crop, stop and place cost nothing and are the best of their kind.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import groupby

import numpy as np

from hextan.core.base import Counts, Flags, HextanError
from hextan.core.equipment import Package, PackageSettings
from hextan.core.packing.document import KitPlan, Packing
from hextan.core.packing.things import Things, things_of
from hextan.core.shots import Judged, Needs, Shot, ShotList, day_order, judge, needs_of, pinned_cell

#: What is missed of the wishes is counted in thousandths, so that sums are exact.
MISSED_PARTS = 1000


@dataclass(frozen=True)
class Way:
    """A combination that can be carried: one body, one lens, and the adapters between them."""

    lens: int
    body: int
    adapters: tuple[int, ...]

    @property
    def things(self) -> tuple[int, ...]:
        """All of them, by their places among the things."""
        return (self.body, self.lens, *self.adapters)


@dataclass(frozen=True)
class ShotChoices:
    """A shot with everything that does it. Cells are flat numbers of its judgement."""

    shot: Shot
    needs: Needs
    judged: Judged | None
    #: Why nothing is asked, or cannot be read; such a shot asks nothing of a kit.
    open: str
    #: By the number of a way: the best cell with it, and what it misses of the wishes, in thousandths.
    cells: dict[int, int]
    missed: dict[int, int]
    #: Cells that can be set up one after the other: the best of each way in each scan mode, the best first.
    setups: tuple[tuple[int, int], ...]
    #: Ways of all cells, those of the judgement's order.
    ordered_ways: Counts
    group: int
    day: int

    @property
    def possible(self) -> bool:
        """Whether anything does it."""
        return bool(self.cells)

    def best_of(self, ways: Flags) -> int | None:
        """The best cell, or the nearest to it, with some of the ways; None where none of them can be mounted."""
        if self.judged is None or not len(self.ordered_ways):
            return None
        at = np.flatnonzero(ways[self.ordered_ways])
        return self.judged.order[int(at[0])] if len(at) else None


@dataclass(frozen=True)
class Group:
    """The shots of one day and unit, in their order; units that work at the same time do not share."""

    day: str
    unit: str
    shots: tuple[int, ...]
    #: Which of the sets of things that are carried at the same time it takes its things from.
    share: int


@dataclass(frozen=True)
class Choices:
    """All shots of a list, all things of a package, and which can do which."""

    package: Package
    settings: PackageSettings
    packing: Packing
    plan: KitPlan
    things: Things
    ways: tuple[Way, ...]
    shots: tuple[ShotChoices, ...]
    groups: tuple[Group, ...]
    #: Shares that need their own things on one day, several lists of them.
    apart: tuple[tuple[int, ...], ...]
    #: Things that may be chosen, and those that are carried whatever they do.
    allowed: frozenset[int]
    musts: frozenset[int]
    #: Days by name in their order.
    days: tuple[str, ...]

    @cached_property
    def uses(self) -> Flags:
        """Ways by things: whether a way needs a thing."""
        table = np.zeros((len(self.ways), len(self.things.every)), dtype=bool)
        for o, way in enumerate(self.ways):
            table[o, list(way.things)] = True
        return table

    @cached_property
    def shares(self) -> int:
        """How many sets of things there are at the same time."""
        return 1 + max((group.share for group in self.groups), default=0)

    def within(self, kit: Iterable[int]) -> Flags:
        """Which ways a kit has everything for."""
        has = np.zeros(len(self.things.every), dtype=bool)
        has[list(kit)] = True
        return np.asarray(~(self.uses & ~has).any(axis=1))

    def ways_for(self, kit: Iterable[int], shot: ShotChoices) -> Flags:
        """Which ways a kit has everything for on the day of a shot."""
        return self.within(t for t in kit if self.there(t, shot.day))

    def line(self, kit: Iterable[int], shots: Sequence[int]) -> dict[int, dict[int, int]]:
        """For shots of one day what each can be made with out of a kit."""
        if not shots:
            return {}
        open_ = self.ways_for(kit, self.shots[shots[0]])
        return {s: {o: k for o, k in self.shots[s].cells.items() if open_[o]} for s in shots}

    def open_to(self, kit: Iterable[int], s: int) -> dict[int, int]:
        """What a shot can be made with out of a kit: ways that do it, each with its best cell."""
        return self.line(kit, [s])[s]

    def there(self, t: int, day: int) -> bool:
        """Whether a thing is there on a day."""
        since = self.things.every[t].stock.from_day.strip()
        return not since or since not in self.days or self.days.index(since) <= day

    @cached_property
    def possible(self) -> list[int]:
        """Shots that something of all that may be chosen does."""
        return [s for s, shot in enumerate(self.shots) if shot.possible]


def choices_of(
    package: Package, settings: PackageSettings, shots: ShotList, packing: Packing, plan: KitPlan
) -> Choices:
    """Judge every shot and lay out what does it.

    A choice that was pinned by hand is the only one of its shot, as long as its equipment is there.
    """
    names = list(dict.fromkeys((shot.day.strip(), shot.unit.strip()) for shot in shots.shots))
    names.sort(key=day_order)
    days = tuple(dict.fromkeys(day for day, _ in names))
    things = things_of(package, packing, len([day for day in days if day]))
    shares, apart = _shares(names, packing)
    groups = tuple(
        Group(
            day,
            unit,
            tuple(
                s
                for s, each in enumerate(shots.shots)
                if (each.day.strip(), each.unit.strip()) == (day, unit)
            ),
            shares[day, unit],
        )
        for day, unit in names
    )
    allowed = things.named(plan.only) if plan.only else set(range(len(things.every)))
    musts = things.named(plan.must) - things.named(plan.never)
    # What must be carried is, also where all else is chosen out of other things.
    allowed = (allowed | musts) - things.named(plan.never)
    if plan.kept is not None:
        allowed = musts = things.named(plan.kept)
    ways: dict[tuple[int, int, tuple[int, ...]], int] = {}
    whole = Choices(
        package, settings, packing, plan, things, (), (), groups, apart, frozenset(allowed), frozenset(musts), days
    )  # fmt: skip
    at = {s: g for g, group in enumerate(groups) for s in group.shots}
    laid = [
        _choices(whole, shot, ways, at[s], days.index(shot.day.strip())) for s, shot in enumerate(shots.shots)
    ]
    return replace(whole, ways=tuple(Way(*key) for key in ways), shots=tuple(laid))


def relaxed(whole: Choices, s: int, shot: Shot, percent: float | None = None) -> Choices:
    """The same with one shot asking for something else."""
    before = whole.shots[s]
    ways = {(way.lens, way.body, way.adapters): o for o, way in enumerate(whole.ways)}
    other = _choices(whole, shot, ways, before.group, before.day, percent)
    laid = (*whole.shots[:s], other, *whole.shots[s + 1 :])
    # A shot that asks for less can be made in ways that no other shot can.
    return replace(whole, ways=tuple(Way(*key) for key in ways), shots=laid)


def _shares(
    names: list[tuple[str, str]], packing: Packing
) -> tuple[dict[tuple[str, str], int], tuple[tuple[int, ...], ...]]:
    """Which sets of things there are at the same time: one for all days of one unit, one for each unit of other days."""
    found: dict[tuple[str, str], int] = {}
    apart: list[tuple[int, ...]] = []
    count = 0
    for day, units in groupby(names, key=lambda name: name[0]):
        here = list(units)
        together = packing.together_on is None or day in [name.strip() for name in packing.together_on]
        if len(here) < 2 or not together or not day:
            found |= dict.fromkeys(here, 0)
            continue
        found |= {name: count + n for n, name in enumerate(here, 1)}
        apart.append(tuple(range(count + 1, count + len(here) + 1)))
        count += len(here)
    return found, tuple(apart)


def _choices(
    whole: Choices,
    shot: Shot,
    ways: dict[tuple[int, int, tuple[int, ...]], int],
    group: int,
    day: int,
    percent: float | None = None,
) -> ShotChoices:
    needs = needs_of(shot, whole.package, whole.settings)
    nothing = ShotChoices(shot, needs, None, "", {}, {}, (), np.zeros(0, dtype=np.int64), group, day)
    if needs.stands or not needs.asks:
        return replace(nothing, open=needs.unread or "nothing is asked of it")
    try:
        judged = judge(whole.package, whole.settings, needs)
    except HextanError as error:
        return replace(nothing, open=error.message)
    if judged is None or not judged.order:
        return nothing
    of_cell = _ways_of_cells(whole, judged, ways)
    order = np.array(judged.order, dtype=np.int64)
    does = _does(judged, whole.plan.framing_percent if percent is None else percent)[order]
    there = np.array(
        [all(t in whole.allowed and whole.there(t, day) for t in (body, lens, *adapters)) for lens, body, adapters in ways]
    )  # fmt: skip
    at_hand = there[of_cell[order]]
    if not (does & at_hand).any():
        # What depends on figures that nobody stated is packed where nothing else does the shot.
        does = judged.depends.ravel()[order]
    good = _on_main(judged, _plain_first(judged, order[does & at_hand]))
    pinned = None if shot.pin is None else pinned_cell(judged, shot.pin)
    if pinned is not None:
        # What was decided by hand is made so, whatever it misses.
        good = np.array([pinned] if there[of_cell[pinned]] else [], dtype=np.int64)
    first, at = np.unique(of_cell[good], return_index=True)
    cells = {int(o): int(good[k]) for o, k in zip(first, at, strict=True)}
    modes = np.array([here.mode.id for here in judged.cells.layout.places], dtype=np.int64)
    by_mode = of_cell[good] * (int(modes.max()) + 1) + modes[good % len(modes)]
    _, best = np.unique(by_mode, return_index=True)
    return ShotChoices(
        shot=shot,
        needs=needs,
        judged=judged,
        open="",
        cells=cells,
        missed={o: _missed(judged, k) for o, k in cells.items()},
        setups=tuple((int(of_cell[good[k]]), int(good[k])) for k in sorted(best.tolist())),
        ordered_ways=of_cell[order],
        group=group,
        day=day,
    )


def _ways_of_cells(
    whole: Choices, judged: Judged, ways: dict[tuple[int, int, tuple[int, ...]], int]
) -> Counts:
    """The way of every cell by its flat number; -1 where the lens does not go on the body."""
    layout = judged.cells.layout
    index = whole.things.index
    bodies = [here.body.id for here in layout.places]
    found = np.full(layout.shape, -1, dtype=np.int64)
    for i, row in enumerate(layout.rows):
        for body, mounting in row.by_body.items():
            if ("body", body) not in index:
                continue
            adapters = tuple(index["adapter", each] for each in mounting.key)
            key = (index["lens", row.lens.id], index["body", body], adapters)
            found[i, [b == body for b in bodies]] = ways.setdefault(key, len(ways))
    return found.ravel()


def _does(judged: Judged, percent: float) -> Flags:
    """Cells that count as doing the shot, by their flat numbers."""
    off = np.abs(np.nan_to_num(judged.cells.wider, nan=np.inf) - 1) <= percent / 100 + 1e-9
    return np.asarray((judged.missed == 0) | (judged.nearly & off)).ravel()


def _plain_first(judged: Judged, cells: Counts) -> Counts:
    """Without the squeezed lenses where nobody asks for a squeeze, unless nothing else does the shot."""
    if judged.cells.needs.squeeze is not None:
        return cells
    plain = cells[judged.cells.layout.squeeze[cells // judged.cells.layout.shape[1], 0] == 1]
    return plain if len(plain) else cells


def _on_main(judged: Judged, cells: Counts) -> Counts:
    """As near to the unit's main format as the shot can be made; all of them where there is none."""
    main = judged.cells.needs.main
    if main is None or not len(cells):
        return cells
    near = judged.cells.layout.nearness(main)[cells % judged.cells.layout.shape[1]]
    return np.asarray(cells[near == near.max()])


def _missed(judged: Judged, k: int) -> int:
    """What a cell misses of the wishes, and of a framing that is a must, in thousandths."""
    i, j = judged.at(k)
    off = 0.0
    if judged.missed[i, j] > 0:
        wider = float(judged.cells.wider[i, j])
        off = min(abs(wider - 1), 1.0) if np.isfinite(wider) else 1.0
    return round(MISSED_PARTS * (1 - float(judged.score[i, j]) + off))
