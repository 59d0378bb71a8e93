"""What follows from a document of equipment: its sheet."""

from __future__ import annotations

from typing import Literal

from typing_extensions import TypedDict

from hextan.core.equipment import Combination, Limit
from hextan.core.optics import By, FormatClass, ViewClass

ClaimVerdict = Literal["holds", "near", "basis", "elsewhere", "fails", "coarse", "unknown"]


class Rect(TypedDict):
    """A rectangle about the optical axis, mm; x right and y down, seen as the picture is seen."""

    x: float
    y: float
    width: float
    height: float


class SensorFigures(TypedDict):
    """The whole sensor."""

    width_mm: float
    height_mm: float
    diagonal_mm: float
    megapixels: float
    format_class: FormatClass | None


class ModeFigures(TypedDict):
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


class FormatFigures(TypedDict):
    """What follows from a recording format."""

    key: str
    width_mm: float
    height_mm: float
    rect: Rect
    format_class: FormatClass | None
    crop_of_window: float
    oversampling: list[float]
    possible_fps: float | None
    limited_by: Limit | None
    rate_text: str
    mb_s: float | None
    rates_text: str
    notes: list[str]


class ReadingFigures(TypedDict):
    """One reading of a crop factor."""

    window: str
    basis: str
    by: By
    factor: float


class CropChecked(TypedDict):
    """A claimed crop factor, checked."""

    key: str
    verdict: ClaimVerdict
    text: str
    readings: list[ReadingFigures]
    tried: int


class ClaimedWidth(TypedDict):
    """A width that a claimed factor means."""

    name: str
    width_mm: float


class TapeChecked(TypedDict):
    """A field measured with a tape, checked."""

    key: str
    verdict: ClaimVerdict
    text: str
    implied_mm: float | None
    error_mm: float | None
    computed_mm: float
    claimed: list[ClaimedWidth]


class SpeedOnLine(TypedDict):
    """A stated limit beside the fitted line."""

    key: str
    fitted_fps: float
    residual: float
    off: bool


class SpeedChecked(TypedDict):
    """The fit of row time and overhead."""

    verdict: ClaimVerdict
    text: str
    row_time_us: float | None
    overhead_us: float | None
    rows: list[SpeedOnLine]


class PixelCount(TypedDict):
    """A pixel count that a claim may mean."""

    name: str
    megapixels: float


class PixelsChecked(TypedDict):
    """A claimed pixel count, checked."""

    key: str
    verdict: ClaimVerdict
    text: str
    counts: list[PixelCount]


class ClaimsChecked(TypedDict):
    """All claims of a body, checked."""

    crops: list[CropChecked]
    tapes: list[TapeChecked]
    speed: SpeedChecked | None
    pixels: list[PixelsChecked]


class BodySheet(TypedDict):
    """Everything that follows from a body's document."""

    sensor: SensorFigures
    modes: list[ModeFigures]
    formats: list[FormatFigures]
    claims: ClaimsChecked
    #: What the body cannot be asked yet, and why.
    missing: list[str]


class CloseFigures(TypedDict):
    """At close focus, with the longest focal length, on a width of 24.89 mm."""

    magnification: float
    field_m: float
    #: Share of the frame's width that extension alone takes; other constructions breathe less or the other way.
    extension_percent: float


class LensFigures(TypedDict):
    """What follows from a lens."""

    key: str
    #: Horizontal, on the Super 35 width; two for a zoom.
    angle_deg: list[float | None]
    view_class: ViewClass | None
    circle_mm: list[float] | None
    covers: str | None
    transmission: float | None
    close: CloseFigures | None
    notes: list[str]


class UsualWindow(TypedDict):
    """A window that circles are held against, mm."""

    name: str
    width: float
    height: float


class LensSetSheet(TypedDict):
    """What a lens set's page shows beside what is typed."""

    lenses: list[LensFigures]
    windows: list[UsualWindow]


class FilterMarking(TypedDict):
    """An ND filter as it is engraved."""

    density: float
    factor: float


class RigSheet(TypedDict):
    """What follows from mounts, adapters and filters: notes by adapter and by pair, and every combination as it would be."""

    notes: dict[str, list[str]]
    filters: dict[str, FilterMarking]
    combinations: list[Combination]
