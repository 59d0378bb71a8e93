"""A kit as it is answered: what it is, how far it is proved, what everything in it is for, its days and its costs."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from hextan.core.base import limit_words, weight_words
from hextan.core.equipment import Package, PackageSettings
from hextan.core.packing.answers import DONE, KitAnswer, KitDay, KitShot, KitVerdict, OtherKit
from hextan.core.packing.choices import Choices, choices_of
from hextan.core.packing.days import DayPlan, days_of
from hextan.core.packing.document import KitPlan, Packing
from hextan.core.packing.program import Watch
from hextan.core.packing.reasons import filters_of, given_up, in_place, left_out, share_of, things_told
from hextan.core.packing.rent import rent_of
from hextan.core.packing.smallest import MOST_OTHERS, Solution, smallest
from hextan.core.packing.told import plural, steps_of, value_of
from hextan.core.packing.what_if import curve_of, what_if
from hextan.core.shots import ShotChoice, ShotList, answer_of_shot, binds_of, choice_of

#: What is looked for besides the kit may take so long, each, seconds.
_PART_S = 10.0


@dataclass(frozen=True)
class Packed:
    """A kit with all that was worked out for it."""

    choices: Choices
    solution: Solution | None
    days: tuple[DayPlan, ...]
    answer: KitAnswer


def packed(
    package: Package,
    settings: PackageSettings,
    shots: ShotList,
    packing: Packing,
    plan: KitPlan,
    watch: Watch | None = None,
    show: Callable[[KitAnswer], None] = lambda answer: None,
    around: bool = True,
) -> Packed:
    """Find a kit, prove it, check it again by the shots' own judgement, and tell it.

    Parameters
    ----------
    watch : how long it may take, whether to stop; the best so far is answered then, and says so
    around : whether other kits, and what would be if, are looked for at all
    show : is given the kit as soon as it is found, before other kits and what would be if are looked for
    """
    watch = watch or Watch()
    # What is decided by the kit does not decide the kit.
    package = package if package.plan is None else replace(package, plan=None)
    watch.tell(f"judging {plural(len(shots.shots), 'shot')}")
    whole = choices_of(package, settings, shots, packing, plan)
    solution = smallest(whole, watch)
    if solution is None:
        return Packed(whole, None, (), _nothing(whole, watch))
    watch.tell("the days")
    days = days_of(whole, solution)
    things = things_told(whole, solution, days)
    laid = _shots(whole, solution, days)
    added, nothing = left_out(whole, solution)
    answer: KitAnswer = _empty(whole) | {
        "why": "",
        "proved": solution.proved,
        "stopped": solution.stopped,
        # One that was pinned to what does not do it is made so, and is not done.
        "shots_done": sum(row["verdict"] in DONE for row in laid),
        "lenses": sum(n for t, n in solution.counts.items() if whole.things.every[t].kind == "lens"),
        "weight_kg": sum((whole.things.every[t].weight_kg or 0.0) * n for t, n in solution.counts.items()),
        "weight_unknown": [whole.things.every[t].name for t in solution.counts if whole.things.every[t].weight_kg is None],
        "cost": sum((whole.things.cost(t) or 0.0) * n for t, n in solution.counts.items()),
        "cost_unknown": [whole.things.every[t].name for t in solution.counts if whole.things.cost(t) is None],
        "changes": sum(day.changes for day in days),
        "minutes": sum(day.minutes for day in days),
        "steps": steps_of(whole, solution),
        "things": things,
        "left_out": added,
        "adds_nothing": nothing,
        "filters": filters_of((s["key"], s["choice"]) for s in laid if s["choice"] is not None and s["verdict"] in DONE),
        "shots": laid,
        "days": [_day(whole, day) for day in days if day.setups],
        "rent": rent_of(whole, solution, things),
        "disagree": _disagree(whole, solution),
    }  # fmt: skip
    if not around:
        return Packed(whole, solution, days, answer)
    show(answer)
    unfinished = answer["unfinished"]
    watch.tell("how many lenses do how many shots")
    answer["curve"] = curve_of(whole, answer["shots_done"], watch.part(_PART_S))
    if not answer["curve"] or answer["curve"][-1]["shots"] < answer["shots_done"]:
        unfinished.append("how many lenses do how many shots")
    for name, told, look in (("others", "other kits", _others), ("what_if", "what makes it big", what_if)):
        part = watch.part(_PART_S)
        watch.tell(told)
        answer[name] = look(whole, solution, part)  # type: ignore[literal-required]
        if part.left_s <= 0:
            unfinished.append(told)
    return Packed(whole, solution, days, answer)


def _empty(whole: Choices) -> KitAnswer:
    plan = whole.plan
    named = [*plan.only, *plan.must, *plan.never, *(plan.kept or [])]
    return {
        "name": plan.name, "why": "", "proved": False, "stopped": False, "kept": plan.kept is not None, "shots_done": 0,
        "shots_asked": sum(not shot.open for shot in whole.shots), "lenses": 0, "weight_kg": 0.0, "weight_unknown": [],
        "cost": 0.0, "cost_unknown": [], "currency": whole.packing.currency, "hire_days": whole.things.hire_days, "changes": 0,
        "minutes": 0.0, "steps": [], "things": [], "left_out": [], "adds_nothing": 0, "filters": [], "shots": [], "days": [],
        "others": [], "unfinished": [], "curve": [], "what_if": [], "rent": [],
        "gone": [" ".join(part for part in (name.of, name.name) if part) for name in whole.things.unknown(named)], "disagree": [],
    }  # fmt: skip


def _nothing(whole: Choices, watch: Watch) -> KitAnswer:
    """Why there is no kit."""
    limit = whole.plan.weight_limit_kg
    if watch.left_s <= 0:
        why = "Stopped before a first kit was found: give it more time, or fewer things to choose from."
    elif limit is not None:
        must = sum(whole.things.every[t].weight_kg or 0.0 for t in whole.musts)
        unit = whole.settings.unit
        why = (
            f"What must be carried weighs {weight_words(must, unit)}, and {limit_words(limit, unit)} are allowed: "
            "raise the limit, or carry less."
        )
    else:
        why = "There is no such kit: look at what must be carried, and how many there are of it."
    return _empty(whole) | {"why": why, "stopped": watch.left_s <= 0}


def _shots(whole: Choices, solution: Solution, days: tuple[DayPlan, ...]) -> list[KitShot]:
    """Every shot with what it is made with, or what stands in its way."""
    places = {t: n for n, t in enumerate(solution.counts)}
    setups = {setup.shot: setup for day in days for setup in day.setups}
    found: list[KitShot] = []
    for s, shot in enumerate(whole.shots):
        group = whole.groups[shot.group]
        row: KitShot = {"key": shot.shot.key, "name": shot.shot.name, "day": group.day, "unit": group.unit, "verdict": "open",
                        "choice": None, "things": [], "could": [], "told": shot.open}  # fmt: skip
        found.append(row)
        if shot.open:
            continue
        has = share_of(whole, solution, s)
        if s in setups and shot.judged is not None:
            setup = setups[s]
            verdict: KitVerdict = shot.judged.verdict(setup.cell)
            could = {whole.ways[o].lens for o in whole.open_to(has, s)} - {whole.ways[setup.way].lens}
            row |= {
                "verdict": verdict,
                "choice": choice_of(shot.judged, setup.cell),
                "things": [places[t] for t in whole.ways[setup.way].things],
                "could": sorted(places[t] for t in could),
                "told": "",
            }
            if verdict != "does":
                row["told"] = binds_of(shot.judged, setup.cell)
            continue
        row["verdict"] = "given_up" if shot.possible else "cannot"
        row["told"] = given_up(whole, solution, s) if shot.possible else in_place(whole, shot, whole.allowed)
    return found


def _day(whole: Choices, day: DayPlan) -> KitDay:
    def key(s: int) -> str:
        return whole.shots[s].shot.key

    return {
        "day": day.group.day,
        "unit": day.group.unit,
        "apart": any(day.group.share in several for several in whole.apart),
        "setups": [
            {
                "key": key(setup.shot),
                "name": whole.shots[setup.shot].shot.name,
                "scene": whole.shots[setup.shot].shot.scene,
                "lens": choice["lens_told"],
                "body": choice["body"],
                "mode": choice["mode"],
                "format": choice["format"],
                "changed": list(setup.changed),
                "minutes": setup.minutes,
            }
            for setup in day.setups
            if (judged := whole.shots[setup.shot].judged) is not None
            and (choice := choice_of(judged, setup.cell))
        ],
        "changes": day.changes,
        "minutes": day.minutes,
        "better_order": [key(s) for s in day.better_order or ()],
        "better_changes": day.better_changes,
    }


def _others(whole: Choices, solution: Solution, watch: Watch) -> list[OtherKit]:
    """The next best kits; each lacks something of those before it."""
    if whole.plan.kept is not None:
        return []
    found: list[OtherKit] = []
    kits = [solution.kit]
    while len(found) < MOST_OTHERS and watch.left_s > 0:
        other = smallest(whole, watch, but=kits)
        # One that does fewer shots is no other kit for them.
        if other is None or other.stopped or len(other.given_up) > len(solution.given_up):
            break
        kits.append(other.kit)
        found.append(_other(whole, solution, other))
    return found


def _other(whole: Choices, solution: Solution, other: Solution) -> OtherKit:
    def value(of: Solution, by: str) -> float:
        return value_of(whole, of, by, of.found[by].value)

    different = [by for by in solution.found if abs(value(solution, by) - value(other, by)) > 1e-6]
    told = {step["by"]: step["told"] for step in steps_of(whole, other)}
    names = {t: whole.things.every[t].name for t in solution.kit | other.kit}
    return {
        "tie": not different,
        "told": "as good" if not different else f"{told[different[0]]}",
        "adds": [names[t] for t in other.counts if t not in solution.kit],
        "lacks": [names[t] for t in solution.counts if t not in other.kit],
    }


def _disagree(whole: Choices, solution: Solution) -> list[str]:
    """Judge every shot again with nothing but what its unit has on its day, as a package of its own."""
    wrong: list[str] = []
    packages: dict[frozenset[int], Package] = {}
    for s, shot in enumerate(whole.shots):
        if not solution.does(whole, s):
            continue
        has = frozenset(t for t in share_of(whole, solution, s) if whole.there(t, shot.day))
        if has not in packages:
            packages[has] = package_with(whole, has)
        answer = answer_of_shot(packages[has], whole.settings, shot.shot)
        pinned = shot.shot.pin is not None
        near = answer["verdict"] == "nearly" and _within(answer["best"], whole.plan)
        if not (pinned or answer["verdict"] in ("does", "depends") or near):
            wrong.append(shot.shot.name)
    return wrong


def _within(choice: ShotChoice | None, plan: KitPlan) -> bool:
    """Whether a framing is no farther off than the kit allows."""
    percent = None if choice is None else choice["percent"]
    return percent is not None and abs(percent) <= plan.framing_percent + 1e-6


def package_with(whole: Choices, kit: frozenset[int]) -> Package:
    """A package that has nothing but some things, and all filters."""
    has = {(whole.things.every[t].kind, whole.things.every[t].id) for t in kit}
    package = whole.package
    return replace(
        package,
        bodies=tuple(body for body in package.bodies if ("body", body.id) in has),
        lens_sets=tuple(
            replace(each, lenses=lenses)
            for each in package.lens_sets
            if (lenses := tuple(lens for lens in each.lenses if ("lens", lens.id) in has))
        ),
        adapters=tuple(adapter for adapter in package.adapters if ("adapter", adapter.id) in has),
    )
