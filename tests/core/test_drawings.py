"""The geometry that the Bench draws, against independent geometry: shapely, and rays by hand."""

import math

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core import coverage
from hextan.core.body_document import parse_body
from hextan.core.computation import compute
from hextan.core.contract import parse_request
from hextan.core.drawings import coverage_verdict, plan_extent_m, plan_view, ticks, window_map
from tests.core.bodies import a_body, a_format, a_mode, package_of

MODES = [
    a_mode("Full", window=[6000, 3375], formats=[a_format("UHD")]),
    a_mode("Small", window=[3000, 1688], formats=[a_format("small")]),
    a_mode("Moved", window=[2000, 1125], offset=[400, -200], formats=[a_format("moved")]),
]
PACKAGE = package_of([parse_body(a_body(MODES))])


def evaluated(circle=31.5, squeeze=1.0, focal=40.0, distance=3.2, projection="rectilinear", delivery=None):
    formats = [here.as_request(25.0, delivery) for here in PACKAGE.formats.values()]
    return compute(parse_request({
        "subject": {"distance_m": distance}, "formats": formats,
        "lens": {"focal_mm": focal, "f_number": 2.0, "image_circle_mm": circle, "squeeze": squeeze,
                 "projection": projection}}))  # fmt: skip


def map_of(index, **more):
    body = PACKAGE.bodies[0]
    return window_map(evaluated(**more), index, body, body.modes[index])


def shape(rect):
    return shapely.box(rect["x"], rect["y"], rect["x"] + rect["width"], rect["y"] + rect["height"])


@pytest.mark.parametrize("index", range(3))
@pytest.mark.parametrize("circle", [10.0, 20.0, 31.5, 45.0])
def test_window_map_against_shapely(index, circle):
    drawn = map_of(index, circle=circle)
    disc = shapely.Point(0, 0).buffer(circle / 2, quad_segs=2000)
    recorded = shape(drawn["recorded"])
    assert shape(drawn["sensor"]).buffer(1e-9).contains(recorded)
    for window in drawn["windows"]:
        assert shape(drawn["sensor"]).buffer(1e-9).contains(shape(window))
        far = max(math.hypot(x, y) for x, y in shape(window).exterior.coords)
        assert window["needed_mm"] == pytest.approx(2 * far)
        assert window["verdict"] == coverage_verdict(circle, 2 * far)
    dark = recorded.difference(disc)
    assert drawn["dark_share"] == pytest.approx(dark.area / recorded.area, abs=2e-6)
    corners = {"top left": (0, 1), "top right": (2, 1), "bottom left": (0, 3), "bottom right": (2, 3)}
    x0, y0, x1, y1 = recorded.bounds
    at = {0: x0, 2: x1, 1: y0, 3: y1}
    expected = [name for name, (x, y) in corners.items() if math.hypot(at[x], at[y]) > circle / 2]
    assert drawn["dark_corners"] == expected
    words = drawn["words"][0]["text"]
    assert ("short here" in words) == bool(expected)


def test_largest_covered_window_is_named():
    assert map_of(0, circle=24.0)["words"][1]["text"] == "Largest whole window covered: Small."
    assert map_of(0, circle=60.0)["words"][1]["text"] == "Every window of this body is covered."
    none = map_of(0, circle=5.0)["words"][1]["text"]
    assert none.startswith("No whole window of this body is covered; Moved needs ")
    unknown = map_of(0, circle=None)
    assert unknown["words"][0]["text"].endswith("the lens's circle is not stated.")
    assert unknown["dark_share"] is None


@pytest.mark.parametrize("squeeze", [1.0, 2.0])
def test_pictures_lie_inside_one_another(squeeze):
    drawn = map_of(0, squeeze=squeeze, delivery={"aspect": 2.39, "protect": 0.1})
    recorded, picture, framed = (shape(drawn[name]) for name in ("recorded", "picture", "framed"))
    assert recorded.buffer(1e-9).contains(picture)
    assert picture.buffer(1e-9).contains(framed)
    assert framed.area / picture.area == pytest.approx(0.81)
    w, h = drawn["picture"]["width"], drawn["picture"]["height"]
    assert w * squeeze / h == pytest.approx(2.39)


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


@settings(max_examples=200)
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


@settings(max_examples=60)
@given(st.floats(1, 40), st.floats(1, 30), st.floats(-10, 10), st.floats(-10, 10), st.floats(1, 60))
def test_dark_share_against_shapely(w, h, dx, dy, circle):
    box = shapely.box(dx - w / 2, dy - h / 2, dx + w / 2, dy + h / 2)
    disc = shapely.Point(0, 0).buffer(circle / 2, quad_segs=1000)
    share = 1 - box.intersection(disc).area / box.area
    assert float(coverage.dark_share(circle, w, h, dx, dy)) == pytest.approx(share, abs=1e-5)
