"""The steps from the best that costs least to dearer choices: each has to gain something that can be seen, and says why it does."""

from __future__ import annotations

import math

from hextan.core.base import distance_words, weight_words
from hextan.core.equipment import PackageSettings
from hextan.core.packing import money
from hextan.core.worth.answers import WorthPart, WorthReason, WorthStep
from hextan.core.worth.ask import RankedBy, WorthAsk
from hextan.core.worth.candidates import Candidate

#: Gains below these are not called steps, per cent (common practice, no source).
LEAST_GAIN: dict[RankedBy, float] = {"blur": 10.0, "field": 1.0, "weight": 5.0}
#: Parts of a gain that are nearer to nothing are not told, per cent.
_UNTOLD_PERCENT = 0.5
#: As rounded from a camera that was moved: less is the same place.
_SAME_PLACE_M = 0.05


def gain(before: Candidate, after: Candidate, by: RankedBy, ask: WorthAsk) -> float:
    """How much one choice gains over another in what they are ranked by: in per cent.

    For a price there is nothing to gain but the look.
    """
    if by == "field":
        return before.off_percent - after.off_percent
    if by == "weight":
        heavy, light = before.weight_kg, after.weight_kg
        return -math.inf if heavy is None or light is None else 100 * (1 - light / heavy)
    ratio = after.blur / before.blur
    return 100 * ((1 / ratio if ask.look == "deep" else ratio) - 1)


def stepped_by(ask: WorthAsk) -> RankedBy:
    """What a step has to gain: the look, where choices are ranked by their price."""
    return "blur" if ask.ranked_by == "price" else ask.ranked_by


def stairs(found: list[Candidate], ask: WorthAsk) -> list[Candidate]:
    """The best that costs least, and then always the cheapest that gains something that can be seen.

    What has no price is on no step, and what only nearly frames as wanted on none where something does.
    """
    by = stepped_by(ask)
    known = [each for each in found if each.cost is not None]
    known = [each for each in known if each.verdict != "nearly"] or known
    # The sort is stable: of what is alike, the one that stands first in the ranking.
    known.sort(key=lambda each: (each.figures["price"], each.figure(by, ask)))
    steps: list[Candidate] = []
    for each in known:
        if not steps:
            steps.append(each)
        elif each.cost == steps[-1].cost:
            continue
        elif gain(steps[-1], each, by, ask) >= LEAST_GAIN[by]:
            steps.append(each)
    return steps


def why_softer(
    before: Candidate, after: Candidate, ask: WorthAsk, settings: PackageSettings
) -> list[WorthReason]:
    """Why the blur of one choice differs from another's: parts that multiply to the whole.

    Notes
    -----
    A disc of f m (b/(z+b))/N over the width W of the picture is, with the field W/m, f (b/(z+b))/(N field): from one choice
    to another the sensor acts through the focal length that frames alike, and through nothing else.
    """
    focal = after.focal_mm / before.focal_mm
    stop = before.f_number / after.f_number
    field = before.field_mm / after.field_mm
    moved = abs(after.distance_m - before.distance_m) >= _SAME_PLACE_M
    there, here = (distance_words(each.distance_m, settings.unit) for each in (after, before))
    place = f"from {there} instead of {here}" if moved else "from the same place"
    every: list[WorthReason] = [
        _reason("focal length", f"{after.focal_mm:.3g} mm for {before.focal_mm:.3g} mm, {place}", focal),
        _reason("stop", f"f/{after.f_number:.3g} for f/{before.f_number:.3g}", stop),
        _reason("field", f"framed {'tighter' if field > 1 else 'wider'}", field),
        _reason("distance", "the light behind, as it stands from there", after.away(ask) / before.away(ask)),
    ]
    return [reason for reason in every if abs(reason["percent"]) >= _UNTOLD_PERCENT]


def _reason(name: WorthPart, told: str, ratio: float) -> WorthReason:
    return {"name": name, "told": told, "percent": 100 * (ratio - 1)}


def steps_of(
    found: list[Candidate], ask: WorthAsk, settings: PackageSettings, currency: str
) -> list[WorthStep]:
    """Tell the steps, the cheapest first."""
    steps = stairs(found, ask)
    return [_step(steps[s - 1] if s else None, each, ask, settings, currency) for s, each in enumerate(steps)]


def _step(
    before: Candidate | None, each: Candidate, ask: WorthAsk, settings: PackageSettings, currency: str
) -> WorthStep:
    assert each.cost is not None
    if before is None or before.cost is None:
        told = f"{each.name}: {_price(each, currency)}."
        return {"key": each.key, "told": told, "cost": each.cost, "more": 0.0, "softer_percent": None, "heavier_percent": None,
                "nearer_percent": None, "each_percent": None, "why": [], "viewfinder": None}  # fmt: skip
    more, by = each.cost - before.cost, stepped_by(ask)
    kilos = None if each.weight_kg is None or before.weight_kg is None else each.weight_kg - before.weight_kg
    gained = gain(before, each, by, ask)
    return {
        "key": each.key,
        "told": f"{each.name}: {_gains(before, each, kilos, settings)}; {money(more, currency)} more.",
        "cost": each.cost,
        "more": more,
        "softer_percent": 100 * (each.blur / before.blur - 1),
        "heavier_percent": None if kilos is None or not before.weight_kg else 100 * kilos / before.weight_kg,
        "nearer_percent": before.off_percent - each.off_percent,
        "each_percent": more / gained,
        "why": why_softer(before, each, ask, settings),
        "viewfinder": None,
    }


def _price(each: Candidate, currency: str) -> str:
    if each.have == "own":
        return "costs nothing, all of it is owned"
    if not each.cost:
        return "costs nothing more, the plan carries it" if each.have == "planned" else "costs nothing"
    return f"the least, {money(each.cost or 0.0, currency)}"


def framed_words(each: Candidate) -> str:
    """How its field stands to what is wanted."""
    if each.off_percent < _UNTOLD_PERCENT:
        return "framed as wanted"
    return f"framed {each.off_percent:.0f} % {'wider' if each.percent > 0 else 'tighter'} than wanted"


def _gains(before: Candidate, after: Candidate, kilos: float | None, settings: PackageSettings) -> str:
    percent = 100 * (after.blur / before.blur - 1)
    words = [f"{abs(percent):.0f} % {'softer' if percent > 0 else 'less soft'}"]
    if abs(before.percent - after.percent) >= LEAST_GAIN["field"]:
        words.append(framed_words(after))
    if kilos is not None and abs(kilos) >= 0.05:
        words.append(f"{weight_words(abs(kilos), settings.unit)} {'heavier' if kilos > 0 else 'lighter'}")
    return ", ".join(words)
