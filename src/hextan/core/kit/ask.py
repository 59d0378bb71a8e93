"""What is asked of the whole kit: every lens in every recording format."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from hextan.core.base import FocalMm, Fps, Id, Metres, Part, Stop, Unit
from hextan.core.evaluation import BenchDelivery, BenchReference


class KitAsk(Part):
    """How the kit is looked at: reference, delivered picture, in-camera crops, part of the package."""

    #: The production's where none is named.
    reference: BenchReference | None = None
    delivery: BenchDelivery = BenchDelivery()
    crop_ids: Annotated[list[Id], Field(max_length=50)] = []
    #: Only these bodies, lens sets, formats; all when None.
    body_ids: Annotated[list[Id], Field(max_length=200)] | None = None
    lens_set_ids: Annotated[list[Id], Field(max_length=200)] | None = None
    format_ids: Annotated[list[Id], Field(max_length=5000)] | None = None
    #: Only formats that reach this rate.
    least_fps: Fps | None = None
    #: How lenses are mounted: on each body the simplest way, or also in every other way.
    mounted: Literal["simplest", "every"] = "simplest"
    #: The unit that comes first in sentences.
    unit: Unit = "m"


class WidenedAsk(KitAsk):
    """A look at the kit that begins with what the plan carries, and can be widened."""

    #: Only what the plan carries, put on with what it carries; everything where there is none.
    planned: bool = False


class MatrixAsk(WidenedAsk):
    """The matrix: recording formats one by one, those with the same picture together, or classes."""

    across: Literal["formats", "pictures", "classes"] = "pictures"


class LadderAsk(WidenedAsk):
    """The ladder of all effective focal lengths."""

    mounted: Literal["simplest", "every"] = "every"
    #: Neighbours farther apart than this ratio leave a gap; nearer than this per cent they are doubles.
    gap_ratio: Annotated[float, Field(ge=1.05, le=10)] = 1.45
    double_percent: Annotated[float, Field(ge=0, le=25)] = 3.0
    #: Prices of closing a gap are told for this format.
    base_format_id: Id | None = None


class MatchAsk(WidenedAsk):
    """A wanted equivalent: like a 50 on full frame, at the subject's distance."""

    mounted: Literal["simplest", "every"] = "every"
    focal_mm: FocalMm = 50.0
    on: BenchReference = BenchReference(name="full_frame")
    subject_m: Metres = 3.0
    background_m: Metres = 3.0


class FramingWish(Part):
    """A person in the frame: from the top of the head down to where the frame ends."""

    framing: Literal["full figure", "knees", "waist", "chest", "face", "eyes"] = "chest"
    height_m: Annotated[float, Field(ge=0.3, le=3)] = 1.7
    #: Share of the picture's height that stays free above the head.
    headroom: Annotated[float, Field(ge=0, le=0.5)] = 0.08


class Room(Part):
    """What the place allows."""

    #: From wall to wall along the lens axis.
    length_m: Metres | None = None
    #: Between the subject and the wall behind it.
    behind_subject_m: Annotated[float, Field(ge=0, le=1000)] = 0.5
    #: What camera and operator take behind the sensor plane.
    behind_camera_m: Annotated[float, Field(ge=0, le=10)] = 0.6


class FieldAsk(KitAsk):
    """A wanted field and two of distance, lens and format: the third is found."""

    mounted: Literal["simplest", "every"] = "every"
    find: Literal["distance", "lens", "format"] = "distance"
    width_m: Metres | None = None
    height_m: Metres | None = None
    person: FramingWish | None = None
    distance_m: Metres | None = None
    lens_id: Id | None = None
    focal_mm: FocalMm | None = None
    adapter_ids: Annotated[list[Id], Field(max_length=2)] | None = None
    format_id: Id | None = None
    room: Room = Room()


class SlowAsk(KitAsk):
    """Which lens keeps the field of the base format at high speed."""

    mounted: Literal["simplest", "every"] = "every"
    base_format_id: Id
    fps: Fps = 100.0


class CoverageAsk(KitAsk):
    """One lens as it is set, in one recording format."""

    format_id: Id
    lens_id: Id
    focal_mm: FocalMm | None = None
    stop: Stop | None = None
    focus_m: Metres | None = None
    #: As it is put on; the least trouble when None.
    adapter_ids: Annotated[list[Id], Field(max_length=2)] | None = None
