"""The answer: choices ranked, what beats what, the steps upwards, and what nobody stated."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable
from dataclasses import replace

from hextan.core.base import HextanError
from hextan.core.bench import Scene
from hextan.core.equipment import Package, PackageSettings, needs_words
from hextan.core.packing import Packing, money, plural, things_of
from hextan.core.shots import (
    Judged,
    Needs,
    ShotList,
    binds_of,
    choice_of,
    judge,
    needs_of,
    package_with,
    pictures_of_shots,
    pin_of,
    with_what,
)
from hextan.core.worth.answers import Having, Worth, WorthRow
from hextan.core.worth.ask import WorthAsk
from hextan.core.worth.candidates import ALIKE_BLUR, ALIKE_PERCENT, HAVINGS, Candidate, candidates
from hextan.core.worth.steps import LEAST_GAIN, stairs, stepped_by, steps_of

#: Nearer to one another, two weights are alike.
_ALIKE_WEIGHT = 0.01


def worth_of(
    package: Package,
    catalogue: Package,
    settings: PackageSettings,
    shots: ShotList,
    packing: Packing,
    scene: Scene,
    ask: WorthAsk,
) -> Worth:
    """Rank everything that does a shot by what it gives and costs.

    Parameters
    ----------
    catalogue : what could be hired besides
    scene : in which the steps are drawn
    shots : whose days are the days of hire where packing names none

    Returns
    -------
    ``rows`` (the best first by ``ask.ranked_by``), ``steps`` (from the best that costs least upwards), ``told`` (what was found, or why
    there is nothing), and things without a price.
    """
    whole = replace(package_with(package, catalogue) if ask.catalogue else package, plan=None)
    days = len({shot.day.strip() for shot in shots.shots if shot.day.strip()})
    things = things_of(whole, packing, days)
    shot = ask.shot.model_copy(update={"pin": None})
    needs = needs_of(shot, whole, settings)
    answer: Worth = {
        "faults": [{"field": fault.field, "rule": fault.rule} for fault in needs.faults],
        "told": [], "rows": [], "found": 0, "counts": {}, "steps": [],
        "hire_days": things.hire_days, "currency": packing.currency, "unpriced": [],
    }  # fmt: skip
    judged = _judged(whole, settings, needs, answer)
    if judged is None:
        return answer
    found, squeezed = _as_looked_at(candidates(judged, things, ask, package.plan), needs)
    if not found:
        nearest = judged.order[0]
        answer["told"] = [
            f"Nothing does it: {with_what(judged, nearest)} comes nearest: {binds_of(judged, nearest)}."
        ]
        return answer
    # The sort is stable: what is alike stays in the order of the judgement.
    found.sort(key=lambda each: each.place(ask))
    answer |= _answered(found, settings, ask, answer)
    if squeezed:
        answer["told"].append(
            f"{plural(squeezed, 'choice')} with squeezed lenses left out: another look, and the shot asks for none."
        )
    pinned = [
        shot.model_copy(update={"key": step["key"], "pin": pin_of(judged, each.cell)})
        for step, each in zip(answer["steps"], stairs(found, ask), strict=True)
    ]
    for step, drawn in zip(answer["steps"], pictures_of_shots(whole, settings, pinned, scene), strict=True):
        step["viewfinder"] = drawn["viewfinder"]
    return answer


def _judged(package: Package, settings: PackageSettings, needs: Needs, answer: Worth) -> Judged | None:
    """Judge the shot; or say why it cannot be, and give None."""
    if needs.stands or (needs.wanted is None and needs.faults):
        answer["told"] = [f"Not judged: {needs.unread}."]
    elif needs.wanted is None:
        answer["told"] = ["Say what is framed: what a look is worth is asked at one framing."]
    else:
        try:
            judged = judge(package, settings, needs)
        except HextanError as error:
            answer["told"] = [error.message]
            return None
        if judged is not None and judged.order:
            return judged
        answer["told"] = ["No lens goes on any body: enter some, or look in the catalogue as well."]
    return None


def _as_looked_at(found: list[Candidate], needs: Needs) -> tuple[list[Candidate], int]:
    """Leave squeezed lenses out where no squeeze is asked for and others do it; and say how many those are."""
    plain = [each for each in found if each.squeeze == 1.0]
    if needs.squeeze is not None or not plain:
        return found, 0
    return plain, len(found) - len(plain)


def _answered(found: list[Candidate], settings: PackageSettings, ask: WorthAsk, answer: Worth) -> Worth:
    currency = answer["currency"]
    steps = steps_of(found, ask, settings, currency)
    climbed = stairs(found, ask)
    base = climbed[0] if climbed else None
    shown = found[: ask.most]
    # Every step stands among the rows.
    shown += [each for each in climbed if each not in shown]
    beats = beaten_by(found, ask)
    unpriced = list(
        dict.fromkeys(part.thing.name for each in found for part in each.parts if part.have == "unknown")
    )
    answer["steps"] = steps
    answer |= {
        "told": _told(found, climbed, ask, answer, unpriced),
        "rows": [_row(each, base, beats.get(each.key)) for each in shown],
        "found": len(found),
        "counts": dict(Counter(each.have for each in found)),
        "unpriced": unpriced,
    }
    return answer


def _row(each: Candidate, base: Candidate | None, beaten: Candidate | None) -> WorthRow:
    judged = each.judged
    i, j = judged.at(each.cell)
    layout = judged.cells.layout
    package, here = layout.package, layout.places[j]
    return {
        "key": each.key,
        "verdict": each.verdict,
        "choice": choice_of(judged, each.cell),
        "things": [part.told for part in each.parts],
        "have": each.have,
        "cost": each.cost,
        "weight_kg": each.weight_kg,
        "blur_percent": 100 * each.blur,
        "squeeze": each.squeeze,
        "softer_percent": None if base is None or base is each else 100 * (each.blur / base.blur - 1),
        "beaten_by": "" if beaten is None else beaten.name,
        "notes": [
            *judged.provided(each.cell),
            *package.rig.notes_on(layout.rows[i].lens.name, here.body.name),
            *needs_words(here, package.carried),
        ],
    }


def beaten_by(found: list[Candidate], ask: WorthAsk) -> dict[str, Candidate]:
    """Which choices another one is at least as good as in all four figures, and better in one.

    Figures are held against one another in the steps in which they are alike; what is not known beats nothing, and nothing beats it.
    """
    known = [
        (each, _coarse(each, ask)) for each in found if each.cost is not None and each.weight_kg is not None
    ]
    # Whoever is told what is better is told the plainest of it.
    plainest = sorted(known, key=lambda pair: (len(pair[0].parts), pair[0].figures["price"]))
    best: dict[str, Candidate] = {}
    for each, mine in known:
        for other, theirs in plainest:
            if theirs != mine and all(t <= m for t, m in zip(theirs, mine, strict=True)):
                best[each.key] = other
                break
    return best


def _coarse(each: Candidate, ask: WorthAsk) -> tuple[float, ...]:
    """Its four figures in steps within which two are alike; the less, the better."""
    look = -1 if ask.look == "soft" else 1
    return (
        look * round(math.log(max(each.blur, 1e-12)) / math.log(1 + ALIKE_BLUR)),
        round(each.off_percent / ALIKE_PERCENT),
        round(math.log(each.figures["weight"]) / math.log(1 + _ALIKE_WEIGHT)),
        each.figures["price"],
    )


def _told(
    found: list[Candidate], climbed: list[Candidate], ask: WorthAsk, answer: Worth, unpriced: list[str]
) -> list[str]:
    """What was found, in sentences."""
    counts = Counter(each.have for each in found)
    parts = [
        f"{'all' if counts[have] == len(found) else counts[have]} {_HAVE_WORDS[have]}"
        for have in HAVINGS
        if counts[have]
    ]
    days = f" ({plural(answer['hire_days'], 'day')} of hire)" if counts["hire"] else ""
    told = [f"{plural(len(found), 'choice')}, {', '.join(parts)}{days}."]
    if not climbed:
        return [*told, "None has a price, so that no step can be told."]
    if found[0].judged.cells.free:
        told.append(
            "Nothing says where the camera stands, and from farther a longer lens is always softer: say a distance or a room."
        )
    first, last = answer["steps"][0], answer["steps"][-1]
    gains = [step for step in answer["steps"] if step["each_percent"] is not None]
    if gains:
        most = min(gains, key=lambda step: step["each_percent"] or 0.0)
        name = next(each.name for each in climbed if each.key == most["key"])
        told.append(
            f"The most for the money: {name}, {money(most['each_percent'] or 0.0, answer['currency'])} for each per cent."
        )
    top = climbed[-1].name
    told.append(
        f"Nothing dearer than {top} is {_least(ask)}."
        if last is not first
        else f"Nothing dearer than {top} is {_least(ask)}: it is the best for the money."
    )
    if counts["unknown"]:
        told.append(f"No price is stated of {_few(unpriced)}: what needs one of them stands on no step.")
    return told


_HAVE_WORDS: dict[Having, str] = {
    "own": "owned",
    "planned": "in the plan already",
    "hire": "with something hired",
    "buy": "with something bought",
    "unknown": "without a price",
}


def _least(ask: WorthAsk) -> str:
    """What the next step would have to be."""
    by = stepped_by(ask)
    softer = "softer" if ask.look == "soft" else "sharper behind"
    words = {"blur": softer, "field": "nearer to the wanted field", "weight": "lighter"}
    return f"{LEAST_GAIN[by]:g} % {words[by]}"


def _few(names: Iterable[str], most: int = 4) -> str:
    listed = list(names)
    more = f" and {len(listed) - most} more" if len(listed) > most else ""
    return ", ".join(listed[:most]) + more
