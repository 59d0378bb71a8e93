"""The drawing of a body's windows against independent geometry: shapely."""

import math

import pytest
import shapely

from hextan.core.equipment.window_drawing import window_map
from hextan.core.optics import coverage_verdict
from tests.core.bodies import WINDOWS, evaluated


def map_of(index, **more):
    body = WINDOWS.bodies[0]
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
        dark = shape(window).difference(disc).area / shape(window).area
        assert window["verdict"] == coverage_verdict(circle, 2 * far, dark)
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
