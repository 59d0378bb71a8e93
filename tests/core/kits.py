"""Kits for the tests: small ones made here, and that of the demo."""

import json
from importlib.resources import files

from hextan.core.documents import adapter_of, lens_set_of, mount_of, parse_lens_set, parse_rig
from hextan.core.documents.lens_set import lens_of
from hextan.core.equipment import LensSet, Mount, MountAdapter
from tests.core.bodies import catalogue, package_of


def a_lens(name="Prime 40", focal=40.0, **changes):
    return {"key": "".join(c if c.isalnum() and c.isascii() else "_" for c in name), "name": name, "focal_mm": focal, "t_stop": 2.0, "f_number": 1.8,
            "image_circle_mm": 46.0, "mount": "W54", "close_focus_m": 0.5} | changes  # fmt: skip


def a_set(lenses=(), **changes):
    return {"key": "set", "name": "Heron", "maker": "Lantern Works", "lenses": list(lenses)} | changes


def lens(number=1, **changes):
    from hextan.core.documents import LensDocument

    return lens_of(LensDocument.model_validate(a_lens(**changes)), number)


def kit_package(documents, lenses, adapters=(), mounts=()):
    """A package of bodies with one set of lenses."""
    return package_of(documents, lens_sets=(LensSet(1, "Lantern Works", "Heron", tuple(lenses)),),
                      adapters=tuple(adapters), mounts=tuple(mounts))  # fmt: skip


W54, K50 = Mount("W54", 38.2, 54.0), Mount("K50", 50.4, 46.5)
PLAIN = MountAdapter(1, "plain", 1.0, "K50", "W54", passes_iris=False, passes_data=False)
REDUCER = MountAdapter(2, "reducer", 0.71, "W54", "K50", 0.95, True, ("full frame", "65 mm"))
EXTENDER = MountAdapter(3, "extender", 1.4, "K50", "W54", 0.93, True)
RELAY = MountAdapter(4, "relay", 1.0, "W54", "K50", 0.84, True)


def demo_package():
    """The package of the demo production, without a database."""
    read = {name: json.loads(files("hextan.demo").joinpath(name).read_text(encoding="utf-8"))
            for name in ("catalogue.json", "low_water.json")}  # fmt: skip
    production = read["low_water.json"]
    bodies = [body for body in catalogue() if body.name in production["takes"]]
    sets, used = [], 0
    for number, plain in enumerate(read["catalogue.json"]["lens_sets"], 1):
        document = parse_lens_set(plain)
        if document.name in production["takes_lens_sets"]:
            ids = {lens.key: used + i for i, lens in enumerate(document.lenses, 1)}
            used += len(ids)
            sets.append(lens_set_of(document, ids, number))
    rig = parse_rig(production["rig"])
    return package_of(
        bodies,
        lens_sets=tuple(sets),
        adapters=tuple(adapter_of(adapter, i) for i, adapter in enumerate(rig.adapters, 1)),
        mounts=tuple(mount_of(mount) for mount in rig.mounts),
    )


def format_named(package, name, body=None):
    return next(
        p.recording.id
        for p in package.formats.values()
        if p.recording.name == name and body in (None, p.body.name)
    )


def lens_named(package, name):
    return next(lens.id for _, lens in package.lenses.values() if lens.name == name)
