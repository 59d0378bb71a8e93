"""Shapes of productions, their package and their Bench."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from hextan.api.shape import Shape, Version
from hextan.core.base import Id, Metres
from hextan.core.bench import BenchState
from hextan.core.equipment import DeliveryFrame, Package
from hextan.core.evaluation import BenchReference, OwnWindow
from hextan.core.optics import FormatClass


class Health(Shape):
    """The server is there."""

    status: str
    version: str
    process: int


class Empty(Shape):
    """Nothing: what `./hextan bench` holds the other endpoints against."""


class Distance(Shape):
    """A distance that was read from text."""

    metres: float


class FormatRead(Shape):
    """A recording format."""

    id: int
    name: str
    raster: list[int]
    codec: str
    bits: int | None
    raw: bool
    interlaced: bool
    rates: list[float]
    #: Accessories and licences without which it does not record.
    needs: list[str]


class ModeRead(Shape):
    """A scan mode with its formats; sizes in mm."""

    id: int
    name: str
    window: list[int]
    width_mm: float
    height_mm: float
    sampling: list[int]
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
    #: Windows of reference of the production's own, and the pictures that it delivers, the main one first.
    references: list[OwnWindow]
    #: What crops are told against where nothing else is asked.
    reference: BenchReference
    deliveries: list[DeliveryFrame]
    #: What the plan was made by; None where there is none.
    plan: str | None

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
                        window=list(mode.window),
                        width_mm=mode.window[0] * body.pitch_um / 1000,
                        height_mm=mode.window[1] * body.pitch_um / 1000,
                        sampling=list(mode.sampling),
                        method=mode.method,
                        formats=[
                            FormatRead.model_validate(
                                {
                                    name: getattr(f, name)
                                    for name in FormatRead.model_fields
                                    if name != "rates"
                                }
                                | {
                                    "raster": list(f.raster),
                                    "needs": list(f.needs),
                                    "rates": sorted(
                                        {float(r) for s in f.rates.spans for r in (s.low, s.high)}
                                    ),
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
        return cls(
            bodies=bodies,
            lens_sets=sets,
            adapters=adapters,
            references=list(package.references),
            reference=package.reference,
            deliveries=list(package.deliveries),
            plan=None if package.plan is None else package.plan.name,
        )


class BenchRead(Shape):
    """The kept Bench and its version, for the next write."""

    version: Version
    state: BenchState


class BenchWrite(Shape):
    """A Bench to keep, changed from a known version."""

    version: Version
    state: BenchState


class BenchMended(Shape):
    """A Bench whose equipment is all there, and what had to be replaced."""

    state: BenchState
    notes: list[str]


class MoveAsk(Shape):
    """A Bench on which something is moved, and the rows of its ladder that are in sight."""

    state: BenchState
    format_ids: Annotated[list[Id], Field(max_length=200)] = []
    plan_extent_m: Metres | None = None


class BenchAsk(Shape):
    """A Bench to compute, without keeping it."""

    state: BenchState
    open_rows: Annotated[list[int], Field(max_length=100)] = []
    plan_extent_m: Metres | None = None
