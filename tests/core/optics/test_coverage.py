"""Dark corners against independent geometry: shapely."""

import numpy as np
import pytest
import shapely
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from hextan.core.optics import coverage
from tests.budget import examples


@settings(max_examples=examples(60))
@given(st.floats(1, 40), st.floats(1, 30), st.floats(-10, 10), st.floats(-10, 10), st.floats(1, 60))
def test_dark_share_against_shapely(w, h, dx, dy, circle):
    box = shapely.box(dx - w / 2, dy - h / 2, dx + w / 2, dy + h / 2)
    disc = shapely.Point(0, 0).buffer(circle / 2, quad_segs=1000)
    share = 1 - box.intersection(disc).area / box.area
    assert float(coverage.dark_share(circle, w, h, dx, dy)) == pytest.approx(share, abs=1e-5)


def test_a_circle_that_just_reaches_covers():
    """To the last digit: no margin is marginal, and less than none is short unless nobody sees what is dark."""
    assert [
        coverage.coverage_verdict(29.2 + spare, 29.2, dark)
        for spare, dark in (
            (0.0, 0.0),
            (-1e-9, 0.0),
            (-0.2, 0.001),
            (-0.3, 0.00101),
            (0.021 * 29.2, 0.0),
            (1.0, 0.0),
        )
    ] == ["marginal", "marginal", "marginal", "short", "covers", "covers"]
    judged = coverage.coverage_numbers(np.array([29.2, 29.1, 40.0, np.nan]), 29.2, [0.0, 0.002, 0.0, np.nan])
    assert [coverage.VERDICTS[n] for n in judged] == ["marginal", "short", "covers", "unknown"]


@given(aspect=st.floats(0.4, 3), short=st.floats(0.0, 0.05), dx=st.floats(-3, 3))
def test_dark_corners_are_called_so_from_a_thousandth_of_the_picture_on(aspect, short, dx):
    """The dark part is measured with shapely, which draws circles with many corners."""
    w, h = 20.0, 20.0 / aspect
    needed = float(coverage.needed_circle_mm(w, h, dx, 0.0))
    circle = needed * (1 - short)
    window = shapely.box(dx - w / 2, -h / 2, dx + w / 2, h / 2)
    dark = window.difference(shapely.Point(0, 0).buffer(circle / 2, quad_segs=4000)).area / window.area
    assume(abs(dark - coverage.DARK_SHARE) > 1e-5)
    found = float(coverage.dark_where_short(circle, w, h, dx, 0.0))
    assert (coverage.coverage_verdict(circle, needed, found) == "short") == (dark > 0.001)
