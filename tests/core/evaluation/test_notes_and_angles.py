"""Diagonal angles of off-centre windows, rates by a hair, equivalents, and what is null."""

import math

import numpy as np
import pytest

from hextan.core.evaluation.requests import evaluate
from hextan.core.optics import view_angles_deg
from hextan.core.optics.angles import PROJECTIONS, field_angle_rad


def ray(x, y, focal, projection):
    """The unit vector that a point of the image comes from."""
    r = math.hypot(x, y)
    theta = float(field_angle_rad(r, focal, projection))
    return np.array([math.sin(theta) * x / r, math.sin(theta) * y / r, math.cos(theta)])


@pytest.mark.parametrize("projection", PROJECTIONS)
@pytest.mark.parametrize("offset", [(0.0, 0.0), (6.0, -2.0), (12.0, 9.0), (-15.0, 3.0)])
def test_the_diagonal_is_the_angle_between_the_rays_to_opposite_corners(projection, offset):
    w, h, focal = 9.0, 6.0, 16.0
    corners = {(sx, sy): ray(offset[0] + sx * w / 2, offset[1] + sy * h / 2, focal, projection)
               for sx in (-1, 1) for sy in (-1, 1)}  # fmt: skip
    between = [math.degrees(math.acos(float(corners[-1, -1] @ corners[1, 1]))),
               math.degrees(math.acos(float(corners[-1, 1] @ corners[1, -1])))]  # fmt: skip
    told = float(view_angles_deg(w, h, focal, *offset, projection)[2])
    assert told == pytest.approx(max(between), abs=1e-5, nan_ok=True)


def test_a_centred_fisheye_of_more_than_half_a_turn():
    """Equidistant: 110 degrees to either corner are 220 between them, and not the 140 on the other side."""
    r = 10 * math.radians(110)
    for offset in (0.0, 1e-9):
        told = float(view_angles_deg(r * math.sqrt(2), r * math.sqrt(2), 10.0, offset, 0.0, "equidistant")[2])
        assert told == pytest.approx(220, abs=1e-4)


def asked(**more):
    base = {
        "subject": {"distance_m": 3},
        "lens": {"focal_mm": 40, "f_number": 2.0, "t_stop": 2.2},
        "formats": [{"id": "a", "sensor": {"photosites": [6000, 4000], "pitch_um": 6},
                     "window": {"photosites": [6000, 3375]}}],
    }  # fmt: skip
    return evaluate(base | more)["formats"][0]


def test_equivalent_has_the_same_entrance_pupil_and_depth():
    got = asked(reference={"name": "super35", "by": "width"})
    k = 24.89 / 36
    assert got["equivalent"] == pytest.approx({"focal_mm": 40 * k, "f_number": 2 * k, "t_stop": 2.2 * k})
    # By hand on the reference: the same field and both limits, far away exactly.
    there = evaluate(
        {
            "subject": {"distance_m": 300},
            "lens": {"focal_mm": 40 * k, "f_number": 2 * k},
            "formats": [{"id": "r", "window": {"width_mm": 24.89, "height_mm": 24.89 * 3375 / 6000}}],
        }
    )["formats"][0]
    here = asked(subject={"distance_m": 300})
    assert there["field_m"]["width"] == pytest.approx(here["field_m"]["width"], rel=1e-3)
    assert there["depth"]["near_m"] == pytest.approx(here["depth"]["near_m"], rel=1e-3)
    bare = asked(lens={"focal_mm": 40})
    assert (bare["equivalent"]["f_number"], bare["equivalent"]["t_stop"]) == (None, None)


def test_diffraction_is_unknown_without_a_circle_of_confusion():
    """The photosite rule has nothing to go by where only millimetres are known."""
    got = asked(coc={"rule": "photosite"}, formats=[{"id": "a", "window": {"width_mm": 36, "height_mm": 24}}])
    assert got["depth"]["coc_mm"] is None
    assert got["depth"]["diffraction_limited"] is None
    assert asked()["depth"]["diffraction_limited"] is False


@pytest.mark.parametrize(
    ("fps", "row_us", "ok", "just"),
    [
        # 59.94 wants 16.683 ms; 3375 rows of 4.948 us take 16.6995: short by less than 0.1 %.
        (60000 / 1001, 4.948, True, True),
        (60000 / 1001, 4.94, True, False),
        (60000 / 1001, 4.97, False, False),
        # 23.976 for 24000/1001 is the same rate, printed.
        (24000 / 1001, 1e6 / 3375 / 23.976, True, False),
    ],
)
def test_a_rate_by_a_hair_is_possible_and_told(fps, row_us, ok, just):
    got = asked(
        formats=[{"id": "a", "sensor": {"photosites": [6000, 4000], "pitch_um": 6},
                  "window": {"photosites": [6000, 3375]}, "timing": {"row_time_us": row_us, "overhead_us": 0},
                  "recording": {"raster": [6000, 3375], "fps": fps}}]
    )  # fmt: skip
    assert got["speed"]["requested_ok"] is ok
    notes = {n["code"]: n["text"] for n in got["notes"]}
    assert ("rate_just" in notes) is just
    assert ("rate_too_high" in notes) is (not ok)
    if just:
        assert notes["rate_just"] == (
            "59.94 frames a second need 16.683 ms a frame, and the readout takes 16.700: possible by a hair; try it."
        )


def test_a_circle_that_just_covers_says_so():
    needed = math.hypot(36, 20.25)
    for extra, words in (
        (0.004, "just covers, 0.004 mm spare"),
        (-0.004, "just covers: 0.004 mm short, which nobody sees as dark corners"),
        (-4.0, "4.0 mm short"),
    ):
        got = asked(lens={"focal_mm": 40, "image_circle_mm": needed + extra})
        text = next(n["text"] for n in got["notes"] if n["code"].startswith("coverage"))
        assert words in text
