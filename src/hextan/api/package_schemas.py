"""Shapes of the Package view's answers: bodies, their sheets, speed, the finder, pixels and data."""

from __future__ import annotations

from typing import Any, Literal

from hextan.api.evaluation_schema import Shape
from hextan.core.body_document import BodyDocument
from hextan.core.classes import FormatClass
from hextan.core.package_settings import PackageSettings
from hextan.core.references import By

Limit = Literal["readout", "stated limit", "codec", "data rate"]
ClaimVerdict = Literal["holds", "near", "basis", "elsewhere", "fails", "coarse", "unknown"]


class BodySummary(Shape):
    """A body in the list."""

    id: int
    version: int
    maker: str
    name: str
    mount: str
    firmware: str
    photosites: list[int]
    width_mm: float
    height_mm: float
    modes: int
    formats: int
    #: How many changes the catalogue offers.
    changes: int
    catalogue_body_id: int | None


class BodyList(Shape):
    """The bodies of a production, and those that were taken out and can be brought back."""

    bodies: list[BodySummary]
    removed: list[BodySummary]


class BodyKept(Shape):
    """A body with its version, for the next write."""

    id: int
    version: int
    document: BodyDocument


class BodyWrite(Shape):
    """A body to keep, changed from a known version."""

    version: int
    document: BodyDocument


class BodyNew(Shape):
    """A body to add: a document, a copy from the catalogue, or a copy of another body here."""

    document: BodyDocument | None = None
    catalogue_body_id: int | None = None
    body_id: int | None = None


class Removal(Shape):
    """Take something out of a production, or bring it back."""

    version: int
    removed: bool


class CatalogueChange(Shape):
    """One difference from the catalogue."""

    path: str
    where: str
    field: str
    kind: Literal["changed", "added", "gone"]
    taken: Any
    catalogue: Any
    here: Any
    touched: bool


class ChangesSettled(Shape):
    """Which changes of the catalogue are taken, and which are left for good."""

    version: int
    take: list[str] = []
    leave: list[str] = []


class Rect(Shape):
    """A rectangle about the optical axis, mm; x right and y down, seen as the picture is seen."""

    x: float
    y: float
    width: float
    height: float


class SensorFigures(Shape):
    """The whole sensor."""

    width_mm: float
    height_mm: float
    diagonal_mm: float
    megapixels: float
    format_class: FormatClass


class ModeFigures(Shape):
    """What follows from a scan mode."""

    key: str
    name: str
    photosites: list[int]
    rect: Rect
    diagonal_mm: float
    needed_circle_mm: float
    aspect: float
    samples: list[int]
    crop_by_width: dict[str, float]
    scan_fps: float | None
    readout_ms: float | None


class FormatFigures(Shape):
    """What follows from a recording format."""

    key: str
    width_mm: float
    height_mm: float
    rect: Rect
    format_class: FormatClass
    crop_of_window: float
    oversampling: list[float]
    possible_fps: float | None
    limited_by: Limit | None
    rate_text: str
    mb_s: float | None
    rates_text: str
    notes: list[str]


class ReadingFigures(Shape):
    """One reading of a crop factor."""

    window: str
    basis: str
    by: By
    factor: float


class CropChecked(Shape):
    """A claimed crop factor, checked."""

    key: str
    verdict: ClaimVerdict
    text: str
    readings: list[ReadingFigures]
    tried: int
    chance: float


class ClaimedWidth(Shape):
    """A width that a claimed factor means."""

    name: str
    width_mm: float


class TapeChecked(Shape):
    """A field measured with a tape, checked."""

    key: str
    verdict: ClaimVerdict
    text: str
    implied_mm: float | None
    error_mm: float | None
    computed_mm: float
    claimed: list[ClaimedWidth]
    measure_better: str | None


class SpeedOnLine(Shape):
    """A stated limit beside the fitted line."""

    key: str
    fitted_fps: float
    residual: float
    off: bool


class SpeedChecked(Shape):
    """The fit of row time and overhead."""

    verdict: ClaimVerdict
    text: str
    row_time_us: float | None
    overhead_us: float | None
    rows: list[SpeedOnLine]


class PixelCount(Shape):
    """A pixel count that a claim may mean."""

    name: str
    megapixels: float


class PixelsChecked(Shape):
    """A claimed pixel count, checked."""

    key: str
    verdict: ClaimVerdict
    text: str
    counts: list[PixelCount]


class ClaimsChecked(Shape):
    """All claims of a body, checked."""

    crops: list[CropChecked]
    tapes: list[TapeChecked]
    speed: SpeedChecked | None
    pixels: list[PixelsChecked]


class BodySheet(Shape):
    """Everything that follows from a body's document."""

    sensor: SensorFigures
    modes: list[ModeFigures]
    formats: list[FormatFigures]
    claims: ClaimsChecked


class HighestRate(Shape):
    """The fastest format of a scan mode."""

    possible_fps: float | None
    limited_by: Limit | None
    offered_fps: float | None
    usable_fps: float | None
    text: str
    format_id: int | None
    format: str | None


class Skew(Shape):
    """How far an upright edge leans."""

    share: float
    samples: float
    degrees: float


class FreeWindow(Shape):
    """The tallest window that reaches the wanted rate."""

    rows: int
    height_mm: float
    share_of_height: float
    share_of_window: float


class WantedRate(Shape):
    """Whether the wanted rate is reached."""

    fits: bool
    free_window: FreeWindow | None


class SpeedRow(Shape):
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
    slow_motion: float | None
    shutter_ms: float | None
    stops_lost: float | None
    skew: Skew | None
    wanted: WantedRate | None


class SpeedCurve(Shape):
    """Rate against window height (mm, frames a second) of a sensor."""

    body_id: int
    name: str
    points: list[list[float]]


class Movement(Shape):
    """A movement that is named, and how long it takes to cross the frame."""

    name: str
    crossing_s: float


class SpeedTable(Shape):
    """The speed of all scan modes."""

    base_fps: float
    wanted_fps: float
    movements: list[Movement]
    modes: list[SpeedRow]
    curves: list[SpeedCurve]


class Reason(Shape):
    """How a format does in one requirement."""

    name: str
    wanted: str
    has: str
    met: bool
    must: bool
    share: float
    weight: float


class FinderRow(Shape):
    """A recording format in the finder's answer."""

    format_id: int
    format: str
    mode: str
    body: str
    possible_fps: float | None
    limited_by: Limit | None
    rate_text: str
    oversampling: float
    picture_width_mm: float
    mb_s: float | None
    reasons: list[Reason]


class RankedRow(FinderRow):
    """One that can be used; `tie` says what put it behind one of equal score."""

    rank: int
    score: float
    tie: str | None


class RejectedRow(FinderRow):
    """One that can't, why not, and what would admit it."""

    fails: list[str]
    changes: list[str]


class FinderAnswer(Shape):
    """What can be used, and why the rest can't."""

    ranked: list[RankedRow]
    rejected: list[RejectedRow]
    empty: str | None


class CropChoice(Shape):
    """An in-camera crop against cropping afterwards."""

    name: str
    factor: float
    in_camera_pixels: list[int]
    in_camera_oversampling: float
    afterwards_pixels: list[int]
    afterwards_oversampling: float
    afterwards_headroom_percent: float
    mb_s: float | None
    words: str


class WindowChoice(Shape):
    """A tighter window of the body against cropping afterwards."""

    name: str
    factor: float
    in_camera_pixels: list[int]
    afterwards_pixels: list[int]
    in_camera_mb_s: float | None
    afterwards_mb_s: float | None
    words: str


class DataRow(Shape):
    """Pixels and data of a recording format."""

    format_id: int
    format: str
    mode: str
    body: str
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
    mb_s: float | None
    card_minutes: dict[str, float | None]
    day_gb: float | None
    day_gib: float | None
    buffer_s: float | None
    buffer_frames: int | None
    crops: list[CropChoice]
    windows: list[WindowChoice]


class DataTable(Shape):
    """Pixels and data of all recording formats."""

    fps: float
    rows: list[DataRow]


class SettingsKept(Shape):
    """The package's settings with the production's version."""

    version: int
    settings: PackageSettings


class SettingsWrite(Shape):
    """Settings to keep, changed from a known version."""

    version: int
    settings: PackageSettings
