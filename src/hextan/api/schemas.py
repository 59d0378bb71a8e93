"""Shapes of the application's own answers."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from hextan.api.evaluation_schema import FormatAnswer, LensAnswer, Note, ReferenceAnswer, Shape
from hextan.core.bench_state import BenchState
from hextan.core.classes import FormatClass
from hextan.core.contract import Metres
from hextan.core.package import Package
from hextan.core.scene import Kind


class Health(Shape):
    """The server is there."""

    status: str
    version: str
    process: int


class Empty(Shape):
    """Nothing: what `./hextan bench` holds the other endpoints against."""


class ProductionRead(Shape):
    """A production in the list."""

    id: int
    version: int
    name: str
    synopsis: str


class Distance(Shape):
    """A distance that was read from text."""

    metres: float


class FormatRead(Shape):
    """A recording format."""

    id: int
    name: str
    raster: tuple[int, int]
    codec: str
    bits: int
    raw: bool
    interlaced: bool
    rates: list[float]


class ModeRead(Shape):
    """A scan mode with its formats; sizes in mm."""

    id: int
    name: str
    window: tuple[int, int]
    width_mm: float
    height_mm: float
    sampling: tuple[int, int]
    method: str
    formats: list[FormatRead]


class CropRead(Shape):
    """An in-camera crop."""

    id: int
    name: str


class BodyRead(Shape):
    """A body with its modes and crops."""

    id: int
    maker: str
    name: str
    mount: str
    modes: list[ModeRead]
    crops: list[CropRead]


class LensRead(Shape):
    """A lens."""

    id: int
    name: str
    focal_min_mm: float
    focal_max_mm: float
    f_number: float | None
    t_stop: float | None
    image_circle_mm: float | None
    squeeze: float
    close_focus_m: float | None
    mount: str
    projection: str
    designed_for: FormatClass | None


class LensSetRead(Shape):
    """A set of lenses."""

    id: int
    maker: str
    name: str
    lenses: list[LensRead]


class AdapterRead(Shape):
    """An adapter."""

    id: int
    name: str
    magnification: float
    lens_mount: str
    body_mount: str


class PackageRead(Shape):
    """All equipment of a production."""

    bodies: list[BodyRead]
    lens_sets: list[LensSetRead]
    adapters: list[AdapterRead]

    @classmethod
    def of(cls, package: Package) -> PackageRead:
        """Show the core's records."""
        bodies = [
            BodyRead(
                id=body.id,
                maker=body.maker,
                name=body.name,
                mount=body.mount,
                crops=[CropRead(id=crop.id, name=crop.name) for crop in body.crops],
                modes=[
                    ModeRead(
                        id=mode.id,
                        name=mode.name,
                        window=mode.window,
                        width_mm=mode.window[0] * body.pitch_um / 1000,
                        height_mm=mode.window[1] * body.pitch_um / 1000,
                        sampling=mode.sampling,
                        method=mode.method,
                        formats=[
                            FormatRead.model_validate(
                                {
                                    name: getattr(f, name)
                                    for name in FormatRead.model_fields
                                    if name != "rates"
                                }
                                | {
                                    "rates": sorted(
                                        {float(r) for s in f.rates.spans for r in (s.low, s.high)}
                                    )
                                }
                            )
                            for f in mode.formats
                        ],
                    )
                    for mode in body.modes
                ],
            )
            for body in package.bodies
        ]
        sets = [
            LensSetRead(
                id=kit.id,
                maker=kit.maker,
                name=kit.name,
                lenses=[LensRead(**{n: getattr(x, n) for n in LensRead.model_fields}) for x in kit.lenses],
            )
            for kit in package.lens_sets
        ]
        adapters = [
            AdapterRead(**{n: getattr(a, n) for n in AdapterRead.model_fields}) for a in package.adapters
        ]
        return cls(bodies=bodies, lens_sets=sets, adapters=adapters)


class BenchRead(Shape):
    """The kept Bench and its version, for the next write."""

    version: int
    state: BenchState


class BenchWrite(Shape):
    """A Bench to keep, changed from a known version."""

    version: int
    state: BenchState


class BenchMended(Shape):
    """A Bench whose equipment is all there, and what had to be replaced."""

    state: BenchState
    notes: list[str]


class BenchAsk(Shape):
    """A Bench to compute, without keeping it."""

    state: BenchState
    open_rows: Annotated[list[int], Field(max_length=100)] = []
    plan_extent_m: Metres | None = None


KitVerdict = Literal["covers", "marginal", "short", "unknown", "impossible"]


class MountingRead(Shape):
    """How lens, adapters and body go together."""

    verdict: Literal["possible", "consequences", "impossible"]
    reasons: list[str]
    consequences: list[str]


class LensOnBench(Shape):
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
    mounting: MountingRead
    notes: list[Note]


class LensChoice(Shape):
    """A lens of the kit as it would be put on for the chosen format."""

    lens_id: int
    adapter_ids: list[int]
    verdict: KitVerdict
    effective_mm: float | None
    effective_long_mm: float | None


class SuitedFormat(Shape):
    """A format that suits a squeezed lens: how much of the recording the picture uses."""

    format_id: int
    used: float
    picture_width_mm: float


class SubjectLink(Shape):
    """Whether the subject is sharp."""

    sharp: bool | None
    blur_mm: float | None
    text: str | None
    from_front_m: float | None


class FactorLink(Shape):
    """A link that only has a factor."""

    factor: float


class ReadoutLink(Shape):
    """The window that is read."""

    factor: float
    width_mm: float
    height_mm: float


class DeliveryLink(Shape):
    """The delivered picture."""

    factor: float
    pixels_across: float


class Links(Shape):
    """The six links and their sum; factors by the dimension of the reference."""

    subject: SubjectLink
    lens: FactorLink
    readout: ReadoutLink
    recording: FactorLink
    delivery: DeliveryLink
    sum: FactorLink


Verdict = Literal["covers", "marginal", "short", "unknown"]


class ChosenRate(Shape):
    """The highest rate that can be chosen on the camera, and in words what else limits it."""

    usable_fps: float | None
    text: str


class LadderRow(Shape):
    """One recording format in the ladder."""

    format_id: int
    format_class: FormatClass
    mounts: bool
    verdict: Verdict
    sharpness: Literal["oversampled", "1:1", "softened"]
    limited_by: Literal["readout", "stated limit", "codec", "data rate"] | None
    rate: ChosenRate
    shown: bool
    answer: FormatAnswer


class CropSwitch(Shape):
    """An in-camera crop of the chosen body; a reason when it cannot act here."""

    id: int
    name: str
    factor: float | None
    on: bool
    reason: str | None


class Tick(Shape):
    """A mark along the axis."""

    at_m: float
    value: float


class Cone(Shape):
    """The field of one format, outlined in metres."""

    format_id: int
    chosen: bool
    points_m: list[list[float]]


class Movement(Shape):
    """How far the subject moves, and whether the depth holds it."""

    from_m: float
    to_m: float
    holds: bool | None
    text: str


class PlanView(Shape):
    """The plan view, metres."""

    extent_m: float
    ticks: list[Tick]
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


class MapRect(Shape):
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


class Words(Shape):
    """A sentence with its verdict."""

    verdict: Verdict
    text: str


class WindowMap(Shape):
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
    dark_corners: list[str]
    dark_share: float | None
    words: list[Words]


class FinderRect(Shape):
    """A frame in the finder, mm from the optical axis, de-squeezed and upright."""

    x: float
    y: float
    width: float
    height: float


class OtherFrame(FinderRect):
    """The frame of another delivery."""

    aspect: float


class FinderCircle(Shape):
    """The image circle, an oval where the picture is de-squeezed."""

    rx: float
    ry: float


class BlurOval(Shape):
    """What a point becomes, mm as it is seen de-squeezed."""

    width: float
    height: float


class FinderPart(Shape):
    """An outline."""

    part: Literal["body", "head", "lamp", "post", "shore"]
    points: list[list[float]]


class FinderObject(Shape):
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


class Perspective(Shape):
    """What the camera's place does, in numbers."""

    pupil_to_subject_m: float
    face_ratio: float | None
    caution: str | None
    words: list[str]


class Viewfinder(Shape):
    """The picture through the finder; objects from far to near."""

    recorded: FinderRect
    picture: FinderRect
    framed: FinderRect
    others: list[OtherFrame]
    title_safe: FinderRect | None
    circle: FinderCircle | None
    squeeze: float
    image_mm: float
    horizon_blur: BlurOval | None
    projection: str
    objects: list[FinderObject]
    perspective: Perspective


class Step(Shape):
    """One step of a derivation."""

    link: str
    what: str
    formula: str
    numbers: str
    result: str


class BenchView(Shape):
    """All that the Bench shows."""

    reference: ReferenceAnswer
    lens: LensOnBench
    links: Links
    rows: list[LadderRow]
    crops: list[CropSwitch]
    kit: list[LensChoice]
    suited: list[SuitedFormat]
    plan: PlanView
    window_map: WindowMap
    viewfinder: Viewfinder
    derivations: dict[str, list[Step]]
