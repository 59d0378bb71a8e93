"""A hundred thousand combinations of lens, format and distance against the bare formulas."""

from __future__ import annotations

import time
from collections.abc import Callable
from statistics import median

import numpy as np

from bench.result import Result
from hextan.core.optics import trace

LENSES, FORMATS, DISTANCES = 40, 50, 50


def against_bare_numpy() -> Result:
    """Time of the core over the time of the same formulas written down without it."""
    rng = np.random.default_rng(1)
    focal = rng.uniform(12, 200, (LENSES, 1, 1))
    wide = rng.uniform(10, 40, (1, FORMATS, 1))
    high = wide / 1.78
    distance = rng.uniform(1500, 50000, (1, 1, DISTANCES))
    coc = np.hypot(wide, high) / 1500
    number = 2.8

    def ours() -> object:
        return trace(
            wide_mm=wide, high_mm=high, focal_mm=focal, distance_mm=distance, f_number=number, coc_mm=coc
        )

    traced, bare = ours(), _bare(wide, high, focal, distance, number, coc)
    names = ("angle_w_deg", "angle_h_deg", "angle_d_deg", "focus_angle_w_deg", "focus_angle_h_deg",
             "focus_angle_d_deg", "field_w_mm", "field_h_mm", "near_mm", "far_mm", "hyperfocal_mm", "airy_mm")  # fmt: skip
    for name, expected in zip(names, bare, strict=True):
        np.testing.assert_allclose(getattr(traced, name), expected, rtol=1e-9)
    ratio = paired_ratio(ours, lambda: _bare(wide, high, focal, distance, number, coc), 15)
    return Result("100,000 combinations / bare NumPy formulas", ratio, 2.0, "x")


def _bare(wide, high, f, d, n, c):  # type: ignore[no-untyped-def]
    q = d / f
    m = 2 / ((q - 2) + np.sqrt(q * (q - 4)))
    v = f * (1 + m)
    diagonal = np.hypot(wide, high)
    at_infinity = [np.degrees(2 * np.arctan(x / (2 * f))) for x in (wide, high, diagonal)]
    focused = [np.degrees(2 * np.arctan(x / (2 * v))) for x in (wide, high, diagonal)]
    z = f * (1 / m + 1)
    e = d - z
    blur = c * n / (f * m)
    far = np.where(blur >= 1 - 1e-9, np.inf, z / np.where(blur >= 1 - 1e-9, 0.5, 1 - blur)) + e
    mh = c * n / f
    return (*at_infinity, *focused, wide / m, high / m, z / (1 + blur) + e, far, f * (1 + mh) ** 2 / mh,
            2.44 * 0.00055 * n * (1 + m))  # fmt: skip


def paired_ratio(one: Callable[[], object], other: Callable[[], object], rounds: int) -> float:
    """Median of the ratios of times taken turn by turn, so that what disturbs, disturbs both."""
    ratios = []
    for _ in range(rounds):
        start = time.perf_counter()
        one()
        middle = time.perf_counter()
        other()
        ratios.append((middle - start) / (time.perf_counter() - middle))
    return median(ratios)
