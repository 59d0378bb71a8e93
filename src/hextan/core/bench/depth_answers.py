"""What the Bench says of depth."""

from __future__ import annotations

from typing_extensions import TypedDict


class CocRead(TypedDict):
    """The rule for sharpness with its value and what it assumes; `own` where the look has its own."""

    coc_mm: float | None
    assumes: str
    own: bool
    text: str


class ApertureRead(TypedDict):
    """Which aperture counts for depth, what focusing close takes, and diffraction."""

    f_number: float | None
    from_t: bool
    working: float | None
    lost_stops: float | None
    airy_mm: float | None
    diffraction: bool
    text: str


class StopFigures(TypedDict):
    """A stop that was asked for: exact, as a mark of the lens (None: it has none), and the limits it then has."""

    focus_m: float | None
    exact: float | None
    mark: float | None
    near_m: float | None
    far_m: float | None
    holds_open: bool
    too_close: bool


class StopAnswer(StopFigures):
    """The stop in words, and what would do more."""

    text: str
    next: str | None


class SoftnessAnswer(StopAnswer):
    """The stop for a softness, and how soft it is at the mark, per cent of the width."""

    percent: float | None


class MovementAnswer(TypedDict):
    """The stop that holds a movement, with the focus kept on the subject and with the best focus."""

    kept: StopAnswer
    best: StopAnswer


class MostDepth(TypedDict):
    """Focus for most depth."""

    focus_m: float
    near_m: float
    text: str


class LimitsAt(TypedDict):
    """Limits at a distance (metres) or at a stop."""

    x: float
    near_m: float
    far_m: float | None


class BlurAt(TypedDict):
    """Blur of a background at a distance, per cent of the width."""

    x: float
    percent: float


class DepthCurve(TypedDict):
    """The curves of one format."""

    format_id: int
    chosen: bool
    coc_mm: float
    by_distance: list[LimitsAt]
    by_stop: list[LimitsAt]
    blur: list[BlurAt]
    blur_at_infinity: float


class DepthCell(TypedDict):
    """Limits in a table."""

    near_m: float
    far_m: float | None


class DepthRow(TypedDict):
    """A distance of a table."""

    distance_m: float
    cells: list[DepthCell]


class DepthTable(TypedDict):
    """Distances by stops."""

    marks: str
    stops: list[float]
    hyperfocal_m: list[float]
    rows: list[DepthRow]


class DepthView(TypedDict):
    """All about depth."""

    rule: CocRead
    aperture: ApertureRead
    hold: StopAnswer | None
    movement: MovementAnswer | None
    softness: SoftnessAnswer | None
    most: MostDepth | None
    curves: list[DepthCurve]
    table: DepthTable | None
