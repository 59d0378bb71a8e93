"""What is told of equipment as it stands: mounting, windows to scale, speed, pixels and data."""

from __future__ import annotations

from typing import Literal, TypeAlias

from typing_extensions import TypedDict

from hextan.core.optics import Corner, Verdict

KitVerdict = Literal["covers", "marginal", "short", "unknown", "impossible"]


#: How lens, adapters and body go together.
MountingVerdict: TypeAlias = Literal["possible", "consequences", "impossible"]


class Mounted(TypedDict):
    """How lens, adapters and body go together."""

    verdict: MountingVerdict
    reasons: list[str]
    consequences: list[str]


class MapRect(TypedDict):
    """A rectangle of the window map, millimetres."""

    name: str
    x: float
    y: float
    width: float
    height: float


class MapWindow(MapRect):
    """A scan mode's window."""

    mode_id: int
    chosen: bool
    needed_mm: float
    verdict: Verdict


class Words(TypedDict):
    """A sentence with its verdict."""

    verdict: Verdict
    text: str


class WindowMap(TypedDict):
    """The window map, millimetres from the optical axis."""

    sensor: MapRect
    windows: list[MapWindow]
    recorded: MapRect
    picture: MapRect
    framed: MapRect
    squeeze: float
    circle_mm: float | None
    needed_mm: float
    verdict: Verdict
    dark_corners: list[Corner]
    dark_share: float | None
    words: list[Words]


class Way(Mounted):
    """One way from a lens to a body."""

    adapter_ids: list[int]
    name: str
    magnification: float
    stops_lost: float


class Combination(TypedDict):
    """A lens on a body: all ways, the least trouble first."""

    lens_id: int
    body_id: int
    verdict: MountingVerdict
    why_not: str | None
    ways: list[Way]


Limit = Literal["readout", "stated limit", "codec", "data rate"]


class HighestRate(TypedDict):
    """The fastest format of a scan mode."""

    possible_fps: float | None
    limited_by: Limit | None
    usable_fps: float | None
    text: str
    format_id: int | None
    format: str | None


class Skew(TypedDict):
    """How far an upright edge leans."""

    share: float
    samples: float
    degrees: float


class FreeWindow(TypedDict):
    """The tallest window that reaches the wanted rate."""

    rows: int
    height_mm: float


class WantedRate(TypedDict):
    """Whether the wanted rate is reached."""

    fits: bool
    free_window: FreeWindow | None


class SpeedCost(TypedDict):
    """What the highest rate is for, and what it costs."""

    slow_motion: float | None
    shutter_ms: float | None
    stops_lost: float | None


class SpeedRow(SpeedCost):
    """A scan mode's speed and what it costs."""

    body_id: int
    mode_id: int
    name: str
    body: str
    width_mm: float
    height_mm: float
    share_of_width: float
    rows_read: int
    method: str
    scan_fps: float | None
    readout_ms: float | None
    progressive: HighestRate | None
    interlaced: HighestRate | None
    skew: Skew | None
    wanted: WantedRate | None


class SpeedCurve(TypedDict):
    """Rate against window height (mm, frames a second) of a sensor."""

    body_id: int
    name: str
    points: list[list[float]]


class NamedMovement(TypedDict):
    """A movement that is named, and how long it takes to cross the frame."""

    name: str
    crossing_s: float


class SpeedTable(TypedDict):
    """The speed of all scan modes."""

    base_fps: float
    wanted_fps: float
    movements: list[NamedMovement]
    modes: list[SpeedRow]
    curves: list[SpeedCurve]


class CropChoice(TypedDict):
    """An in-camera crop against cropping afterwards."""

    name: str
    factor: float
    words: str


class WindowChoice(TypedDict):
    """A tighter window of the body against cropping afterwards."""

    name: str
    factor: float
    words: str


class Weights(TypedDict):
    """What a recording weighs; None where compression or bit rate is not known."""

    mb_s: float | None
    card_minutes: dict[str, float | None]
    day_gb: float | None
    day_gib: float | None
    buffer_s: float | None
    buffer_frames: int | None


class DataRow(Weights):
    """Pixels and data of a recording format."""

    format_id: int
    format: str
    mode: str
    body: str
    #: What it needs: a recorder, a licence, newer firmware; with what is not carried.
    needs: list[str]
    sampled: list[int]
    recorded: list[int]
    delivered: list[int]
    sampled_mp: float
    recorded_mp: float
    picture_mp: float
    oversampling: list[float]
    headroom_percent: float
    levelling_deg: float | None
    fits_rate: bool
    crops: list[CropChoice]
    windows: list[WindowChoice]


class DataTable(TypedDict):
    """Pixels and data of all recording formats."""

    fps: float
    rows: list[DataRow]
