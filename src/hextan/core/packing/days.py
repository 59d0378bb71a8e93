"""The days with a kit: which choice each shot is made with, what is changed between two shots, and what that takes.

The choices of a day and unit are found together, by dynamic programming, exactly: first in the sense of the kit's order
(fewest changes before the wishes, or the wishes before them), then the fewest minutes. A change is another lens, another adapter
behind it, or another body than the shot before.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import combinations, groupby

import numpy as np

from hextan.core.base import Counts, Flags
from hextan.core.packing.choices import Choices, Group
from hextan.core.packing.lines import fewest_runs
from hextan.core.packing.smallest import Solution

#: Ways of making one scene that are looked at when a day's order is searched.
_MOST_COVERS = 400
_TENTHS = 10
#: Weights of changes, minutes (in tenths) and what is missed (in thousandths), each more than any sum of what comes
#: after it: 2,000 shots on one day, each changed; with changes first, and with the wishes first.
_CHANGES_FIRST = (2 * 10**13, 4 * 10**6, 1)
_WISHES_FIRST = (10**6, 1, 10**12)


@dataclass(frozen=True)
class Setup:
    """How one shot is made on its day."""

    shot: int
    way: int
    cell: int
    #: What was changed since the shot before: lens, body, mode, gimbal; and the minutes that it takes.
    changed: tuple[str, ...]
    minutes: float


@dataclass(frozen=True)
class DayPlan:
    """The shots of a day and unit that are done, in the order of the list."""

    group: Group
    setups: tuple[Setup, ...]
    #: With scenes as they follow one another, and the shots of each in another order.
    better_order: tuple[int, ...] | None
    better_changes: int | None

    @cached_property
    def changes(self) -> int:
        """How often another lens or another body is put up."""
        return sum("lens" in setup.changed or "body" in setup.changed for setup in self.setups)

    @property
    def minutes(self) -> float:
        """What all changes take."""
        return sum(setup.minutes for setup in self.setups)


def days_of(whole: Choices, solution: Solution) -> tuple[DayPlan, ...]:
    """Make the shots of every day with what each unit has."""
    return tuple(_day(whole, solution, group) for group in whole.groups)


def fewest_changes(whole: Choices, solution: Solution) -> int:
    """How often another lens or body has to be put up with a kit at least."""
    total = 0
    for group in whole.groups:
        done = [s for s in group.shots if solution.does(whole, s)]
        line = whole.line(solution.shares[group.share], done)
        total += max(0, fewest_runs(list(line.values())) - 1)
    return total


def _day(whole: Choices, solution: Solution, group: Group) -> DayPlan:
    has = solution.shares[group.share]
    shots = [s for s in group.shots if solution.does(whole, s)]
    states: list[list[tuple[int, int]]] = []
    made: list[int] = []
    for s in shots:
        open_ = whole.ways_for(has, whole.shots[s])
        found = [(o, k) for o, k in whole.shots[s].setups if open_[o]]
        if found:
            states.append(found)
            made.append(s)
    if not made:
        return DayPlan(group, (), None, None)
    chosen = _cheapest(whole, made, states)
    setups: list[Setup] = []
    for n, (s, (o, k)) in enumerate(zip(made, chosen, strict=True)):
        changed: tuple[str, ...] = ()
        minutes = 0.0
        if n:
            table = _Moves(whole, made[n - 1], s, [chosen[n - 1]], [(o, k)])
            changed, minutes = table.told(0, 0), float(table.tenths[0, 0]) / _TENTHS
        setups.append(Setup(s, o, k, changed, minutes))
    plan = DayPlan(group, tuple(setups), None, None)
    order, changes = _better_order(whole, has, made)
    if order is not None and changes < plan.changes:
        return DayPlan(group, plan.setups, tuple(order), changes)
    return plan


class _Moves:
    """What it takes from each setup of one shot to each of the next, shape (before, after)."""

    def __init__(
        self,
        whole: Choices,
        before: int,
        after: int,
        states: Sequence[tuple[int, int]],
        next_states: Sequence[tuple[int, int]],
    ) -> None:
        ways, moves = whole.ways, whole.packing.moves
        a, b = whole.shots[before], whole.shots[after]

        def column(pick: str, of: Sequence[tuple[int, int]]) -> Counts:
            return np.array([getattr(ways[o], pick) for o, _ in of], dtype=np.int64)

        self.body = column("body", states)[:, None] != column("body", next_states)
        # A lens comes off its body as well where another adapter goes behind it.
        pairs = [[ways[o].adapters != ways[n].adapters for n, _ in next_states] for o, _ in states]
        remounted = ~self.body & np.array(pairs, dtype=bool).reshape(len(states), len(next_states))
        self.lens = (column("lens", states)[:, None] != column("lens", next_states)) | remounted
        self.mode = ~self.body & (_modes(whole, before, states)[:, None] != _modes(whole, after, next_states))
        changed = self.body | self.lens
        on, was = b.needs.rig.kind == "gimbal", a.needs.rig.kind == "gimbal"
        self.gimbal: Flags = changed if on and was else np.full(changed.shape, on)
        # Where one lens goes from body to body, it is changed as well.
        hands = np.where(self.body & self.lens, 0.0, np.where(self.body | self.lens, moves.lens, 0.0))
        minutes = hands + self.body * moves.body + self.mode * moves.mode + self.gimbal * moves.gimbal
        self.tenths: Counts = np.rint(minutes * _TENTHS).astype(np.int64)
        self.changes: Counts = changed.astype(np.int64)
        if b.needs.rig.no_lens_change:
            # Asked for: weighs like all changes of the day.
            self.changes = self.changes * 100

    def told(self, i: int, j: int) -> tuple[str, ...]:
        """What changes between two of them."""
        named = (("lens", self.lens), ("body", self.body), ("mode", self.mode), ("gimbal", self.gimbal))
        return tuple(name for name, table in named if table[i, j])


def _modes(whole: Choices, s: int, states: Sequence[tuple[int, int]]) -> Counts:
    judged = whole.shots[s].judged
    assert judged is not None
    return np.array([judged.cells.layout.places[judged.at(k)[1]].mode.id for _, k in states], dtype=np.int64)


def _cheapest(whole: Choices, shots: list[int], states: list[list[tuple[int, int]]]) -> list[tuple[int, int]]:
    """The cheapest path through the setups of all shots."""
    named = [step.by for step in whole.plan.order]
    wishes_first = "wishes" in named and (
        "changes" not in named or named.index("wishes") < named.index("changes")
    )
    change_weight, minute_weight, missed_weight = _WISHES_FIRST if wishes_first else _CHANGES_FIRST

    def own(n: int) -> Counts:
        missed = whole.shots[shots[n]].missed
        return np.array([missed[o] for o, _ in states[n]], dtype=np.int64) * missed_weight

    total = own(0)
    came: list[Counts] = []
    for n in range(1, len(shots)):
        moves = _Moves(whole, shots[n - 1], shots[n], states[n - 1], states[n])
        way = total[:, None] + moves.changes * change_weight + moves.tenths * minute_weight
        came.append(np.argmin(way, axis=0))
        total = way.min(axis=0) + own(n)
    at = int(np.argmin(total))
    path = [at]
    for back in reversed(came):
        at = int(back[at])
        path.append(at)
    return [states[n][j] for n, j in enumerate(reversed(path))]


def _better_order(whole: Choices, has: Iterable[int], shots: list[int]) -> tuple[list[int] | None, int]:
    """An order with fewer changes: scenes stay where they are, the shots of a scene are gathered by what they are made with."""
    things = list(has)
    blocks = [list(block) for _, block in groupby(shots, key=lambda s: whole.shots[s].shot.scene.strip())]
    open_ = {s: whole.ways_for(things, whole.shots[s]) for s in shots}
    # For each scene: what it can be begun and ended with, and how many changes that takes inside it.
    best: dict[int, tuple[int, list[int]]] = {-1: (-1, [])}
    for block in blocks:
        ways = {s: frozenset(o for o in whole.shots[s].cells if open_[s][o]) for s in block}
        step: dict[int, tuple[int, list[int]]] = {}
        for cover in _covers(ways):
            for first in cover:
                for last in cover if len(cover) > 1 else (first,):
                    if len(cover) > 1 and last == first:
                        continue
                    order = _gathered(ways, cover, first, last)
                    if order is None:
                        continue
                    for end, (changes, before) in best.items():
                        count = changes + len(cover) - (end == first)
                        if last not in step or count < step[last][0]:
                            step[last] = (count, [*before, *order])
        if not step:
            return None, 0
        best = step
    changes, order = min(best.values(), key=lambda each: each[0])
    return (None if order == shots else order), changes


def _covers(ways: dict[int, frozenset[int]]) -> list[tuple[int, ...]]:
    """Small sets of ways with which all shots of a scene can be made; the smallest, and those with one more."""
    names = sorted(
        {o for each in ways.values() for o in each}, key=lambda o: -sum(o in each for each in ways.values())
    )
    names = names[:24]
    found: list[tuple[int, ...]] = []
    for size in range(1, len(names) + 1):
        for cover in combinations(names, size):
            if all(not each.isdisjoint(cover) for each in ways.values()):
                found.append(cover)
                if len(found) >= _MOST_COVERS:
                    return found
        if found and size > len(found[0]):
            break
        if size > 4 and not found:
            break
    return found


def _gathered(
    ways: dict[int, frozenset[int]], cover: tuple[int, ...], first: int, last: int
) -> list[int] | None:
    """Shots of a scene by what they are made with, one way after the other; None where one would have nothing to do."""
    line = [first, *(o for o in cover if o not in (first, last)), *([last] if last != first else [])]
    made: dict[int, list[int]] = {o: [] for o in line}
    for s, each in ways.items():
        o = next((o for o in line if o in each), None)
        if o is None:
            return None
        made[o].append(s)
    # The last one has to be up at the end.
    return [s for o in line for s in made[o]] if made[last] else None
