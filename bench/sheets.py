"""Sheets: a depth sheet of twelve lenses from the question to the PDF, and two hundred pages; in seconds, as the issue has it."""

from __future__ import annotations

import time

from bench.kit import _package
from bench.result import Result
from hextan.core.bench import BenchState
from hextan.core.equipment import PackageSettings
from hextan.core.packing import Watch
from hextan.core.sheets import Material, SheetPlan
from hextan.paper.printing import PrintWork, Stamped

LENSES, PAGES = 12, 200


def printed() -> list[Result]:
    """Time from the plan to the file: a depth sheet of twelve lenses, and as many pages as a whole production has."""
    package = _package()
    here = max(package.formats)
    lenses = [key for key in package.lenses if key]
    material = Material("bench", package, PackageSettings(), BenchState(format_id=here, lens_id=lenses[0]))
    twelve = SheetPlan(key="k", kind="depth", lens_ids=lenses[:LENSES])
    seconds, pages = _took(material, (twelve,))
    many, count = _took(
        material, tuple(twelve.model_copy(update={"key": f"k{i}"}) for i in range(-(-PAGES // pages)))
    )
    return [
        Result(f"depth sheet of {LENSES} lenses, {pages} pages of PDF", seconds, 2.0, "s"),
        Result(f"{count} pages of PDF", many, 30.0, "s"),
    ]


def _took(material: Material, plans: tuple[SheetPlan, ...]) -> tuple[float, int]:
    work = PrintWork(material, plans, Stamped("today", "http://127.0.0.1:8734/p/1/sheets"), "bench")
    began = time.perf_counter()
    answer = work.done(Watch(), lambda known: None)
    return time.perf_counter() - began, answer["pages"]
