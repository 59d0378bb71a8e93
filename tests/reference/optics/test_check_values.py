"""Check values of the handbook relations.

Each comes from two computations that know nothing of Hextan: the closed relation on paper, and, where light is followed
(distances, hyperfocal, depth), the imaging equation 1/f = 1/s + 1/s' with similar triangles at the aperture, solved by
bisection in 50-digit decimals.
"""

import numpy as np
import pytest

from hextan.core.optics import (
    angles,
    coc,
    conjugates,
    depth,
    references,
    windows,
)
from hextan.core.optics.chain import trace

FULL = (36.0, 24.0)  # ISO 1007 (135 frame), from memory
SUPER35 = (24.89, 18.66)  # SMPTE ST 59, from memory


def test_super35_against_full_frame():
    factors = windows.crop_factors(*SUPER35, 1.0, *FULL)
    assert [round(float(k), 4) for k in factors] == [1.4464, 1.2862, 1.3909]
    assert references.NAMED == {"super35": SUPER35, "full_frame": FULL}


def test_diagonal_factor_is_the_35_mm_equivalent():
    """CIPA DCG-001 (from memory): the 35 mm equivalent goes by the diagonal, 43.27 mm."""
    factor = float(windows.crop_factors(17.3, 13.0, 1.0, *FULL)[2])
    assert factor == pytest.approx(43.2666 / np.hypot(17.3, 13.0), rel=1e-5)


def test_scope_out_of_full_frame():
    assert float(windows.extract_picture(*FULL, 1.0, 2.39)[1]) == pytest.approx(15.063, abs=5e-4)


def test_two_times_squeeze_on_the_anamorphic_gate():
    w, h = windows.extract_picture(21.51, 18.0, 2.0, 2.39)
    assert (float(w), float(h)) == pytest.approx((21.51, 18.0))


@pytest.mark.parametrize(
    ("standard", "raster", "aspect"),
    [
        # All from memory of the documents named.
        ("ITU-R BT.709", (1920, 1080), 16 / 9),
        ("ITU-R BT.2020 UHD-1", (3840, 2160), 16 / 9),
        ("SMPTE ST 2048-1", (4096, 2160), 1.8963),
        ("SMPTE ST 428-1 flat", (3996, 2160), 1.85),
        ("SMPTE ST 428-1 scope", (4096, 1716), 2.3869),
    ],
)
def test_published_rasters_trim_a_window_to_their_aspect(standard, raster, aspect):
    w, h = windows.trim_to_aspect(30.0, 20.0, raster[0] / raster[1])
    assert float(w / h) == pytest.approx(aspect, abs=5e-5), standard
    assert float(w) == 30.0  # wider than the window: only the height gives


@pytest.mark.parametrize(("size", "angle"), [(36.0, 39.598), (24.0, 26.991), (np.hypot(36, 24), 46.793)])
def test_angles_of_a_50_on_full_frame(size, angle):
    assert float(angles.angle_of_view_deg(size, 50.0)) == pytest.approx(angle, abs=5e-4)


def test_macro_at_life_size():
    t = trace(wide_mm=36.0, high_mm=24.0, focal_mm=100.0, distance_mm=400.0)
    assert float(t.magnification) == 1.0
    assert float(t.focus_angle_w_deg) == pytest.approx(2 * np.degrees(np.arctan(36 / 400)), rel=1e-12)
    assert float(t.focus_angle_w_deg) == pytest.approx(10.286, abs=5e-4)


def test_from_sensor_to_lens():
    m = conjugates.magnification_from_sensor(50.0, 3000.0)
    assert float(50 * (1 + 1 / m)) == pytest.approx(2949.138, abs=5e-4)
    assert np.isnan(conjugates.magnification_from_sensor(100.0, 399.99))


def test_hyperfocal_in_millimetres_and_feet():
    assert float(depth.hyperfocal_from_lens_mm(50.0, 2.8, 0.025)) == pytest.approx(35764.29, abs=5e-3)
    feet = float(depth.hyperfocal_from_lens_mm(50.0, 2.8, 0.0254)) / 304.8
    assert round(feet, 1) == 115.5
    assert round(feet - 50 / 304.8, 1) == 115.3


def test_reducer_and_extender():
    assert float(conjugates.stops_of_adapter(0.71)) == pytest.approx(-0.988, abs=5e-4)
    assert float(conjugates.stops_of_adapter(1.4)) == pytest.approx(0.971, abs=5e-4)
    assert float(conjugates.stops_of_adapter(2.0)) == 2.0
    reduced = conjugates.behind_adapter(50.0, 1.9, 2.0, 43.3, 0.71)
    assert reduced.t_stop == pytest.approx(1.42)
    assert reduced.focal_mm / reduced.f_number == pytest.approx(50.0 / 1.9)  # the aperture's diameter stays


@pytest.mark.parametrize(
    ("fixed_coc", "expected"),
    [(None, (577.1, 382.8, 860.8, 870.5)), (0.025, (499.0, 499.0, 1126.2, 1148.1))],
)
def test_three_cases_of_the_larger_sensor(fixed_coc, expected):
    """36x24 against 24x16: 50 mm, N 2.8, s 3000 from the lens; total depth in mm."""

    def total(width, height, focal, distance):
        c = fixed_coc or float(coc.coc_from_diagonal_mm(np.hypot(width, height)))
        t = trace(wide_mm=width, high_mm=height, focal_mm=focal, distance_mm=distance, from_lens=True,
                  f_number=2.8, coc_mm=c)  # fmt: skip
        return float(t.far_mm - t.near_mm)

    s_moved = 50.0 * (1 + 1.5 / (50 / 2950))
    assert s_moved == 4475.0
    m_small = 50 / 2950 / 1.5
    f_same_place = 3000 * m_small / (1 + m_small)
    assert f_same_place == pytest.approx(33.52, abs=5e-3)
    got = (
        total(36, 24, 50, 3000), total(24, 16, 50, 3000), total(24, 16, 50, s_moved),
        total(24, 16, f_same_place, 3000),
    )  # fmt: skip
    assert got == pytest.approx(expected, abs=0.05)


def test_chain_of_crops_multiplies():
    """Common practice, no source: crops of 2.75, 1.067 and 1.43 in a row are one of 4.196."""
    width = 36.0 / 2.75 / 1.067 / 1.43
    assert float(windows.crop_factors(width, 1.0, 1.0, *FULL)[0]) == pytest.approx(4.196, abs=5e-4)


def test_trade_classes_of_focal_length():
    """Common practice, no source: a 35 on Super 35 frames about like a 50 on full frame."""
    k = float(windows.crop_factors(*SUPER35, 1.0, *FULL)[0])
    assert 35 * k == pytest.approx(50, abs=1.0)
    assert 24 * k == pytest.approx(35, abs=1.0)
