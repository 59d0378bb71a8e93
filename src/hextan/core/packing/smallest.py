"""The smallest kit, proved: which things to carry so that every shot that can be done is done, by one objective after another.

First as few shots as possible are given up. Then each objective is made least in its turn, and held, with what may be
given up of it, while the next one is. Figures of a kit:

- lenses: how many
- weight: kg of all things whose weight is known
- cost: of all things whose price is known, for the days of hire
- changes: how often another lens or another body has to be put up, day for day and unit for unit, in the order of the list
- wishes: what the best choice of every shot misses of its wishes, and of a framing that only nearly fits

What no figure needs stays at home: a kit has nothing that could be left out without a figure becoming worse.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace

from hextan.core.packing.choices import Choices
from hextan.core.packing.document import Objective
from hextan.core.packing.lines import fewest_runs, runs_of
from hextan.core.packing.program import GRAIN, Found, Program, Watch

#: Kits besides the best one that are looked for.
MOST_OTHERS = 2
_TOLD: dict[str, str] = {
    "shots": "shots that can be done",
    "lenses": "fewest lenses",
    "weight": "least weight",
    "cost": "least cost",
    "changes": "fewest changes",
    "wishes": "nearest to the wishes",
}
#: Figures that are whole numbers.
WHOLE = ("shots", "lenses", "changes", "wishes")


@dataclass(frozen=True)
class Solution:
    """A kit: how many of each thing, which of them each share has, and how far each figure is proved."""

    counts: dict[int, int]
    #: Things of each set that is carried at the same time.
    shares: tuple[frozenset[int], ...]
    given_up: tuple[int, ...]
    found: dict[str, Found]
    #: Whether it was stopped, or its time was over, before everything was looked at.
    stopped: bool

    @property
    def kit(self) -> frozenset[int]:
        """The things."""
        return frozenset(self.counts)

    def does(self, whole: Choices, s: int) -> bool:
        """Whether a shot is done."""
        return whole.shots[s].possible and s not in self.given_up

    def with_things(self, things: Iterable[int], without: int | None = None) -> Solution:
        """The same with more things, or without one; every share has more of them, or lacks it."""
        more = frozenset(things)
        gone = frozenset() if without is None else frozenset([without])
        counts = {t: n for t, n in (dict.fromkeys(more, 1) | self.counts).items() if t not in gone}
        return replace(self, counts=counts, shares=tuple((share | more) - gone for share in self.shares))

    @property
    def proved(self) -> bool:
        """Whether every step is proved."""
        return not self.stopped and all(found.proved for found in self.found.values())


def smallest(whole: Choices, watch: Watch, *, but: Iterable[frozenset[int]] = ()) -> Solution | None:
    """Find the smallest kit.

    Parameters
    ----------
    but : kits of which another one has to lack something

    Returns
    -------
    None where there is no such kit, or none was found before it was stopped.
    """
    search = _Search(whole)
    for kit in but:
        if not search.lacks_something_of(kit):
            return None
    found: dict[str, Found] = {}
    watch.tell(_TOLD["shots"])
    shots = search.program.least(search.missed, watch, 1.0)
    if shots is None:
        return None
    found["shots"] = shots
    given_up = tuple(s for s, column in zip(search.shots, search.missed, strict=True) if search.has(column))
    for s, column in zip(search.shots, search.missed, strict=True):
        search.program.fix(column, float(s in given_up))
    for step in whole.plan.order:
        name = step.by
        watch.tell(_TOLD[name])
        cost = search.cost(name, given_up)
        before = search.program.values
        least = _already_least(whole, search, name, given_up)
        if least is None and watch.left_s > 0:
            least = search.program.least(cost, watch, 1.0 if name in WHOLE else 0.0)
        if least is None:
            search.program.values = before
            return replace(_without_idle(whole, search.solution(given_up, found)), stopped=True)
        found[name] = least
        more = math.floor(step.slack) if name in ("lenses", "changes") else least.value * step.slack / 100
        # What is proved to be the least of a count helps with all that comes after it.
        known = least.bound - GRAIN if name in WHOLE else -math.inf
        search.program.hold(cost, least.value + more + GRAIN, known)
    return _without_idle(whole, search.solution(given_up, found))


def _already_least(whole: Choices, search: _Search, name: str, given_up: tuple[int, ...]) -> Found | None:
    """The wishes, where the kit that was found for what comes before misses no more of them than any kit must."""
    if name != "wishes":
        return None
    solution = search.solution(given_up, {})
    missed = sum(_figures(whole, solution, a, set(has))[2] for a, has in enumerate(solution.shares))
    floor = sum(min(whole.shots[s].missed.values()) for s in search.shots if s not in given_up)
    return Found(float(missed), float(missed), True) if missed == floor else None


def _without_idle(whole: Choices, solution: Solution) -> Solution:
    """Without what no figure needs: the heaviest first, set by set."""
    things = whole.things
    shares = [set(share) for share in solution.shares]
    for t in sorted(solution.counts, key=lambda t: (-(things.every[t].weight_kg or 0.0), t)):
        for a, share in enumerate(shares):
            if t in whole.musts or t not in share:
                continue
            before = _figures(whole, solution, a, share)
            share.discard(t)
            if _figures(whole, solution, a, share) > before:
                share.add(t)
    counts: dict[int, int] = {}
    for t in solution.counts:
        alone = [sum(t in shares[a] for a in several) for several in whole.apart]
        counts[t] = max([int(t in shares[0] or t in whole.musts), *alone])
    kept = {t: n for t, n in counts.items() if n}
    # A set that is alone on its days has everything that is carried.
    apart = {a for several in whole.apart for a in several}
    laid = tuple(frozenset(share) if a in apart else frozenset(kept) for a, share in enumerate(shares))
    return replace(solution, counts=kept, shares=laid)


def _figures(whole: Choices, solution: Solution, a: int, has: set[int]) -> tuple[float, float, float]:
    """What gets worse when a set of things lacks one: shots lost, runs, and what is missed of the wishes."""
    lost = runs = missed = 0
    for group in whole.groups:
        if group.share != a:
            continue
        line = whole.line(has, [s for s in group.shots if solution.does(whole, s)])
        lost += sum(not ways for ways in line.values())
        runs += fewest_runs(list(line.values()))
        missed += sum(min((whole.shots[s].missed[o] for o in ways), default=0) for s, ways in line.items())
    return lost, runs, missed


def fewest_lenses(whole: Choices, watch: Watch, given_up: Iterable[int] = ()) -> Found | None:
    """The fewest lenses that do all possible shots but some; None where nothing does them."""
    return LensCount(whole).fewest(given_up, watch)


class LensCount:
    """How many lenses it takes, asked again and again of the same shots."""

    def __init__(self, whole: Choices) -> None:
        self._search = _Search(whole)
        self._lenses = self._search.cost("lenses", ())

    def fewest(self, given_up: Iterable[int], watch: Watch) -> Found | None:
        """The fewest lenses that do all possible shots but some."""
        gone, program = set(given_up), self._search.program
        for s, column in zip(self._search.shots, self._search.missed, strict=True):
            program.fix(column, float(s in gone))
        return program.least(self._lenses, watch, 1.0)

    def shots_given_up(self, lenses: int, watch: Watch) -> Found | None:
        """How many shots so many lenses cannot do at least."""
        search = self._search
        for column in search.missed:
            search.program.lower[column], search.program.upper[column] = 0.0, 1.0
        search.program.hold(self._lenses, lenses + GRAIN)
        found = search.program.least(search.missed, watch, 1.0)
        search.program.rows.pop()
        return found


class _Search:
    """The program of a kit: how many of each thing, who has it, and which ways are open then."""

    def __init__(self, whole: Choices) -> None:
        self.whole = whole
        self.program = Program()
        self.shots = whole.possible
        things = whole.things.every
        self.counts = {
            t: self.program.columns(1, float(things[t].stock.count), True)[0] for t in sorted(whole.allowed)
        }
        for t in whole.musts:
            self.program.lower[self.counts[t]] = 1.0
        self._has: dict[tuple[int, int], int] = {}
        self._open: dict[tuple[int, int], int] = {}
        self.missed: dict[int, float] = dict.fromkeys(self.program.columns(len(self.shots)), 1.0)
        self._cover()
        for shares in whole.apart:
            # Units of one day need their own.
            for t, count in self.counts.items():
                columns = [self._has[t, a] for a in shares if (t, a) in self._has]
                if len(columns) > 1:
                    self.program.row(0.0, [count, *columns], [1.0, *[-1.0] * len(columns)])
        if whole.plan.weight_limit_kg is not None:
            self.program.hold(self.cost("weight", ()), whole.plan.weight_limit_kg + GRAIN)

    def has(self, column: int) -> bool:
        """Whether a column is chosen."""
        return self.program.values[column] > 0.5

    def share_of(self, s: int) -> int:
        """Which set of things a shot takes its things from."""
        return self.whole.groups[self.whole.shots[s].group].share

    def _cover(self) -> None:
        """Every shot is done in some way that is open, or given up."""
        for s, missed in zip(self.shots, self.missed, strict=True):
            a = self.share_of(s)
            ways = list(self.whole.shots[s].cells)
            self.program.row(1.0, [*(self._way(o, a) for o in ways), missed])
            # The same said of lenses and of bodies alone: it follows, and is much easier to prove with.
            for kind in ("lens", "body"):
                things = {getattr(self.whole.ways[o], kind) for o in ways}
                self.program.row(1.0, [*(self._thing(t, a) for t in sorted(things)), missed])

    def _thing(self, t: int, a: int) -> int:
        """Whether a share has a thing."""
        if (t, a) not in self._has:
            self._has[t, a] = self.program.columns(1, 1.0, True)[0]
            self.program.implies(self._has[t, a], self.counts[t])
        return self._has[t, a]

    def _way(self, o: int, a: int) -> int:
        """Whether a share has everything for a way."""
        if (o, a) not in self._open:
            self._open[o, a] = self.program.columns(1)[0]
            for t in self.whole.ways[o].things:
                self.program.implies(self._open[o, a], self._thing(t, a))
        return self._open[o, a]

    def lacks_something_of(self, kit: frozenset[int]) -> bool:
        """Let a kit with all these bodies and lenses be no answer; False where nothing of it may be lacking."""
        every = self.whole.things.every
        free = [t for t in kit if t not in self.whole.musts and every[t].kind != "adapter"]
        if not free:
            return False
        lacking = self.program.columns(len(free), 1.0, True)
        for column, t in zip(lacking, free, strict=True):
            most = self.program.upper[self.counts[t]]
            # With it lacking, there is none of it.
            self.program.row(-math.inf, (self.counts[t], column), (1.0, most), most)
        self.program.row(1.0, lacking)
        return True

    def cost(self, name: Objective | str, given_up: tuple[int, ...]) -> dict[int, float]:
        """The sum that is a figure of the kit."""
        things = self.whole.things
        if name == "lenses":
            return {self.counts[t]: 1.0 for t in things.of_kind("lens") if t in self.counts}
        if name == "weight":
            return {column: things.every[t].weight_kg or 0.0 for t, column in self.counts.items()}
        if name == "cost":
            return {column: things.cost(t) or 0.0 for t, column in self.counts.items()}
        if name == "changes":
            return self._changes(given_up)
        return self._wishes(given_up)

    def _changes(self, given_up: tuple[int, ...]) -> dict[int, float]:
        """A run is a way that stays up over shots in a row; with those that are open, all shots have to be covered."""
        cost: dict[int, float] = {}
        for group in self.whole.groups:
            line = [s for s in group.shots if self.whole.shots[s].possible and s not in given_up]
            over: dict[int, list[int]] = {s: [] for s in line}
            for o, run in runs_of([self.whole.shots[s].cells for s in line]):
                column = self.program.columns(1)[0]
                self.program.implies(column, self._way(o, group.share))
                cost[column] = 1.0
                for at in run:
                    over[line[at]].append(column)
            for columns in over.values():
                self.program.row(1.0, columns)
        return cost

    def _wishes(self, given_up: tuple[int, ...]) -> dict[int, float]:
        """For every step of what is missed: it is paid unless a way is open that misses less."""
        cost: dict[int, float] = {}
        for s in self.shots:
            missed = self.whole.shots[s].missed
            levels = sorted(set(missed.values()))
            if s in given_up or levels == [0]:
                continue
            a, below = self.share_of(s), 0
            for level in levels:
                if level > below:
                    column = self.program.columns(1)[0]
                    cost[column] = float(level - below)
                    better = [self._way(o, a) for o, m in missed.items() if m < level]
                    self.program.row(1.0, [*better, column])
                below = level
        return cost

    def solution(self, given_up: tuple[int, ...], found: dict[str, Found]) -> Solution:
        """Read the columns."""
        values = self.program.values
        counts = {t: round(values[column]) for t, column in self.counts.items() if values[column] > 0.5}
        shares = tuple(
            frozenset(t for (t, b), column in self._has.items() if a == b and self.has(column))
            for a in range(self.whole.shares)
        )
        # A set that is alone on its days has everything.
        apart = {a for several in self.whole.apart for a in several}
        return Solution(
            counts,
            tuple(frozenset(counts) if a not in apart else has for a, has in enumerate(shares)),
            given_up,
            found,
            stopped=False,
        )
