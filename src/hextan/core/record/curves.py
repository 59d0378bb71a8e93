"""Depth along the distance, computed beforehand: a page reads near and far from it by straight interpolation, without a server.

Over the reciprocal of the distance, and over the stop, the reciprocals of both limits are nearly straight lines. Each is
computed at `POINTS` distances and at the stops of the ring, and shifted inwards by as much as a straight line between
two of them may lie outside the exact limit: what is read off is never deeper than what is exact, and at most by
``slack`` shallower (1/m).

What counts as sharp is the production's rule on the picture that the shot in hand delivers, as in Shots and in the plan;
the rule by which somebody looks on the Bench is another question.
"""

from __future__ import annotations

import contextlib
import math

import numpy as np
from typing_extensions import TypedDict

from hextan.core.base import Fault, Floats, InvalidInputError, m_from_mm, mm_from_m
from hextan.core.bench import LEAST_FOCALS, BenchResult, BenchState, compute_bench, traced_along
from hextan.core.equipment import Package, simplest
from hextan.core.evaluation import BenchDelivery, rule_label

#: Distances of a curve, and how many are looked at between two of them.
POINTS, BETWEEN = 16, 8
#: How many stops are looked at between two of the ring.
BETWEEN_STOPS = 4
#: Stops of a curve: thirds, at most so many.
MOST_STOPS = 28
#: The farthest that a lens is focused short of infinity, metres.
FARTHEST_M = 10_000.0


class DepthCurves(TypedDict):
    """Near and far of one lens on one format. Reciprocals, 1/m from the sensor plane; 0 and less is infinity."""

    lens: str
    format: str
    focal_mm: float
    marks: str
    stops: list[float]
    #: Reciprocals of the distances, falling.
    at: list[float]
    #: For each stop, for each distance.
    near: list[list[float]]
    far: list[list[float]]
    #: How much shallower it may be than the exact limits, 1/m.
    slack: float
    #: What counts as sharp, mm, and by which rule.
    coc_mm: float
    rule: str


class MountedCurves(TypedDict):
    """The curves of a lens as it goes on a body the simplest way, a zoom at its short end."""

    lens_id: int
    adapter_ids: list[int]
    curves: DepthCurves


class FormatCurves(TypedDict):
    """The curves of every lens that goes on the body of a format, but for those of which no depth can be told."""

    lenses: list[MountedCurves]


def format_curves(
    package: Package, picture: BenchDelivery, format_id: int, crop_ids: list[int]
) -> FormatCurves:
    """Compute the curves of all lenses on a format.

    Parameters
    ----------
    picture : what the shot in hand delivers
    crop_ids : in-camera crops that are on

    Raises
    ------
    InvalidInputError
        There is no such format.
    """
    here = package.formats.get(format_id)
    if here is None:
        raise InvalidInputError.of(
            Fault("format_id", format_id, "is no format of this production (any more)")
        )
    lenses: list[MountedCurves] = []
    for _, lens in package.lenses.values():
        way = simplest(package.rig, lens, here.body)
        if way is None:
            continue
        adapter_ids = list(way.key)
        first, second = [*adapter_ids, None, None][:2]
        lens_up = BenchState(format_id=format_id, lens_id=lens.id, adapter_id=first, second_adapter_id=second, crop_ids=crop_ids)  # fmt: skip
        # A lens that states no stop is told so where it is asked for by itself.
        with contextlib.suppress(InvalidInputError):
            curves = depth_curves(package, picture, lens_up)
            lenses.append({"lens_id": lens.id, "adapter_ids": adapter_ids, "curves": curves})
    return {"lenses": lenses}


def depth_curves(package: Package, picture: BenchDelivery, lens_up: BenchState) -> DepthCurves:
    """Compute the curves of a lens on a format.

    Parameters
    ----------
    picture : what the shot in hand delivers
    lens_up : which lens, adapters, focal length and format, with which crops

    Raises
    ------
    InvalidInputError
        Equipment that is not there, a lens without a stop, or without a rule for what is sharp.
    """
    state = lens_up.model_copy(
        update={
            "delivery": picture,
            "coc": None,
            "subject_m": max(10.0, LEAST_FOCALS * 10.0),
            "stop": None,
        }
    )
    found = compute_bench(package, state, format_ids=())
    e, setting = found.evaluation, found.setting
    coc = float(e.coc_mm[0])
    if e.f_number is None or setting.stop is None or math.isnan(coc):
        raise InvalidInputError(
            f"{setting.lens.name} states no stop, or nothing says what counts as sharp: no depth can be told."
        )
    closest = max(setting.lens.close_focus_m or 0.0, m_from_mm(LEAST_FOCALS * float(e.lens.focal_mm)))
    stops = setting.stops[:MOST_STOPS]
    at = np.linspace(1 / closest, 1 / FARTHEST_M, POINTS)
    near, far = _reciprocals(found, at, stops)
    fine = np.linspace(at[:-1], at[1:], BETWEEN + 1, axis=1)[:, :-1]
    fine_stops = np.interp(
        np.arange(0, len(stops) - 1 + 1e-9, 1 / BETWEEN_STOPS), np.arange(len(stops)), stops
    )
    exact_near, exact_far = _reciprocals(found, fine.ravel(), fine_stops.tolist())

    def between(curve: Floats) -> Floats:
        """Straight between the points and the stops, as the page reads it: of the shape of the exact ones."""
        rows = np.array([np.interp(-fine.ravel(), -at, column) for column in curve.T])
        return np.array([np.interp(fine_stops, stops, each) for each in rows.T])

    # Outside the exact limit: nearer (a larger reciprocal) than near, farther (a smaller one) than far.
    # Where far is infinite, no line can tell too much of it.
    off_near, off_far = between(near) - exact_near, np.where(exact_far > 0, exact_far - between(far), -np.inf)
    shift_near, shift_far = _shifts(off_near, near.shape), _shifts(off_far, far.shape)
    slack = max(
        float((between(shift_near) - off_near).max()),
        float(np.where(exact_far > 0, between(shift_far) - off_far, 0.0).max()),
    )
    scale = 1e7
    return {
        "lens": setting.lens.name,
        "format": found.chosen.recording.name,
        "focal_mm": setting.focal_mm,
        "marks": setting.marks,
        "stops": stops,
        "at": at.tolist(),
        "near": (np.floor((near - shift_near).T * scale) / scale).tolist(),
        "far": (np.ceil((far + shift_far).T * scale) / scale).tolist(),
        "slack": math.ceil(slack * scale + 1) / scale,
        "coc_mm": coc,
        "rule": rule_label(package.coc),
    }


def _shifts(off: Floats, shape: tuple[int, ...]) -> Floats:
    """By how much each point has to go inwards, so that no straight line about it lies outside; of the shape of the points."""
    worst = np.zeros(shape)
    for i in range(shape[0]):
        rows = slice(max(i - 1, 0) * BETWEEN, (i + 1) * BETWEEN + 1)
        for j in range(shape[1]):
            columns = slice(max(j - 1, 0) * BETWEEN_STOPS, (j + 1) * BETWEEN_STOPS + 1)
            worst[i, j] = max(float(off[rows, columns].max()), 0.0)
    return worst


def _reciprocals(found: BenchResult, at: Floats, stops: list[float]) -> tuple[Floats, Floats]:
    """Of both limits, of shape (D, S). Beyond the hyperfocal distance that of far goes on below zero: no bend at infinity."""
    traced = traced_along(found, 1 / at, stops)
    near, origin = traced.near_mm, traced.origin_mm
    # From the pupil, near is z/(1+q) and far z/(1-q): their reciprocals lie alike on both sides of 1/z.
    far = 2 / traced.pupil_z_mm - 1 / (near - origin)
    metre = mm_from_m(1.0)
    return metre / near, metre * far / (1 + origin * far)
