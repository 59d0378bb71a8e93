"""Set-ups for other programs, and cameras that other programs tell of: every kind of file, one row each.

A new kind is a module beside this one with a writer and a reader, and a row; the page, the API and `./hextan export` read it.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from hextan.core.base import Fault, InvalidInputError, NotFoundError
from hextan.core.bench import BenchState
from hextan.core.documents import BodyDocument
from hextan.core.equipment import PackageSettings
from hextan.core.evaluation import BenchDelivery
from hextan.core.handover import CameraFacts, SeenCamera
from hextan.formats import fdl, opentrackio, usd


@dataclass(frozen=True)
class Handed:
    """What goes out: set-ups, and what lists of framings need besides."""

    title: str
    setups: list[CameraFacts]
    bodies: Mapping[str, BodyDocument]
    settings: PackageSettings
    bench: BenchState | None


@dataclass(frozen=True)
class HandoverKind:
    """One kind of file for set-ups. What it cannot do is None."""

    name: str
    title: str
    #: What goes out, what of it is lost, and what comes back, in sentences for the page.
    carries: str
    lost: str
    back: str
    suffix: str
    media_type: str
    write: Callable[[Handed], bytes]
    read: Callable[[bytes], list[SeenCamera]] | None = None


def _write_fdl(handed: Handed) -> bytes:
    """Bodies and formats of the set-ups, with every picture that is delivered as a framing intent."""
    used: dict[str, set[tuple[str, float]]] = {}
    for each in handed.setups:
        document = handed.bodies.get(each["body"])
        if document is None:
            continue
        keys = (
            f.key
            for mode in document.modes
            if mode.name == each["mode"]
            for f in mode.formats
            if f.name == each["format"]
        )
        used.setdefault(each["body"], set()).update((key, each["squeeze"]) for key in keys)
    framed = [
        fdl.Framed(
            handed.bodies[name], frozenset(formats), tuple(sorted({squeeze for _, squeeze in formats}))
        )
        for name, formats in used.items()
    ]
    return fdl.write_list(framed, _deliveries(handed), json.dumps([handed.title]))


def _deliveries(handed: Handed) -> list[fdl.Delivery]:
    found: dict[tuple[int, int], fdl.Delivery] = {}
    named: list[tuple[str, BenchDelivery]] = [(each.name, each) for each in handed.settings.deliveries]
    if handed.bench is not None:
        named.append(("The Bench's", handed.bench.delivery))
    for name, each in named:
        if each.aspect is None:
            continue
        ratio = fdl.aspect_ratio(each.aspect)
        pixels = None
        if each.long_edge_px is not None:
            long = each.long_edge_px
            pixels = (
                (long, round(long / each.aspect)) if each.aspect >= 1 else (round(long * each.aspect), long)
            )
        found.setdefault(ratio, fdl.Delivery(name, ratio, each.protect, pixels))
    return list(found.values()) or [fdl.Delivery("16:9", (16, 9))]


KINDS: tuple[HandoverKind, ...] = (
    HandoverKind(
        name="usd",
        title="USD cameras",
        carries="A camera for each set-up: apertures, focal length, f-stop, focus, squeeze and offsets, so that the picture is the finder's; "
        "people, lamps and posts at their places; the names of body, format, lens and adapters.",
        lost="A fisheye becomes a lens without distortion; light, ND and the rule for sharp are left out.",
        back="Set-ups, by their names, or by focal length and width of the picture. Only text layers (.usda); what they refer to is not "
        "followed, turned cameras look along the axis, things do not come back.",
        suffix="usda",
        media_type="text/plain; charset=utf-8",
        write=lambda handed: usd.write(handed.setups, handed.title),
        read=usd.read,
    ),
    HandoverKind(
        name="opentrackio",
        title="OpenTrackIO samples",
        carries="A sample for each set-up: sensor, raster, squeeze, rate, shutter, sensitivity, lens, focal length, stops, focus, entrance pupil, "
        "height of the camera. After the documented samples of the standard, from memory.",
        lost="The scene, the delivered picture, adapters (but under a key of our own).",
        back="Set-ups, from one sample, a list, or one in a line.",
        suffix="json",
        media_type="application/json",
        write=lambda handed: opentrackio.write(handed.setups, handed.title),
        read=opentrackio.read,
    ),
    HandoverKind(
        name="fdl",
        title="ASC FDL 2.0",
        carries="A context for each body, a canvas for each recording format and squeeze that the set-ups use, every delivered picture as a framing "
        "intent with its decision in each canvas, and a canvas template where its pixels are known.",
        lost="Lenses, distances, stops, rates.",
        back="Bodies, under Package, Bodies: an FDL knows no set-ups.",
        suffix="fdl",
        media_type="application/json",
        write=_write_fdl,
    ),
)


def kind_of(name: str) -> HandoverKind:
    """Find a kind by its name.

    Raises
    ------
    NotFoundError
        When there is none; lists what there is.
    """
    found = next((kind for kind in KINDS if kind.name == name), None)
    if found is None:
        raise NotFoundError(
            f"There is no kind of file {name}: there are {', '.join(kind.name for kind in KINDS)}."
        )
    return found


def read_cameras(name: str, data: bytes) -> list[SeenCamera]:
    """Read the cameras of a file.

    Raises
    ------
    NotFoundError, InvalidInputError
        No such kind; one that knows no set-ups; whatever the reader refuses.
    """
    kind = kind_of(name)
    if kind.read is None:
        raise InvalidInputError.of(Fault("kind", name, f"has no set-ups to read: {kind.back}"))
    return kind.read(data)
