"""The kinds of files in which a list of shots goes out and comes in: a row each."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Literal, TypeAlias

from hextan.core.shots import ANSWERS
from hextan.formats import spreadsheets, timelines
from hextan.formats.spreadsheets import Cell

ShotsFileKind: TypeAlias = Literal["csv", "xlsx", "ods", "otio", "edl"]
Rows: TypeAlias = Sequence[Sequence[Cell]]


@dataclass(frozen=True)
class ShotsFile:
    """A kind of file: written from a table with the production's name and base rate, and read into one."""

    media: str
    write: Callable[[Rows, str, float], bytes]
    read: Callable[[bytes, float], list[list[str]]]


def _sheet(kind: spreadsheets.TableKind) -> ShotsFile:
    return ShotsFile(
        spreadsheets.MEDIA[kind],
        lambda rows, name, fps: spreadsheets.write(kind, rows),
        lambda data, fps: spreadsheets.read(kind, data),
    )


def _timeline(kind: timelines.TimelineKind) -> ShotsFile:
    return ShotsFile(
        timelines.MEDIA[kind],
        lambda rows, name, fps: timelines.write(kind, rows, ANSWERS, name, fps),
        partial(timelines.read, kind),
    )


SHOTS_FILES: dict[ShotsFileKind, ShotsFile] = {
    "csv": _sheet("csv"),
    "xlsx": _sheet("xlsx"),
    "ods": _sheet("ods"),
    "otio": _timeline("otio"),
    "edl": _timeline("edl"),
}
