"""What the format finder can be asked for: each requirement a must, or a wish with a weight."""

from __future__ import annotations

from typing import Annotated, TypeAlias

from pydantic import Field

from hextan.core.base import FocalMm, Pair, Part, RateText

Id: TypeAlias = Annotated[int, Field(ge=1, le=2**53)]


class Wish(Part):
    """A requirement: a must, or a wish with a weight."""

    must: bool = True
    weight: Annotated[float, Field(gt=0, le=10)] = 1.0


class RateWish(Wish):
    """A frame rate, progressive or interlaced."""

    fps: RateText
    interlaced: bool = False


class DeliveryWish(Wish):
    """A raster to deliver: the recording must have a pixel for each of its pixels."""

    raster: Pair


class AtLeast(Wish):
    """A number that must be reached."""

    least: Annotated[float, Field(gt=0, le=1_000_000)]


class CardWish(AtLeast):
    """Minutes on a card of the production."""

    card: Annotated[str, Field(max_length=40)]


class LensAtHand(Part):
    """The lens that is on the camera; without one, coverage and angle cannot be asked for."""

    lens_id: Id
    adapter_id: Id | None = None
    second_adapter_id: Id | None = None
    focal_mm: FocalMm | None = None


class FinderAsk(Part):
    """What the shot needs. What is left out does not matter."""

    lens: LensAtHand | None = None
    #: Look over the whole catalogue as well: what would have to be rented.
    catalogue: bool = False
    #: Only bodies that the plan carries; all where there is none, or the catalogue is looked over.
    planned: bool = False
    rate: RateWish | None = None
    delivery: DeliveryWish | None = None
    oversampling: AtLeast | None = None
    full_read: Wish | None = None
    raw: Wish | None = None
    bits: AtLeast | None = None
    covers: Wish | None = None
    angle_deg: AtLeast | None = None
    card_minutes: CardWish | None = None
    reframe_percent: AtLeast | None = None
    levelling_deg: AtLeast | None = None
