"""What a lens set's page shows beside what is typed: classes, angles, coverage of the usual windows, notes."""

from __future__ import annotations

import math

from hextan.core.base import m_from_mm, mm_from_m
from hextan.core.documents.answers import CloseFigures, LensFigures, LensSetSheet, UsualWindow
from hextan.core.documents.lens_set import LensDocument, LensSetDocument, check_lens_set
from hextan.core.equipment import Lens, Mount
from hextan.core.optics import (
    NAMED,
    angle_of_view_deg,
    least_circle_mm,
    magnification_from_sensor,
    view_class,
)

#: Windows that a circle is held against, mm: 65 mm digital, 36 x 24, Super 35 in 17:9, Super 16 (common practice,
#: no source, but for 36 x 24: ISO 1007, from memory).
USUAL_WINDOWS: dict[str, tuple[float, float]] = {
    "65 mm": (54.0, 25.6),
    "full frame": (36.0, 24.0),
    "Super 35": (25.0, 13.2),
    "Super 16": (12.5, 7.4),
}

#: No lens that is carried to a set focuses from so far only: then another unit was meant.
FAR_CLOSE_FOCUS_M = 20.0


def lens_set_sheet(document: LensSetDocument, mounts: dict[str, Mount]) -> LensSetSheet:
    """Check a lens set and work out everything about it.

    Parameters
    ----------
    mounts : the production's mounts, by name

    Raises
    ------
    InconsistentError
        What `check_lens_set` refuses.
    """
    record = check_lens_set(document)
    pairs = list(zip(document.lenses, record.lenses, strict=True))
    windows: list[UsualWindow] = [
        {"name": name, "width": w, "height": h} for name, (w, h) in USUAL_WINDOWS.items()
    ]
    return {"lenses": [_lens(said, lens, mounts) for said, lens in pairs], "windows": windows}


def _lens(said: LensDocument, lens: Lens, mounts: dict[str, Mount]) -> LensFigures:
    angles = [_angle(lens, focal) for focal in (lens.focal_min_mm, lens.focal_max_mm)]
    circles: list[float | None] = [mm for _, mm in lens.circle_rows]
    circles = circles or [lens.image_circle_mm]
    known = [mm for mm in circles if mm is not None]
    smallest = min(known, default=None)
    return {
        "key": said.key,
        "angle_deg": angles if lens.is_zoom else angles[:1],
        "view_class": None if angles[0] is None else view_class(angles[0]),
        "circle_mm": [smallest, max(known)] if smallest is not None else None,
        "covers": None if smallest is None else _covered(smallest),
        "transmission": None
        if said.f_number is None or lens.f_number is None or lens.t_stop is None
        else (lens.f_number / lens.t_stop) ** 2,
        "close": _close(lens),
        "notes": _notes(said, lens, mounts, smallest),
    }


def _angle(lens: Lens, focal_mm: float) -> float | None:
    """Horizontal angle on the Super 35 width, by the lens's own law and with its squeeze."""
    angle = float(angle_of_view_deg(NAMED["super35"][0] * lens.squeeze, focal_mm, 0.0, lens.projection))
    return angle if math.isfinite(angle) else None


def _covered(circle_mm: float) -> str | None:
    """Name the largest usual window that a circle covers."""
    return next((name for name, (w, h) in USUAL_WINDOWS.items() if circle_mm >= math.hypot(w, h)), None)


def _close(lens: Lens) -> CloseFigures | None:
    """At close focus, with the longest focal length: magnification, field across 24.89 mm, breathing by extension."""
    if lens.close_focus_m is None or lens.projection != "rectilinear":
        return None
    m = float(magnification_from_sensor(lens.focal_max_mm, mm_from_m(lens.close_focus_m)))
    if math.isnan(m):
        return None
    return {
        "magnification": m,
        "field_m": m_from_mm(NAMED["super35"][0] * lens.squeeze / m),
        "extension_percent": 100 * m / (1 + m),
    }


def _notes(said: LensDocument, lens: Lens, mounts: dict[str, Mount], smallest: float | None) -> list[str]:
    notes = []
    if smallest is None:
        notes.append("Image circle not stated: coverage cannot be told.")
    if lens.designed_for is not None and smallest is not None:
        least = least_circle_mm(lens.designed_for)
        if smallest < least:
            notes.append(
                f"Made for {lens.designed_for}, but {smallest:g} mm is less than the class begins with ({least:g} mm)."
            )
    if said.mount not in mounts:
        notes.append(f"The mount {said.mount} is not described: see Mounts and adapters.")
    if said.f_number is None:
        notes.append("Only T is known: depth goes by an f-number that is wider, by as much as Settings say.")
    if lens.close_focus_m is not None and mm_from_m(lens.close_focus_m) < 4 * lens.focal_max_mm:
        notes.append(
            f"Close focus is nearer than four focal lengths ({m_from_mm(4 * lens.focal_max_mm):g} m): the focal length must "
            "shorten there, so close-up figures are not computed."
        )
    if lens.close_focus_m is not None and lens.close_focus_m > FAR_CLOSE_FOCUS_M:
        notes.append(f"Close focus of {lens.close_focus_m:g} m: is that centimetres? It is in metres here.")
    if lens.circle_by is not None and len(lens.circle_rows) == 1:
        notes.append("A table of one row is the same everywhere.")
    return notes
