"""Shapes of comparisons."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from hextan.api.evaluation_schema import Shape
from hextan.api.schemas import KitVerdict, Verdict, Viewfinder
from hextan.core.compare_view import Unit
from hextan.core.comparison import Case, Column, Comparison


class ComparisonKept(Shape):
    """A comparison as it is kept."""

    id: int
    version: int
    removed: bool
    document: Comparison


class ComparisonList(Shape):
    """A production's comparisons, and those that were taken out."""

    here: list[ComparisonKept]
    removed: list[ComparisonKept]


class ComparisonNew(Shape):
    """A comparison to keep."""

    document: Comparison


class ComparisonWrite(Shape):
    """A comparison to keep, changed from a known version."""

    version: int
    document: Comparison


class CompareAsk(Shape):
    """A comparison to compute, without keeping it."""

    document: Comparison


class MatchCameraAsk(Shape):
    """Which column is to match the first."""

    document: Comparison
    index: int = Field(ge=0, le=3)


class CaseName(Shape):
    """A case with its name."""

    case: Case
    name: str


class LensWay(Shape):
    """With what a lens goes on the column's body, with the least trouble; no adapters where it cannot go."""

    lens_id: int
    adapter_ids: list[int]


class ComparedColumn(Shape):
    """A set-up as it was computed; `virtual` where a case gives it a lens that nobody may have."""

    key: str
    virtual: bool
    body: str
    format: str
    lens: str
    focal_mm: float
    f_number: float | None
    marks: str
    stop: float | None
    stops: list[float]
    subject_m: float
    ei: int
    eis: list[int]
    nds: list[float]
    ways: list[LensWay]
    coverage: Verdict
    dark_share: float | None
    viewfinder: Viewfinder
    notes: list[str]


class ComparedRow(Shape):
    """A row of numbers; `infinite` where a value is infinity, `differs` against the first."""

    key: str
    label: str
    unit: Unit
    values: list[float | None]
    infinite: list[bool]
    #: As the core writes it, where limits are shown to the safe side.
    texts: list[str | None]
    differs: list[bool]


class MatchSummary(Shape):
    """What matches the first, and what does not."""

    matches: list[str]
    differs: list[str]


class PartShare(Shape):
    """What one part does to the whole, as a factor; null where it cannot be told."""

    part: Literal["focal_mm", "distance_mm", "f_number", "coc_mm", "width_mm"]
    before: float
    after: float
    factor: float | None


class Why(Shape):
    """Why depth and blur differ: the parts multiply to the whole."""

    in_dioptres: bool
    depth_factor: float
    depth: list[PartShare]
    blur_factor: float
    blur: list[PartShare]


class RuleCell(Shape):
    """Depth of the bigger picture over that of the smaller."""

    ratio: float
    answer: Literal["less", "same", "more"]


class RuleRow(Shape):
    """A rule in all cases."""

    rule: str
    cells: list[RuleCell | None]


class Rules(Shape):
    """Does a bigger sensor give less depth? Under every rule, in every case."""

    bigger: str
    smaller: str
    same_size: bool
    cases: list[str]
    rows: list[RuleRow]


class CompareView(Shape):
    """A comparison, computed."""

    case: Case
    cases: list[CaseName]
    columns: list[ComparedColumn]
    rows: list[ComparedRow]
    summary: list[MatchSummary]
    why: list[Why | None]
    rules: Rules | None


class ExactMatch(Shape):
    """What a match would take; null where it cannot be told."""

    focal_mm: float | None
    f_number: float | None
    stop: float | None
    ei: float | None


class MatchOption(Shape):
    """A real lens as near as it comes, with what is left over, and the column as it would be."""

    lens: str
    via: str
    focal_mm: float
    marks: str
    stop: float
    exact_stop: float
    width_percent: float
    depth_stops: float
    exposure_stops: float
    ei: int
    nd_stops: float
    nd_parts: list[str]
    warning: str | None
    covers: KitVerdict
    good: bool
    text: str
    column: Column


class CameraMatch(Shape):
    """How a column can match the first."""

    exact: ExactMatch
    options: list[MatchOption]
    advice: list[str]
    tried: int
