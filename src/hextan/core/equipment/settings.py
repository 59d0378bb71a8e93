"""What a production sets once for its package: base rate, shutter, planned minutes, cards."""

from __future__ import annotations

from typing import Annotated, Literal, TypeAlias

from pydantic import AfterValidator, Field, field_validator

from hextan.core.base import Key, Name, Part, RateText, Schema, Unit, new_key, parser_of
from hextan.core.evaluation import BenchDelivery, BenchReference, Coc, CocByDiagonal, OwnWindow
from hextan.core.optics import BYTES, DARK_SHARE, CapacityUnit

#: How long a thing takes to cross the frame, seconds (common practice, no source).
MOVEMENTS: dict[str, float] = {
    "a walk across": 4.0,
    "a slow pan": 7.0,
    "a run across": 1.5,
    "an oar's stroke": 0.8,
    "a whip pan": 0.3,
}


#: How a person is framed, by where the picture ends (`core.kit` has their figures).
PersonFraming: TypeAlias = Literal["eyes", "face", "chest", "waist", "knees", "full figure"]
#: Whose words a production speaks.
TradeWords: TypeAlias = Literal["cine", "video", "stills"]


Shorthand: TypeAlias = Annotated[str, Field(min_length=1, max_length=20, pattern=r"^[^\s\d](?:.*\S)?$")]


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


class MainFormat(Part):
    """What a unit shoots on unless a shot forces it off: by its names, so that it goes with the production anywhere."""

    key: Key = Field(default_factory=new_key)
    #: The unit as shots name it; empty for every unit that has none of its own.
    unit: Annotated[str, Field(max_length=120)] = ""
    body: Name
    #: Any of the body where they are empty.
    mode: Annotated[str, Field(max_length=80)] = ""
    format: Annotated[str, Field(max_length=80)] = ""
    #: Whether a shot that cannot be made on it is not made at all.
    must: bool = False
    #: How much it counts as a wish, beside the wishes of shots.
    weight: Annotated[float, Field(gt=0, le=10)] = 5.0


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
    #: What the units shoot on, and the least that is recorded where a shot does not ask for less: the longer edge, bits.
    mains: Annotated[list[MainFormat], Field(max_length=30)] = []
    least_px: Annotated[int, Field(ge=16, le=100_000)] | None = None
    least_bits: Annotated[int, Field(ge=1, le=32)] | None = None
    #: What shorthand of sizes means here, where it is not what most people mean: MS may end at the waist or at the knees.
    sizes: Annotated[dict[Shorthand, PersonFraming], Field(max_length=30)] = {}
    #: What a new Bench begins with.
    unit: Unit = "m"
    mains_hz: Literal[50, 60] = 50
    #: Of cinema, of video, or of stills: how sensitivity, shutter and focal lengths are told.
    words: TradeWords = "cine"
    #: Pictures that are delivered; the first is the main one.
    deliveries: Annotated[list[DeliveryFrame], Field(max_length=20)] = []
    #: A lens of which only the T-stop is stated is taken to open so many stops wider as an f-number (common practice, no source: a third).
    t_loss_stops: Annotated[float, Field(ge=0, le=2)] = 1 / 3
    #: From which per cent of a recording on what a circle leaves dark is called dark corners (common practice, no source).
    seen_dark_percent: Annotated[float, Field(ge=0, le=20)] = 100 * DARK_SHARE
    #: Whether sentences tell distances in the other unit as well, in brackets.
    brackets: bool = False
    #: The stop and the support of a shot that says none, as its cells would: wishes.
    usual_stop: Annotated[str, Field(max_length=120)] = ""
    usual_rig: Annotated[str, Field(max_length=120)] = ""
    #: Accessories and licences that are carried, as the formats that need them name them.
    carried: Annotated[list[Name], Field(max_length=100)] = []

    @field_validator("sizes")
    @classmethod
    def _once(cls, sizes: dict[str, PersonFraming]) -> dict[str, PersonFraming]:
        if len({name.lower() for name in sizes}) != len(sizes):
            raise ValueError("one shorthand means two sizes")
        return sizes

    @field_validator("mains")
    @classmethod
    def _one_of_each_unit(cls, mains: list[MainFormat]) -> list[MainFormat]:
        units = [each.unit.strip().lower() for each in mains]
        if len(set(units)) != len(units):
            raise ValueError("one unit has two main formats: take one away, or name another unit")
        if any(each.format and not each.mode for each in mains):
            raise ValueError("a recording format is named with its scan mode")
        return mains


#: Checks settings given as plain data.
parse_settings = parser_of(PackageSettings, "settings")
