"""The plan view against rays by hand."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.bench.plan import plan_extent_m, plan_view, ticks
from tests.budget import examples
from tests.core.bodies import evaluated


def plan(index=0, **more):
    return plan_view(evaluated(**more), {1: 0, 2: 1, 3: 2}, index, more.get("distance", 3.2), "m")


@pytest.mark.parametrize("squeeze", [1.0, 1.5, 2.0])
@pytest.mark.parametrize("index", range(3))
def test_field_is_drawn_as_wide_as_it_is(index, squeeze):
    """A ray along each edge of the outline meets the plane of focus at the edge of the field."""
    drawn = plan(index, squeeze=squeeze)
    cone = next(c for c in drawn["cones"] if c["chosen"])
    apex, *arc = cone["points_m"]
    crossing = []
    for x, y in (arc[0], arc[-1]):
        share = (drawn["focus_m"] - apex[0]) / (x - apex[0])
        crossing.append(share * (y - apex[1]))
    assert abs(crossing[1] - crossing[0]) == pytest.approx(drawn["field_width_m"], rel=1e-9)


def test_off_centre_window_looks_to_its_own_side():
    """Offsets are counted as the picture is seen: a window to the right of the axis sees what lies right of it."""
    arc = next(c for c in plan(2)["cones"] if c["chosen"])["points_m"][1:]
    middle = (arc[0][1] + arc[-1][1]) / 2
    assert middle > 0


def test_fisheye_beyond_its_law_is_not_drawn():
    drawn = plan(projection="orthographic", focal=8.0)
    assert next(c for c in drawn["cones"] if c["chosen"])["points_m"] == []
    assert drawn["field_width_m"] is None


@settings(max_examples=examples(200))
@given(st.floats(0.05, 5000), st.floats(0.05, 5000), st.one_of(st.none(), st.floats(0.1, 1e6)))
def test_plan_reaches_far_enough_and_not_too_far(subject, focus, far):
    extent = plan_extent_m(subject, focus, far)
    nearest = max(subject, focus)
    assert nearest * 1.59 <= extent <= nearest * 1.6 * 3 * 1.6
    marks = ticks(extent, "m")
    assert 2 <= len(marks) <= 9
    assert marks[-1]["at_m"] <= extent * (1 + 1e-9)
    steps = np.diff([m["value"] for m in marks])
    assert np.allclose(steps, steps[0], rtol=1e-3)


def test_ticks_in_feet_stand_on_whole_feet():
    marks = ticks(6.0, "ft")
    assert [m["value"] for m in marks] == [0, 5, 10, 15]
    assert marks[1]["at_m"] == pytest.approx(5 * 0.3048)
