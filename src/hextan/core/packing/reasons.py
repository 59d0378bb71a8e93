"""What each thing of a kit is there for, what it would cost to leave it at home, and what others would add."""

from __future__ import annotations

from collections.abc import Iterable

from hextan.core.packing.answers import KitFilter, KitThing, LeftOut, OfShot
from hextan.core.packing.choices import MISSED_PARTS, Choices, ShotChoices
from hextan.core.packing.days import DayPlan, fewest_changes
from hextan.core.packing.smallest import Solution
from hextan.core.packing.told import plural
from hextan.core.shots import ShotChoice, binds_of, with_what

#: Of a shot that is given up because of when it is shot, and not of what is carried.
ANOTHER_UNIT = "another unit has it at the same time"
#: Things left at home that are told one by one.
_MOST_TOLD = 12


def share_of(whole: Choices, solution: Solution, s: int) -> frozenset[int]:
    """What the unit of a shot has on its day."""
    return solution.shares[whole.groups[whole.shots[s].group].share]


def in_place(whole: Choices, shot: ShotChoices, kit: Iterable[int]) -> str:
    """What a shot would be made with out of a kit that does not do it, in words."""
    if shot.judged is None:
        return "impossible"
    at = shot.best_of(whole.ways_for(kit, shot))
    if at is None:
        return "impossible: nothing that is carried goes together"
    made = with_what(shot.judged, at)
    verdict = shot.judged.verdict(at)
    if verdict == "does":
        # It would do, and is not taken for it.
        pinned = shot.shot.pin is not None
        return f"{made}: {'another choice is pinned' if pinned else 'a squeeze that nobody asks for'}"
    return f"{'nearly: ' if verdict == 'nearly' else ''}{made}: {binds_of(shot.judged, at)}"


def given_up(whole: Choices, solution: Solution, s: int) -> str:
    """Why a shot is not done that something would do."""
    shot, has = whole.shots[s], share_of(whole, solution, s)
    elsewhere = whole.open_to(solution.kit, s)
    if not elsewhere:
        return in_place(whole, shot, has)
    best = min(elsewhere, key=lambda o: (shot.missed[o], o))
    names = ", ".join(whole.things.every[t].name for t in whole.ways[best].things if t not in has)
    return f"{ANOTHER_UNIT}: {names}"


def things_told(whole: Choices, solution: Solution, days: tuple[DayPlan, ...]) -> list[KitThing]:
    """Everything in the kit with its reasons, bodies first."""
    used: dict[int, list[int]] = {t: [] for t in solution.counts}
    for day in days:
        for setup in day.setups:
            for t in whole.ways[setup.way].things:
                used[t].append(setup.shot)
    return [_thing(whole, solution, t, used[t]) for t in solution.counts]


def _thing(whole: Choices, solution: Solution, t: int, used: list[int]) -> KitThing:
    thing = whole.things.every[t]
    needed = [
        s
        for s in range(len(whole.shots))
        if solution.does(whole, s)
        and all(t in whole.ways[o].things for o in whole.open_to(share_of(whole, solution, s), s))
    ]
    alone = [s for s in needed if all(t in whole.ways[o].things for o in whole.shots[s].cells)]
    without: list[OfShot] = [
        {"key": shot.shot.key, "name": shot.shot.name, "told": in_place(whole, shot, share_of(whole, solution, s) - {t})}
        for s in needed
        if (shot := whole.shots[s])
    ]  # fmt: skip
    return {
        "kind": thing.kind,
        "name": thing.name,
        "of": thing.of,
        "count": solution.counts[t],
        "owned": thing.stock.owned,
        "weight_kg": thing.weight_kg,
        "cost": whole.things.cost(t),
        "case": thing.stock.case,
        "note": thing.stock.note,
        "used": _keys(whole, used),
        "needed": _keys(whole, needed),
        "alone": _keys(whole, alone),
        "without": without,
        "told": _there_for(whole, t, used, needed, alone),
    }


def _there_for(whole: Choices, t: int, used: list[int], needed: list[int], alone: list[int]) -> str:
    """In a line what a thing is there for."""
    told = plural(len(used), "shot")
    if t in whole.musts and not needed:
        return f"{told}; carried because it must be"
    if alone:
        told += f"; nothing else at all does {_some(whole, alone)}"
    here = [s for s in needed if s not in alone]
    if here:
        told += f"; nothing else here does {_some(whole, here)}"
    if not needed:
        told += "; others here could do them, with more changes, more weight or less of the wishes"
    return told


def _some(whole: Choices, shots: list[int]) -> str:
    """A few shots by their numbers, or how many."""
    names = [whole.shots[s].shot.name for s in shots]
    return ", ".join(names) if len(names) <= 4 else f"{len(names)} of them"


def left_out(whole: Choices, solution: Solution) -> tuple[list[LeftOut], int]:
    """What everything that stays at home would add to the kit; and how many things would add nothing."""
    before = fewest_changes(whole, solution)
    found: list[tuple[tuple[float, ...], LeftOut]] = []
    nothing = 0
    for t in sorted(whole.allowed - solution.kit):
        more = solution.with_things([t])
        gained, nearer = _gained(whole, solution, more)
        fewer = before - fewest_changes(whole, more)
        told = []
        if gained:
            told.append(
                f"{', '.join(gained[:6])} becomes possible"
                if len(gained) == 1
                else f"{', '.join(gained[:6])} become possible"
            )
        if nearer > MISSED_PARTS / 200:
            told.append(f"{100 * nearer / MISSED_PARTS:.0f} % nearer to the wishes")
        if fewer > 0:
            told.append(f"{plural(fewer, 'change')} fewer")
        if not told:
            nothing += 1
            continue
        thing = whole.things.every[t]
        row: LeftOut = {"kind": thing.kind, "name": thing.name, "of": thing.of, "adds": "; ".join(told)}
        found.append(((-len(gained), -nearer, -fewer, t), row))
    found.sort(key=lambda each: each[0])
    told_rows = [row for _, row in found[:_MOST_TOLD]]
    return told_rows, nothing


def _gained(whole: Choices, solution: Solution, more: Solution) -> tuple[list[str], float]:
    """Shots that become possible with more things, and how much nearer the others come to their wishes, in thousandths."""
    gained: list[str] = []
    nearer = 0.0
    for s, shot in enumerate(whole.shots):
        if not shot.possible:
            continue
        now = [shot.missed[o] for o in whole.open_to(share_of(whole, more, s), s)]
        if not solution.does(whole, s):
            if now:
                gained.append(shot.shot.name)
            continue
        was = [shot.missed[o] for o in whole.open_to(share_of(whole, solution, s), s)]
        nearer += min(was) - min(now)
    return gained, nearer


def filters_of(chosen: Iterable[tuple[str, ShotChoice]]) -> list[KitFilter]:
    """The filters that the choices need: they follow from light and stop, and are not chosen."""
    found: dict[str, list[str]] = {}
    for key, choice in chosen:
        # What is built in goes with its body.
        for part in (part for part in choice["nd_parts"] if not part.startswith("built-in")):
            found.setdefault(part, []).append(key)
    return [{"name": name, "shots": keys} for name, keys in sorted(found.items())]


def _keys(whole: Choices, shots: Iterable[int]) -> list[str]:
    return [whole.shots[s].shot.key for s in shots]
