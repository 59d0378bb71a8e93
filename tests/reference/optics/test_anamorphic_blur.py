"""Blur behind a front anamorphic, traced: two crossed planes of paraxial rays through a telescope of cylinders.

Source of the method: ray-transfer matrices, any textbook of geometrical optics (from memory). Across, the attachment
is an afocal pair of cylinders that squeezes by S; upright it does nothing. The subject is far against the pair's
length, and the pair's spacing is set so that both planes are in focus, as the focus of such lenses is.
"""

import math

import numpy as np
import pytest
from scipy.optimize import brentq

from hextan.core.evaluation import evaluate

FOCAL, N, DISTANCE_M, WIDTH, HEIGHT = 50.0, 2.0, 60.0, 21.51, 18.0
CYLINDER = 40.0


def free(d):
    return np.array([[1.0, d], [0.0, 1.0]])


def thin(f):
    return np.array([[1.0, 0.0], [-1.0 / f, 1.0]])


def extent(system, before_mm, stop_row, radius):
    """Width on the sensor of a point's disc: the rays from it that pass the edges of the stop."""
    to_stop = stop_row @ free(before_mm)
    at_sensor = system @ free(before_mm)
    # A ray from the axis at slope u is at height B*u in the stop.
    slopes = np.array([-1, 1]) * radius / to_stop[0, 1]
    heights = at_sensor[0, 1] * slopes
    return abs(heights[1] - heights[0])


@pytest.mark.parametrize("squeeze", [1.33, 1.5, 1.8, 2.0])
@pytest.mark.parametrize("behind", [1.5, 4.0, 1e6])
def test_the_oval_agrees_with_traced_rays(squeeze, behind):
    s = DISTANCE_M * 1000 - FOCAL * (1 + FOCAL / (DISTANCE_M * 1000))
    back = 1 / (1 / FOCAL - 1 / s)
    upright, stop = free(back) @ thin(FOCAL), np.eye(2)
    # Across: a diverging cylinder, then a converging one S times as long, right before the lens.
    first, second = thin(-CYLINDER), thin(CYLINDER * squeeze)

    def across(gap):
        before_stop = second @ free(gap) @ first
        return free(back) @ thin(FOCAL) @ before_stop, before_stop

    in_focus = brentq(lambda gap: (across(gap)[0] @ free(s - gap))[0, 1], CYLINDER * (squeeze - 1) * 0.9,
                      CYLINDER * (squeeze - 1) * 1.2)  # fmt: skip
    radius = FOCAL / N / 2
    tall = extent(upright, s * behind, stop, radius)
    system, before = across(in_focus)
    wide = extent(system, s * behind - in_focus, before, radius)
    answer = evaluate(
        {
            "subject": {"distance_m": DISTANCE_M},
            "background_m": [DISTANCE_M * behind if behind < 1e5 else None],
            "lens": {"focal_mm": FOCAL, "f_number": N, "squeeze": squeeze},
            "formats": [{"id": "a", "window": {"width_mm": WIDTH, "height_mm": HEIGHT}}],
        }
    )
    told = answer["formats"][0]["background"][0]
    assert told["blur_mm"] == pytest.approx(tall, rel=2e-3)
    # On the screen: as wide as on the sensor, de-squeezed; shares of the de-squeezed width.
    assert told["blur_fraction_of_width"] == pytest.approx(tall / (squeeze * WIDTH), rel=2e-3)
    assert told["blur_across_fraction_of_width"] == pytest.approx(
        wide * squeeze / (squeeze * WIDTH), rel=1e-2
    )
    assert wide == pytest.approx(tall / squeeze**2, rel=1e-2)


def test_spherical_lenses_have_round_discs():
    answer = evaluate(
        {
            "subject": {"distance_m": 3},
            "background_m": [None],
            "lens": {"focal_mm": 50, "f_number": 2},
            "formats": [{"id": "a", "window": {"width_mm": 36, "height_mm": 24}}],
        }
    )
    told = answer["formats"][0]["background"][0]
    assert told["blur_fraction_of_width"] == told["blur_across_fraction_of_width"]
    assert told["blur_fraction_of_width"] == pytest.approx(told["blur_mm"] / 36)
    assert math.isfinite(told["blur_mm"])
