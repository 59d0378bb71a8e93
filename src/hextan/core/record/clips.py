"""Clips and stills against the plan: which recording format each fits, to which take it belongs, and what differs since when.

1. A format fits by the raster of the file, its rate and what is known of its codec. Several scan modes may write the
   same raster: then the log decides among them; where it names none of them, the raster is told and no mode.
2. A take is found by the name of the clip, by the time code, or by the time; what finds two finds none.
3. What the file says of lens, stop, EI and shutter counts before the log; what it does not say is taken from the log.
"""

from __future__ import annotations

import json
import re
from collections.abc import Iterable
from hashlib import sha256
from itertools import groupby

import numpy as np
from typing_extensions import TypedDict

from hextan.core.equipment import FormatInPackage, Package, PackageSettings
from hextan.core.evaluation import columns_of
from hextan.core.record.day import held_take, moment
from hextan.core.record.differences import Difference
from hextan.core.record.document import Clip, ClipFacts, OnCamera, Take
from hextan.core.record.planned import on_by_plan
from hextan.core.shots import Shot, ShotList

#: A take is logged so long before its clip begins, or after it ends, at most; seconds (common practice, no source).
BEFORE_S, AFTER_S = 60.0, 600.0
_SAME_RATE = 2e-4
#: Millimetres that a file tells of what was read, share.
_SAME_SIZE = 0.01


def clip_key(facts: ClipFacts, unit: str) -> str:
    """A key that a clip has again whenever it is read again: nothing is listed twice.

    >>> clip_key(ClipFacts(name="a.mov"), "A") == clip_key(ClipFacts(name="a.mov", codec="raw"), "A")
    True
    """
    told = json.dumps([unit, facts.name, facts.bytes, facts.timecode, facts.at])
    return f"clip-{sha256(told.encode()).hexdigest()[:32]}"


class ClipHeld(TypedDict):
    """A clip, what it is of, and how it agrees with the plan."""

    key: str
    name: str
    facts: ClipFacts
    clock: str
    #: Recording formats that it fits, as body and format; the one that is taken stands first.
    fits: list[str]
    #: Why none, or why several.
    fit_told: str
    take: str | None
    take_told: str
    #: How the take was found; empty where none was.
    found_by: str
    differences: list[Difference]
    #: Where the file says something else than the log.
    against_log: list[str]


class Run(TypedDict):
    """Clips one after another with the same fault."""

    unit: str
    code: str
    headline: str
    told: str
    clips: int


class ClipsHeld(TypedDict):
    """All clips of a day, and what runs through several of them."""

    clips: list[ClipHeld]
    runs: list[Run]


def fitting(package: Package, facts: ClipFacts) -> tuple[list[FormatInPackage], str]:
    """Recording formats that could have written a file, and what is to be said of them."""
    if facts.raster is None:
        return [], "The file does not say its raster."
    places = list(package.formats.values())
    if facts.body and any(p.body.name == facts.body for p in places):
        places = [p for p in places if p.body.name == facts.body]
    wide, high = facts.raster
    fit = [p for p in places if tuple(p.recording.raster) == (wide, high)]
    if not fit:
        near = min(
            places,
            key=lambda p: abs(p.recording.raster[0] - wide) + abs(p.recording.raster[1] - high),
            default=None,
        )
        told = f"No recording format writes {wide} × {high}"
        return (
            [],
            f"{told}; nearest is {_name(near)} with {near.recording.raster[0]} × {near.recording.raster[1]}."
            if near
            else f"{told}.",
        )
    notes: list[str] = []
    for words, keep in (
        (f"at {facts.fps:.5g} fps" if facts.fps else "", lambda p: facts.fps is None or p.recording.rates.offers(facts.fps)),
        ("interlaced" if facts.interlaced else "progressive", lambda p: facts.interlaced is None or p.recording.interlaced == facts.interlaced),
        (f"with {facts.bits} bit", lambda p: facts.bits is None or p.recording.bits in (None, facts.bits)),
        (f"as {facts.codec}", lambda p: _codec_fits(facts.codec, p.recording.codec)),
    ):  # fmt: skip
        kept = [p for p in fit if keep(p)]
        if kept:
            fit = kept
        elif words:
            notes.append(f"none of {wide} × {high} is {words}")
    if facts.read_mm is not None:
        c = columns_of([p.as_request() for p in fit], 1.0)
        kept = [
            p for i, p in enumerate(fit) if abs(float(c.recorded_w[i]) / facts.read_mm[0] - 1) <= _SAME_SIZE
        ]
        if kept:
            fit = kept
        else:
            notes.append(f"none of them reads {facts.read_mm[0]:.2f} mm: an in-camera crop may be on")
    modes = dict.fromkeys(f"{p.mode.name} of {p.body.name}" for p in fit)
    if len(modes) > 1 and len({p.body.name for p in fit}) == 1:
        notes.append(f"the file alone does not tell {' from '.join(p.split(' of ')[0] for p in modes)}")
    text = "; ".join(notes)
    return fit, f"{text[0].upper()}{text[1:]}." if text else ""


def _name(here: FormatInPackage) -> str:
    return f"{here.recording.name} of {here.body.name}"


def _codec_fits(said: str, stated: str) -> bool:
    """Words that a file and a format have in common: intra or long, raw, 4:2:2."""
    wanted = set(re.findall(r"intra|long|raw|4:\d:\d", said.lower()))
    has = set(re.findall(r"intra|long|raw|4:\d:\d", stated.lower()))
    kinds, samples = {"intra", "long", "raw"}, {w for w in wanted | has if w.startswith("4:")}
    for group in (kinds, samples):
        if wanted & group and has & group and not wanted & has & group:
            return False
    return True


def take_of(clip: Clip, takes: Iterable[Take]) -> tuple[Take | None, str]:
    """Find the take that a clip belongs to, and how it was found."""
    there = [t for t in takes if not t.removed and (not clip.unit or not t.unit or t.unit == clip.unit)]
    by_name = [t for t in there if _named(clip.facts.name, t)]
    if len(by_name) == 1:
        return by_name[0], "by its name"
    there = by_name or there
    for at, how in ((_timecode(clip, there), "by its time code"), (clip.facts.at, "by the time")):
        if at is None:
            continue
        start = np.datetime64(at.rstrip("Z"), "ms")
        end = start + np.timedelta64(int(1000 * (clip.facts.seconds or 0)), "ms")
        near = [
            (abs(float((moment(t) - end) / np.timedelta64(1, "s"))), i)
            for i, t in enumerate(there)
            if start - np.timedelta64(int(BEFORE_S), "s")
            <= moment(t)
            <= end + np.timedelta64(int(AFTER_S), "s")
        ]
        if near:
            return there[min(near)[1]], how
    return None, ""


def _named(name: str, take: Take) -> bool:
    """Whether a file's name holds a shot's number and its take: 12B_T3, 12b-3, 12B take 03."""
    if not take.shot_name:
        return False
    number = re.escape(take.shot_name)
    return bool(
        re.search(
            rf"(?<![0-9a-z]){number}[ _.-]*(?:take|tk|t)?[ _.-]*0*{take.take}(?![0-9])", name, re.IGNORECASE
        )
    )


def _timecode(clip: Clip, takes: list[Take]) -> str | None:
    """A time code that runs with the time of day, as a moment of the day on which takes were shot."""
    if not clip.facts.timecode or not takes:
        return None
    first = takes[0]
    local = np.datetime64(first.at.rstrip("Z"), "ms") + np.timedelta64(first.offset_min, "m")
    day = str(local)[:10]
    at = np.datetime64(f"{day}T{clip.facts.timecode[:8]}", "ms") - np.timedelta64(first.offset_min, "m")
    return str(at)


def on_of_clip(
    package: Package,
    facts: ClipFacts,
    fit: list[FormatInPackage],
    planned: OnCamera | None,
    take: Take | None,
) -> OnCamera:
    """What was on the camera by a file; what it does not say, by the log."""
    logged = take.on if take is not None else OnCamera()
    here = next((p for p in fit if planned is not None and (p.body.name, p.mode.name, p.recording.name)
                 == (planned.body, planned.mode, planned.format)), None)  # fmt: skip
    here = here or next(
        (p for p in fit if (p.body.name, p.recording.name) == (logged.body, logged.format)), None
    )
    here = here or (fit[0] if fit else None)
    lenses = {lens.name.lower(): lens.name for _, lens in package.lenses.values()}
    update: dict[str, object] = {}
    if here is not None:
        update |= {"body": here.body.name, "mode": here.mode.name, "format": here.recording.name}
    if facts.lens.lower() in lenses:
        update["lens"] = name = lenses[facts.lens.lower()]
        update["lens_set"] = next(
            (o.lens_set for o in (logged, planned) if o is not None and o.lens == name), ""
        )
    said = {
        "stop": facts.t_stop,
        "ei": facts.ei,
        "fps": facts.fps,
        "shutter_deg": facts.shutter_deg,
        "focus_m": facts.focus_m,
    }
    update |= {name: value for name, value in said.items() if value is not None}
    return logged.model_copy(update=update)


def clips_held(
    package: Package,
    settings: PackageSettings,
    shots: ShotList,
    takes: list[Take],
    clips: list[Clip],
) -> ClipsHeld:
    """Hold clips against the plan of the shots whose takes they are."""
    by_key = {shot.key: shot for shot in shots.shots}
    held = [_held(package, settings, by_key, takes, clip) for clip in clips]
    return {"clips": held, "runs": _runs(clips, held)}


def _held(
    package: Package,
    settings: PackageSettings,
    shots: dict[str, Shot],
    takes: list[Take],
    clip: Clip,
) -> ClipHeld:
    fit, told = fitting(package, clip.facts)
    take, how = take_of(clip, takes)
    shot = None if take is None else shots.get(take.shot or "")
    planned = None if shot is None else on_by_plan(package, settings, shot)
    on = on_of_clip(package, clip.facts, fit, planned, take)
    differences = held_take(package, settings, shot, on)["differences"] if shot is not None else []
    if (
        planned is not None
        and clip.facts.raster is not None
        and not _proved(fit, planned, OnCamera() if take is None else take.on)
    ):
        differences = [
            _raster(clip.facts.raster, planned, fit),
            *(d for d in differences if d["code"] not in _OF_THE_WINDOW),
        ]
    return {
        "key": clip.key,
        "name": clip.facts.name,
        "facts": clip.facts,
        "clock": _clock(clip),
        "fits": [
            _name(p)
            for p in sorted(fit, key=lambda p: (p.body.name, p.recording.name) != (on.body, on.format))
        ],
        "fit_told": told,
        "take": None if take is None else take.key,
        "take_told": "" if take is None else f"{take.shot_name or 'no shot'} take {take.take}",
        "found_by": how,
        "differences": differences,
        "against_log": [] if take is None else _against_log(clip.facts, take),
    }


#: What a raster that several windows write says nothing of.
_OF_THE_WINDOW = ("body", "mode", "format", "crop")


def _proved(fit: list[FormatInPackage], planned: OnCamera, logged: OnCamera) -> bool:
    """Whether a scan mode is proved: the file is of one alone, or may be of the planned one, or of what was logged."""
    names = {(p.body.name, p.mode.name) for p in fit}
    return len(names) == 1 or bool({(planned.body, planned.mode), (logged.body, logged.mode)} & names)


def _raster(raster: list[int], planned: OnCamera, fit: list[FormatInPackage]) -> Difference:
    """A raster that is not the planned one, of which no window can be told."""
    modes = list(dict.fromkeys(p.mode.name for p in fit))
    wide, high = raster
    return {
        "code": "format",
        "name": "Recording",
        "planned": planned.format,
        "used": f"{wide} × {high}",
        "headline": f"{wide} × {high}, planned {planned.format}",
        "effects": [f"shot in {' or '.join(modes)}: the file does not tell"]
        if modes
        else ["no recording format writes it"],
        "menu": "",
    }


def _clock(clip: Clip) -> str:
    at = np.datetime64((clip.facts.at or clip.at).rstrip("Z"), "m") + np.timedelta64(clip.offset_min, "m")
    return clip.facts.timecode[:5] if clip.facts.timecode and clip.facts.at is None else str(at)[11:16]


def _against_log(facts: ClipFacts, take: Take) -> list[str]:
    """Where the file and the log say something else of the same thing."""
    on, told = take.on, []
    if facts.lens and on.lens and facts.lens.lower() != on.lens.lower():
        told.append(f"lens: the file says {facts.lens}, the log {on.lens}")
    if facts.t_stop and on.stop and abs(2 * np.log2(facts.t_stop / on.stop)) > 1 / 6 + 1e-9:
        told.append(f"stop: the file says T{facts.t_stop:.3g}, the log {on.stop:.3g}")
    if facts.ei and on.ei and facts.ei != on.ei:
        told.append(f"EI: the file says {facts.ei}, the log {on.ei}")
    if facts.fps and on.fps and abs(facts.fps / on.fps - 1) > _SAME_RATE:
        told.append(f"rate: the file says {facts.fps:.5g}, the log {on.fps:.5g}")
    return told


def _runs(clips: list[Clip], held: list[ClipHeld]) -> list[Run]:
    """Faults that several clips of a camera have one after another: from when to when, and how many."""
    found: list[Run] = []
    pairs = sorted(
        zip(clips, held, strict=True), key=lambda p: (p[0].unit, p[0].facts.at or p[0].at, p[1]["name"])
    )
    for unit, of_unit in groupby(pairs, key=lambda p: p[0].unit):
        rows = [each for _, each in of_unit]
        faults = {_fault(d): d for row in rows for d in row["differences"] if d["headline"]}
        for fault, difference in faults.items():
            for has, group in groupby(rows, key=lambda row: fault in [_fault(d) for d in row["differences"]]):
                if not has:
                    continue
                same = list(group)
                span = (
                    f"{same[0]['clock']}"
                    if len(same) == 1
                    else f"from {same[0]['clock']} to {same[-1]['clock']}"
                )
                many = f"{len(same)} clip{'s' if len(same) > 1 else ''}"
                told = f"{span}, {many}: {difference['headline']}" + "".join(
                    f"; {e}" for e in difference["effects"]
                )
                found.append(
                    {
                        "unit": unit,
                        "code": fault[0],
                        "headline": difference["headline"],
                        "told": f"{told}.",
                        "clips": len(same),
                    }
                )
    return found


def _fault(difference: Difference) -> tuple[str, ...]:
    """What is the same fault in several clips."""
    return (difference["code"], difference["used"], difference["planned"], *difference["effects"])
