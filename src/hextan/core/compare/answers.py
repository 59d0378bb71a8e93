"""What a comparison answers."""

from __future__ import annotations

from typing import Literal, TypeAlias

from typing_extensions import TypedDict

from hextan.core.bench import Viewfinder
from hextan.core.compare.cases import PartKey
from hextan.core.compare.comparison import Case, Column
from hextan.core.equipment import KitVerdict
from hextan.core.optics import Verdict


class CaseName(TypedDict):
    """A case with its name."""

    case: Case
    name: str


class LensWay(TypedDict):
    """With what a lens goes on the column's body, with the least trouble; no adapters where it cannot go."""

    lens_id: int
    adapter_ids: list[int]


class ComparedColumn(TypedDict):
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


#: What a row of numbers is in.
Unit: TypeAlias = Literal["m", "mm", "um", "deg", "percent", "stops", "ratio", "px", "fps", "stop", "mp"]


class ComparedRow(TypedDict):
    """A row of numbers; `infinite` where a value is infinity, `differs` against the master."""

    key: str
    label: str
    unit: Unit
    values: list[float | None]
    infinite: list[bool]
    #: As the core writes it, where limits are shown to the safe side.
    texts: list[str | None]
    differs: list[bool]


class MatchSummary(TypedDict):
    """What matches the master, and what does not."""

    matches: list[str]
    differs: list[str]


class PartShare(TypedDict):
    """What one part does to the whole, as a factor; null where it cannot be told."""

    part: PartKey
    before: float
    after: float
    factor: float | None


class Why(TypedDict):
    """Why depth and blur differ: the parts multiply to the whole."""

    in_dioptres: bool
    depth_factor: float
    depth: list[PartShare]
    blur_factor: float
    blur: list[PartShare]


#: Whether the bigger picture has less depth than the smaller, or more.
MoreOrLess: TypeAlias = Literal["less", "same", "more"]


class RuleCell(TypedDict):
    """Depth of the bigger picture over that of the smaller."""

    ratio: float
    answer: MoreOrLess


class RuleRow(TypedDict):
    """A rule in all cases."""

    rule: str
    cells: list[RuleCell | None]


class Rules(TypedDict):
    """Does a bigger sensor give less depth? Under every rule, in every case."""

    bigger: str
    smaller: str
    same_size: bool
    cases: list[str]
    rows: list[RuleRow]


class CompareView(TypedDict):
    """A comparison, computed."""

    case: Case
    cases: list[CaseName]
    #: The set-up that the others are held against, by its place.
    master: int
    columns: list[ComparedColumn]
    rows: list[ComparedRow]
    #: Of every set-up, none of the master.
    summary: list[MatchSummary | None]
    why: list[Why | None]
    rules: Rules | None


class ExactMatch(TypedDict):
    """What a match would take; null where it cannot be told."""

    focal_mm: float | None
    f_number: float | None
    stop: float | None
    ei: float | None


class MatchOption(TypedDict):
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
    #: What is known of this lens on this body.
    notes: list[str]
    covers: KitVerdict
    good: bool
    text: str
    column: Column


class CameraMatch(TypedDict):
    """How a column can match the master."""

    exact: ExactMatch
    options: list[MatchOption]
    advice: list[str]
    tried: int
