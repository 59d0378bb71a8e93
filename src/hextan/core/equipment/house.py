"""What holds for a whole production: what crops are told against, what each unit shoots on, and the least that is recorded."""

from __future__ import annotations

from collections.abc import Sequence

from hextan.core.base import mm_from_um
from hextan.core.equipment.package import Body
from hextan.core.equipment.settings import PackageSettings
from hextan.core.evaluation import BenchReference
from hextan.core.optics import NAMED, FormatClass, format_class

#: Bodies of these classes are thought of in full frame, all others in Super 35 (common practice, no source).
_FULL_FRAME: tuple[FormatClass, ...] = (
    "large format",
    "65 mm",
    "8-perforation 35",
    "full frame",
    "four thirds",
)


def house_reference(settings: PackageSettings, bodies: Sequence[Body]) -> BenchReference:
    """What crops are told against in a production: as its settings say, else by the class of its first body."""
    if settings.reference is not None:
        return settings.reference
    if settings.words == "stills":
        return BenchReference(name="full_frame")
    if not bodies:
        return BenchReference()
    w, h = (mm_from_um(n * bodies[0].pitch_um) for n in bodies[0].photosites)
    named = format_class(w, h)
    large = named in _FULL_FRAME or (named is None and w > NAMED["full_frame"][0])
    return BenchReference(name="full_frame" if large else "super35")
