"""What the Bench says of light: exposure and flicker."""

from __future__ import annotations

from typing import Literal

from typing_extensions import TypedDict

from hextan.core.light import LampKind, Light

LedgerKey = Literal["light", "ei", "stop", "shutter", "rate", "nd", "adapter", "close_up"]


class LedgerRow(TypedDict):
    """What one thing contributes, in stops; positive is brighter."""

    key: LedgerKey
    name: str
    setting: str
    stops: float


class BalanceRead(TypedDict):
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


class EiChoice(TypedDict):
    """A sensitivity that can be set."""

    ei: int
    native: bool
    #: The same as a gain, where the body states which EI is 0 dB.
    gain_db: float | None


class NdRead(TypedDict):
    """A way to take light away."""

    stops: float
    parts: list[str]


class LightForStop(TypedDict):
    """Light that a stop needs."""

    stop: float
    lux: float
    foot_candles: float


class RateCost(TypedDict):
    """What a rate costs against the base rate at the same angle."""

    fps: float
    stops: float
    possible: bool


class AngleCost(TypedDict):
    """What an angle gives against 180 degrees."""

    angle_deg: float
    stops: float
    time_s: float


class ExposureView(TypedDict):
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


class LampRow(TypedDict):
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


class SafeShutter(TypedDict):
    """A safe shutter."""

    time_s: float
    angle_deg: float
    text: str


class NearestShutter(SafeShutter):
    """The safe shutter nearest to the wanted one."""

    off_stops: float


class LockingRate(TypedDict):
    """A rate at which every frame meets the lamp at the same moment."""

    exact: str
    fps: float


class Opening(TypedDict):
    """The shutter's opening on the first or the last row; `exposure` against a steady lamp."""

    frame: int
    row: Literal["first", "last"]
    from_ms: float
    to_ms: float
    exposure: float


class Wave(TypedDict):
    """The lamp's light over some frames."""

    span_ms: float
    frame_ms: float
    highest: float
    points: list[list[float]]
    openings: list[Opening]


class FlickerView(TypedDict):
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
