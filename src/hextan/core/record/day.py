"""A day of the log: its shots by the plan, what was really shot of them, and what is on each camera now."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping
from types import MappingProxyType

import numpy as np
from typing_extensions import TypedDict

from hextan.core.equipment import Body, LensSetting, Package, PackageSettings, simplest
from hextan.core.light import nd_choices
from hextan.core.record.differences import Held, held_against
from hextan.core.record.document import Booking, Clip, Log, LogItem, OnCamera, Take, Written
from hextan.core.record.planned import Picture, Planned, picture_told, planned_of
from hextan.core.shots import Shot, ShotList, day_order

#: Of a list that is chosen from on the page of the set: ND up to so many stops.
_MOST_ND = 10.0
_KEPT = "held takes"


class TakeHeld(TypedDict):
    """A take, and how it agrees with the plan."""

    entry: Take
    revision: int
    #: As it stood before, the oldest first.
    before: list[Take]
    #: By the clock of whoever wrote it.
    clock: str
    held: Held
    #: Where another take goes by the same number.
    double: str


class LensOption(TypedDict):
    """A lens that goes on a body the simplest way."""

    id: int
    name: str
    lens_set: str
    #: Numbers on the lenses of that name, where there are several.
    serials: list[str]
    adapters: list[str]
    adapter_ids: list[int]
    #: Whether a camera can be told by it what it is: without contacts somebody has to write it down.
    contacts: bool
    marks: str
    #: Ends of a zoom; alike on a prime.
    short_mm: float
    long_mm: float
    close_m: float | None
    stops: list[float]


class FormatOption(TypedDict):
    """A recording format of a body."""

    id: int
    name: str
    mode: str
    menu: str | None
    rates: list[str]


class BodyOption(TypedDict):
    """All that can be on a body."""

    name: str
    formats: list[FormatOption]
    lenses: list[LensOption]
    crops: list[str]
    crop_ids: list[int]
    eis: list[int]
    nd_stops: list[float]


class CameraNow(TypedDict):
    """What was last said to be on a camera."""

    unit: str
    on: OnCamera
    clock: str
    by: str
    #: Whether it is a take, or what was booked.
    kind: str
    #: The shot for which it was said.
    shot: str | None


class AdapterOption(TypedDict):
    """An adapter of the package."""

    id: int
    name: str


class DayName(TypedDict):
    """A day of the list of shots, and which cameras shoot on it."""

    day: str
    units: list[str]


class PlanMade(TypedDict):
    """The plan by its name, and its moment, UTC."""

    name: str
    made_at: str


class SetDay(TypedDict):
    """All that the page of the set reads of a day."""

    day: str
    days: list[DayName]
    shots: list[Planned]
    takes: list[TakeHeld]
    cameras: list[CameraNow]
    bodies: list[BodyOption]
    adapters: list[AdapterOption]
    #: What is delivered where no shot says otherwise.
    picture: Picture
    #: The plan that the shots follow, and when it was made; None where there is none.
    plan: PlanMade | None


def clock_of(entry: Written) -> str:
    """The time of an entry by its writer's clock.

    >>> from hextan.core.record.document import Booking
    >>> clock_of(Booking(key="k", at="2026-05-18T12:12:30Z", offset_min=120, written_at="2026-05-18T12:12:30Z"))
    '14:12'
    """
    return str(local_of(entry))[11:16]


def local_of(entry: Written) -> np.datetime64:
    """The moment of an entry by its writer's clock."""
    return np.datetime64(entry.at.rstrip("Z"), "ms") + np.timedelta64(entry.offset_min, "m")


def moment(entry: Written) -> np.datetime64:
    """The moment of an entry, UTC."""
    return np.datetime64(entry.at.rstrip("Z"), "ms")


def takes_of(log: Log, day: str | None = None) -> list[LogItem]:
    """Takes that are not removed, in the order in which they were shot."""
    found = [item for item in log.items if isinstance(item.entry, Take) and not item.entry.removed]
    return sorted((i for i in found if day is None or i.entry.day == day), key=lambda i: moment(i.entry))


def logged_of(log: Log, day: str) -> list[Take | Booking]:
    """Takes and bookings of a day that are not removed."""
    found = (item.entry for item in log.items if isinstance(item.entry, Take | Booking))
    return [entry for entry in found if entry.day == day and not entry.removed]


def days_of(shots: ShotList, log: Log) -> list[DayName]:
    """Every day of the list and of the log with its cameras, in order."""
    units: dict[str, set[str]] = defaultdict(set)
    for shot in shots.shots:
        units[shot.day.strip()].add(shot.unit.strip())
    for item in takes_of(log):
        units[item.entry.day].add(item.entry.unit)
    ordered = sorted(units, key=lambda day: day_order((day, "")))
    return [{"day": day, "units": sorted(unit for unit in units[day] if unit)} for day in ordered]


def held_take(package: Package, settings: PackageSettings, shot: Shot | None, used: OnCamera) -> Held:
    """As `held_against`, kept with the package."""
    kept: dict[tuple[str, ...], Held] = package.worked_out.setdefault(_KEPT, {})
    key = (
        "" if shot is None else shot.model_dump_json(),
        settings.model_dump_json(),
        used.model_dump_json(),
    )
    if key not in kept:
        if len(kept) > 4000:
            kept.clear()
        kept[key] = held_against(package, settings, shot, used)
    return kept[key]


def set_day(
    package: Package,
    settings: PackageSettings,
    shots: ShotList,
    log: Log,
    day: str | None,
    serials: Mapping[tuple[str, str], list[str]] = MappingProxyType({}),
) -> SetDay:
    """Gather a day: the one that is named, or the first.

    Parameters
    ----------
    log : all of it: what is on a camera may have been booked the day before
    serials : numbers on lenses, by set and name
    """
    days = days_of(shots, log)
    if day is None:
        day = days[0]["day"] if days else ""
    by_key = {shot.key: shot for shot in shots.shots}
    planned = [planned_of(package, settings, shot) for shot in shots.shots if shot.day.strip() == day]
    takes = takes_of(log, day)
    doubled = doubles(takes)
    return {
        "day": day,
        "days": days,
        "shots": planned,
        "takes": [
            {
                "entry": item.entry,
                "revision": item.revision,
                "before": [each for each in item.before if isinstance(each, Take)],
                "clock": clock_of(item.entry),
                "held": held_take(package, settings, by_key.get(item.entry.shot or ""), item.entry.on),
                "double": doubled.get(item.entry.key, ""),
            }
            for item in takes
            if isinstance(item.entry, Take)
        ],
        "cameras": cameras_now(log),
        "bodies": [_body_option(package, body, serials) for body in package.bodies],
        "adapters": [{"id": adapter.id, "name": adapter.name} for adapter in package.adapters],
        "picture": picture_told(settings),
        "plan": None
        if package.plan is None
        else {"name": package.plan.name, "made_at": package.plan.made_at or ""},
    }


def doubles(takes: Iterable[LogItem]) -> dict[str, str]:
    """By key: takes that go by the same number of the same shot on the same camera, in words."""
    groups: dict[tuple[str, str, int], list[Take]] = defaultdict(list)
    for item in takes:
        take = item.entry
        if isinstance(take, Take) and (take.shot or take.shot_name):
            groups[take.shot or take.shot_name, take.unit, take.take].append(take)
    told = {}
    for same in groups.values():
        if len(same) < 2:
            continue
        for take in same:
            others = ", ".join(f"{o.by or 'somebody'} at {clock_of(o)}" for o in same if o.key != take.key)
            told[take.key] = (
                f"Take {take.take} of {take.shot_name} is also logged by {others}: give one of them another number, or remove it."
            )
    return told


def cameras_now(log: Log) -> list[CameraNow]:
    """What was last booked, or shot with, on each camera."""
    last: dict[str, Take | Booking] = {}
    for item in log.items:
        entry = item.entry
        if not isinstance(entry, Take | Booking) or entry.removed:
            continue
        if entry.unit not in last or moment(last[entry.unit]) <= moment(entry):
            last[entry.unit] = entry
    return [
        {"unit": unit, "on": e.on, "clock": clock_of(e), "by": e.by, "kind": e.kind, "shot": e.shot}
        for unit, e in sorted(last.items())
    ]  # fmt: skip


def clips_of(log: Log, day: str | None = None) -> list[Clip]:
    """Clips that are not removed, by the time at which they were shot."""
    found = [i.entry for i in log.items if isinstance(i.entry, Clip) and not i.entry.removed]
    return sorted(
        (c for c in found if day is None or c.day == day), key=lambda c: (c.facts.at or c.at, c.facts.name)
    )


def _body_option(package: Package, body: Body, serials: Mapping[tuple[str, str], list[str]]) -> BodyOption:
    lenses: list[LensOption] = []
    for lens_set, lens in package.lenses.values():
        way = simplest(package.rig, lens, body)
        if way is None:
            continue
        setting = LensSetting(package.rig, lens, way.adapters)
        lenses.append(
            {
                "id": lens.id,
                "name": lens.name,
                "lens_set": lens_set.name,
                "serials": serials.get((lens_set.name, lens.name), []),
                "adapters": [adapter.name for adapter in way.adapters],
                "adapter_ids": list(way.key),
                "contacts": bool(lens.data_link) and all(a.passes_data for a in way.adapters),
                "marks": setting.marks,
                "short_mm": lens.focal_min_mm,
                "long_mm": lens.focal_max_mm,
                "close_m": lens.close_focus_m,
                "stops": setting.stops,
            }
        )
    return {
        "name": body.name,
        "formats": [
            {
                "id": here.recording.id,
                "name": here.recording.name,
                "mode": here.mode.name,
                "menu": here.mode.menu.told,
                "rates": here.recording.rates.texts(),
            }
            for here in body.places
        ],
        "lenses": lenses,
        "crops": [crop.name for crop in body.crops],
        "crop_ids": [crop.id for crop in body.crops],
        "eis": list(body.eis or body.base_eis),
        "nd_stops": [c.stops for c in nd_choices(body.nd_stops, package.filters) if c.stops <= _MOST_ND],
    }
