"""The demo production as what sheets are made from, and one that has nothing."""

import json
from dataclasses import replace
from functools import cache
from importlib.resources import files

from hextan.core.bench import BenchState
from hextan.core.compare import Column, Comparison
from hextan.core.equipment import Package, PackageSettings, parse_settings
from hextan.core.packing import parse_packing
from hextan.core.record import parse_log
from hextan.core.sheets import Material, SheetPlan, parse_sheets, sheet_of
from hextan.core.shots import parse_shots
from tests.core.bodies import catalogue
from tests.core.kits import demo_package, format_named, lens_named

DEMO = json.loads(files("hextan.demo").joinpath("low_water.json").read_text(encoding="utf-8"))
SHEETS = parse_sheets(DEMO["sheets"])


_KITS = {}


def kit_once(m, plan):
    """A kit of the demo, looked for once: units change how it is told on a sheet, not what it is."""
    asked = (m.packing, m.shots, m.settings.model_copy(update={"unit": "m"}), plan)
    key = tuple(each.model_dump_json() for each in asked)
    if key not in _KITS:
        _KITS[key] = Material.kit(m, plan)
    return _KITS[key]


@cache
def demo():
    package = demo_package()
    settings = parse_settings(DEMO["settings"])
    package = replace(package, coc=settings.coc, deliveries=tuple(settings.deliveries))
    s35 = format_named(package, "S35 → UHD", "Ebb 64")
    full = format_named(package, "Full → UHD", "Ebb 64")
    bench = BenchState(format_id=s35, lens_id=lens_named(package, "Merrow 40"), subject_m=3.2, pinned=[full])
    sides = [Column(key=f"c{i}", format_id=at, lens_id=bench.lens_id) for i, at in enumerate((s35, full))]
    return Material(
        name="Low Water",
        package=package,
        settings=settings,
        bench=bench,
        shots=parse_shots({"schema": "hextan.shots", "shots": DEMO["shots"]}),
        packing=parse_packing(DEMO["packing"]),
        log=parse_log(DEMO["log"]),
        comparisons=(Comparison(name="S35 or full", columns=sides),),
        kit=kit_once,
        bodies={body.name: body for body in catalogue() if body.name in DEMO["takes"]},
    )


EMPTY = Material(name="Nothing yet", package=Package(), settings=PackageSettings(), bench=None)


def made(kind, material=None, **plan):
    return sheet_of(material or demo(), SheetPlan(key="k", kind=kind, **plan))


def tables(sheet):
    return [block for block in sheet["blocks"] if block["kind"] == "table"]


def column(table, title, group=""):
    return next(j for j, c in enumerate(table["columns"]) if c["title"] == title and c["group"] == group)


def row(table, *first):
    return next(r for r in table["rows"] if tuple(c["text"] for c in r["cells"][: len(first)]) == first)[
        "cells"
    ]
