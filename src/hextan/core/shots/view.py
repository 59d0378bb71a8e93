"""All shots of a production: each one's answer, what they use, and what changes between them."""

from __future__ import annotations

from collections import Counter, OrderedDict
from collections.abc import Collection, Iterable
from itertools import groupby, pairwise
from typing import Any

from hextan.core.base import HextanError
from hextan.core.equipment import Package, PackageSettings, Pin, main_format, reference_words
from hextan.core.shots.answers import (
    ChangedAnswer,
    DayOfShots,
    InPlan,
    OnMain,
    ShotAnswer,
    ShotChange,
    ShotsView,
    ShotVerdict,
    Use,
)
from hextan.core.shots.by_plan import ASIDE, chosen_cell, fingerprint, in_plan
from hextan.core.shots.changes import changes_of
from hextan.core.shots.document import Shot, ShotList
from hextan.core.shots.judge import Judged, judge
from hextan.core.shots.needs import needs_of
from hextan.core.shots.pins import pinned_cell
from hextan.core.shots.told import (
    binds_of,
    choice_of,
    off_main_of,
    reasons_of,
    runner_up,
    with_what,
)
from hextan.core.shots.warnings import warnings_of

#: Answers that are kept with a package: a list is judged anew at every key that is pressed, and one shot of it differs.
MOST_KEPT = 4000
_KEPT = "answers of shots"
_CHANGES = "changes of shots"


def shots_view(
    package: Package,
    settings: PackageSettings,
    document: ShotList,
    catalogue: Package | None = None,
    changes_for: Collection[str] | None = None,
) -> ShotsView:
    """Judge a list of shots.

    Parameters
    ----------
    catalogue : what could be rented, for what a shot could be made with
    changes_for : keys of the shots for which that is looked for; None for all of them

    Returns
    -------
    ``answers`` in the order of the shots; how many do, nearly do, cannot and are open; how many shots use each body,
    format and lens; and each day's changes in shooting order.
    """
    answers = [
        answer_with_changes(package, settings, shot, catalogue)
        if changes_for is None or shot.key in changes_for
        else answer_of_shot(package, settings, shot)
        for shot in document.shots
    ]
    verdicts = Counter(answer["verdict"] for answer in answers)
    chosen = [answer["best"] for answer in answers if answer["best"] is not None]
    return {
        "answers": answers,
        "does": verdicts["does"],
        "depends": verdicts["depends"],
        "nearly": verdicts["nearly"],
        "cannot": verdicts["cannot"],
        "open": verdicts["open"],
        "bodies": _uses(choice["body"] for choice in chosen),
        "formats": _uses(f"{choice['format']}, {choice['body']}" for choice in chosen),
        "lenses": _uses(choice["lens_told"] for choice in chosen),
        "days": _days(document.shots, answers),
        "against": reference_words(package),
        "on_main": _on_main(settings, document, answers),
        "in_plan": _in_plan(package, answers),
        "changed": _changed(document, answers),
    }


def _on_main(settings: PackageSettings, document: ShotList, answers: list[ShotAnswer]) -> OnMain | None:
    rows = zip(document.shots, answers, strict=True)
    has = [a for shot, a in rows if main_format(settings, shot.unit) is not None and a["best"] is not None]
    return {"stay": sum(not answer["off_main"] for answer in has), "of": len(has)} if settings.mains else None


def _in_plan(package: Package, answers: list[ShotAnswer]) -> InPlan | None:
    plan = package.plan
    if plan is None:
        return None
    has = [each for answer in answers if (each := answer["plan"]) is not None]
    stay = sum(each["state"] == "as_planned" for each in has)
    return {
        "kit": plan.name,
        "kit_key": plan.kit,
        "made_at": plan.made_at or "",
        "as_planned": stay,
        "of": len(has),
    }


def answer_of_shot(package: Package, settings: PackageSettings, shot: Shot) -> ShotAnswer:
    """Judge one shot, without what would do more; an answer that was worked out before is kept with the package."""
    kept: OrderedDict[Any, ShotAnswer] = package.worked_out.setdefault(_KEPT, OrderedDict())
    key = _kept_by(package, settings, shot)
    found = kept.get(key)
    if found is None:
        found = _answer(package, settings, shot)
        kept[key] = found
        if len(kept) > MOST_KEPT:
            kept.popitem(last=False)
    best = found["best"]
    told = "" if best is None else f"{best['lens_told']} on {best['body']}, {best['format']}"
    # Shots with the same needs share what was worked out.
    return {
        **found,
        "key": shot.key,
        "noted": {
            "verdict": found["verdict"],
            "told": told,
            "asked": fingerprint(shot),
        },
    }


def _kept_by(package: Package, settings: PackageSettings, shot: Shot) -> tuple[str, str, str, str]:
    """What an answer hangs on: what is asked, the production's own terms, and what the plan has for the shot."""
    main = main_format(settings, shot.unit)
    planned = "" if package.plan is None or shot.key not in package.plan.shots else shot.key
    asked = shot.model_dump_json(exclude=ASIDE)
    return asked, settings.model_dump_json(), "" if main is None else main.key, planned


def answer_with_changes(
    package: Package, settings: PackageSettings, shot: Shot, catalogue: Package | None = None
) -> ShotAnswer:
    """Judge one shot, and find with what it could be made, where it cannot or only nearly."""
    answer = answer_of_shot(package, settings, shot)
    if answer["verdict"] in ("does", "open"):
        return answer
    # The catalogue is kept beside what was found in it: its number is nobody else's as long as it lives.
    kept: OrderedDict[Any, tuple[Package | None, list[ShotChange]]] = package.worked_out.setdefault(
        _CHANGES, OrderedDict()
    )
    key = (_kept_by(package, settings, shot), id(catalogue))
    if key not in kept:
        kept[key] = catalogue, _changes(package, settings, shot, catalogue)
        if len(kept) > MOST_KEPT:
            kept.popitem(last=False)
    return {**answer, "changes": kept[key][1]}


def _changes(
    package: Package, settings: PackageSettings, shot: Shot, catalogue: Package | None
) -> list[ShotChange]:
    try:
        judged = judge(package, settings, needs_of(shot, package, settings))
        return [] if judged is None else changes_of(package, settings, shot, judged, catalogue)
    except (HextanError, RuntimeWarning):
        # What cannot be computed says so in the answer itself.
        return []


def _changed(document: ShotList, answers: list[ShotAnswer]) -> list[ChangedAnswer]:
    """The shots whose needs stayed, and whose answers did not: something of the equipment changed."""
    found: list[ChangedAnswer] = []
    for answer in answers:
        before, now = document.noted.get(answer["key"]), answer["noted"]
        if (
            before is None
            or before.asked != now["asked"]
            or (before.told, before.verdict) == (now["told"], now["verdict"])
        ):
            continue
        found.append({"key": answer["key"], "before": _told(before.verdict, before.told), "after": _told(now["verdict"], now["told"]),
                      "lost": before.verdict != "cannot" and now["verdict"] == "cannot"})  # fmt: skip
    return found


def _told(verdict: ShotVerdict, told: str) -> str:
    words = {
        "does": "",
        "depends": "not known: ",
        "nearly": "nearly: ",
        "cannot": "not: nearest is ",
        "open": "open",
    }
    return f"{words[verdict]}{told}"


def _answer(package: Package, settings: PackageSettings, shot: Shot) -> ShotAnswer:
    needs = needs_of(shot, package, settings)
    answer: ShotAnswer = {
        "key": shot.key,
        "verdict": "open",
        "faults": [{"field": fault.field, "rule": fault.rule} for fault in needs.faults],
        "best": None,
        "binds": "",
        "reasons": [],
        "runner_up": None,
        "runner_up_lacks": "",
        "changes": [],
        "warnings": [],
        "provided": [],
        "off_main": "",
        "pinned": None,
        "plan": None,
        "noted": {"verdict": "open", "told": "", "asked": ""},
    }
    if not needs.asks or needs.stands:
        answer["binds"] = needs.unread
        return answer
    try:
        judged = judge(package, settings, needs)
    except HextanError as error:
        # One shot that cannot be computed leaves the others alone.
        answer["binds"] = error.message
        return answer
    except RuntimeWarning as error:
        answer["binds"] = f"cannot be computed with these figures ({error}): this is a fault of Hextan's"
        return answer
    if judged is None or not judged.order:
        answer["binds"] = _nothing(package)
        return answer
    pinned = pinned_cell(judged, shot.pin) if shot.pin is not None else None
    chosen = chosen_cell(judged, shot)
    second = runner_up(judged, chosen)
    answer |= {
        "verdict": judged.verdict(chosen),
        "best": choice_of(judged, chosen),
        "binds": "; not judged: ".join(part for part in (binds_of(judged, chosen), needs.unread) if part),
        "reasons": reasons_of(judged, chosen),
        "runner_up": None if second is None else choice_of(judged, second),
        "runner_up_lacks": "" if second is None else judged.settled_by(chosen, second),
        "warnings": warnings_of(judged, chosen),
        "provided": judged.provided(chosen),
        "off_main": off_main_of(judged, chosen),
        "pinned": None if shot.pin is None else _against_best(judged, pinned, shot.pin),
        "plan": in_plan(judged, shot, chosen),
    }
    return answer


def _nothing(package: Package) -> str:
    if not package.bodies:
        return "There is no body yet: enter one, or take one from the catalogue."
    if not package.lenses:
        return "There is no lens yet: enter some, or take a set from the catalogue."
    return "No lens goes on any body: see what goes on what."


def _against_best(judged: Judged, pinned: int | None, pin: Pin) -> str:
    best = judged.order[0]
    if pinned is None:
        return f"{pin.lens} on {pin.body}, {pin.format}, which was pinned, is not in the package any more: this is what it is made with instead."
    if judged.at(pinned) == judged.at(best):
        return "Pinned, and the best."
    return f"Pinned. The best would be {with_what(judged, best)}: {judged.settled_by(best, pinned)}."


def _uses(names: Iterable[str]) -> list[Use]:
    return [{"name": name, "shots": count} for name, count in Counter(names).most_common()]


def _days(shots: list[Shot], answers: list[ShotAnswer]) -> list[DayOfShots]:
    """Each day and unit in the order of the list."""
    groups: dict[tuple[str, str], list[ShotAnswer]] = {}
    for shot, answer in zip(shots, answers, strict=True):
        groups.setdefault((shot.day.strip(), shot.unit.strip()), []).append(answer)
    return [
        _day(day, unit, found) for (day, unit), found in sorted(groups.items(), key=lambda g: day_order(g[0]))
    ]


def day_order(name: tuple[str, str]) -> tuple[Any, ...]:
    """Order days and units as people count them: 2 before 10, what has no name last."""
    return tuple((len(part) == 0, int(part) if part.isdigit() else 10**9, part) for part in name)


def _day(day: str, unit: str, answers: list[ShotAnswer]) -> DayOfShots:
    chosen = [answer["best"] for answer in answers if answer["best"] is not None]

    def changes(of: Any) -> int:
        return sum(of(a) != of(b) for a, b in pairwise(chosen))

    runs: list[Use] = [
        {"name": name, "shots": len(list(run))}
        for name, run in groupby(choice["lens_told"] for choice in chosen)
    ]
    return {
        "day": day,
        "unit": unit,
        "shots": len(answers),
        "lens_changes": changes(lambda c: c["lens_id"]),
        "format_changes": changes(lambda c: (c["body"], c["mode"], c["format"])),
        "body_changes": changes(lambda c: c["body"]),
        "runs": runs,
    }
