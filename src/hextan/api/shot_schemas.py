"""Shapes of shots."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from hextan.api.shape import Shape, Version
from hextan.core.base import Key, Name
from hextan.core.bench import BenchState, Scene
from hextan.core.shots import CellChanged, ColumnTaken, Shot, ShotList

#: Pictures that are drawn for one question: as many as a screen shows.
MOST_PICTURES = 60


class ShotsKept(Shape):
    """The list of shots with its version, for the next write."""

    version: Version
    document: ShotList


class ShotsWrite(Shape):
    """A list of shots to keep, changed from a known version (0: none was kept yet)."""

    version: Version
    document: ShotList


class ShotsAsk(Shape):
    """A list of shots to judge, without keeping it.

    `changes_for`: the shots for which it is looked for what could make them, where they cannot be made (all, unless it is said):
    that takes about a tenth of a second each.
    """

    document: ShotList
    changes_for: Annotated[list[Key], Field(max_length=2000)] | None = None


class ShotsListedAsk(Shape):
    """A list of shots to judge as it is typed, and the tags of the answers that are there already, by the keys of their shots."""

    document: ShotList
    known: Annotated[dict[Key, Annotated[str, Field(max_length=64)]], Field(max_length=2000)] = {}


class ShotAnswerAsk(Shape):
    """One shot to judge, and whether it is looked for what would make it where it cannot be made: that takes a tenth of a second."""

    shot: Shot
    changes: bool = True


class PicturesAsk(Shape):
    """Shots whose finder pictures are wanted, and what stands before the camera besides their subjects."""

    shots: Annotated[list[Shot], Field(max_length=MOST_PICTURES)]
    scene: Scene = Scene()


class ShotAsk(Shape):
    """One shot."""

    shot: Shot


class ShotOfBenchAsk(Shape):
    """A Bench that becomes a shot, and the shot's number."""

    state: BenchState
    number: Name


class ShotsTableRead(Shape):
    """A table that was read: the list as it would be, and what would change; nothing is kept yet."""

    document: ShotList
    new: list[str]
    changed: list[str]
    renamed: list[str]
    moved: list[str]
    #: Not named by the table; they stay, unless it is asked for otherwise.
    gone: list[str]
    understood: list[str]
    kept: list[str]
    left_out: list[str]
    #: What each column was taken for, and which cells of known shots say something else now.
    columns: list[ColumnTaken]
    cells: list[CellChanged]


class BenchOfShot(Shape):
    """The Bench as a shot's choice sets it; None where nothing can be chosen."""

    state: BenchState | None
