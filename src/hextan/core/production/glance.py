"""A production at a glance: what it carries, and its windows to scale."""

from __future__ import annotations

import math

from typing_extensions import TypedDict

from hextan.core.base import mm_from_um
from hextan.core.equipment import Package


class WindowsAtAGlance(TypedDict):
    """A body's sensor and the windows of its scan modes, width and height in mm."""

    body: str
    maker: str
    sensor_mm: list[float]
    #: One for each size that is read, the largest first.
    windows_mm: list[list[float]]


class ProductionGlance(TypedDict):
    """What a production carries."""

    bodies: list[WindowsAtAGlance]
    lens_sets: list[str]
    lenses: int
    formats: int
    #: What is missing before anything can be put on the Bench.
    missing: list[str]


def glance(package: Package) -> ProductionGlance:
    """Say what a production carries, with its windows for a small drawing to scale."""
    bodies: list[WindowsAtAGlance] = []
    for body in package.bodies:
        mm = mm_from_um(body.pitch_um)
        windows = {(mode.window[0] * mm, mode.window[1] * mm) for mode in body.modes}
        bodies.append(
            {
                "body": body.name,
                "maker": body.maker,
                "sensor_mm": [body.photosites[0] * mm, body.photosites[1] * mm],
                "windows_mm": [list(size) for size in sorted(windows, key=math.prod, reverse=True)],
            }
        )
    missing = [
        what
        for what, there in (
            ("a body", package.bodies),
            ("a recording format", package.formats),
            ("a lens", package.lenses),
        )
        if not there
    ]
    if "a body" in missing:
        missing.remove("a recording format")
    return {
        "bodies": bodies,
        "lens_sets": [kit.name for kit in package.lens_sets],
        "lenses": len(package.lenses),
        "formats": len(package.formats),
        "missing": missing,
    }
