"""Near and far of a lens on a format along distances and stops: what tables of depth are made of."""

from __future__ import annotations

from typing import Any

import numpy as np

from hextan.core.base import Floats, mm_from_m
from hextan.core.bench.result import BenchResult
from hextan.core.optics import Traced, trace

#: Nearer than so many focal lengths nothing is told: the image would be larger than life.
LEAST_FOCALS = 4.01


def limits_along(found: BenchResult, distances_m: Any, stops: list[float]) -> tuple[Floats, Floats, Floats]:
    """Limits of what is sharp, of shape (D, S), from the sensor plane in mm, and the hyperfocal distance of each stop.

    Takes and refuses what `traced_along` does.
    """
    traced = traced_along(found, distances_m, stops)
    shape = (len(np.asarray(distances_m)), len(stops))
    return traced.near_mm, traced.far_mm, np.broadcast_to(traced.hyperfocal_mm, shape)[0]


def traced_along(found: BenchResult, distances_m: Any, stops: list[float]) -> Traced:
    """Everything of a lens focused at distances, of shape (D, S).

    Parameters
    ----------
    found : a lens on one format, with a stop
    distances_m : from the sensor plane, shape (D,)
    stops : as the lens is marked

    Raises
    ------
    InvalidInputError
        Distances at which no image is formed, or a lens whose f-number is not known.
    """
    e, setting = found.evaluation, found.setting
    assert e.f_number is not None and setting.stop is not None
    away, number = np.asarray(distances_m)[:, None], np.array(stops)[None, :] * (e.f_number / setting.stop)
    shape = (len(away), len(stops))
    return trace(
        wide_mm=float(e.columns.picture_w[0]) * setting.lens.squeeze,
        high_mm=float(e.columns.picture_h[0]),
        focal_mm=float(e.lens.focal_mm),
        coc_mm=float(e.coc_mm[0]),
        pupil_magnification=setting.lens.pupil_magnification,
        distance_mm=np.broadcast_to(mm_from_m(away), shape),
        f_number=np.broadcast_to(number, shape),
    )
