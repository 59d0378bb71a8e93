"""What the Bench shows."""

from __future__ import annotations

from typing_extensions import TypedDict

from hextan.core.bench.scene import Kind, PartName
from hextan.core.equipment import KitVerdict, Limit, Mounted, WindowMap
from hextan.core.evaluation import (
    BackgroundAnswer,
    CoverageAnswer,
    DepthAnswer,
    FieldM,
    FormatAnswer,
    LensAnswer,
    Note,
    ReferenceAnswer,
    Step,
)
from hextan.core.optics import FormatClass, Sharpness, Verdict


class LensOnBench(TypedDict):
    """The lens as it is set."""

    focal_mm: float
    marks: str
    stop: float | None
    stops: list[float]
    #: As the lens is set, without adapters.
    circle_mm: float | None
    zoom_marks_mm: list[float]
    #: A zoom's circle covers the chosen format from here on; None where it does at once, or never.
    covers_from_mm: float | None
    mounted: LensAnswer
    adapter_stops: float
    mounting: Mounted
    #: Figures that nobody stated and that stand in, by their names.
    assumed: list[str]
    notes: list[Note]


class LensChoice(TypedDict):
    """A lens of the kit as it would be put on for the chosen format."""

    lens_id: int
    adapter_ids: list[int]
    verdict: KitVerdict
    effective_mm: float | None
    effective_long_mm: float | None


class SuitedFormat(TypedDict):
    """A format that suits a squeezed lens: how much of the recording the picture uses."""

    format_id: int
    used: float
    picture_width_mm: float


class SubjectLink(TypedDict):
    """Whether the subject is sharp."""

    sharp: bool | None
    text: str | None
    from_front_m: float | None


class FactorLink(TypedDict):
    """A link that only has a factor."""

    factor: float


class ReadoutLink(TypedDict):
    """The window that is read."""

    factor: float
    width_mm: float
    height_mm: float
    #: What its scan mode is called in the camera.
    menu: str | None


class DeliveryLink(TypedDict):
    """The delivered picture."""

    factor: float


class Links(TypedDict):
    """The six links and their sum; factors by the dimension of the reference."""

    subject: SubjectLink
    lens: FactorLink
    readout: ReadoutLink
    recording: FactorLink
    delivery: DeliveryLink
    sum: FactorLink


class ChosenRate(TypedDict):
    """The highest rate that can be chosen on the camera, and in words what else limits it."""

    usable_fps: float | None
    text: str


class LadderRow(TypedDict):
    """One recording format in the ladder."""

    format_id: int
    format_class: FormatClass | None
    mounts: bool
    verdict: Verdict
    sharpness: Sharpness
    limited_by: Limit | None
    rate: ChosenRate
    shown: bool
    answer: FormatAnswer


class CropSwitch(TypedDict):
    """An in-camera crop of the chosen body; a reason when it cannot act here."""

    id: int
    name: str
    factor: float | None
    on: bool
    #: Whether nothing switches it off.
    always: bool
    reason: str | None
    #: What it is called in the camera.
    menu: str | None


class AxisMark(TypedDict):
    """A mark along the axis."""

    at_m: float
    value: float


class Cone(TypedDict):
    """The field of one format, outlined in metres."""

    format_id: int
    chosen: bool
    points_m: list[list[float]]


class Movement(TypedDict):
    """How far the subject moves, and whether the depth holds it."""

    from_m: float
    to_m: float
    holds: bool | None
    text: str


class PlanView(TypedDict):
    """The plan view, metres."""

    extent_m: float
    ticks: list[AxisMark]
    focus_m: float
    subject_m: float
    near_m: float | None
    far_m: float | None
    hyperfocal_m: float | None
    field_width_m: float | None
    field_height_m: float | None
    cones: list[Cone]
    person_m: dict[str, float]
    movement: Movement | None


class FinderRect(TypedDict):
    """A frame in the finder, mm from the optical axis, de-squeezed and upright."""

    x: float
    y: float
    width: float
    height: float


class OtherFrame(FinderRect):
    """The frame of another delivery."""

    aspect: float


class FinderCircle(TypedDict):
    """The image circle, an oval where the picture is de-squeezed."""

    rx: float
    ry: float


class BlurOval(TypedDict):
    """What a point becomes, mm as it is seen de-squeezed."""

    width: float
    height: float


class FinderPart(TypedDict):
    """An outline."""

    part: PartName
    points: list[list[float]]


class FinderObject(TypedDict):
    """A thing as the finder shows it; nothing to draw behind the entrance pupil."""

    key: str
    kind: Kind
    name: str
    distance_m: float
    aside_m: float
    parts: list[FinderPart]
    at: list[float] | None
    blur: BlurOval | None
    blur_share: float | None
    sharp: bool | None
    size_ratio: float | None
    height_share: float | None
    in_picture: bool


class Perspective(TypedDict):
    """What the camera's place does, in numbers."""

    pupil_to_subject_m: float
    face_ratio: float | None
    caution: str | None
    words: list[str]


class Frames(TypedDict):
    """All frame lines; other deliveries are taken from the recording as any delivery is."""

    recorded: FinderRect
    picture: FinderRect
    framed: FinderRect
    others: list[OtherFrame]
    title_safe: FinderRect | None
    circle: FinderCircle | None


class Viewfinder(Frames):
    """The picture through the finder; objects from far to near."""

    squeeze: float
    image_mm: float
    horizon_blur: BlurOval | None
    projection: str
    objects: list[FinderObject]
    perspective: Perspective


class Unmounted(TypedDict):
    """A lens that does not go on the chosen body as it is set, and the nearest in focal length that does."""

    told: str
    #: None where no lens of the production goes on this body.
    nearest_id: int | None
    nearest_told: str


class MovedFigures(TypedDict):
    """What of a format's figures hangs on where subject and focus are."""

    field_m: FieldM
    magnification: float | None
    subject_distance_m: float | None
    depth: DepthAnswer
    background: list[BackgroundAnswer]
    coverage: CoverageAnswer
    notes: list[Note]


class MovedRow(TypedDict):
    """What of a row of the ladder hangs on where subject and focus are."""

    format_id: int
    verdict: Verdict
    shown: bool
    answer: MovedFigures


class Following(TypedDict):
    """What follows the hand beside the rows."""

    lens: LensOnBench
    links: Links
    plan: PlanView
    viewfinder: Viewfinder


class BenchMove(Following):
    """What follows the hand while something is moved: nothing else of the Bench changes then."""

    #: Of the formats that were asked for.
    rows: list[MovedRow]


class BenchView(Following):
    """All that the Bench shows."""

    #: Of every recording format.
    rows: list[LadderRow]
    reference: ReferenceAnswer
    #: None where the lens goes on: figures of one that does not are of no picture.
    unmounted: Unmounted | None
    crops: list[CropSwitch]
    kit: list[LensChoice]
    suited: list[SuitedFormat]
    window_map: WindowMap
    derivations: dict[str, list[Step]]
