"""The report of a day: what was shot, what differed from the plan, lens changes, cards and minutes."""

from __future__ import annotations

from collections import defaultdict
from itertools import pairwise

from typing_extensions import TypedDict

from hextan.core.equipment import Package, PackageSettings
from hextan.core.record.clips import ClipsHeld, clips_held
from hextan.core.record.day import SetDay, TakeHeld, clips_of, logged_of, set_day
from hextan.core.record.document import Clip, Log, Take
from hextan.core.record.figures import found_of
from hextan.core.shots import ShotList


class CardUsed(TypedDict):
    """A card, or a roll. Minutes and gigabytes count takes whose length is known."""

    card: str
    takes: int
    minutes: float
    gb: float | None


class CameraDay(TypedDict):
    """One camera's day."""

    unit: str
    takes: int
    circled: int
    shots: int
    lens_changes: int
    lenses: list[str]
    minutes: float
    cards: list[CardUsed]


class Fault(TypedDict):
    """Something that differed from the plan."""

    unit: str
    told: str
    loud: bool


class DayReport(TypedDict):
    """A day."""

    day: SetDay
    cameras: list[CameraDay]
    faults: list[Fault]
    #: Where nothing differed, what that means: whether everything was compared, or something could not be.
    nothing_told: str
    clips: ClipsHeld
    #: Shots of the day without a take.
    not_shot: list[str]
    #: Entries that were changed, or removed, after they were written.
    corrected: list[str]


def day_report(
    package: Package,
    settings: PackageSettings,
    shots: ShotList,
    log: Log,
    day: str | None,
) -> DayReport:
    """Report on a day of the log."""
    shown = set_day(package, settings, shots, log, day)
    takes = [held["entry"] for held in shown["takes"]]
    clips = clips_of(log, shown["day"])
    held = clips_held(package, settings, shots, logged_of(log, shown["day"]), clips)
    lengths = _lengths(takes, clips, held)
    taken = {take.shot for take in takes}
    return {
        "day": shown,
        "cameras": [_camera(package, unit, takes, lengths) for unit in sorted({take.unit for take in takes})],
        "faults": (faults := [*_of_takes(shown["takes"]), *_of_clips(held)]),
        "nothing_told": "" if faults else _nothing(shown["takes"], held),
        "clips": held,
        "not_shot": [each["name"] for each in shown["shots"] if each["shot"] not in taken],
        "corrected": _corrected(log, shown["day"]),
    }


def _nothing(takes: list[TakeHeld], clips: ClipsHeld) -> str:
    """That nothing differed, as far as anything was looked at."""
    if not takes and not clips["clips"]:
        return "Nothing was logged, and no file was read: nothing was compared."
    if clips["unknown"]:
        return "Nothing of what could be compared."
    return "Nothing."


def _lengths(takes: list[Take], clips: list[Clip], held: ClipsHeld) -> dict[str, float]:
    """Seconds of each take, as far as anybody knows: as logged, or of its clips."""
    seconds = {clip.key: clip.facts.seconds or 0.0 for clip in clips}
    by_clips: dict[str, float] = defaultdict(float)
    for each in held["clips"]:
        if each["take"] is not None:
            by_clips[each["take"]] += seconds[each["key"]]
    return {
        take.key: take.seconds if take.seconds is not None else by_clips.get(take.key, 0.0) for take in takes
    }


def _camera(package: Package, unit: str, takes: list[Take], lengths: dict[str, float]) -> CameraDay:
    mine = [take for take in takes if take.unit == unit]
    lenses = [take.on.lens for take in mine if take.on.lens]
    cards: dict[str, list[Take]] = defaultdict(list)
    for take in mine:
        cards[take.on.card].append(take)
    return {
        "unit": unit,
        "takes": len(mine),
        "circled": sum(take.circled for take in mine),
        "shots": len({take.shot or take.shot_name for take in mine}),
        "lens_changes": sum(a != b for a, b in pairwise(lenses)),
        "lenses": list(dict.fromkeys(lenses)),
        "minutes": sum(lengths[take.key] for take in mine) / 60,
        "cards": [_card(package, name, of_card, lengths) for name, of_card in cards.items()],
    }


def _card(package: Package, name: str, takes: list[Take], lengths: dict[str, float]) -> CardUsed:
    total = 0.0
    for take in takes:
        here = found_of(package, take.on).here
        rate = None if here is None or not take.on.fps else here.recording.bytes_per_second(take.on.fps)
        total += lengths[take.key] * (rate or 0.0)
    return {
        "card": name,
        "takes": len(takes),
        "minutes": sum(lengths[take.key] for take in takes) / 60,
        "gb": total / 1e9 if total else None,
    }


def _of_takes(takes: list[TakeHeld]) -> list[Fault]:
    found: list[Fault] = []
    for each in takes:
        take = each["entry"]
        name = f"{take.shot_name or 'No shot'} take {take.take}, {each['clock']}"
        for d in each["held"]["differences"]:
            effects = "".join(f"; {effect}" for effect in d["effects"])
            told = f"{name}: {d['name']} {d['used']}, planned {d['planned']}{effects}."
            found.append({"unit": take.unit, "told": told, "loud": bool(d["headline"])})
        if each["double"]:
            found.append({"unit": take.unit, "told": f"{name}: {each['double']}", "loud": False})
    return found


def _of_clips(held: ClipsHeld) -> list[Fault]:
    found: list[Fault] = [{"unit": run["unit"], "told": run["told"], "loud": True} for run in held["runs"]]
    for clip in held["clips"]:
        for line in clip["against_log"]:
            found.append(
                {"unit": "", "told": f"{clip['name']} ({clip['take_told']}): {line}.", "loud": False}
            )
    return found


def _corrected(log: Log, day: str) -> list[str]:
    told = []
    for item in log.items:
        entry = item.entry
        if entry.day != day or not item.before or not isinstance(entry, Take):
            continue
        name = f"{entry.shot_name or 'No shot'} take {entry.take}"
        how = (
            "removed"
            if entry.removed
            else f"changed {len(item.before)} time{'s' if len(item.before) > 1 else ''}"
        )
        told.append(f"{name}: {how}, last by {entry.by or 'somebody'} at {entry.written_at[11:16]} UTC.")
    return told
