"""Clips and stills against the plan: which recording format each fits, to which take it belongs, and what differs since when.

1. A format fits by the raster of the file, its rate and what is known of its codec. Several scan modes may write the
   same raster: then the log decides among them; where it names none of them, the raster is told and no mode.
2. A take is found by the name of the clip, by its reel, by the time code, or by the time; what finds two finds none
   (`core/record/belongs.py`). Where none was logged the shot is found in the same way; where there is none either, the file is
   held against everything that is planned for its camera on that day.
3. Every file is as planned, or not, or cannot be compared, with the reason why.
4. What the file says of lens, stop, EI and shutter counts before the log; what it does not say is taken from the log.
"""

from __future__ import annotations

import json
import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from hashlib import sha256
from itertools import groupby
from typing import Literal, TypeAlias

import numpy as np
from typing_extensions import TypedDict

from hextan.core.equipment import FormatInPackage, Package, PackageSettings
from hextan.core.evaluation import columns_of
from hextan.core.record.belongs import shot_of, take_of
from hextan.core.record.day import held_take
from hextan.core.record.differences import Difference, raster_words
from hextan.core.record.document import Booking, Clip, ClipFacts, OnCamera, Take
from hextan.core.record.figures import found_of
from hextan.core.record.planned import on_by_plan
from hextan.core.shots import Shot, ShotList

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


#: Every file is one of these.
ClipVerdict: TypeAlias = Literal["as_planned", "not_planned", "unknown"]


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
    #: The take, or the shot alone, or the shots for which this is planned.
    take_told: str
    #: How that was found; empty where nothing was.
    found_by: str
    verdict: ClipVerdict
    #: Why it cannot be compared.
    why: str
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
    #: How many of them are as planned, how many not, and how many cannot be compared; and all of that in a sentence.
    as_planned: int
    not_planned: int
    unknown: int
    told: str


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
    entries: Sequence[Take | Booking],
    clips: list[Clip],
) -> ClipsHeld:
    """Hold clips against the plan of the shots that they are of.

    Parameters
    ----------
    entries : takes and bookings of the days of the clips
    """
    # One that could not be read counts until it is listed again and could.
    read = {(clip.unit, clip.facts.name) for clip in clips if not clip.facts.unread}
    clips = [c for c in clips if not c.facts.unread or (c.unit, c.facts.name) not in read]
    held = [_held(_Day.of(package, settings, shots, entries, clip), clip) for clip in clips]
    count = Counter(each["verdict"] for each in held)
    return {
        "clips": held,
        "runs": _runs(clips, held),
        "as_planned": count["as_planned"],
        "not_planned": count["not_planned"],
        "unknown": count["unknown"],
        "told": _sum_told(held, count),
    }


def _sum_told(held: list[ClipHeld], count: Counter[ClipVerdict]) -> str:
    """All files in a sentence: none is passed over."""
    if not held:
        return ""
    many = f"{len(held)} file{'s' if len(held) != 1 else ''}"
    parts = f"{count['as_planned']} as planned, {count['not_planned']} not"
    if not count["unknown"]:
        return f"{many}: {parts}."
    why = Counter(each["why"] for each in held if each["verdict"] == "unknown")
    reasons = "; ".join(f"{reason} ({n})" if len(why) > 1 else reason for reason, n in why.most_common())
    return f"{many}: {parts}, {count['unknown']} cannot be compared: {reasons}."


@dataclass(frozen=True)
class _Day:
    """What a clip is held against: the shots of its day, and what was logged on it."""

    package: Package
    settings: PackageSettings
    shots: dict[str, Shot]
    #: Of the clip's day.
    today: list[Shot]
    entries: list[Take | Booking]

    @classmethod
    def of(
        cls,
        package: Package,
        settings: PackageSettings,
        shots: ShotList,
        entries: Sequence[Take | Booking],
        clip: Clip,
    ) -> _Day:
        """Those of one clip."""
        return cls(
            package,
            settings,
            {shot.key: shot for shot in shots.shots},
            [shot for shot in shots.shots if shot.day.strip() == clip.day.strip()],
            [entry for entry in entries if entry.day == clip.day],
        )

    @property
    def takes(self) -> list[Take]:
        """Those of the day."""
        return [entry for entry in self.entries if isinstance(entry, Take)]

    def planned(self, shot: Shot) -> OnCamera | None:
        """What is planned to be on the camera for a shot."""
        return on_by_plan(self.package, self.settings, shot)


def _held(day: _Day, clip: Clip) -> ClipHeld:
    fit, told = fitting(day.package, clip.facts)
    take, how = take_of(clip, day.takes)
    shot = None if take is None else day.shots.get(take.shot or "")
    if shot is None:
        shot, by = shot_of(clip, day.today, day.entries)
        how = how or by
    planned = None if shot is None else day.planned(shot)
    on = on_of_clip(day.package, clip.facts, fit, planned, take)
    of_shot = "" if shot is None else shot.name
    found: ClipHeld = {
        "key": clip.key,
        "name": clip.facts.name,
        "facts": clip.facts,
        "clock": _clock(clip),
        "fits": [_name(p) for p in sorted(fit, key=lambda p: (p.body.name, p.recording.name) != (on.body, on.format))],
        "fit_told": told,
        "take": None if take is None else take.key,
        "take_told": of_shot if take is None else f"{take.shot_name or 'no shot'} take {take.take}",
        "found_by": how,
        "verdict": "unknown",
        "why": "",
        "differences": [],
        "against_log": [] if take is None else _against_log(clip.facts, take),
    }  # fmt: skip
    if clip.facts.unread:
        found["fit_told"] = clip.facts.unread
        found["why"] = "the file cannot be read"
        return found
    if clip.facts.raster is not None and not fit:
        found["differences"] = [_unwritten(clip.facts.raster, planned)]
    elif shot is not None and planned is not None:
        found["differences"] = _against_shot(day, clip, shot, planned, fit, take, on)
    elif shot is not None:
        found["why"] = f"nothing is chosen for {shot.name}"
    elif clip.facts.raster is not None:
        _against_day(day, clip, fit, found)
    if clip.facts.raster is None and not found["differences"]:
        found["why"] = "the file does not say its raster"
    if found["differences"]:
        found["verdict"] = "not_planned"
    elif not found["why"]:
        found["verdict"] = "as_planned"
    return found


def _against_shot(
    day: _Day,
    clip: Clip,
    shot: Shot,
    planned: OnCamera,
    fit: list[FormatInPackage],
    take: Take | None,
    on: OnCamera,
) -> list[Difference]:
    """A file against the plan of its shot."""
    differences = held_take(day.package, day.settings, shot, on)["differences"]
    if clip.facts.raster is None or _proved(fit, planned, OnCamera() if take is None else take.on):
        if all(d["code"] != "format" for d in differences):
            differences = [*_of_the_file(day.package, clip.facts, planned), *differences]
        return differences
    rest = (d for d in differences if d["code"] not in _OF_THE_WINDOW)
    return [_raster(day.package, clip.facts.raster, planned, fit), *rest]


def _against_day(day: _Day, clip: Clip, fit: list[FormatInPackage], found: ClipHeld) -> None:
    """A file of which nobody knows the shot, against everything that is planned for its camera on its day."""
    mine = [shot for shot in day.today if not clip.unit or shot.unit.strip() in ("", clip.unit)]
    plans = [(shot, on) for shot in mine if (on := day.planned(shot)) is not None]
    if not plans:
        found["why"] = (
            f"no shot is known of it, and nothing is planned for camera {clip.unit or '?'} on day {clip.day or '?'}"
        )
        return
    names = {(p.body.name, p.mode.name, p.recording.name) for p in fit}
    same = [(shot, on) for shot, on in plans if (on.body, on.mode, on.format) in names]
    wide, high = clip.facts.raster or (0, 0)
    if not same:
        planned = ", ".join(dict.fromkeys(on.format for _, on in plans))
        headline = f"{wide} × {high} IS PLANNED FOR NO SHOT of the day"
        found["differences"] = [_of_day("format", "Recording", planned, f"{wide} × {high}", headline)]
        return
    fps = clip.facts.fps
    timed = [shot for shot, on in same if fps is None or not on.fps or abs(fps / on.fps - 1) <= _SAME_RATE]
    if not timed:
        rates = ", ".join(dict.fromkeys(f"{on.fps:.5g}" for _, on in same if on.fps))
        headline = f"{fps:.5g} fps IS PLANNED FOR NO SHOT of the day with {wide} × {high}"
        found["differences"] = [_of_day("rate", "Rate", rates, f"{fps:.5g}", headline)]
        return
    shots = list(dict.fromkeys(shot.name for shot in timed))
    more = f" and {len(shots) - 3} more" if len(shots) > 3 else ""
    found["take_told"] = f"as for {', '.join(shots[:3])}{more}"
    found["found_by"] = "by what is planned for its camera on that day"


def _of_day(code: str, name: str, planned: str, used: str, headline: str) -> Difference:
    return {"code": code, "name": name, "planned": planned, "used": used, "headline": headline,
            "effects": ["no take and no shot is known of it"], "menu": ""}  # fmt: skip


def _unwritten(raster: list[int], planned: OnCamera | None) -> Difference:
    """A raster that no recording format of the package writes."""
    wide, high = raster
    headline = f"NO RECORDING FORMAT WRITES {wide} × {high}"
    return {"code": "format", "name": "Recording", "planned": "" if planned is None else planned.format, "used": f"{wide} × {high}",
            "headline": headline + (f", planned {planned.format}" if planned else ""), "effects": [], "menu": ""}  # fmt: skip


def _of_the_file(package: Package, facts: ClipFacts, planned: OnCamera) -> list[Difference]:
    """Where a file with the planned raster was written otherwise than the planned recording: bits, fields, codec."""
    here = found_of(package, planned).here
    if here is None or (facts.raster is not None and tuple(facts.raster) != tuple(here.recording.raster)):
        return []
    told: list[tuple[str, str, str]] = []
    of = here.recording
    if facts.bits is not None and of.bits is not None and facts.bits != of.bits:
        told.append(("Bits", f"{of.bits} bit", f"{facts.bits} bit"))
    if facts.interlaced is not None and facts.interlaced != of.interlaced:
        words = ("progressive", "interlaced")
        told.append(("Fields", words[of.interlaced], words[facts.interlaced]))
    if not _codec_fits(facts.codec, of.codec):
        told.append(("Codec", of.codec, facts.codec))
    return [
        {"code": "format", "name": name, "planned": was, "used": now, "headline": f"{now.upper()}, planned {was}",
         "effects": [f"{of.name} of {here.body.name} is not what was recorded"], "menu": ""}
        for name, was, now in told
    ]  # fmt: skip


#: What a raster that several windows write says nothing of.
_OF_THE_WINDOW = ("body", "mode", "format", "crop")


def _proved(fit: list[FormatInPackage], planned: OnCamera, logged: OnCamera) -> bool:
    """Whether a scan mode is proved: the file is of one alone, or may be of the planned one, or of what was logged."""
    names = {(p.body.name, p.mode.name) for p in fit}
    return len(names) == 1 or bool({(planned.body, planned.mode), (logged.body, logged.mode)} & names)


def _raster(package: Package, raster: list[int], planned: OnCamera, fit: list[FormatInPackage]) -> Difference:
    """A raster that is not the planned one, of which no window can be told."""
    modes = list(dict.fromkeys(p.mode.name for p in fit))
    wide, high = raster
    here = found_of(package, planned).here
    recorded = (
        []
        if here is None
        else [f"{raster_words((wide, high))}, instead of {raster_words(here.recording.raster)}"]
    )
    return {
        "code": "format",
        "name": "Recording",
        "planned": planned.format,
        "used": f"{wide} × {high}",
        "headline": f"{wide} × {high}, planned {planned.format}",
        "effects": [*recorded, f"shot in {' or '.join(modes)}: the file does not tell"],
        "menu": "",
    }


def _clock(clip: Clip) -> str:
    if clip.facts.unread:
        return ""
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
    """Faults that clips of a camera have one after another: from when to when, and how many, or which."""
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
                many = f"{len(same)} files" if len(same) > 1 else same[0]["name"]
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
