"""The log as data: what was really on a camera, take by take. Everything goes by name, so that it outlives the package."""

from __future__ import annotations

from typing import Annotated, Any, Literal, TypeAlias

from pydantic import AfterValidator, ConfigDict, Field, model_validator

from hextan.core.base import FocalMm, Fps, Key, Metres, Name, Part, Schema, Stop, parser_of

LOG_SCHEMA = Schema("hextan.log", 1)
#: Of one production: entries, and versions of one entry.
MOST_ENTRIES = 20_000
MOST_BEFORE = 200
#: Of what a camera said during one take.
MOST_CHANGES = 200


def _plain(text: str) -> str:
    if any(not c.isprintable() and c != "\n" for c in text):
        raise ValueError("must be text, without control characters")
    return text.strip()


#: A moment, to the second or finer, UTC.
Moment: TypeAlias = Annotated[
    str, Field(pattern=r"^\d{4}-[01]\d-[0-3]\dT[0-2]\d:[0-5]\d:[0-5]\d(\.\d{1,6})?Z$")
]
Words: TypeAlias = Annotated[str, Field(max_length=2000), AfterValidator(_plain)]
Short: TypeAlias = Annotated[str, Field(max_length=120), AfterValidator(_plain)]


class OnCamera(Part):
    """What is on a camera, and how it is set. Nothing is said where a name is empty or a figure None."""

    body: Short = ""
    mode: Short = ""
    format: Short = ""
    lens: Short = ""
    #: The set of the lens, where it is known: several may have a lens of that name.
    lens_set: Short = ""
    #: Which of several lenses of that name it is.
    serial: Short = ""
    adapters: Annotated[list[Name], Field(max_length=2)] = []
    #: As set on a zoom.
    focal_mm: FocalMm | None = None
    #: As the ring is marked.
    stop: Stop | None = None
    ei: Annotated[int, Field(ge=1, le=10_000_000)] | None = None
    nd_stops: Annotated[float, Field(ge=0, le=30)] | None = None
    fps: Fps | None = None
    shutter_deg: Annotated[float, Field(gt=0, le=360)] | None = None
    #: Where the lens is focused, from the sensor plane.
    focus_m: Metres | None = None
    #: In-camera crops that are on; None where nobody says.
    crops: Annotated[list[Name], Field(max_length=50)] | None = None
    #: By how much the camera de-squeezes, where it says so.
    squeeze: Annotated[float, Field(ge=0.5, le=4)] | None = None
    #: The card, or the roll.
    card: Short = ""


class SaidChange(Part):
    """Something that a camera said otherwise than before."""

    at: Moment
    what: Short
    was: Short
    now: Short


class Said(Part):
    """What a camera said while a take was shot."""

    start: Moment
    end: Moment
    samples: Annotated[int, Field(ge=0, le=2**53)]
    changes: Annotated[list[SaidChange], Field(max_length=MOST_CHANGES)] = []
    #: Changes beyond those that are kept.
    left_out: Annotated[int, Field(ge=0, le=2**53)] = 0


class Written(Part):
    """An entry of the log: its key was made where it was written, so that it is kept once however often it is sent."""

    key: Key
    #: When it happened, by the clock of whoever wrote it, and how far that clock's hour is from UTC.
    at: Moment
    offset_min: Annotated[int, Field(ge=-840, le=840)] = 0
    by: Short = ""
    #: When this version of it was written.
    written_at: Moment
    #: Camera: A, B, ...
    unit: Short = ""
    #: Of the list of shots.
    day: Short = ""
    removed: bool = False


class Take(Written):
    """A take."""

    kind: Literal["take"] = "take"
    #: Key of the shot, and its number as it was called then.
    shot: Key | None = None
    shot_name: Short = ""
    take: Annotated[int, Field(ge=1, le=9999)] = 1
    on: OnCamera = OnCamera()
    circled: bool = False
    note: Words = ""
    seconds: Annotated[float, Field(ge=0, le=1e6)] | None = None
    said: Said | None = None


class Booking(Written):
    """From now on this is on the camera."""

    kind: Literal["booking"] = "booking"
    #: Key of the shot for which it was put on, where there was one.
    shot: Key | None = None
    on: OnCamera = OnCamera()
    note: Words = ""


class Tick(Written):
    """A point of the checklist that was looked at, with what was seen then."""

    kind: Literal["tick"] = "tick"
    body: Short
    item: Key
    ticked: bool = True
    note: Words = ""


class ClipFacts(Part):
    """What the head of a clip or a still says. Nothing else of it is kept."""

    name: Annotated[str, Field(min_length=1, max_length=255), AfterValidator(_plain)]
    bytes: Annotated[int, Field(ge=0, le=2**60)] | None = None
    #: Stored pixels, and the shape of one of them (2 with a squeeze of 2 that the file states).
    raster: (
        Annotated[list[Annotated[int, Field(ge=1, le=100_000)]], Field(min_length=2, max_length=2)] | None
    ) = None
    pixel_aspect: Annotated[float, Field(gt=0, le=100)] | None = None
    fps: Fps | None = None
    interlaced: bool | None = None
    codec: Short = ""
    bits: Annotated[int, Field(ge=1, le=64)] | None = None
    timecode: Annotated[str, Field(pattern=r"^(\d\d:\d\d:\d\d[:;.]\d\d)?$")] = ""
    seconds: Annotated[float, Field(ge=0, le=1e7)] | None = None
    #: When it was shot, by the camera's clock.
    at: Moment | None = None
    reel: Short = ""
    #: What the camera wrote of itself and of the lens.
    body: Short = ""
    lens: Short = ""
    focal_mm: FocalMm | None = None
    f_number: Stop | None = None
    t_stop: Stop | None = None
    ei: Annotated[int, Field(ge=1, le=10_000_000)] | None = None
    shutter_deg: Annotated[float, Field(gt=0, le=360)] | None = None
    focus_m: Metres | None = None
    #: Of what is read of the sensor: millimetres, and the spacing of photosites that the file tells.
    read_mm: (
        Annotated[list[Annotated[float, Field(gt=0, le=1000)]], Field(min_length=2, max_length=2)] | None
    ) = None
    pitch_um: Annotated[float, Field(gt=0, le=1000)] | None = None
    still: bool = False
    #: Why nothing of it could be read; empty of what was.
    unread: Annotated[str, Field(max_length=400)] = ""
    #: All else as it stands in the file.
    tags: Annotated[dict[Short, Annotated[str, Field(max_length=400)]], Field(max_length=200)] = {}


class Clip(Written):
    """A clip or a still that was held against the plan."""

    kind: Literal["clip"] = "clip"
    facts: ClipFacts


LogEntry: TypeAlias = Annotated[Take | Booking | Tick | Clip, Field(discriminator="kind")]


class LogItem(Part):
    """An entry as it stands, and what stood before it: its revision is how often it was written."""

    entry: LogEntry
    before: Annotated[list[LogEntry], Field(max_length=MOST_BEFORE)] = []

    @property
    def revision(self) -> int:
        """1 when it is new."""
        return len(self.before) + 1

    def has(self, entry: Any) -> bool:
        """Whether an entry is this one, or was: it is sent again then."""
        return entry == self.entry or entry in self.before


class Log(Part):
    """The log of a production, in the order in which it was received."""

    schema_name: Literal["hextan.log"] = Field("hextan.log", alias="schema")
    schema_version: Literal[1] = 1
    items: Annotated[list[LogItem], Field(max_length=MOST_ENTRIES)] = []

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    @model_validator(mode="after")
    def _keys(self) -> Log:
        keys = [item.entry.key for item in self.items]
        if len(set(keys)) != len(keys):
            raise ValueError("two entries have the same key")
        return self


class Source(Part):
    """A camera that is listened to."""

    #: Camera: A, B, ...
    unit: Annotated[str, Field(min_length=1, max_length=20), AfterValidator(_plain)]
    body: Name
    on: bool = False
    #: Datagrams that come to a port here, or lines that are fetched from an address.
    way: Literal["udp", "http"] = "udp"
    host: Annotated[str, Field(max_length=120, pattern=r"^[0-9A-Za-z.:\[\]-]+$")] = "127.0.0.1"
    port: Annotated[int, Field(ge=1024, le=65535)] = 45500
    #: Where lines are fetched at the address.
    path: Annotated[str, Field(max_length=200, pattern=r"^/[0-9A-Za-z._~/-]*$")] = "/samples"
    #: What the camera goes by (`sourceId`), or the word that it asks for; whatever says another is not heard.
    secret: Annotated[str, Field(max_length=200), AfterValidator(_plain)] = ""


class SetSettings(Part):
    """What a production's page of the set keeps: cameras that are listened to."""

    schema_name: Literal["hextan.set"] = Field("hextan.set", alias="schema")
    schema_version: Literal[1] = 1
    sources: Annotated[list[Source], Field(max_length=40)] = []

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    @model_validator(mode="after")
    def _one_each(self) -> SetSettings:
        units = [source.unit for source in self.sources]
        if len(set(units)) != len(units):
            raise ValueError("two cameras have the same letter")
        return self


SET_SCHEMA = Schema("hextan.set", 1)
parse_set = parser_of(SetSettings)
#: Checks a log given as plain data, and an item of it.
parse_log = parser_of(Log)
parse_item = parser_of(LogItem)
