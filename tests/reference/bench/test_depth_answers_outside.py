"""Depth asked backwards, against root-finding on traced rays (SciPy, SymPy) and against the forward question."""

import math

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.optimize import brentq, minimize_scalar
from sympy.physics.optics import FreeSpace, GeometricRay
from sympy.physics.optics import ThinLens as SympyLens

from hextan.core.base import MARKED, InvalidInputError
from hextan.core.optics import (
    ThinLens,
    distance_for_softness,
    hold,
    hyperfocal,
    marked_stop,
    stop_for_softness,
)
from tests.budget import examples

LENS = ThinLens(50.0, 0.025)


def traced_disc_mm(focal, stop_mm, lens_to_sensor, point_to_lens):
    """Width on the sensor of the marginal rays of a point on the axis, by SymPy's ray matrices."""
    landed = []
    for edge in (-stop_mm / 2, stop_mm / 2):
        ray = GeometricRay(0, edge / point_to_lens)
        landed.append((FreeSpace(lens_to_sensor) * SympyLens(focal) * FreeSpace(point_to_lens) * ray).height)
    return float(abs(landed[1] - landed[0]))


@pytest.mark.parametrize(("near", "far"), [(2500, 4000), (900, 1100), (6000, 30000)])
def test_held_limits_are_just_sharp_by_traced_rays(near, far):
    """Thin lens, p = 1: the pupil is the lens. Both limits' discs have the size of the circle of confusion."""
    plane, n = hold(LENS, near, far)
    v = LENS.focal_mm * (1 + plane.magnification)
    for limit in (near, far):
        disc = traced_disc_mm(LENS.focal_mm, LENS.focal_mm / n, v, limit - v)
        assert disc == pytest.approx(LENS.coc_mm, rel=1e-9)


@pytest.mark.parametrize("distance", [1200.0, 3000.0, 9000.0])
@pytest.mark.parametrize("n", [1.4, 4.0, 11.0])
def test_limits_by_root_finding_on_traced_rays(distance, n):
    plane = LENS.focused(distance)
    v = LENS.focal_mm * (1 + plane.magnification)
    near, far = LENS.limits(plane, n)

    def too_soft(d):
        return traced_disc_mm(LENS.focal_mm, LENS.focal_mm / n, v, d - v) - LENS.coc_mm

    assert near == pytest.approx(brentq(too_soft, v + 1, distance), rel=1e-8)
    if math.isinf(far):
        assert too_soft(1e12) <= 1e-9
    else:
        assert far == pytest.approx(brentq(too_soft, distance, 1e9), rel=1e-8)


@settings(max_examples=examples(150), deadline=None)
@given(
    st.floats(14, 200), st.floats(0.006, 0.04), st.floats(0.5, 2.0), st.floats(1000, 8000), st.floats(1.05, 8)
)
def test_no_other_focus_holds_at_a_wider_stop(focal, coc, p, near, ratio):
    """Against a search: the widest stop that holds both limits, over every focus."""
    assume(near > 5 * focal)
    lens = ThinLens(focal, coc, p)
    far = near * ratio
    plane, n = hold(lens, near, far)
    found = minimize_scalar(lambda d: lens.stop_for(lens.focused(d), near, far), bounds=(near, far), method="bounded",
                            options={"xatol": 1e-6 * near})  # fmt: skip
    assert n == pytest.approx(found.fun, rel=2e-3)
    assert n <= found.fun * (1 + 1e-9)
    got = lens.limits(plane, n)
    assert got == pytest.approx((near, far), rel=1e-6)


def test_infinity_is_held_from_half_the_hyperfocal():
    """FORMULAS: focused at the hyperfocal distance, the near limit is exactly half of it, from the pupil."""
    plane = hyperfocal(LENS, 5.6)
    near, far = LENS.limits(plane, 5.6)
    assert math.isinf(far)
    assert near - plane.origin_mm == pytest.approx(plane.z_mm / 2)
    again, n = hold(LENS, near, math.inf)
    assert n == pytest.approx(5.6, rel=1e-9)
    assert again.distance_mm == pytest.approx(plane.distance_mm, rel=1e-9)


@settings(max_examples=examples(100), deadline=None)
@given(st.floats(1.2, 50), st.floats(0.02, 2.0))
def test_softness_comes_out_as_it_was_asked(behind, disc):
    plane = LENS.focused(2000.0)
    point = plane.distance_mm * behind
    n = stop_for_softness(LENS, plane, point, disc)
    v = LENS.focal_mm * (1 + plane.magnification)
    assert traced_disc_mm(LENS.focal_mm, LENS.focal_mm / n, v, point - v) == pytest.approx(disc, rel=1e-6)
    assert distance_for_softness(LENS, plane, n, disc) == pytest.approx(point, rel=1e-6)


def test_what_cannot_be_soft_or_held():
    plane = LENS.focused(2000.0)
    assert stop_for_softness(LENS, plane, 2000.0, 0.1) is None
    assert distance_for_softness(LENS, plane, 22.0, 5.0) is None
    with pytest.raises(InvalidInputError, match="must lie nearer than the far limit"):
        hold(LENS, 3000.0, 2000.0)
    with pytest.raises(InvalidInputError, match="forms no image"):
        hold(LENS, 30.0, 2000.0)
    with pytest.raises(InvalidInputError, match=r"forms no image of anything nearer than 0\.2 m"):
        LENS.focused(150.0)
    with pytest.raises(InvalidInputError, match="behind the entrance pupil"):
        stop_for_softness(LENS, plane, 1.0, 0.1)


@pytest.mark.parametrize("narrower", [True, False])
def test_marks_on_the_right_side(narrower):
    for exact in np.geomspace(1.5, 20, 40):
        mark = marked_stop(float(exact), list(MARKED), narrower)
        assert abs(2 * math.log2(mark / exact)) < 0.40
        assert (2 * math.log2(mark / exact) >= -0.021) if narrower else (2 * math.log2(mark / exact) <= 0.021)
    assert marked_stop(40.0, [2.0, 2.8], True) is None
    assert marked_stop(1.0, [2.0, 2.8], False) is None
