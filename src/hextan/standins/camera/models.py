"""Which bodies can be simulated: those of a production's file, or the invented ones that ship with Hextan."""

from __future__ import annotations

import json
from importlib.resources import files

from hextan.core.documents import body_of, lens_set_of, parse_body, parse_lens_set
from hextan.core.equipment import LensSet, Package
from hextan.core.record import windows_of
from hextan.standins.camera.simulated import Glass, Model, Window


def invented() -> list[Model]:
    """The bodies of the invented catalogue with all of its lenses."""
    plain = json.loads(files("hextan.demo").joinpath("catalogue.json").read_text(encoding="utf-8"))
    bodies, used = [], 0
    for number, document in enumerate(map(parse_body, plain["bodies"]), 1):
        rows = [row for mode in document.modes for row in (mode, *mode.formats)] + list(document.crops)
        bodies.append(body_of(document, {row.key: used + i for i, row in enumerate(rows, 1)}, number))
        used += len(rows)
    sets: list[LensSet] = []
    glass = 0
    for number, kit in enumerate(map(parse_lens_set, plain["lens_sets"]), 1):
        sets.append(lens_set_of(kit, {lens.key: glass + i for i, lens in enumerate(kit.lenses, 1)}, number))
        glass += len(kit.lenses)
    return models_of(Package(bodies=tuple(bodies), lens_sets=tuple(sets)))


def models_of(package: Package) -> list[Model]:
    """The bodies of a package, each with all lenses of its mount."""
    return [
        Model(
            maker=body.maker,
            name=body.name,
            windows=tuple(
                Window(w.here.mode.name, w.here.recording.name, w.crops, (w.wide_mm, w.high_mm), (w.here.recording.raster[0], w.here.recording.raster[1]))
                for w in windows_of(package, body.name)
            ),
            lenses=tuple(
                Glass(lens.name, lens.focal_min_mm, lens.focal_max_mm, lens.t_stop or lens.f_number or 2.8, bool(lens.data_link))
                for _, lens in package.lenses.values()
                if lens.mount == body.mount
            ),
        )
        for body in package.bodies
        if body.places
    ]  # fmt: skip
