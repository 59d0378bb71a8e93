"""Figures of the public evaluation redone from others of the same answer, or by a right-angled triangle."""

import math

import pytest

from hextan.core.evaluation.requests import evaluate

SENSOR = {"photosites": [6000, 4000], "pitch_um": 6.0}


def answer(window, lens, **more):
    return evaluate({"lens": {"focal_mm": 50.0, "f_number": 2.8} | lens, "formats": [{"sensor": SENSOR, "window": window}], **more})["formats"][0]  # fmt: skip


@pytest.mark.parametrize("squeeze", [1.0, 1.5, 2.0])
def test_a_window_off_centre_looks_aside_as_far_as_it_is_seen(squeeze):
    """Both edges of 3000 photosites, 500 to the right: 4.5 to 12 mm are 9 + 3 and 9 - 3 mm, squeezed."""
    got = answer({"photosites": [3000, 2000], "offset": [500, 0]}, {"squeeze": squeeze})
    right, left = (math.degrees(math.atan(x * squeeze / 50.0)) for x in (9.0 + 3.0, 9.0 - 3.0))
    assert got["angle_deg"]["horizontal"] == pytest.approx(right + left, rel=1e-12)


@pytest.mark.parametrize("squeeze", [1.0, 2.0])
def test_depth_and_blur_hang_together(squeeze):
    got = answer(
        {"photosites": [4000, 3000]},
        {"squeeze": squeeze},
        subject={"distance_m": 3.0},
        background_m=[8.0, None],
    )
    depth = got["depth"]
    assert depth["total_m"] == pytest.approx(depth["far_m"] - depth["near_m"], rel=1e-12)
    assert depth["near_m"] < 3.0 < depth["far_m"]
    wide = got["picture_mm"]["width"] * squeeze
    for point in got["background"]:
        assert point["blur_fraction_of_width"] == pytest.approx(point["blur_mm"] / wide, rel=1e-12)
        # De-squeezed the disc is an oval, narrower than high.
        assert point["blur_across_fraction_of_width"] == pytest.approx(
            point["blur_mm"] / (squeeze * wide), rel=1e-12
        )


@pytest.mark.parametrize(("circle", "dark"), [(60.0, False), (43.0, True), (20.0, True)])
def test_dark_is_what_the_circle_leaves(circle, dark):
    """24 x 18 mm: the share outside a circle that reaches neither side is 1 - pi r^2 / (w h)."""
    got = answer({"photosites": [6000, 4000]}, {"image_circle_mm": circle})["coverage"]
    assert (got["dark_share"] > 0) is dark
    assert got["covers"] is not dark
    if circle == 20.0:
        assert got["dark_share"] == pytest.approx(1 - math.pi * 10.0**2 / (36.0 * 24.0), rel=1e-9)
