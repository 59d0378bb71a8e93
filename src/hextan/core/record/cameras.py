"""Cameras that speak: each held against the plan of what it shoots, and the stop that keeps one matched to another."""

from __future__ import annotations

from typing_extensions import TypedDict

from hextan.core.base import HextanError, stops_words
from hextan.core.compare import match_stop
from hextan.core.equipment import Package, PackageSettings
from hextan.core.record.day import held_take
from hextan.core.record.differences import Held
from hextan.core.record.document import OnCamera
from hextan.core.record.figures import state_of
from hextan.core.record.heard import Heard, on_camera
from hextan.core.record.planned import on_by_plan, picture_of
from hextan.core.shots import Shot, needs_of

#: Farther off than this in depth, stops, no stop keeps a match.
WORTH_STOPS = 0.5


class LiveHeld(TypedDict):
    """What a camera says, held against the plan."""

    on: OnCamera
    #: What it says and cannot be placed.
    notes: list[str]
    held: Held


def live_held(
    package: Package,
    settings: PackageSettings,
    shot: Shot | None,
    body: str,
    heard: Heard,
    last: OnCamera | None,
) -> LiveHeld:
    """Hold what a camera says now against the plan of the shot that it is on.

    Parameters
    ----------
    body : which body speaks
    last : what was last booked on it; what it does not say is taken from there, else from the plan
    """
    planned = None if shot is None else on_by_plan(package, settings, shot)
    on, notes = on_camera(package, body, heard, planned, last)
    if last is None and planned is not None and planned.body == body:
        # Nobody said what the camera cannot say: a lens without contacts, ND before it.
        update: dict[str, object] = {"nd_stops": planned.nd_stops} if on.nd_stops is None else {}
        if not on.lens and heard.lens is None:
            names = ("lens", "lens_set", "adapters", "focal_mm")
            update |= {name: getattr(planned, name) for name in names}
        on = on.model_copy(update=update)
    if planned is not None and on.lens == planned.lens and not on.lens_set:
        # A camera says the name of its lens, and no set: of several of that name the planned one is meant.
        on = on.model_copy(update={"lens_set": planned.lens_set})
    return {"on": on, "notes": notes, "held": held_take(package, settings, shot, on)}


def said_against(live: LiveHeld, planned: OnCamera | None) -> list[str]:
    """What a camera says otherwise than planned, each line with the code of the difference first."""
    lines = [
        f"{d['code']}: {d['headline'] or d['name'] + ' ' + d['used']}" for d in live["held"]["differences"]
    ]
    if planned is not None and live["on"].format not in ("", planned.format):
        # With another scan mode the recording is another as well: the checklist has a point of its own for it.
        lines.append(f"recording: RECORDS {live['on'].format}, planned {planned.format}")
    return lines


class KeptMatch(TypedDict):
    """The stop of a camera that keeps it matched to another."""

    unit: str
    to: str
    stop: float
    marks: str
    told: str


def kept_match(
    package: Package,
    settings: PackageSettings,
    first: tuple[str, OnCamera, Shot | None],
    other: tuple[str, OnCamera, Shot | None],
) -> KeptMatch | None:
    """Tell the stop that gives one camera the depth of the other; None where it cannot be told, or is the one that is set.

    Parameters
    ----------
    first, other : unit, what is on it, and the shot that it is on
    """
    reference = package.reference
    states = []
    for _, on, shot in (first, other):
        needs = None if shot is None else needs_of(shot, package, settings)
        state = state_of(package, on, picture_of(settings, needs), reference)
        if state is None or on.stop is None:
            return None
        states.append(state)
    try:
        found = match_stop(package, *states)
    except HextanError:
        return None
    if found is None:
        return None
    left = (
        ""
        if abs(found["depth_stops"]) <= 1 / 6
        else f", {stops_words(found['depth_stops'])} {'deeper' if found['depth_stops'] > 0 else 'shallower'}"
    )
    light = abs(found["brighter_stops"])
    bright = (
        ""
        if light <= 1 / 6
        else f", {stops_words(light)} {'brighter' if found['brighter_stops'] > 0 else 'darker'} than {first[0]} as it is set"
    )
    mark = f"{found['marks']}{found['stop']:.3g}"
    if abs(found["depth_stops"]) > WORTH_STOPS:
        told = f"No stop of {other[1].lens} keeps the depth of camera {first[0]}: {mark} comes nearest{left}{bright}."
    elif other[1].stop is not None and abs(found["stop"] / other[1].stop - 1) < 0.03:
        told = f"As deep as camera {first[0]}{left}{bright}."
    else:
        told = f"{mark} keeps the depth of camera {first[0]}{left}{bright}."
    return {
        "unit": other[0],
        "to": first[0],
        "stop": found["stop"],
        "marks": found["marks"],
        "told": told,
    }
