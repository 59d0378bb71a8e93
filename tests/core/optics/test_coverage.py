"""Dark corners against independent geometry: shapely."""

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
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
    """To the last digit: no margin is marginal, and less than none is short."""
    assert [coverage.coverage_verdict(29.2 + spare, 29.2) for spare in (0.0, -1e-9, 0.021 * 29.2, 1.0)] == [
        "marginal",
        "short",
        "covers",
        "covers",
    ]
    judged = coverage.coverage_numbers(np.array([29.2, 29.1, 40.0, np.nan]), 29.2)
    assert [coverage.VERDICTS[n] for n in judged] == ["marginal", "short", "covers", "unknown"]
