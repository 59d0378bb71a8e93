"""Every kind of sheet, one row each: what it is called, what it asks for, and what makes it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal, TypeAlias

from hextan.core.sheets import bodies, distances, lenses, lit, plans, record, setups, worth
from hextan.core.sheets.document import SheetKind, SheetPlan
from hextan.core.sheets.material import Draft, Material

#: What a kind of sheet can be asked for: the fields of its plan that it reads.
Asks: TypeAlias = Literal[
    "lenses", "formats", "bodies", "distances", "stops", "focal", "each", "unit", "from_front", "days", "kit", "comparison", "shot",
    "monitor", "pictures",
]  # fmt: skip


@dataclass(frozen=True)
class Kind:
    """One kind of sheet."""

    title: str
    told: str
    asks: tuple[Asks, ...]
    make: Callable[[Material, SheetPlan, Draft], None]
    #: Whether it needs a Bench: a lens and a format to begin with.
    bench: bool = True
    #: Whether its columns are many, so that a page is better wide.
    wide: bool = False


KINDS: dict[SheetKind, Kind] = {
    "lens_by_format": Kind(
        "Lens by format", "Effective focal length, angle, coverage and the stop that compares in depth",
        ("lenses", "formats", "bodies"), lenses.lens_by_format, wide=True,
    ),
    "look": Kind(
        "Look sheet", "Finder pictures: lenses down, formats across, at a distance; or one lens at several",
        ("lenses", "formats", "distances", "focal", "unit"), lenses.look,
    ),
    "depth": Kind(
        "Depth of field", "Near and far for stops and distances, rounded inwards, a page for each lens or each distance",
        ("lenses", "formats", "distances", "stops", "focal", "each", "unit", "from_front"), distances.depth,
    ),
    "field": Kind(
        "Field at a distance", "Width and height, and from how far a person is framed",
        ("lenses", "formats", "distances", "focal", "unit", "from_front"), distances.fields,
    ),
    "formats": Kind(
        "Formats of a body", "Windows to scale, crops, rates, raster, codec, data, cards, needs, menu words",
        ("bodies", "formats"), bodies.formats, bench=False, wide=True,
    ),
    "cards": Kind(
        "Cards and storage", "Minutes on each card and what a day takes", ("bodies", "formats"), bodies.cards, bench=False,
    ),
    "exposure": Kind(
        "Exposure", "Light for a stop, what rates cost, shutter times, ND", ("stops", "unit"), lit.exposure, bench=False,
    ),
    "flicker": Kind(
        "Flicker-safe shutters", "Shutters that see every frame alike, for the rates in use", (), lit.flicker_safe, bench=False,
    ),
    "coverage": Kind(
        "Coverage", "The circle of every lens against what every format records", ("lenses", "formats", "bodies"),
        lenses.coverage, wide=True,
    ),
    "chain": Kind(
        "Crop chain of a body", "Which step crops by how much, with every switch", ("bodies", "formats"), bodies.chain,
        bench=False, wide=True,
    ),
    "claims": Kind(
        "Claims about a body", "What is stated, held against the figures: to send to whoever stated it", ("bodies",),
        bodies.claims, bench=False,
    ),
    "shots": Kind(
        "Shot list", "Every shot with what it is made with, and finder pictures", ("days", "pictures", "unit"),
        plans.shot_list, bench=False, wide=True,
    ),
    "kit": Kind(
        "Kit list", "By case: counts, weights, whose it is, serial numbers, what for", ("kit",), plans.kit_list, bench=False,
    ),
    "worth": Kind(
        "Best for the money", "One shot in all that is owned, could be hired or bought, and what each step up gains", ("shot", "unit"),
        worth.worth_sheet, bench=False, wide=True,
    ),
    "monitor": Kind(
        "Monitor marks", "Where to put tape for each frame line", ("formats", "monitor", "unit"), bodies.monitor,
    ),
    "adapters": Kind(
        "Adapters", "What fits on what, through what, and what is lost", ("lenses", "bodies"), lenses.adapters, bench=False,
    ),
    "bench": Kind(
        "The Bench", "The set-up that is on the Bench, in every format", ("unit",), setups.bench_sheet, wide=True,
    ),
    "compare": Kind(
        "Comparison", "Set-ups side by side, and why they differ", ("comparison",), setups.comparison_sheet, bench=False,
    ),
    "day": Kind(
        "Day report", "What was shot, what differed from the plan, lens changes, cards and minutes", ("days", "unit"), record.day,
        bench=False, wide=True,
    ),
    "checks": Kind(
        "Checklist before the day", "A page for each body, in the order of the work", ("days", "bodies"), record.checks, bench=False,
    ),
}  # fmt: skip
