"""Nearest match: a wanted equivalent, such as a 50 on full frame, made with what the kit has."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeAlias

import numpy as np

from hextan.core.base import Floats, both_units, m_from_mm, mm_from_m, signed
from hextan.core.equipment import Package, needs_words
from hextan.core.kit.answers import CameraMove, KitMatch, Matched, MatchRow
from hextan.core.kit.arrays import MARGINAL, Kit, kit_of, pictures, window_of_reference
from hextan.core.kit.ask import MatchAsk
from hextan.core.kit.reach import reaches, verdict_at
from hextan.core.optics import angle_of_view_deg, distance_for_magnification, magnification_from_sensor

#: A field that is off by no more than this is the same one (common practice, no source: a step of a
#: prime set is ten times as much).
SAME_FIELD_PERCENT = 3.0

#: A move of less than this share of the distance is not worth the walk (common practice, no source).
SAME_PLACE = 0.02
#: A field that is off by less than this at the subject is the same one for the eye (common practice, no source).
UNSEEN_PERCENT = 0.5

#: A focal length on the reference, and the reference's width: what the width of a field is held against.
WidthWanted: TypeAlias = tuple[float, float]


@dataclass(frozen=True)
class Candidate:
    """A lens of the kit in one picture: its focal lengths with adapter, and what would be needed."""

    entry: int
    low_mm: float
    high_mm: float
    #: What would give the wanted field.
    needed_mm: float
    covers: bool
    #: The picture as a multiple of the one that the kit holds for the entry; see `Reach`.
    smaller: float = 1.0

    @property
    def focal_mm(self) -> float:
        """What it can be set to, nearest to what is needed."""
        return min(max(self.needed_mm, self.low_mm), self.high_mm)

    @property
    def off(self) -> float:
        """How far it is off: the logarithm of focal length over needed."""
        return math.log(self.focal_mm / self.needed_mm)

    @property
    def size_percent(self) -> float:
        """How much more (positive) of the wanted field it shows, far away, by the chosen dimension."""
        return 100 * (self.needed_mm / self.focal_mm - 1)


def candidates(kit: Kit, column: int, by: str, needed_mm: Callable[[Any], Any]) -> list[Candidate]:
    """List what the kit has for one picture, the nearest first; what does not cover comes after all that does.

    Parameters
    ----------
    by : the dimension by which fields are matched
    needed_mm : from the picture's de-squeezed size, mm, by that dimension to the focal length that it would need
    """
    found = []
    sizes = size_of(kit, column, by).tolist()
    for i, entry in enumerate(kit.entries):
        if entry.end == "long" or not kit.rectilinear[i, 0] or not kit.mounts[i, column]:
            continue
        parts = [
            Candidate(i, r.low_mm, r.high_mm, float(needed_mm(sizes[i] * r.smaller)), r.covers, r.smaller)
            for r in reaches(kit, i, column)
        ]
        found.append(min(parts, key=lambda c: abs(c.off)))
    body = kit.places[column].body.id

    def order(c: Candidate) -> tuple[Any, ...]:
        # Of two that are as near the one with the least trouble.
        way = kit.entries[c.entry].by_body[body]
        return not c.covers, round(abs(c.off), 9), abs(math.log(way.magnification)), len(way.adapters)

    return sorted(found, key=order)


def size_of(kit: Kit, column: int, by: str) -> Floats:
    """De-squeezed size of a picture by width, height or diagonal, for each entry, mm."""
    wide = kit.picture_w[:, column] * kit.squeeze[:, 0]
    high = kit.picture_h[:, column]
    return wide if by == "width" else high if by == "height" else np.hypot(wide, high)


def kit_match(package: Package, ask: MatchAsk) -> KitMatch:
    """Find the lens that looks like the wanted one, in every picture of the package.

    Returns
    -------
    ``wanted`` and a row for each picture: focal length needed, the nearest lens with its errors, its
    neighbours, and how far the camera would have to move.

    Raises
    ------
    InvalidInputError
        A window of reference that the production does not have.
    """
    on = window_of_reference(package.modes, ask.on)
    kit = kit_of(package, ask)
    whole = {"width": on.width_mm, "height": on.height_mm, "diagonal": on.diagonal_mm}[on.by]
    m = float(magnification_from_sensor(ask.focal_mm, mm_from_m(ask.subject_m)))
    field_mm = whole / m if math.isfinite(m) else None
    rows = [_row(kit, group, ask, (ask.focal_mm, on.width_mm), whole, field_mm) for group in pictures(kit)]
    rows.sort(key=_rank)
    return {
        "wanted": {
            "focal_mm": ask.focal_mm,
            "on": on.name,
            "on_mm": [on.width_mm, on.height_mm],
            "by": on.by,
            "angle_deg": float(angle_of_view_deg(on.width_mm, ask.focal_mm)),
            "field_m": None if field_mm is None else m_from_mm(field_mm),
        },
        "rows": rows,
        "words": _words(rows, ask),
    }


def _rank(row: MatchRow) -> tuple[Any, ...]:
    near = row["nearest"]
    return (
        (near is None, not near["covers"], round(abs(near["size_percent"]), 9)) if near else (True, True, 0.0)
    )


def _row(
    kit: Kit, group: list[int], ask: MatchAsk, wide: WidthWanted, whole_mm: float, field_mm: float | None
) -> MatchRow:
    j = group[0]
    place = kit.places[j]
    size = size_of(kit, j, ask.on.by)
    needed = ask.focal_mm * size / whole_mm
    found = candidates(kit, j, ask.on.by, lambda s: ask.focal_mm * s / whole_mm)
    spherical = [i for i, e in enumerate(kit.entries) if e.lens.squeeze == 1.0]
    best = found[0] if found else None
    nearer = min((c for c in found if not c.covers), key=lambda c: abs(c.off), default=None)
    if (
        best is None
        or nearer is None
        or (best.covers and abs(nearer.off) >= abs(best.off))
        or not best.covers
    ):
        nearer = None
    return {
        "format_id": place.recording.id,
        "names": [kit.places[k].recording.name for k in group],
        "mode": place.mode.name,
        "body": place.body.name,
        "needed_mm": float(needed[spherical[0]]) if spherical else None,
        "nearest": None if best is None else told(kit, j, best, wide),
        "simplest": None if best is None else _simplest(kit, j, found, best, wide),
        "neighbours": [] if best is None else [told(kit, j, c, wide) for c in neighbours(found, best)],
        "not_covering": None if nearer is None else told(kit, j, nearer, wide),
        "move": None
        if best is None
        else _move(kit, best, ask, float(size[best.entry]) * best.smaller, field_mm),
        "notes": [
            *needs_words(place, kit.carried),
            *([] if best is None else kit.rig.notes_on(kit.entries[best.entry].lens.name, place.body.name)),
        ],
    }


def _simplest(
    kit: Kit, column: int, found: list[Candidate], best: Candidate, wide: WidthWanted
) -> Matched | None:
    """The nearest lens that needs neither reducer nor extender, where the nearest of all does."""
    body = kit.places[column].body.id

    def plain(c: Candidate) -> bool:
        return kit.entries[c.entry].by_body[body].magnification == 1.0

    if plain(best):
        return None
    other = next((c for c in found if c.covers and plain(c)), None)
    return None if other is None else told(kit, column, other, wide)


def neighbours(found: list[Candidate], best: Candidate) -> list[Candidate]:
    """The next shorter and the next longer lens that cover, shortest first."""
    others = [c for c in found if c.covers and c is not best]
    ratio = best.focal_mm / best.needed_mm
    shorter = [c for c in others if c.focal_mm / c.needed_mm < ratio * (1 - 1e-9)]
    longer = [c for c in others if c.focal_mm / c.needed_mm > ratio * (1 + 1e-9)]
    return [
        *([max(shorter, key=lambda c: c.off)] if shorter else []),
        *([min(longer, key=lambda c: c.off)] if longer else []),
    ]


def told(kit: Kit, column: int, c: Candidate, wanted: WidthWanted | None = None) -> Matched:
    """Describe a candidate with its errors: by the chosen dimension, and by the width where that is another.

    Parameters
    ----------
    wanted : focal length whose width on the reference is wanted, and that width; without it the chosen dimension
        is the width
    """
    entry = kit.entries[c.entry]
    way = entry.by_body[kit.places[column].body.id]
    wide = float(kit.picture_w[c.entry, column]) * entry.lens.squeeze * c.smaller
    angles = [float(angle_of_view_deg(wide, f)) for f in (c.focal_mm, c.needed_mm)]
    return {
        "lens_id": entry.lens.id,
        "lens": entry.lens.name,
        "adapter_ids": list(way.key),
        "via": way.name if way.adapters else None,
        "zoom": entry.end != "",
        "focal_mm": c.focal_mm,
        "set_mm": c.focal_mm / way.magnification,
        "needed_mm": c.needed_mm,
        "error_mm": c.focal_mm - c.needed_mm,
        "error_deg": angles[0] - angles[1],
        "size_percent": c.size_percent,
        "width_percent": c.size_percent if wanted is None else _width_percent(c, wide, wanted),
        "same": abs(c.size_percent) <= SAME_FIELD_PERCENT,
        "covers": c.covers,
        "marginal": verdict_at(kit, c.entry, column, c.focal_mm) == MARGINAL,
    }


def _width_percent(c: Candidate, wide_mm: float, wanted: WidthWanted) -> float:
    """How much more of the wanted width it shows, far away."""
    focal_mm, width_mm = wanted
    return 100 * (wide_mm / c.focal_mm * focal_mm / width_mm - 1)


def _move(kit: Kit, c: Candidate, ask: MatchAsk, size_mm: float, field_mm: float | None) -> CameraMove | None:
    """How far the camera has to move for exactly the wanted field, and what that does to perspective."""
    if field_mm is None:
        return None
    entry = kit.entries[c.entry]
    m = size_mm / field_mm
    s, distance = (float(x) for x in distance_for_magnification(c.focal_mm, m))
    before_m = magnification_from_sensor(ask.focal_mm, mm_from_m(ask.subject_m))
    before = ask.focal_mm * (1 + 1 / float(before_m))
    behind = mm_from_m(ask.background_m)
    ratio = (s / (s + behind)) / (before / (before + behind))
    by = m_from_mm(distance) - ask.subject_m
    close = entry.lens.close_focus_m
    here = float(magnification_from_sensor(c.focal_mm, mm_from_m(ask.subject_m)))
    off = 100 * (size_mm / here / field_mm - 1)
    text = _move_words(kit, c, ask, by, off, 100 * (ratio - 1))
    if close is not None and m_from_mm(distance) < close:
        text = f"{text} But the lens does not focus nearer than {both_units(close, ask.unit, kit.brackets)}."
    return {"distance_m": m_from_mm(distance), "by_m": by, "background_ratio": ratio, "text": text}


def _move_words(
    kit: Kit, c: Candidate, ask: MatchAsk, by_m: float, off_percent: float, size_percent: float
) -> str:
    """Say how far the camera has to move, where the field from here is another one.

    Parameters
    ----------
    off_percent : how much more of the wanted field it shows from here; NaN where it forms no image
    size_percent : how much larger the background is drawn after the move
    """
    if abs(by_m) < 0.005 or abs(off_percent) < UNSEEN_PERCENT:
        return "No move needed."
    way = f"{both_units(abs(by_m), ask.unit, kit.brackets)} {'back' if by_m > 0 else 'nearer'}"
    if abs(by_m) < SAME_PLACE * ask.subject_m:
        text = f"{way} would be exact: from here it shows {signed(off_percent, 1)} %"
    else:
        text = f"{way} makes the field exact"
        if abs(size_percent) >= 0.05:
            text += (
                f"; what stands {both_units(ask.background_m, ask.unit, kit.brackets)} behind is then {abs(size_percent):.1f} % "
                f"{'larger' if size_percent > 0 else 'smaller'} against the subject"
            )
    if abs(c.size_percent) < UNSEEN_PERCENT:
        text += f", {_FAR_THE_SAME}"
    return f"{text}."


_FAR_THE_SAME = "though far away it is the same"


def _words(rows: list[MatchRow], ask: MatchAsk) -> list[str]:
    good = [r for r in rows if r["nearest"] and r["nearest"]["covers"] and r["nearest"]["same"]]
    if not rows:
        return ["There is no recording format to look in."]
    by = ask.on.by
    head = (
        f"{len(good)} of {len(rows)} recording formats have it within {SAME_FIELD_PERCENT:g} % of the {by}."
    )
    best = rows[0]["nearest"]
    if best is None or not best["covers"]:
        return [head, "No lens of the kit can be mounted and covers in any of these formats."]
    via = f" with {best['via']}" if best["via"] else ""
    setting = f" at {best['set_mm']:.1f} mm" if best["zoom"] else ""
    near = f"{best['lens']}{setting}{via} in {rows[0]['names'][0]} of {rows[0]['body']}"
    off = f"{signed(best['size_percent'], 1, nothing=0.005)} % of the {by}"
    if abs(best["width_percent"] - best["size_percent"]) >= 0.05:
        off += f" ({signed(best['width_percent'], 1)} % of the width)"
    told = [head, f"Nearest: {near}, {off}."]
    if any(row["move"] is not None and _FAR_THE_SAME in row["move"]["text"] for row in rows):
        told.append(
            "What is the same far away and not from here: distances count from the sensor, and lenses of unequal length "
            "stand unequally far before it."
        )
    return told
