"""A choice by its names: read, written, and found again among the cells of a judgement."""

from __future__ import annotations

import re
from typing import Any

from hextan.core.equipment import Pin
from hextan.core.shots.judge import Judged

_BETWEEN = " | "
#: Before the lens set, which stands behind the focal length.
_OF = "of "


def read_pin(text: str) -> dict[str, Any] | None:
    """Read what `pin_text` wrote, as plain data; None where it is not that."""
    parts = [part.strip() for part in text.split(_BETWEEN.strip())]
    if len(parts) < 4:
        return None
    focal = re.fullmatch(r"(\d+(?:\.\d+)?) mm", parts[4]) if len(parts) > 4 else None
    rest = parts[5:]
    of = rest.pop(0).removeprefix(_OF) if rest and rest[0].startswith(_OF) else ""
    return {"body": parts[0], "mode": parts[1], "format": parts[2], "lens": parts[3], "lens_set": of,
            "focal_mm": float(focal[1]) if focal else None, "adapters": [p for p in rest if p]}  # fmt: skip


def pin_text(pin: Pin) -> str:
    """Write a choice in one line.

    >>> pin_text(Pin(body="Ebb 64", mode="Full", format="UHD", lens="35", lens_set="Wren"))
    'Ebb 64 | Full | UHD | 35 |  | of Wren'
    """
    focal = "" if pin.focal_mm is None else f"{pin.focal_mm!r} mm"
    of = [_OF + pin.lens_set] if pin.lens_set else []
    return _BETWEEN.join([pin.body, pin.mode, pin.format, pin.lens, focal, *of, *pin.adapters])


def pinned_cell(judged: Judged, pin: Pin) -> int | None:
    """The cell that was pinned by hand, or that the plan has; None where its equipment is gone."""
    layout = judged.cells.layout
    for k in judged.order:
        i, j = judged.at(k)
        here, row, way = layout.places[j], layout.rows[i], layout.way(i, j)
        names = (here.body.name, here.mode.name, here.recording.name, row.lens.name)
        if (
            names == (pin.body, pin.mode, pin.format, pin.lens)
            and pin.lens_set in ("", row.lens_set.name)
            and [a.name for a in way.adapters] == pin.adapters
        ):
            return k
    return None


def pin_of(judged: Judged, k: int) -> Pin:
    """A cell by its names."""
    i, j = judged.at(k)
    layout = judged.cells.layout
    here, row = layout.places[j], layout.rows[i]
    focal = judged.set_mm(k)
    return Pin(
        body=here.body.name,
        mode=here.mode.name,
        format=here.recording.name,
        lens=row.lens.name,
        lens_set=row.lens_set.name,
        focal_mm=focal if row.lens.is_zoom else None,
        adapters=[adapter.name for adapter in layout.way(i, j).adapters],
    )
