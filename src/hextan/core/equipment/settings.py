"""What a production sets once for its package: base rate, shutter, planned minutes, cards."""

from __future__ import annotations

from typing import Annotated, Literal, TypeAlias

from pydantic import AfterValidator, Field

from hextan.core.base import Key, Name, Part, RateText, Schema, Unit, new_key, parser_of
from hextan.core.evaluation import BenchDelivery, BenchReference, Coc, CocByDiagonal, OwnWindow
from hextan.core.optics import BYTES, CapacityUnit

#: How long a thing takes to cross the frame, seconds (common practice, no source).
MOVEMENTS: dict[str, float] = {
    "a walk across": 4.0,
    "a slow pan": 7.0,
    "a run across": 1.5,
    "an oar's stroke": 0.8,
    "a whip pan": 0.3,
}


#: Whose words a production speaks.
TradeWords: TypeAlias = Literal["cine", "video", "stills"]


class Card(Part):
    """A recording card: GB is 10^9 bytes, GiB 2^30."""

    key: Key = Field(default_factory=new_key)
    name: Name
    capacity: Annotated[float, Field(gt=0, le=1_000_000)]
    unit: CapacityUnit = "GB"

    @property
    def bytes(self) -> float:
        """What it holds."""
        return self.capacity * BYTES[self.unit]


class DeliveryFrame(BenchDelivery):
    """A picture that is delivered, under a name."""

    name: Name


def _of_no_body(reference: BenchReference) -> BenchReference:
    if reference.name == "scan_mode":
        raise ValueError("bodies go, and the production counts on: take the window's size as one of its own")
    return reference


SETTINGS_SCHEMA = Schema("hextan.settings", 1)


class PackageSettings(Part):
    """Settings of a production's package."""

    schema_version: Literal[1] = 1
    base_fps: RateText = "25"
    shutter_deg: Annotated[float, Field(gt=0, le=360)] = 180.0
    #: The rate that the speed table asks about.
    wanted_fps: RateText = "100"
    #: How long the movement takes to cross the frame, for the skew of a rolling shutter.
    crossing_s: Annotated[float, Field(ge=0.01, le=1000)] = 0.8
    minutes_a_day: Annotated[float, Field(gt=0, le=10_000)] = 90.0
    #: What counts as sharp, unless a look says otherwise.
    coc: Coc = CocByDiagonal()
    cards: Annotated[list[Card], Field(max_length=50)] = []
    #: Windows of reference besides Super 35 and full frame.
    references: Annotated[list[OwnWindow], Field(max_length=30)] = []
    #: What crops are told against; by the class of the first body where nothing is chosen. No scan mode's window: bodies go.
    reference: Annotated[BenchReference, AfterValidator(_of_no_body)] | None = None
    #: What a new Bench begins with.
    unit: Unit = "m"
    mains_hz: Literal[50, 60] = 50
    #: Of cinema, of video, or of stills: how sensitivity, shutter and focal lengths are told.
    words: TradeWords = "cine"
    #: Pictures that are delivered; the first is the main one.
    deliveries: Annotated[list[DeliveryFrame], Field(max_length=20)] = []
    #: Accessories and licences that are carried, as the formats that need them name them.
    carried: Annotated[list[Name], Field(max_length=100)] = []


#: Checks settings given as plain data.
parse_settings = parser_of(PackageSettings, "settings")
