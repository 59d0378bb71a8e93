"""Shapes of the page of the set."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from hextan.api.shape import Shape
from hextan.core.base import Key
from hextan.core.record import BodyChecks, LogEntry, OnCamera, SetDay, SetSettings


class SetSettingsKept(Shape):
    """The cameras that are listened to, with their version, for the next write."""

    version: int
    document: SetSettings


class SetSettingsWrite(Shape):
    """Cameras to listen to, changed from a known version (0: none were kept yet)."""

    version: int
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
