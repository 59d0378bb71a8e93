"""What sheets are made from: a production as it stands, and the lenses and formats that one sheet is of."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from hextan.core.base import CannotFocusError, InvalidInputError, Unit
from hextan.core.bench import BenchResult, BenchState, compute_bench
from hextan.core.compare import Comparison
from hextan.core.documents import BodyDocument
from hextan.core.equipment import (
    FormatInPackage,
    Lens,
    LensSet,
    Package,
    PackageSettings,
    reference_words,
    simplest,
    why_not,
)
from hextan.core.evaluation import assumption
from hextan.core.optics import coverage_verdict
from hextan.core.packing import KitAnswer, KitPlan, Packing, packed
from hextan.core.record import Log
from hextan.core.sheets.document import SheetPlan
from hextan.core.sheets.sheet import Block, StampFact
from hextan.core.shots import ShotList, answer_of_shot

_BY = {"width": "by width", "height": "by height", "diagonal": "by diagonal"}


def _kit_now(m: Material, plan: KitPlan) -> KitAnswer | None:
    """Look for a kit here and now: it takes seconds."""
    return packed(m.package, m.settings, m.shots, m.packing, plan, around=False).answer


@dataclass(frozen=True)
class Used:
    """What shots are made with: by the plan where there is one, else as each is made best."""

    told: str
    lenses: frozenset[int]
    formats: frozenset[int]
    #: Lens and format of each shot.
    pairs: frozenset[tuple[int, int]]
    #: The formats, those that most shots are made on first.
    by_use: tuple[int, ...]


@dataclass(frozen=True)
class Material:
    """A production as it stands."""

    name: str
    package: Package
    settings: PackageSettings
    #: None where there is nothing yet to set it to.
    bench: BenchState | None
    shots: ShotList = field(default_factory=ShotList)
    packing: Packing = field(default_factory=Packing)
    log: Log = field(default_factory=Log)
    comparisons: tuple[Comparison, ...] = ()
    #: Bodies as they are written down, by their names: claims are in no package.
    bodies: Mapping[str, BodyDocument] = field(default_factory=dict)
    #: Finds a kit; None as long as it is looked for.
    kit: Callable[[Material, KitPlan], KitAnswer | None] = _kit_now

    @cached_property
    def reference_words(self) -> str:
        """What factors are measured against."""
        return f"{reference_words(self.package)}, {_BY[self.package.reference.by]}"

    @cached_property
    def used(self) -> Used | None:
        """What the shots are made with; None as long as none can be."""
        chosen = [
            best
            for shot in self.shots.shots
            if (best := (answer := answer_of_shot(self.package, self.settings, shot))["best"]) is not None
            and answer["verdict"] != "cannot"
        ]
        if not chosen:
            return None
        pairs = frozenset((best["lens_id"], best["format_id"]) for best in chosen)
        by_use = tuple(here for here, _ in Counter(best["format_id"] for best in chosen).most_common())
        lenses, formats = frozenset(lens for lens, _ in pairs), frozenset(here for _, here in pairs)
        plan = self.package.plan
        by = (
            "what the shots use"
            if plan is None
            else f"what the plan uses: {plan.name}, {(plan.made_at or '')[:10]}"
        )
        return Used(by, lenses, formats, pairs, by_use)

    def default(self, plan: SheetPlan, draft: Draft) -> Used | None:
        """What a sheet is of where it names nothing; None where that is everything."""
        if plan.everything or self.used is None:
            return None
        if not any(fact["name"] == "Of" for fact in draft.stamp):
            draft.fact("Of", self.used.told)
        return self.used

    @property
    def sharp_words(self) -> str:
        """The rule for what is sharp."""
        coc = self.bench.coc if self.bench is not None and self.bench.coc is not None else self.package.coc
        return assumption(coc)


@dataclass
class Draft:
    """What a kind of sheet makes: its blocks, and what is said about them."""

    lead: str = ""
    blocks: list[Block] = field(default_factory=list)
    stamp: list[StampFact] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    why_empty: str = ""

    #: What is left out, by the reason why.
    left_out: dict[str, list[str]] = field(default_factory=dict)

    def note(self, text: str) -> None:
        """Say something once."""
        if text not in self.notes:
            self.notes.append(text)

    def too_much(self, count: int, most: int, what: str) -> bool:
        """Refuse what would be more than a sheet can hold, before it is computed."""
        if count > most:
            self.why_empty = f"This would be {count} {what}, and a sheet holds {most} at most: choose fewer lenses or formats."
        return count > most

    def leave_out(self, name: str, why: str) -> None:
        """Say that something is left out, together with all else that is for the same reason."""
        names = self.left_out.setdefault(why, [])
        if name not in names:
            names.append(name)

    @property
    def told(self) -> list[str]:
        """Everything that is to be noted."""
        return [
            *self.notes,
            *(f"Left out: {', '.join(names)}: {why}." for why, names in self.left_out.items()),
        ]

    def fact(self, name: str, text: str) -> None:
        """One more fact for the stamp."""
        self.stamp.append({"name": name, "text": text})


@dataclass(frozen=True)
class Up:
    """A lens on a format as it is set, computed."""

    lens_set: LensSet
    lens: Lens
    here: FormatInPackage
    found: BenchResult

    @property
    def coc_mm(self) -> float:
        """What counts as sharp on this format."""
        return float(self.found.evaluation.coc_mm[0])

    @property
    def wide_mm(self) -> float:
        """Width of the picture, de-squeezed."""
        return float(self.found.evaluation.columns.picture_w[0]) * self.lens.squeeze

    @property
    def high_mm(self) -> float:
        """Height of the picture."""
        return float(self.found.evaluation.columns.picture_h[0])

    @property
    def focal_mm(self) -> float:
        """Behind the adapters."""
        return float(self.found.evaluation.lens.focal_mm)

    @property
    def f_number(self) -> float | None:
        """Behind the adapters; the T-stop where the lens states no f-number."""
        return self.found.evaluation.f_number

    @property
    def name(self) -> str:
        """The lens, a zoom with its focal length."""
        return lens_words(self.lens, self.found.setting.focal_mm)

    def one(self, values: Any) -> float:
        """The one figure of a column of the evaluation."""
        return float(values.reshape(-1)[0]) if hasattr(values, "reshape") else float(values)


def lens_words(lens: Lens, focal_mm: float) -> str:
    """A lens by its name; a zoom with the focal length at which it is set."""
    return f"{lens.name} at {round(focal_mm, 1):g}" if lens.is_zoom else lens.name


def format_words(here: FormatInPackage) -> str:
    """A recording format; with its scan mode, where its body has several of its name."""
    name = here.recording.name
    twice = sum(other.recording.name == name for other in here.body.places) > 1
    return f"{here.mode.name}: {name}" if twice else name


def units_of(m: Material, plan: SheetPlan) -> tuple[Unit, ...]:
    """In which units a sheet tells distances: one, or both after one another."""
    if plan.unit == "both":
        return ("m", "ft")
    return (plan.unit or m.settings.unit,)


def lenses_of(m: Material, plan: SheetPlan, draft: Draft) -> list[tuple[LensSet, Lens]]:
    """The lenses that a sheet is of, in the order of the package; what is gone is noted."""
    lenses = m.package.lenses
    gone = [key for key in plan.lens_ids if key not in lenses]
    sets = {kit.name for kit in m.package.lens_sets}
    if gone:
        draft.note(f"{len(gone)} of the lenses that were chosen are not in the package any more.")
    for name in plan.lens_sets:
        if name not in sets:
            draft.note(f"The lens set {name} is not in the package any more.")
    if not plan.lens_ids and not plan.lens_sets:
        used = m.default(plan, draft)
        return [pair for key, pair in lenses.items() if used is None or key in used.lenses]
    return [
        (kit, lens)
        for key, (kit, lens) in lenses.items()
        if key in plan.lens_ids or kit.name in plan.lens_sets
    ]


def formats_of(m: Material, plan: SheetPlan, draft: Draft, few: bool) -> list[FormatInPackage]:
    """The recording formats that a sheet is of; what is gone is noted.

    Parameters
    ----------
    few : where none is named, and no shot is made with any, only the Bench's and those that are pinned beside it; else all
    """
    formats = m.package.formats
    bodies = {body.name for body in m.package.bodies}
    for name in plan.bodies:
        if name not in bodies:
            draft.note(f"The body {name} is not in the package any more.")
    gone = [key for key in plan.format_ids if key not in formats]
    if gone:
        draft.note(f"{len(gone)} of the recording formats that were chosen are not in the package any more.")
    if plan.format_ids:
        return [here for key, here in formats.items() if key in plan.format_ids]
    if plan.bodies:
        return [here for here in formats.values() if here.body.name in plan.bodies]
    used = m.default(plan, draft)
    if used is not None:
        return [here for key, here in formats.items() if key in used.formats]
    if few and m.bench is not None:
        shown = dict.fromkeys([m.bench.format_id, *m.bench.pinned])
        return [formats[key] for key in shown if key in formats]
    return list(formats.values())


def pairs_of(
    m: Material, plan: SheetPlan, draft: Draft, most: int | None = None
) -> list[tuple[FormatInPackage, list[tuple[LensSet, Lens]]]]:
    """The formats that a sheet is of, each with its lenses: those that shots are made with on it, where nothing is named.

    Parameters
    ----------
    most : so many formats at most where none is named, and the lenses are
    """
    lenses, formats = lenses_of(m, plan, draft), formats_of(m, plan, draft, few=True)
    named = plan.format_ids or plan.bodies
    used = None if named else m.default(plan, draft)
    if used is None or plan.lens_ids or plan.lens_sets:
        if used is not None:
            # On what most shots are made.
            formats = [m.package.formats[key] for key in used.by_use]
        return [(here, lenses) for here in (formats if named else formats[:most])]
    return [
        (here, [pair for pair in lenses if (pair[1].id, here.recording.id) in used.pairs]) for here in formats
    ]


def only_whole(m: Material, plan: SheetPlan, lens: tuple[LensSet, Lens], here: FormatInPackage) -> bool:
    """Whether a lens is left out where it does not cover: unless it was chosen by itself, or a shot is made with it so."""
    made = m.used is not None and (lens[1].id, here.recording.id) in m.used.pairs
    return not made and lens[1].id not in plan.lens_ids


def lens_up(
    m: Material,
    lens: tuple[LensSet, Lens],
    here: FormatInPackage,
    *,
    focal_mm: float | None = None,
    stop: float | None = None,
    subject_m: float = 3.0,
    whole: bool = False,
) -> Up | str:
    """Put a lens up on a format the simplest way and compute it; or say why that cannot be.

    Parameters
    ----------
    focal_mm : of a zoom; its short end without
    subject_m : distance of subject and focus from the sensor plane
    whole : refuse a lens that does not cover what is recorded
    """
    assert m.bench is not None
    way = simplest(m.package.rig, lens[1], here.body)
    if way is None:
        return f"cannot be mounted on {here.body.name}: {why_not(m.package.rig, lens[1], here.body)}"
    adapters = [*way.key, None, None]
    state = m.bench.model_copy(
        update={
            "format_id": here.recording.id,
            "lens_id": lens[1].id,
            "adapter_id": adapters[0],
            "second_adapter_id": adapters[1],
            "focal_mm": focal_mm,
            "stop": stop,
            "subject_m": subject_m,
            "focus_m": None,
        }
    )
    try:
        found = compute_bench(m.package, state, format_ids=())
        if whole and _short(found):
            return f"leaves dark corners on {format_words(here)} of {here.body.name}"
        return Up(*lens, here, found)
    except CannotFocusError:
        return "forms no image so near"
    except InvalidInputError as error:
        return error.message


def _short(found: BenchResult) -> bool:
    """Whether the circle leaves corners of what is recorded dark."""
    e = found.evaluation
    return (
        coverage_verdict(e.lens.image_circle_mm, float(e.needed_mm[0]), float(e.dark[0]), e.seen_dark)
        == "short"
    )


def ends_of(lens: Lens, focal_mm: float | None = None) -> list[float]:
    """Focal lengths at which a lens is told: of a zoom the one asked for, else both ends."""
    if not lens.is_zoom:
        return [lens.focal_min_mm]
    if focal_mm is not None:
        return [min(max(focal_mm, lens.focal_min_mm), lens.focal_max_mm)]
    return [lens.focal_min_mm, lens.focal_max_mm]
