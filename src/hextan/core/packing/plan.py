"""The plan: made by a kit that was found, and held against what is asked, pinned and carried since."""

from __future__ import annotations

from collections.abc import Iterator

from typing_extensions import TypedDict

from hextan.core.base import weight_words
from hextan.core.equipment import Package, PackageSettings, Pin, PlannedShot, ThePlan, ThingName
from hextan.core.packing.answers import KitAnswer, OfShot
from hextan.core.packing.document import KitPlan, Packing
from hextan.core.packing.things import Things, things_of
from hextan.core.packing.told import money
from hextan.core.shots import ShotChoice, ShotList, answer_of_shot, fingerprint


class PlanSeen(TypedDict):
    """The plan, and what is not as it has it any more."""

    kit: str
    name: str
    #: None where there is no plan.
    made_at: str | None
    #: What it carries, in words.
    things: list[str]
    #: How many shots it has something for, of how many.
    shots: int
    of: int
    #: Shots that it has nothing for.
    without: list[OfShot]
    #: Shots that are made otherwise, or came and went since.
    otherwise: list[OfShot]
    #: Shots that were pinned to something else, with what each of both costs.
    pinned: list[OfShot]
    #: Things that the package does not have any more.
    gone: list[str]
    #: Where the kit carries other things than the plan does; empty where it does not.
    kit_now: str


def plan_of(kit: KitPlan, answer: KitAnswer, shots: ShotList, made_at: str) -> ThePlan:
    """Make a kit that was found the plan.

    Parameters
    ----------
    made_at : as ISO 8601, in UTC
    """
    chosen = {row["key"]: row["choice"] for row in answer["shots"]}
    return ThePlan(
        kit=kit.key,
        name=kit.name,
        made_at=made_at,
        things=[ThingName(kind=t["kind"], name=t["name"], of=t["of"]) for t in answer["things"]],
        shots={
            shot.key: PlannedShot(
                name=shot.name, asked=fingerprint(shot), made_with=_pin_of(chosen.get(shot.key))
            )
            for shot in shots.shots
        },
    )


def _pin_of(choice: ShotChoice | None) -> Pin | None:
    if choice is None:
        return None
    return Pin(
        body=choice["body"],
        mode=choice["mode"],
        format=choice["format"],
        lens=choice["lens"],
        lens_set=choice["lens_set"],
        focal_mm=choice["focal_mm"] if choice["is_zoom"] else None,
        adapters=choice["adapters"],
    )


def plan_seen(package: Package, settings: PackageSettings, shots: ShotList, packing: Packing) -> PlanSeen:
    """Tell the plan of a package, and what changed since it was made."""
    plan = package.plan or ThePlan()
    things = things_of(package, packing, len({shot.day.strip() for shot in shots.shots} - {""}))
    rows = list(_otherwise(package, settings, shots, packing, things)) if plan.stands else []
    nothing = {key for key, each in plan.shots.items() if each.made_with is None}
    moved = [told for pinned, told in rows if not pinned]
    return {
        "kit": plan.kit,
        "name": plan.name,
        "made_at": plan.made_at,
        "things": [_words(package, thing) for thing in plan.things],
        "shots": sum(each.made_with is not None for each in plan.shots.values()),
        "of": len(plan.shots),
        "without": [told for told in moved if told["key"] in nothing],
        "otherwise": [told for told in moved if told["key"] not in nothing],
        "pinned": [told for pinned, told in rows if pinned],
        "gone": [_words(package, thing) for thing in things.unknown(plan.things)],
        "kit_now": _kit_now(package, plan, packing) if plan.stands else "",
    }


def _words(package: Package, thing: ThingName) -> str:
    if thing.kind == "lens":
        return package.lens_words(thing.name, thing.of) if thing.name else f"all of {thing.of}"
    return thing.name


def _otherwise(
    package: Package, settings: PackageSettings, shots: ShotList, packing: Packing, things: Things
) -> Iterator[tuple[bool, OfShot]]:
    """Every shot that is not as the plan has it, and whether it was pinned."""
    assert package.plan is not None
    for shot in shots.shots:
        answer = answer_of_shot(package, settings, shot)
        stands = answer["plan"]
        if stands is None or stands["state"] == "as_planned":
            continue
        told = stands["told"]
        if shot.pin is not None and answer["best"] is not None:
            told = f"{_with(answer['best'])}. {told}{_costs(package, settings, packing, things, stands['not_carried'])}"
        yield shot.pin is not None, {"key": shot.key, "name": shot.name, "told": told}
    here = {shot.key for shot in shots.shots}
    for key, planned in package.plan.shots.items():
        if key not in here:
            yield False, {"key": key, "name": planned.name, "told": "Not in the list of shots any more."}


def _with(choice: ShotChoice) -> str:
    return f"Pinned to {choice['lens_told']} on {choice['body']}, {choice['format']}"


def _costs(
    package: Package, settings: PackageSettings, packing: Packing, things: Things, missing: list[str]
) -> str:
    """What it takes to carry more: kilograms and rent, as far as they are stated."""
    told: list[str] = []
    for t, thing in enumerate(things.every):
        if _words(package, thing.told) not in missing:
            continue
        cost = things.cost(t)
        told += [weight_words(thing.weight_kg, settings.unit)] if thing.weight_kg else []
        told += [money(cost, packing.currency)] if cost else []
    return f" It adds {', '.join(told)}." if told else ""


def _kit_now(package: Package, plan: ThePlan, packing: Packing) -> str:
    """What the kit keeps now that the plan lacks, and the other way round."""
    kit = next((each for each in packing.kits if each.key == plan.kit), None)
    if kit is None or kit.kept is None:
        return ""
    now = {_words(package, thing) for thing in kit.kept}
    then = {_words(package, thing) for thing in plan.things}
    parts = [("adds", sorted(now - then)), ("lacks", sorted(then - now))]
    return "; ".join(f"{word} {', '.join(names)}" for word, names in parts if names)
