"""Shapes of what the Bench says about depth and light."""

from __future__ import annotations

from typing import Literal

from hextan.api.evaluation_schema import Shape
from hextan.core.bench_state import BenchState
from hextan.core.light import LampKind, Light


class LookAsk(Shape):
    """A Bench to look at."""

    state: BenchState


class CocRead(Shape):
    """The rule for sharpness with its value and what it assumes; `own` where the look has its own."""

    coc_mm: float | None
    assumes: str
    own: bool
    text: str


class ApertureRead(Shape):
    """Which aperture counts for depth, what focusing close takes, and diffraction."""

    f_number: float | None
    from_t: bool
    working: float | None
    lost_stops: float | None
    airy_mm: float | None
    diffraction: bool
    text: str


class StopAnswer(Shape):
    """A stop that was asked for: exact, as a mark of the lens (None: it has none), and the limits it then has."""

    focus_m: float | None
    exact: float | None
    mark: float | None
    near_m: float | None
    far_m: float | None
    holds_open: bool
    too_close: bool
    text: str
    next: str | None


class SoftnessAnswer(StopAnswer):
    """The stop for a softness, and how soft it is at the mark, per cent of the width."""

    percent: float | None


class MovementAnswer(Shape):
    """The stop that holds a movement, with the focus kept on the subject and with the best focus."""

    kept: StopAnswer
    best: StopAnswer


class MostDepth(Shape):
    """Focus for most depth."""

    focus_m: float
    near_m: float
    text: str


class LimitsAt(Shape):
    """Limits at a distance (metres) or at a stop."""

    x: float
    near_m: float
    far_m: float | None


class BlurAt(Shape):
    """Blur of a background at a distance, per cent of the width."""

    x: float
    percent: float


class DepthCurve(Shape):
    """The curves of one format."""

    format_id: int
    chosen: bool
    coc_mm: float
    by_distance: list[LimitsAt]
    by_stop: list[LimitsAt]
    blur: list[BlurAt]
    blur_at_infinity: float


class DepthCell(Shape):
    """Limits in a table."""

    near_m: float
    far_m: float | None


class DepthRow(Shape):
    """A distance of a table."""

    distance_m: float
    cells: list[DepthCell]


class DepthTable(Shape):
    """Distances by stops."""

    marks: str
    stops: list[float]
    hyperfocal_m: list[float]
    rows: list[DepthRow]


class DepthView(Shape):
    """All about depth."""

    rule: CocRead
    aperture: ApertureRead
    hold: StopAnswer | None
    movement: MovementAnswer | None
    softness: SoftnessAnswer | None
    most: MostDepth | None
    curves: list[DepthCurve]
    table: DepthTable | None


LedgerKey = Literal["light", "ei", "stop", "shutter", "rate", "nd", "adapter", "close_up"]


class LedgerRow(Shape):
    """What one thing contributes, in stops; positive is brighter."""

    key: LedgerKey
    name: str
    setting: str
    stops: float


class BalanceRead(Shape):
    """What balances the exposure: the light and the stop as they would be set."""

    balanced: bool
    changed: bool
    off_stops: float
    off_text: str
    text: str
    nd_parts: list[str]
    light: Light
    stop: float
    next: str | None


class EiChoice(Shape):
    """A sensitivity that can be set."""

    ei: int
    native: bool


class NdRead(Shape):
    """A way to take light away."""

    stops: float
    parts: list[str]


class LightForStop(Shape):
    """Light that a stop needs."""

    stop: float
    lux: float
    foot_candles: float


class RateCost(Shape):
    """What a rate costs against the base rate at the same angle."""

    fps: float
    stops: float
    possible: bool


class AngleCost(Shape):
    """What an angle gives against 180 degrees."""

    angle_deg: float
    stops: float
    time_s: float


class ExposureView(Shape):
    """The ledger of exposure."""

    ledger: list[LedgerRow]
    off_stops: float
    off_text: str
    balanced: bool
    t_stop: float
    marks: str
    ei: int
    time_s: float
    angle_deg: float
    lux: float
    foot_candles: float
    balance: BalanceRead
    eis: list[EiChoice]
    nds: list[NdRead]
    light_for_stops: list[LightForStop]
    stop_for_light: float
    rates: list[RateCost]
    angles: list[AngleCost]
    notes: list[str]


class LampRow(Shape):
    """A lamp under this shutter."""

    kind: LampKind
    name: str
    hz: float
    ripple_percent: float
    duty: float | None
    verdict: Literal["none", "borderline", "shows"]
    frame_stops: float | None
    band_stops: float | None
    bands: float | None
    beat_hz: float
    text: str


class SafeShutter(Shape):
    """A safe shutter."""

    time_s: float
    angle_deg: float
    text: str


class NearestShutter(SafeShutter):
    """The safe shutter nearest to the wanted one."""

    off_stops: float


class LockingRate(Shape):
    """A rate at which every frame meets the lamp at the same moment."""

    exact: str
    fps: float


class Opening(Shape):
    """The shutter's opening on the first or the last row; `exposure` against a steady lamp."""

    frame: int
    row: Literal["first", "last"]
    from_ms: float
    to_ms: float
    exposure: float


class Wave(Shape):
    """The lamp's light over some frames."""

    span_ms: float
    frame_ms: float
    highest: float
    points: list[list[float]]
    openings: list[Opening]


class FlickerView(Shape):
    """All about flicker."""

    fps: float
    time_s: float
    angle_deg: float
    readout_ms: float | None
    lamps: list[LampRow]
    hz: float
    safe: list[SafeShutter]
    safe_count: int
    nearest: NearestShutter | None
    rates: list[LockingRate]
    no_safe: str | None
    wave: Wave
    caution: str
