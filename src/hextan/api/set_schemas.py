"""Shapes of the page of the set."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from hextan.api.shape import Shape, Version
from hextan.core.base import Key
from hextan.core.record import (
    BodyChecks,
    ClipFacts,
    Held,
    KeptMatch,
    LogEntry,
    OnCamera,
    Said,
    SetDay,
    SetSettings,
    Short,
)


class SetSettingsKept(Shape):
    """The cameras that are listened to, with their version, for the next write."""

    version: Version
    document: SetSettings


class SetSettingsWrite(Shape):
    """Cameras to listen to, changed from a known version (0: none were kept yet)."""

    version: Version
    document: SetSettings


class SetSeen(Shape):
    """All that the page of the set shows of a day."""

    day: SetDay
    checks: list[BodyChecks]


class HeldAsk(Shape):
    """What is on a camera, to be held against the plan of a shot."""

    shot: Key | None = None
    on: OnCamera


class LogWrite(Shape):
    """An entry of the log to write: a new one, or another version of one that is based on a known revision."""

    entry: LogEntry
    #: 0 for a new entry.
    based_on: Annotated[int, Field(ge=0, le=10_000)] = 0


class LogKept(Shape):
    """An entry as it stands in the log."""

    revision: int
    entry: LogEntry


class OtherCamera(Shape):
    """Another camera that is listened to."""

    unit: str
    body: str
    speaks: bool


class LiveSeen(Shape):
    """How a camera that is listened to stands against the plan."""

    unit: str
    listened: bool
    body: str
    #: Whether it said anything in the last seconds.
    speaks: bool
    silent_s: float | None
    samples: int
    #: What is wrong with what it says.
    told: str
    #: What cameras go by that were heard in its place, as long as it was not.
    names: list[str]
    on: OnCamera | None
    #: What it says and cannot be placed.
    notes: list[str]
    held: Held | None
    #: Since when each kind of difference stands, by its code.
    since: dict[str, str]
    recording: bool | None
    focus_m: float | None
    #: What it said since the last take, for the next one.
    said: Said | None
    #: The stop that keeps it matched to another camera.
    match: KeptMatch | None
    others: list[OtherCamera]


class ClipsRead(Shape):
    """What the head of a file says: one clip, or those of a table."""

    facts: list[ClipFacts]


class ClipsAsk(Shape):
    """Clips and stills to list with a day."""

    facts: Annotated[list[ClipFacts], Field(min_length=1, max_length=5000)]
    unit: Short = ""
    day: Short = ""
    by: Short = ""
    offset_min: Annotated[int, Field(ge=-840, le=840)] = 0


class ClipsListed(Shape):
    """How many clips are new in the log, and how many were there."""

    added: int
    there: int
