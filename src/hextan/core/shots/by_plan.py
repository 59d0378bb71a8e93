"""What a shot is made with: by hand, by the plan, or the best; and where that leaves the plan."""

from __future__ import annotations

from hashlib import sha256

from hextan.core.equipment import PlannedShot, ThePlan
from hextan.core.shots.answers import ShotInPlan
from hextan.core.shots.document import Shot
from hextan.core.shots.judge import Judged
from hextan.core.shots.pins import pinned_cell
from hextan.core.shots.told import with_what

#: What is said of a shot and changes nothing about its answer.
ASIDE = {"key", "name", "scene", "what", "day", "unit", "notes", "extra", "origins"}


def fingerprint(shot: Shot) -> str:
    """What tells whether a shot asks what it asked before."""
    return sha256(shot.model_dump_json(exclude=ASIDE).encode()).hexdigest()[:16]


def entry_of(judged: Judged, shot: Shot) -> PlannedShot | None:
    """What the plan says of a shot; None where there is no plan, or the shot is not in it."""
    plan = judged.cells.layout.package.plan
    return None if plan is None else plan.shots.get(shot.key)


def planned_cell(judged: Judged, shot: Shot) -> int | None:
    """The cell that the plan has for a shot; None where it has none, or its equipment is gone."""
    entry = entry_of(judged, shot)
    return None if entry is None or entry.made_with is None else pinned_cell(judged, entry.made_with)


def chosen_cell(judged: Judged, shot: Shot) -> int:
    """The cell that a shot is made with, of a judgement that has any.

    What was pinned by hand comes first. Then what the plan has: as it stands as long as the shot asks what it asked, and
    afterwards as long as nothing that is carried does more of it. Then the best of what is carried; the best of all
    where there is no plan.
    """
    pinned = None if shot.pin is None else pinned_cell(judged, shot.pin)
    if pinned is not None:
        return pinned
    best, planned, entry = judged.order_inside[0], planned_cell(judged, shot), entry_of(judged, shot)
    if planned is None or entry is None:
        return best
    stands = judged.verdict(planned)
    same = entry.asked == fingerprint(shot) and stands != "cannot"
    return planned if same or stands == judged.verdict(best) != "cannot" else best


def in_plan(judged: Judged, shot: Shot, chosen: int) -> ShotInPlan | None:
    """How what a shot is made with stands to the plan; None where there is none."""
    plan = judged.cells.layout.package.plan
    if plan is None:
        return None
    entry, planned = entry_of(judged, shot), planned_cell(judged, shot)
    missing = not_carried(judged, chosen, plan)
    words = "" if planned is None else with_what(judged, planned)
    if planned == chosen:
        best = judged.order[0]
        told = "" if best == chosen or shot.pin else _without_it(judged, best, chosen)
        return {"state": "as_planned", "told": told, "planned": words, "not_carried": missing}
    if entry is None:
        why = "Not in the plan: it came after it."
    elif entry.made_with is None:
        why = "The plan has nothing for it."
        if not missing and judged.verdict(chosen) != "cannot":
            # Two units work at the same time, or it comes on a later day.
            why += f" {with_what(judged, chosen)} does it, and is not free on that day."
    elif planned is None:
        pin = entry.made_with
        why = f"The plan has {pin.lens} on {pin.body}, {pin.format}, which is not in the package any more."
    elif shot.pin is not None:
        why = f"The plan has {with_what(judged, planned)}"
        why += (
            f" ({judged.settled_by(chosen, planned)})."
            if judged.missed[judged.at(planned)] > 0
            else ", which does it too."
        )
    else:
        same = entry.asked == fingerprint(shot)
        since = (
            "The plan does not do it any more: it has"
            if same
            else "Asked otherwise since the plan, which has"
        )
        why = f"{since} {with_what(judged, planned)} ({judged.settled_by(chosen, planned)})."
    if missing:
        why += f" Not carried: {', '.join(missing)}."
    elif (
        shot.pin is None
        and judged.verdict(chosen) == "cannot"
        and judged.missed[judged.at(judged.order[0])] == 0
    ):
        why += f" {with_what(judged, judged.order[0])} would do it, and is not carried."
    return {"state": "otherwise", "told": why, "planned": words, "not_carried": missing}


def _without_it(judged: Judged, best: int, chosen: int) -> str:
    return f"Without the plan it would be {with_what(judged, best)}: {judged.settled_by(best, chosen)}."


def not_carried(judged: Judged, k: int, plan: ThePlan) -> list[str]:
    """The things of a cell that the plan does not carry."""
    i, j = judged.at(k)
    layout = judged.cells.layout
    row, body = layout.rows[i], layout.places[j].body.name
    lacking = [] if plan.has("body", body) else [body]
    if not plan.has("lens", row.lens.name, row.lens_set.name):
        lacking.append(layout.package.lens_words(row.lens.name, row.lens_set.name))
    return lacking + [a.name for a in layout.way(i, j).adapters if not plan.has("adapter", a.name)]
