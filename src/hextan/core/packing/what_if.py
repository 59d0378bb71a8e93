"""How big a kit has to be: shots by number of lenses, and what would be if one shot asked for less."""

from __future__ import annotations

from hextan.core.packing.answers import CurvePoint, WhatIf
from hextan.core.packing.choices import Choices, ShotChoices, relaxed
from hextan.core.packing.program import Watch
from hextan.core.packing.smallest import LensCount, Solution, fewest_lenses
from hextan.core.packing.told import plural
from hextan.core.shots import Shot

#: Needs of which it is looked at what they cost, and what is said of each.
_LESS: tuple[tuple[str, str], ...] = (
    ("distance", "from any distance"),
    ("room", "without the wall behind the camera"),
    ("hold", "with less depth"),
    ("stop", "at any stop"),
    ("background", "with any background"),
    ("light", "at any EI"),
    ("speed", "at any rate"),
    ("picture", "on any recording"),
    ("rig", "on any rig"),
    ("look", "with any squeeze"),
    ("body", "on any body"),
)
#: A framing that may be off by more, per cent.
WIDER_PERCENT = 5.0


def curve_of(whole: Choices, done: int, watch: Watch) -> list[CurvePoint]:
    """How many shots one lens does at most, and two, and so on until as many as the kit does are."""
    possible, counting = len(whole.possible), LensCount(whole)
    every = [t for t in whole.things.of_kind("lens") if t in whole.allowed]
    points: list[CurvePoint] = []
    for count in range(max(1, len([t for t in every if t in whole.musts])), len(every) + 1):
        found = counting.shots_given_up(count, watch) if watch.left_s > 0 else None
        if found is None:
            break
        shots = possible - round(found.value)
        points.append({"lenses": count, "shots": shots, "proved": found.proved})
        if shots >= done:
            break
    return points


def what_if(whole: Choices, solution: Solution, watch: Watch) -> list[WhatIf]:
    """The shots that make the kit big: what it would be without each, and if it asked for less.

    Only lenses are counted. A shot that makes no difference when it is dropped makes none when it asks for less.
    """
    counting = LensCount(whole)
    now = counting.fewest(solution.given_up, watch)
    if now is None or not now.proved or whole.plan.kept is not None:
        return []
    lenses = round(now.value)
    found: list[WhatIf] = []
    for s in whole.possible:
        if watch.left_s <= 0:
            break
        if s in solution.given_up:
            continue
        without = counting.fewest((*solution.given_up, s), watch)
        if without is None or not without.proved or round(without.value) >= lenses:
            continue
        found.append(_row(whole.shots[s], "dropped", round(without.value), lenses))
        found += _with_less(whole, solution, s, lenses, watch)
    return found


def _with_less(whole: Choices, solution: Solution, s: int, lenses: int, watch: Watch) -> list[WhatIf]:
    shot = whole.shots[s]
    found: list[WhatIf] = []
    if whole.plan.framing_percent < WIDER_PERCENT and shot.needs.wanted is not None:
        other = relaxed(whole, s, shot.shot, WIDER_PERCENT)
        found += _less(
            other, solution, s, f"framed up to {WIDER_PERCENT:g} % wider or tighter", lenses, watch
        )
    for need, told in _LESS:
        if not getattr(shot.shot, need).strip() or need in shot.shot.wishes or watch.left_s <= 0:
            continue
        other = relaxed(whole, s, _wished(shot.shot, need))
        found += _less(other, solution, s, told, lenses, watch)
    return found


def _less(other: Choices, solution: Solution, s: int, told: str, lenses: int, watch: Watch) -> list[WhatIf]:
    least = fewest_lenses(other, watch, solution.given_up)
    if least is None or not least.proved or round(least.value) >= lenses:
        return []
    return [_row(other.shots[s], told, round(least.value), lenses)]


def _wished(shot: Shot, need: str) -> Shot:
    return shot.model_copy(update={"wishes": shot.wishes | {need: 1.0}})


def _row(shot: ShotChoices, change: str, lenses: int, before: int) -> WhatIf:
    return {
        "key": shot.shot.key,
        "name": shot.shot.name,
        "change": change,
        "lenses": lenses,
        "told": f"{plural(before - lenses, 'lens', 'lenses')} fewer",
    }
