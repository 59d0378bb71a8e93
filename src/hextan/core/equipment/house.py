"""What holds for a whole production: what crops are told against, what each unit shoots on, and the least that is recorded."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from hextan.core.base import mm_from_um
from hextan.core.equipment.package import Body, FormatInPackage, Package
from hextan.core.equipment.settings import MainFormat, PackageSettings
from hextan.core.evaluation import BenchReference
from hextan.core.optics import LABELS, NAMED, FormatClass, format_class

#: Bodies of these classes are thought of in full frame, all others in Super 35 (common practice, no source).
_FULL_FRAME: tuple[FormatClass, ...] = (
    "large format",
    "65 mm",
    "8-perforation 35",
    "full frame",
    "four thirds",
)


def house_facts(settings: PackageSettings, bodies: tuple[Body, ...]) -> dict[str, Any]:
    """What settings say of a package."""
    return {
        "carried": frozenset(settings.carried),
        "coc": settings.coc,
        "references": tuple(settings.references),
        "reference": house_reference(settings, bodies),
        "deliveries": tuple(settings.deliveries),
        "seen_dark": settings.seen_dark_percent / 100,
        "brackets": settings.brackets,
    }


def f_of_t(settings: PackageSettings) -> float:
    """The T-stop of a lens over the f-number that stands in for one that is not stated."""
    return float(2 ** (settings.t_loss_stops / 2))


def house_reference(settings: PackageSettings, bodies: Sequence[Body]) -> BenchReference:
    """What crops are told against in a production: as its settings say, else by the class of its first body."""
    asked = settings.reference
    if asked is not None:
        # A window of the production's own is as large as Settings say now.
        now = {window.name: window for window in settings.references}
        own = None if asked.own is None else now.get(asked.own.name, asked.own)
        return asked.model_copy(update={"own": own})
    if settings.words == "stills":
        return BenchReference(name="full_frame")
    if not bodies:
        return BenchReference()
    w, h = (mm_from_um(n * bodies[0].pitch_um) for n in bodies[0].photosites)
    named = format_class(w, h)
    large = named in _FULL_FRAME or (named is None and w > NAMED["full_frame"][0])
    return BenchReference(name="full_frame" if large else "super35")


def reference_words(package: Package) -> str:
    """The reference of a production by its name, without its dimension."""
    own = package.reference.own
    return LABELS[package.reference.name] if own is None else own.name


def main_format(settings: PackageSettings, unit: str) -> MainFormat | None:
    """What a unit shoots on: its own main format, else that of all units; None where none is named."""
    by_unit = {each.unit.strip().lower(): each for each in settings.mains}
    return by_unit.get(unit.strip().lower(), by_unit.get(""))


def main_words(main: MainFormat) -> str:
    """A main format in words.

    >>> main_words(MainFormat(body="Ebb 64", mode="Full", format="UHD"))
    'UHD of Full, Ebb 64'
    """
    what = f"{main.format} of {main.mode}" if main.format else main.mode
    return f"{what}, {main.body}" if what else main.body


def nearness(here: FormatInPackage, main: MainFormat) -> int:
    """How near a recording format is to a main one: 3 is it, 2 the same scan mode, 1 the same body, 0 another body."""
    names = (here.body.name, here.mode.name, here.recording.name)
    wanted = (main.body, main.mode, main.format)
    same = 0
    for name, asked in zip(names, wanted, strict=True):
        if asked and name.lower() != asked.strip().lower():
            break
        same += 1
    return same
