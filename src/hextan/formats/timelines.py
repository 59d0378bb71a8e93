"""Lists of shots as OpenTimelineIO, and as an edit list: each shot a clip that carries what it needs as metadata."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Literal, TypeAlias

import opentimelineio
from opentimelineio.opentime import RationalTime, TimeRange

from hextan.formats.child import ANSWERED, EVENT, EVENT_KEY, FOREIGN, KEY, OWN
from hextan.formats.spreadsheets import Cell, in_a_child

TimelineKind: TypeAlias = Literal["otio", "edl"]
MEDIA: dict[TimelineKind, str] = {"otio": "application/json", "edl": "text/plain; charset=utf-8"}
_ADAPTERS: dict[TimelineKind, str] = {"otio": "otio_json", "edl": "cmx_3600"}


def write(
    kind: TimelineKind, rows: Sequence[Sequence[Cell]], answered: Sequence[str], name: str, fps: float
) -> bytes:
    """Write a table of shots as clips in their order, each a second long.

    Parameters
    ----------
    rows : titles, then a row for each shot, its number first
    answered : titles of the columns that hold answers
    """
    titles = [str(title) for title in rows[0]]
    if kind == "edl" and len(rows) == 1:
        # The library writes no list without events.
        return f"TITLE: {' '.join(name.split())}\n\n".encode()
    timeline = opentimelineio.schema.Timeline(name)
    track = opentimelineio.schema.Track("Shots", kind="Video")
    timeline.tracks.append(track)
    for row in rows[1:]:
        cells = dict(zip(titles, row, strict=True))
        clip = opentimelineio.schema.Clip(
            str(row[0]), source_range=TimeRange(RationalTime(0, fps), RationalTime(round(fps), fps))
        )
        for key, value in _foreign(cells.pop(FOREIGN, "")).items():
            clip.metadata[key] = value
        clip.metadata[OWN] = {
            title: value
            for title, value in cells.items()
            if title not in answered and value not in ("", None)
        }
        clip.metadata[ANSWERED] = {
            title: cells[title] for title in answered if cells[title] not in ("", None)
        }
        if kind == "edl" and cells.get(KEY):
            # An edit list keeps comments, and nothing else that would name the shot once its clip has another name.
            event = dict(clip.metadata.get(EVENT, {}))
            clip.metadata[EVENT] = event | {
                "comments": [*event.get("comments", []), f"{EVENT_KEY} {cells[KEY]}"]
            }
        track.append(clip)
    return str(opentimelineio.adapters.write_to_string(timeline, _ADAPTERS[kind])).encode()


def _foreign(text: Cell) -> dict[str, object]:
    """Metadata of other programs, as it came in; what is not JSON any more, because somebody typed there, is left out."""
    try:
        read = json.loads(str(text or "{}"))
    except ValueError:
        return {}
    return (
        {str(key): value for key, value in read.items() if key not in (OWN, ANSWERED)}
        if isinstance(read, dict)
        else {}
    )


def read(kind: TimelineKind, data: bytes, fps: float) -> list[list[str]]:
    """Read the clips of a timeline as a table, in a process of its own.

    Raises
    ------
    InvalidInputError
        A file that is none, or that takes too long.
    """
    return in_a_child(kind, data, f"{fps:.6g}") if kind == "edl" else in_a_child(kind, data)
