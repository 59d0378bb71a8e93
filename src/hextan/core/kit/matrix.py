"""The matrix: lenses down, recording formats across; effective focal length, angle and coverage in each cell."""

from __future__ import annotations

from typing import Any

import numpy as np

from hextan.core.base import Floats
from hextan.core.equipment import Mounting, Package, needs_words, why_not
from hextan.core.evaluation import ReferenceAnswer, plain_rows
from hextan.core.kit.answers import KitMatrix, MatrixColumn, MatrixFigures, MatrixRow, MountedBy
from hextan.core.kit.arrays import (
    SHORT,
    VERDICTS,
    Kit,
    class_columns,
    faster,
    kit_of,
    pictures,
)
from hextan.core.kit.ask import MatrixAsk
from hextan.core.optics import CORNERS, Corner, class_words, dark_corners, view_classes


def kit_matrix(package: Package, ask: MatrixAsk) -> KitMatrix:
    """Compute the matrix.

    Returns
    -------
    ``columns`` and ``rows``; each row has a list for each figure, one value a column: ``effective_mm``,
    ``angle_deg``, ``focal_mm`` (with adapter), ``verdict``, ``needed_mm``, ``circle_mm``, ``dark_share``, and
    ``via`` (an index into the row's ``ways``). A zoom has ``long`` with the same lists of its long end.

    Raises
    ------
    InvalidInputError
        A window of reference that the production does not have.
    """
    kit = kit_of(package, ask)
    groups = [[j] for j in range(len(kit.places))]
    if ask.across == "pictures":
        groups = pictures(kit)
    elif ask.across == "classes":
        groups = class_columns(kit)
    shown = [group[0] for group in groups]
    return {
        "reference": reference_dict(kit),
        "columns": [_column(kit, group, ask.across == "classes") for group in groups],
        "rows": _rows(kit, shown),
    }


def reference_dict(kit: Kit) -> ReferenceAnswer:
    """Describe what factors are measured against."""
    r = kit.reference
    return {"name": r.name, "width_mm": r.width_mm, "height_mm": r.height_mm, "by": r.by}


def _column(kit: Kit, group: list[int], by_class: bool) -> MatrixColumn:
    j, c = group[0], kit.columns
    place, highest = kit.places[j], kit.highest[j]
    return {
        "format_id": place.recording.id,
        "format_ids": [kit.places[k].recording.id for k in group],
        "name": place.recording.name,
        "mode": place.mode.name,
        "body": place.body.name,
        "body_id": place.body.id,
        "also": [] if by_class else [kit.places[k].recording.name for k in group[1:]],
        "format_class": class_words(float(c.recorded_w[j]), float(c.recorded_h[j])),
        "recorded_mm": [float(c.recorded_w[j]), float(c.recorded_h[j])],
        "picture_mm": [float(c.picture_w[j]), float(c.picture_h[j])],
        "highest_fps": highest.usable_fps,
        "rate_text": highest.text,
        "faster": faster(kit, group),
        "needs": needs_words(place, kit.carried),
    }


def _rows(kit: Kit, shown: list[int]) -> list[MatrixRow]:
    rows: list[MatrixRow] = []
    bodies = [kit.places[j].body for j in shown]
    for i, entry in enumerate(kit.entries):
        figures = _figures(kit, i, shown)
        if entry.end == "long":
            rows[-1]["long"] = figures
            continue
        ways = list({way.key: way for way in entry.by_body.values()}.values())
        index = {way.key: n for n, way in enumerate(ways)}
        via = {body: index[way.key] for body, way in entry.by_body.items()}
        rows.append(
            {
                "lens_id": entry.lens.id,
                "lens_set_id": entry.lens_set.id,
                "name": entry.lens.name,
                "set": entry.lens_set.name,
                "focal_min_mm": entry.lens.focal_min_mm,
                "focal_max_mm": entry.lens.focal_max_mm,
                "squeeze": entry.lens.squeeze,
                "projection": entry.lens.projection,
                "stands_in": entry.lens.stands_in,
                "ways": [way_dict(way) for way in ways],
                "via": [via.get(body.id) for body in bodies],
                "why_not": {
                    str(body.id): why_not(kit.rig, entry.lens, body)
                    for body in {body.id: body for body in bodies}.values()
                    if body.id not in entry.by_body
                },
                "pair_notes": {
                    str(body.id): notes
                    for body in {body.id: body for body in bodies}.values()
                    if (notes := kit.rig.notes_on(entry.lens.name, body.name))
                },
                **figures,
                "long": None,
            }
        )
    return rows


def way_dict(way: Mounting) -> MountedBy:
    """Describe how a lens is put on."""
    return {
        "adapter_ids": list(way.key),
        "name": way.name,
        "magnification": way.magnification,
        "stops_lost": way.stops_lost,
        "consequences": list(way.consequences),
    }


def _figures(kit: Kit, i: int, shown: list[int]) -> MatrixFigures:
    verdict = kit.verdict[i, shown]

    def plain(values: Floats) -> list[Any]:
        # To the nanometre: thousands of figures are sent at once.
        return [row[0] for row in plain_rows(len(shown), np.round(values[i, shown], 6))]

    return {
        "focal_mm": plain(kit.focal_mm),
        # A fisheye is the equal of no rectilinear lens.
        "effective_mm": plain(kit.effective_mm) if kit.rectilinear[i, 0] else [None] * len(shown),
        "angle_deg": plain(kit.angle_deg),
        "view_class": view_classes(kit.angle_deg[i, shown]),
        "verdict": [VERDICTS[v] for v in verdict.tolist()],
        "circle_mm": plain(kit.circle_mm),
        "needed_mm": plain(kit.needed_mm),
        "dark_share": plain(kit.dark),
        "dark_corners": [_corners(kit, i, j) if kit.verdict[i, j] == SHORT else [] for j in shown],
    }


def _corners(kit: Kit, i: int, j: int) -> list[Corner]:
    c = kit.columns
    dx, dy = float(c.offset_x[j]), float(c.offset_y[j])
    if dx == 0 and dy == 0:
        return list(CORNERS)
    w, h = float(kit.recorded_w[i, j]), float(kit.recorded_h[i, j])
    return dark_corners(float(kit.circle_mm[i, j]), w, h, dx, dy)
