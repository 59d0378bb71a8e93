"""What the whole kit answers: coverage, matrix, ladder, matching, framing, high speed."""

from __future__ import annotations

from typing import Literal, TypeAlias

from typing_extensions import TypedDict

from hextan.core.equipment import KitVerdict, Mounted, WindowMap
from hextan.core.evaluation import Note, ReferenceAnswer
from hextan.core.optics import By, CircleAxis, Corner, Verdict, ViewClass


class MatrixColumn(TypedDict):
    """A recording format, several with the same picture, or the largest of a class."""

    format_id: int
    format_ids: list[int]
    name: str
    mode: str
    body: str
    body_id: int
    also: list[str]
    #: Or its size, where it has no class.
    format_class: str
    recorded_mm: list[float]
    picture_mm: list[float]
    #: Of the format that it is named by; and which of the others goes faster, with its rate.
    highest_fps: float | None
    rate_text: str
    faster: str
    #: What the format that it is named by needs: a recorder, a licence, newer firmware.
    needs: list[str]


class MountedBy(TypedDict):
    """How a lens is put on."""

    adapter_ids: list[int]
    name: str
    magnification: float
    stops_lost: float
    consequences: list[str]


class MatrixFigures(TypedDict):
    """Figures of a lens, one value for each column."""

    focal_mm: list[float | None]
    effective_mm: list[float | None]
    angle_deg: list[float | None]
    view_class: list[ViewClass | None]
    verdict: list[KitVerdict]
    circle_mm: list[float | None]
    needed_mm: list[float | None]
    dark_share: list[float | None]
    dark_corners: list[list[Corner]]


class MatrixRow(MatrixFigures):
    """A lens through one way; a zoom at its short end, with its long end beside."""

    lens_id: int
    lens_set_id: int
    name: str
    set: str
    focal_min_mm: float
    focal_max_mm: float
    squeeze: float
    projection: str
    #: What stands in for figures of it that nobody stated, in words, by the figure's name.
    stands_in: dict[str, str]
    ways: list[MountedBy]
    via: list[int | None]
    why_not: dict[str, str]
    #: What is known of it on a body, by the body's id.
    pair_notes: dict[str, list[str]]
    long: MatrixFigures | None


class KitMatrix(TypedDict):
    """The matrix."""

    reference: ReferenceAnswer
    columns: list[MatrixColumn]
    rows: list[MatrixRow]


class PictureRead(TypedDict):
    """Formats that show the same picture."""

    format_id: int
    format_ids: list[int]
    names: list[str]
    mode: str
    body: str
    #: Of the format that it is named by; and which of the others goes faster, with its rate.
    highest_fps: float | None
    rate_text: str
    faster: str
    #: What the format that it is named by needs: a recorder, a licence, newer firmware.
    needs: list[str]


class LadderRung(TypedDict):
    """A lens in a picture, on the ladder."""

    format_id: int
    lens_id: int
    lens: str
    adapter_ids: list[int]
    via: str | None
    magnification: float
    effective_mm: float
    effective_long_mm: float | None
    focal_mm: float
    angle_deg: float
    view_class: ViewClass
    verdict: KitVerdict


class Purchase(TypedDict):
    """A focal length that would help to close a gap."""

    effective_mm: float
    focal_mm: float | None


class Elsewhere(TypedDict):
    """What the package makes inside a gap with formats that are not shown."""

    lens: str
    lens_id: int
    format_id: int
    format: str
    body: str
    via: str | None
    effective_mm: float


class Gap(TypedDict):
    """A gap in the ladder."""

    from_mm: float
    to_mm: float
    ratio: float
    buys: list[Purchase]
    buy_for: str | None
    elsewhere: list[Elsewhere]


class Double(TypedDict):
    """Lenses that make the same field."""

    effective_mm: float
    lenses: list[str]
    fields: int


class ViewClassRead(TypedDict):
    """A class of views with its bounds as effective focal lengths."""

    name: ViewClass
    from_mm: float | None
    to_mm: float | None
    least_angle_deg: float | None


class KitLadder(TypedDict):
    """The ladder."""

    reference: ReferenceAnswer
    pictures: list[PictureRead]
    rungs: list[LadderRung]
    gaps: list[Gap]
    doubles: list[Double]
    classes: list[ViewClassRead]
    words: list[str]


class Wanted(TypedDict):
    """The wanted equivalent."""

    focal_mm: float
    on: str | None
    on_mm: list[float]
    by: By
    angle_deg: float
    field_m: float | None


class Matched(TypedDict):
    """A lens of the kit with its errors."""

    lens_id: int
    lens: str
    adapter_ids: list[int]
    via: str | None
    zoom: bool
    focal_mm: float
    set_mm: float
    needed_mm: float
    error_mm: float
    error_deg: float
    size_percent: float
    width_percent: float
    same: bool
    covers: bool
    marginal: bool


class CameraMove(TypedDict):
    """How far the camera has to move for exactly the wanted field."""

    distance_m: float
    by_m: float
    background_ratio: float
    text: str


class MatchRow(TypedDict):
    """The nearest match in one picture."""

    format_id: int
    names: list[str]
    mode: str
    body: str
    needed_mm: float | None
    nearest: Matched | None
    simplest: Matched | None
    neighbours: list[Matched]
    not_covering: Matched | None
    move: CameraMove | None
    #: What the format needs, and what is known of the nearest on this body.
    notes: list[str]


class KitMatch(TypedDict):
    """The nearest match in every picture."""

    wanted: Wanted
    rows: list[MatchRow]
    words: list[str]


#: By which side a field is wanted.
Side: TypeAlias = Literal["width", "height"]


class FieldWanted(TypedDict):
    """The wanted field."""

    by: Side
    field_m: float


class FieldFound(TypedDict):
    """A chain of lens, format and distance with the field that it makes."""

    format_id: int
    format: str
    body: str
    lens_id: int
    lens: str
    adapter_ids: list[int]
    via: str | None
    focal_mm: float
    set_mm: float
    distance_m: float
    field_m: float | None
    width_m: float | None
    height_m: float | None
    percent: float | None
    same: bool
    #: Height of the picture on the sensor.
    high_mm: float
    close_focus_m: float | None
    verdict: KitVerdict
    candidate: Matched | None
    binds: list[str]


class FramingAt(TypedDict):
    """From how far a framing is had, and what forbids it."""

    framing: str
    field_m: float
    distance_m: float
    binds: str | None


class FieldAnswer(TypedDict):
    """Distance, lens or format for a wanted field."""

    wanted: FieldWanted
    longest_m: float | None
    answers: list[FieldFound]
    framings: list[FramingAt]
    binds: list[str]


class SlowBase(TypedDict):
    """The base format."""

    format_id: int
    name: str
    body: str


class SlowLine(TypedDict):
    """A lens of the base format, and what keeps its field at high speed."""

    lens: str
    lens_id: int
    needed_mm: float
    nearest: Matched | None


class SlowRow(PictureRead):
    """A fast picture."""

    kept: int
    widest_mm: float | None
    text: str | None
    lines: list[SlowLine]


class SlowMotion(TypedDict):
    """Which lens keeps the field at high speed."""

    base: SlowBase
    fps: float
    rows: list[SlowRow]
    words: list[str]


class CoverageLens(TypedDict):
    """The lens as it is set."""

    lens_id: int
    name: str
    focal_mm: float
    stop: float | None
    stops: list[float]
    marks: str
    adapter_ids: list[int]
    notes: list[Note]
    #: What stands in for figures of it that nobody stated, in words, by the figure's name.
    stands_in: dict[str, str]
    mounting: Mounted


class CirclePlace(TypedDict):
    """The circle at one place of the range; infinity as null."""

    at: float | None
    circle_mm: float
    verdict: Verdict


class CircleAlong(TypedDict):
    """The circle along the zoom, the stops or the focus."""

    by: CircleAxis
    now: float | None
    needed_mm: float
    safe_mm: float
    points: list[CirclePlace]


class Change(TypedDict, total=False):
    """What the Bench would be set to otherwise."""

    focal_mm: float
    stop: float
    crop_ids: list[int]
    format_id: int
    lens_id: int
    adapter_ids: list[int]


#: What kind of change it is.
ChangeKind: TypeAlias = Literal["nothing", "focal", "stop", "crop", "format", "lens", "adapter", "correct"]


class Option(TypedDict):
    """What can be done about it; `set` is what the Bench would be set to."""

    kind: ChangeKind
    text: str
    cost_stops: float
    set: Change


class CoverageOfLens(TypedDict):
    """Another lens in the same format."""

    lens_id: int
    name: str
    set: str
    focal_mm: float
    adapter_ids: list[int]
    via: str | None
    verdict: KitVerdict
    effective_mm: float | None
    angle_deg: float | None
    circle_mm: float | None
    needed_mm: float
    margin_mm: float | None
    dark_share: float | None
    dark_corners: list[Corner]
    why_not: str | None


class CoverageView(TypedDict):
    """Coverage of a lens in a recording format."""

    lens: CoverageLens
    map: WindowMap
    margin_mm: float | None
    marginal: str | None
    along: CircleAlong | None
    advice: list[Option]
    lenses: list[CoverageOfLens]
