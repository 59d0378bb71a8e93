"""The checklist before the day: for each body what is looked at, in the order of the work, and who has done it."""

from __future__ import annotations

from hashlib import sha256

from typing_extensions import TypedDict

from hextan.core.equipment import Body, Package, PackageSettings
from hextan.core.record.day import clock_of
from hextan.core.record.document import Log, Tick
from hextan.core.record.planned import Planned


class CheckItem(TypedDict):
    """One point."""

    key: str
    #: What is looked at, and what it is to be.
    told: str
    #: Why, or where it stands.
    more: str
    ticked: bool
    by: str
    clock: str
    note: str
    revision: int
    #: Key of the tick in the log; empty where nobody ticked it yet.
    entry: str
    #: What the camera says against it.
    against: str


class BodyChecks(TypedDict):
    """The page of one body."""

    body: str
    units: list[str]
    items: list[CheckItem]
    open: int


def checks_of(
    package: Package,
    settings: PackageSettings,
    planned: list[Planned],
    log: Log,
    day: str,
    said: dict[str, list[str]],
) -> list[BodyChecks]:
    """List what is looked at on every body that a day's shots are made with.

    Parameters
    ----------
    planned : the shots of the day
    said : by body, the headlines of what its camera says otherwise than planned now
    """
    names = list(dict.fromkeys(each["on"].body for each in planned if each["on"] is not None))
    ticks: dict[tuple[str, str], tuple[Tick, int]] = {}
    for item in log.items:
        entry = item.entry
        if isinstance(entry, Tick) and entry.day == day and not entry.removed:
            ticks[entry.body, entry.item] = entry, item.revision
    found: list[BodyChecks] = []
    for body in (b for b in package.bodies if b.name in names):
        mine = [each for each in planned if each["on"] is not None and each["on"].body == body.name]
        items = [
            _item(body.name, told, more, code, ticks, said)
            for code, told, more in _points(package, body, settings, mine)
        ]
        found.append(
            {
                "body": body.name,
                "units": sorted({each["unit"] for each in mine if each["unit"]}),
                "items": items,
                "open": sum(not item["ticked"] for item in items),
            }
        )
    return found


def _item(
    body: str,
    told: str,
    more: str,
    code: str,
    ticks: dict[tuple[str, str], tuple[Tick, int]],
    said: dict[str, list[str]],
) -> CheckItem:
    key = sha256(f"{code} {told}".encode()).hexdigest()[:16]
    tick, revision = ticks.get((body, key), (None, 0))
    against = [line for line in said.get(body, []) if _speaks_of(line, code)]
    return {
        "key": key,
        "told": told,
        "more": more,
        "ticked": tick is not None and tick.ticked,
        "by": "" if tick is None else tick.by,
        "clock": "" if tick is None else clock_of(tick),
        "note": "" if tick is None else tick.note,
        "revision": revision,
        "entry": "" if tick is None else tick.key,
        "against": "; ".join(line.split(": ", 1)[1] for line in against),
    }


def _speaks_of(line: str, code: str) -> bool:
    """Whether what a camera says contradicts a point: a line begins with the code of a difference."""
    of = {
        "mode": ("mode", "body"),
        "format": ("format", "recording"),
        "rate": ("rate", "shutter"),
        "ei": ("ei",),
        "clock": ("clock",),
    }
    first = line.split(":", 1)[0]
    return first in of.get(code, ()) or (
        code.startswith("crop") and line.startswith(f"crop: {code[5:].upper()}")
    )


def _points(
    package: Package, body: Body, settings: PackageSettings, mine: list[Planned]
) -> list[tuple[str, str, str]]:
    """Code, what is looked at, and more of it, in the order of the work (common practice, no source)."""
    on = [each["on"] for each in mine if each["on"] is not None]
    modes = list(dict.fromkeys(o.mode for o in on))
    formats = list(dict.fromkeys(o.format for o in on))
    places = [p for p in body.places if p.recording.name in formats]
    rates = list(dict.fromkeys(f"{o.fps:.5g}" for o in on if o.fps))
    eis = list(dict.fromkeys(str(o.ei) for o in on if o.ei))
    cards = ", ".join(card.name for card in settings.cards)
    needs = list(dict.fromkeys(need for p in places for need in p.recording.needs))
    firmware = list(dict.fromkeys(p.recording.from_firmware for p in places if p.recording.from_firmware))
    points = [
        ("battery", "Batteries are full, and one more is at hand", ""),
        ("cards", f"Cards are empty and labelled{f' ({cards})' if cards else ''}",
         f"{body.slots} slots: the second {_SLOTS[body.slot_use]}" if body.slots > 1 else ""),
        ("firmware", f"Firmware {body.firmware or 'as noted'}", f"needed: {', '.join(firmware)} or later" if firmware else "the figures of the plan hold for it"),
        *(("licence", f"{need} is there", "some of the day's formats need it") for need in needs),
        ("clock", "Clock, time zone and date are right", "clips are found by them afterwards"),
        ("timecode", "Time code runs with the time of day, at the base rate", f"{settings.base_fps} fps, the same on every camera"),
    ]  # fmt: skip
    points += [
        ("pair", f"{lens} on {body.name}: {note}", "noted for this lens on this body")
        for lens in dict.fromkeys(o.lens for o in on)
        for note in package.rig.notes_on(lens, body.name)
    ]
    # The override before the switch: what wins over a setting is looked at first.
    for mode in (m for m in body.modes if m.name in modes):
        if mode.menu.overridden_by:
            points.append(
                (
                    "override",
                    f"Nothing wins over {mode.name}: {mode.menu.overridden_by}",
                    "set it to manual before the switch itself",
                )
            )
        points.append(("mode", f"Scan mode {mode.name}" + (f": “{mode.menu.name}”" if mode.menu.name else ""),
                       "; ".join(part for part in (mode.menu.where, f"finder: {mode.menu.finder}" if mode.menu.finder else "") if part)))  # fmt: skip
    for other in (m for m in body.modes if m.name not in modes and m.menu.knocked):
        points.append(
            (
                "knocked",
                f"{other.menu.knocked} is locked or free of {other.name}",
                "it switches the mode when it is knocked",
            )
        )
    points += [
        (
            "format",
            f"Records {', '.join(formats)}",
            ", ".join(dict.fromkeys(p.recording.codec for p in places)),
        )
    ]
    for crop in body.crops:
        wanted = [
            each["name"] for each in mine if any(s["name"] == crop.name and s["on"] for s in each["switches"])
        ]
        state = (
            "off" if not wanted else "on" if len(wanted) == len(mine) else f"off but for {', '.join(wanted)}"
        )
        if crop.menu.overridden_by:
            points.append(("override", f"{crop.name}: {crop.menu.overridden_by} wins over it", ""))
        points.append((f"crop {crop.name}", f"{crop.name} is {state}",
                       "; ".join(part for part in (f"“{crop.menu.name}”" if crop.menu.name else "", crop.menu.where,
                                                   f"finder: {crop.menu.finder}" if crop.menu.finder else "",
                                                   f"knocked by {crop.menu.knocked}" if crop.menu.knocked else "") if part)))  # fmt: skip
    points += [
        ("rate", f"Rate {', '.join(rates)} fps" if rates else "Rate", f"shutter {settings.shutter_deg:g}°"),
        ("ei", f"EI {', '.join(eis)}" if eis else "EI", f"native: {', '.join(map(str, body.base_eis))}" if body.base_eis else ""),
        ("finder", "Frame lines of the delivery are in the finder and on the monitor", ", ".join(f.name for f in settings.deliveries)),
        ("test", "A test clip is shot, and its width in pixels read from the file", ", ".join(
            dict.fromkeys(f"{p.recording.raster[0]} × {p.recording.raster[1]}" for p in places))),
    ]  # fmt: skip
    return list(dict.fromkeys(points))


_SLOTS = {
    "after": "takes over when the first is full",
    "both": "writes the same again",
    "proxy": "takes the proxy",
}
