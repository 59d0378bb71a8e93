"""A column of a comparison, computed: as it is set, or as a case has it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np

from hextan.core.base import m_from_mm, mm_from_m
from hextan.core.bench import BenchResult, BenchState, Exposing, Scene, bench_request, compute_bench, exposing
from hextan.core.compare.cases import Optics, in_case
from hextan.core.compare.comparison import Case, Column, Comparison
from hextan.core.equipment import Package
from hextan.core.evaluation import compute
from hextan.core.light import Settings
from hextan.core.optics import By


@dataclass(frozen=True)
class Setup:
    """A set-up with its optics. In a case the lens may be one that nobody has: `virtual`."""

    column: Column
    state: BenchState
    found: BenchResult
    optics: Optics | None
    exposing: Exposing
    virtual: bool

    def one(self, column: Any) -> float:
        """A figure of its only format."""
        return float(np.broadcast_to(column, (1,))[0])

    @property
    def settings(self) -> Settings:
        """What decides its exposure."""
        return self.exposing.settings

    @property
    def coc_mm(self) -> float:
        """Its circle of confusion."""
        return float(self.found.evaluation.coc_mm[0])

    @property
    def origin_m(self) -> float:
        """From the sensor plane to the entrance pupil."""
        return m_from_mm(self.one(self.found.evaluation.traced.origin_mm))


def size_of(w: float, h: float, by: By) -> float:
    """A picture's size by a dimension."""
    return w if by == "width" else h if by == "height" else math.hypot(w, h)


def _optics(state: BenchState, found: BenchResult, by: By) -> Optics | None:
    """None where depth cannot be told: no stop, no circle of confusion, no flat field."""
    result, i = found.evaluation, found.index
    lens = result.request.lens
    coc = float(result.coc_mm[i])
    if result.f_number is None or math.isnan(coc) or lens.projection != "rectilinear":
        return None
    w, h = float(result.columns.picture_w[i]), float(result.columns.picture_h[i])
    return Optics(
        focal_mm=result.lens.focal_mm,
        distance_mm=mm_from_m(state.focus_m or state.subject_m),
        f_number=result.f_number,
        coc_mm=coc,
        size_mm=size_of(w * lens.squeeze, h, by),
        width_mm=w * lens.squeeze,
        pupil_magnification=lens.pupil_magnification,
    )


def setup_of(package: Package, comparison: Comparison, column: Column) -> Setup:
    """Compute a column as it is set.

    Raises
    ------
    InvalidInputError, CannotFocusError
        As for the Bench.
    """
    state = comparison.state_of(column)
    found = compute_bench(package, state, format_ids=())
    optics = _optics(state, found, (comparison.reference or package.reference).by)
    return Setup(column, state, found, optics, exposing(package.filters, state, found), virtual=False)


def behind_lens_of(package: Package, comparison: Comparison, first: Setup, other: Setup) -> Setup:
    """Lay another column's format out behind the first set-up's lens, at the first one's place.

    Its picture, de-squeezed size and circle of confusion are those that this lens gives it: a spherical lens before
    a format that was planned squeezed leaves another delivery frame.

    Raises
    ------
    InvalidInputError, CannotFocusError
        As for the Bench.
    """
    return _before_format(package, comparison, first, other, None, 1.0)


def _before_format(
    package: Package,
    comparison: Comparison,
    first: Setup,
    other: Setup,
    distance_m: float | None,
    longer: float,
) -> Setup:
    """The first set-up's lens before another format: from a distance (its own without), as many times as long."""
    own = first.state
    state = other.state.model_copy(
        update={
            "subject_m": own.subject_m if distance_m is None else distance_m,
            "focus_m": own.focus_m if distance_m is None else None,
            "lens_id": own.lens_id,
            "adapter_id": own.adapter_id,
            "second_adapter_id": own.second_adapter_id,
            "focal_mm": own.focal_mm,
            "stop": own.stop,
        }
    )
    setting = first.found.setting
    evaluation = compute(
        bench_request(package, state, setting, [other.found.chosen], longer), package.terms(state.unit)
    )
    found = BenchResult(other.found.chosen, setting, {state.format_id: 0}, evaluation)
    optics = _optics(state, found, (comparison.reference or package.reference).by)
    return Setup(other.column, state, found, optics, exposing(package.filters, state, found), virtual=True)


def in_its_case(package: Package, comparison: Comparison, case: Case, first: Setup, other: Setup) -> Setup:
    """Put the first set-up's lens before another column's format, as a case has it.

    Raises
    ------
    InvalidInputError
        A case that cannot be had here: a fisheye, no stop, a field that no focal length gives from there.
    """
    if case == "as_set" or first.optics is None:
        return other
    laid_out = behind_lens_of(package, comparison, first, other)
    if laid_out.optics is None:
        return other
    wanted = in_case(case, first.optics, laid_out.optics)
    longer = wanted.focal_mm / first.optics.focal_mm
    return _before_format(package, comparison, first, other, m_from_mm(wanted.distance_mm), longer)


def scene_before(scene: Scene, first_subject_m: float, subject_m: float) -> Scene:
    """The scene as a camera sees it that stands nearer or farther: things stay where they are beside the subject."""
    moved = subject_m - first_subject_m
    if abs(moved) < 1e-9:
        return scene
    objects = [
        o.model_copy(update={"distance_m": o.distance_m + moved})
        for o in scene.objects
        if o.distance_m + moved > 0.001
    ]
    return scene.model_copy(update={"objects": objects})
