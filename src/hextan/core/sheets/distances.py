"""Sheets along the distance: depth of field for a set of lenses, the field at distances, and framings of a person."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from hextan.core.base import (
    MARKED,
    METRES,
    Unit,
    distance_words,
    m_from_mm,
    mm_from_m,
)
from hextan.core.bench import LEAST_FOCALS, TABLE_FT, TABLE_M, limits_along
from hextan.core.equipment import FormatInPackage, Lens, LensSet
from hextan.core.kit import FRAMINGS, FramingWish, field_of_person_m
from hextan.core.optics import distance_for_magnification, trace
from hextan.core.sheets.cells import distance_cell, limit_cells
from hextan.core.sheets.document import SheetPlan
from hextan.core.sheets.material import (
    Draft,
    Material,
    Up,
    ends_of,
    format_words,
    lens_up,
    only_whole,
    pairs_of,
    units_of,
)
from hextan.core.sheets.sheet import Cell, SheetColumn, SheetRow, column, figure, row, table, words

#: Distances where none is named: those of the Bench's depth table, in metres and in feet.
USUAL: dict[Unit, tuple[float, ...]] = {"m": TABLE_M, "ft": TABLE_FT}
#: Of a table of fields, where none is named.
FIELD_M: dict[Unit, tuple[float, ...]] = {
    "m": (1, 1.5, 2, 3, 4, 6, 8, 12, 16),
    "ft": (3, 5, 7, 10, 15, 20, 30, 40, 50),
}
#: So many lenses on formats a sheet tells at most.
MOST_TABLES = 600
#: So many stops a depth table has at most.
MOST_STOPS = 9


def _distances(plan: SheetPlan, unit: Unit, usual: dict[Unit, tuple[float, ...]]) -> list[float]:
    """In metres, from where they count, rising."""
    if plan.distances_m:
        return sorted(set(plan.distances_m))
    return [d * METRES[unit] for d in usual[unit]]


class Front:
    """Where a sheet counts distances from: to the sensor plane and back."""

    def __init__(self, plan: SheetPlan, up: Up, draft: Draft) -> None:
        self.off_m = 0.0
        if plan.from_front:
            front = up.found.setting.front_mm
            if front is None:
                draft.note(
                    f"{up.lens.name}: how far its front lies before the sensor is not stated (length of the lens, flange "
                    "of its mount, or glass between); its distances count from the sensor plane."
                )
            else:
                self.off_m = m_from_mm(front)

    @property
    def words(self) -> str:
        """Where they count from."""
        return "from the front of the lens" if self.off_m else "from the sensor plane"


def depth(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """Near and far for lenses, stops and distances: a page for each lens, or for each distance; rounded inwards."""
    asked = pairs_of(m, plan, draft, most=1)
    count = sum(len(lenses) for _, lenses in asked)
    if not count:
        draft.why_empty = "No lens or no format of this sheet is in the package."
        return
    if draft.too_much(count * len(units_of(m, plan)), MOST_TABLES, "tables"):
        return
    draft.lead = "Near and far limits of what is sharp, rounded inwards: what is told is held."
    for unit in units_of(m, plan):
        for here, lenses in asked:
            ups = []
            for pair in lenses:
                ups += _ups(m, pair, here, plan, draft)
            if plan.each == "lens":
                for up in ups:
                    _depth_of_lens(up, plan, unit, draft)
            else:
                _depth_by_distance(ups, here, plan, unit, draft)
    if not draft.blocks:
        draft.why_empty = draft.told[0] if draft.told else "No depth can be told of these lenses."


def _ups(
    m: Material, pair: tuple[LensSet, Lens], here: FormatInPackage, plan: SheetPlan, draft: Draft
) -> list[Up]:
    """A lens at the focal lengths at which it is told, far enough away to be computed."""
    found = []
    for focal in ends_of(pair[1], plan.focal_mm):
        away = max(10.0, 0.01 * focal * LEAST_FOCALS)
        up = lens_up(m, pair, here, focal_mm=focal, subject_m=away, whole=only_whole(m, plan, pair, here))
        if isinstance(up, str):
            draft.leave_out(pair[1].name, up)
        elif up.f_number is None or math.isnan(up.coc_mm):
            draft.leave_out(pair[1].name, "no depth can be told without a stop and a rule for sharp")
        else:
            found.append(up)
    return found


def _stops(up: Up, plan: SheetPlan) -> list[float]:
    """As marked: those asked for that it has, or its widest and the whole ones after it."""
    has = up.found.setting.stops
    if plan.stops:
        widest = up.found.setting.widest or 0.0
        return [stop for stop in sorted(set(plan.stops)) if stop >= widest * (1 - 1e-9)][:MOST_STOPS]
    whole = [s for s in has if s in MARKED and (MARKED.index(s) - MARKED.index(1.0)) % 3 == 0]
    return ([has[0]] + [s for s in whole if s > has[0] * 1.1])[:MOST_STOPS]


def _limits_at(near_mm: Any, far_mm: Any, away_m: float, front: Front, unit: Unit) -> list[Cell]:
    """Limits as they are counted on the sheet; given from the sensor plane."""
    near, far = (m_from_mm(float(each)) - front.off_m for each in (near_mm, far_mm))
    # Nearer than the front of the lens nothing stands.
    return limit_cells(max(near, 0.0), far, away_m - front.off_m, unit)


def _stop_columns(marks: str, stops: list[float], unit: Unit) -> list[SheetColumn]:
    return [column(title, unit, f"{marks}{stop:.3g}") for stop in stops for title in ("near", "far")]


def _close_m(up: Up) -> float:
    return max(up.lens.close_focus_m or 0.0, m_from_mm(LEAST_FOCALS * up.focal_mm))


def _depth_of_lens(up: Up, plan: SheetPlan, unit: Unit, draft: Draft) -> None:
    front = Front(plan, up, draft)
    stops = _stops(up, plan)
    close = _close_m(up)
    # What is asked for counts from where the sheet counts; computed it is from the sensor plane.
    away = [d + front.off_m for d in _distances(plan, unit, USUAL)]
    away = [d for d in away if d > close * 1.001]
    if up.lens.close_focus_m is not None and close == up.lens.close_focus_m and not plan.distances_m:
        away.insert(0, close)
    if not away or not stops:
        draft.note(
            f"{up.name}: none of the {'distances' if stops else 'stops'} of this sheet can be set on it."
        )
        return
    near, far, hyperfocal = limits_along(up.found, np.array(away), stops)
    rows: list[SheetRow] = []
    for i, distance in enumerate(away):
        mark = distance_cell(distance - front.off_m, unit)
        cells = [figure(mark["value"], mark["text"], "focus")]
        for k in range(len(stops)):
            cells += _limits_at(near[i, k], far[i, k], distance, front, unit)
        rows.append(row(cells))
    last: list[Cell] = [words("hyperfocal", "quiet")]
    for k in range(len(stops)):
        last += [
            distance_cell(m_from_mm(float(hyperfocal[k])) - front.off_m, unit) | {"tone": "quiet"},
            words(""),
        ]
    rows.append(row(last))
    draft.blocks.append(
        table(
            [column("focus", unit), *_stop_columns(up.found.setting.marks, stops, unit)],
            rows,
            heading=f"{up.name}, {up.lens_set.name}" if up.lens_set.name not in up.name else up.name,
            told=_depth_told(up, front),
            own_page=bool(draft.blocks),
        )
    )


def _depth_told(up: Up, front: Front) -> str:
    f = up.found
    by = (
        f"{f.setting.marks}{f.setting.stop:.3g} is f/{up.f_number:.3g}"
        if f.setting.stop and up.f_number
        else ""
    )
    through = "" if not f.setting.adapters else f" through {' + '.join(a.name for a in f.setting.adapters)}"
    from_t = (
        f" Depth goes by an assumed f-number, {f.setting.lens.wider_than_t}, because the lens states none: {by}."
        if "f_number" in f.setting.lens.assumed
        else f" Depth goes by f-numbers: {by}."
        if f.setting.marks == "T"
        else ""
    )
    return (
        f"On {format_words(up.here)} of {up.here.body.name}{through}; distances {front.words}; "
        f"sharp is what stays under {up.coc_mm:.4f} mm.{from_t}"
    )


def _depth_by_distance(
    ups: list[Up], here: FormatInPackage, plan: SheetPlan, unit: Unit, draft: Draft
) -> None:
    """A table for each distance: lenses down, stops across."""
    stops = sorted(set(plan.stops)) or [1.4, 2.0, 2.8, 4.0, 5.6, 8.0, 11.0, 16.0]
    for distance in _distances(plan, unit, FIELD_M):
        rows: list[SheetRow] = []
        origin = "from the sensor plane"
        for up in ups:
            front = Front(plan, up, draft)
            origin = front.words if front.off_m else origin
            away = distance + front.off_m
            if away < _close_m(up) * 0.999:
                continue
            near, far, _ = limits_along(up.found, np.array([away]), stops)
            cells = [words(up.name)]
            widest = up.found.setting.widest or 0.0
            for k, stop in enumerate(stops):
                if stop < widest * (1 - 1e-9):
                    cells += [words("–", "quiet"), words("–", "quiet")]
                else:
                    cells += _limits_at(near[0, k], far[0, k], away, front, unit)
            rows.append(row(cells, section=up.lens_set.name))
        if rows:
            draft.blocks.append(
                table(
                    [column("Lens", words=True), *_stop_columns("", stops, unit)],
                    rows,
                    heading=f"Focus at {distance_words(distance, unit)}",
                    told=f"On {format_words(here)} of {here.body.name}; distances {origin}; stops as each lens is marked; "
                    "lenses that cannot focus so near are left out.",
                    own_page=bool(draft.blocks),
                )
            )


def fields(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """Width and height at distances for each lens and format; and from how far framings of a person are had."""
    asked = pairs_of(m, plan, draft)
    count = sum(len(lenses) for _, lenses in asked)
    if not count:
        draft.why_empty = "No lens or no format of this sheet is in the package."
        return
    if draft.too_much(count * len(units_of(m, plan)), MOST_TABLES, "rows of fields"):
        return
    assert m.bench is not None
    tall = m.bench.scene.subject_height_m
    draft.lead = (
        "How wide and how high the delivered picture is at a distance, and from how far a person is framed."
    )
    for unit in units_of(m, plan):
        distances = _distances(plan, unit, FIELD_M)
        for here, lenses in asked:
            ups: list[Up] = []
            for pair in lenses:
                for focal in ends_of(pair[1], plan.focal_mm):
                    away = max(10.0, 0.01 * focal * LEAST_FOCALS)
                    whole = only_whole(m, plan, pair, here)
                    up = lens_up(m, pair, here, focal_mm=focal, subject_m=away, whole=whole)
                    if isinstance(up, str):
                        draft.leave_out(pair[1].name, up)
                    elif pair[1].projection != "rectilinear":
                        draft.leave_out(pair[1].name, "a fisheye has no flat field")
                    else:
                        ups.append(up)
            if not ups:
                continue
            where = f"{format_words(here)}, {here.body.name}"
            draft.blocks.append(_field_table(ups, distances, plan, unit, where, draft))
            draft.blocks.append(_framing_table(ups, tall, plan, unit, where, draft))
    if not draft.blocks:
        draft.why_empty = draft.told[0] if draft.told else "No field can be told of these lenses."


def _field_table(
    ups: list[Up], distances: list[float], plan: SheetPlan, unit: Unit, where: str, draft: Draft
) -> Any:
    rows: list[SheetRow] = []
    for up in ups:
        front = Front(plan, up, draft)
        cells = [words(up.name)]
        for distance in distances:
            away = distance + front.off_m
            if away < _close_m(up) * 0.999:
                cells += [words("–", "quiet"), words("–", "quiet")]
                continue
            t = trace(
                wide_mm=up.wide_mm, high_mm=up.high_mm, focal_mm=up.focal_mm, distance_mm=mm_from_m(away)
            )
            sizes = (m_from_mm(float(t.field_w_mm)), m_from_mm(float(t.field_h_mm)))
            cells += [distance_cell(size, unit) for size in sizes]
        rows.append(row(cells, section=up.lens_set.name))
    columns = [
        column(title, unit, f"at {distance_words(d, unit)}") for d in distances for title in ("wide", "high")
    ]
    return table(
        [column("Lens", words=True), *columns],
        rows,
        heading=f"Width and height: {where}",
        told="A dash: nearer than the lens focuses.",
        stacked=True,
        own_page=bool(draft.blocks),
    )


def _framing_table(ups: list[Up], tall: float, plan: SheetPlan, unit: Unit, where: str, draft: Draft) -> Any:
    rows: list[SheetRow] = []
    wishes = [FramingWish(framing=name, height_m=tall) for name in FRAMINGS]  # type: ignore[arg-type]
    for up in ups:
        front = Front(plan, up, draft)
        cells = [words(up.name)]
        for wish in wishes:
            magnification = up.high_mm / mm_from_m(field_of_person_m(wish))
            away = m_from_mm(float(distance_for_magnification(up.focal_mm, magnification)[1]))
            told = distance_cell(away - front.off_m, unit)
            too_close = away < _close_m(up) * 0.999
            cells.append(
                figure(
                    told["value"],
                    f"{told['text']} ✕" if too_close else told["text"],
                    "short" if too_close else "",
                )
            )
        rows.append(row(cells, section=up.lens_set.name))
    return table(
        [column("Lens", words=True), *(column(name, unit) for name in FRAMINGS)],
        rows,
        heading=f"Distance for a framing: {where}",
        told=f"A person of {distance_words(tall, unit)}, with the usual headroom. ✕: nearer than the lens focuses.",
    )
