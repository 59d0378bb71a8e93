"""Each formula for scalars, (6,) and (2, 3) arrays, and for zero, negative, NaN and infinity."""

import numpy as np
import pytest

from hextan.core.base import InvalidInputError, stops
from hextan.core.equipment import speed
from hextan.core.optics import (
    angles,
    coc,
    conjugates,
    coverage,
    depth,
    media,
    readout,
    windows,
)
from hextan.core.optics.classes import CLASSES, class_circle_mm, class_size_mm, class_words, format_class


def _photosites_by_factor(factor, pitch_um, sampling):
    """NaN is allowed for the pitch (unknown), so the refusals are tried on the factor."""
    return coc.coc_from_photosites_mm(pitch_um, sampling, factor)


CASES = {
    "trim_to_aspect": (windows.trim_to_aspect, (36.0, 24.0, 1.78)),
    "extract_picture": (windows.extract_picture, (36.0, 24.0, 1.0, 2.39)),
    "crop_factors": (windows.crop_factors, (25.0, 14.0, 1.0, 24.89, 18.66)),
    "magnification_from_sensor": (conjugates.magnification_from_sensor, (50.0, 3000.0)),
    "magnification_from_lens": (conjugates.magnification_from_lens, (50.0, 3000.0)),
    "distance_for_magnification": (conjugates.distance_for_magnification, (50.0, 0.1)),
    "stops_of_adapter": (conjugates.stops_of_adapter, (0.71,)),
    "angle_of_view_deg": (angles.angle_of_view_deg, (36.0, 50.0)),
    "coc_from_diagonal_mm": (coc.coc_from_diagonal_mm, (29.2, 1500.0)),
    "coc_from_photosites_mm": (_photosites_by_factor, (2.0, 5.9, 1.0)),
    "coc_from_eye_mm": (coc.coc_from_eye_mm, (14.0, 3.0, 1.0)),
    "depth_limits": (depth.depth_limits, (3000.0, 50.0, 0.0169, 2.8, 0.025)),
    "blur_disc_mm": (depth.blur_disc_mm, (3000.0, 5000.0, 50.0, 0.0169, 2.8)),
    "airy_disc_mm": (depth.airy_disc_mm, (11.0,)),
    "hyperfocal_from_lens_mm": (depth.hyperfocal_from_lens_mm, (50.0, 2.8, 0.025)),
    "hyperfocal_from_sensor_mm": (depth.hyperfocal_from_sensor_mm, (50.0, 2.8, 0.025)),
    "needed_circle_mm": (coverage.needed_circle_mm, (24.0, 18.0)),
    "dark_share": (coverage.dark_share, (28.0, 24.0, 18.0)),
    "frame_bytes": (media.frame_bytes, (3840.0, 2160.0, 2.0, 10.0, 5.0)),
    "levelling_degrees": (media.levelling_degrees, (4300.0, 2400.0, 3840.0, 2160.0)),
    "shutter_time_s": (speed.shutter_time_s, (172.8, 24.0)),
    "stops_lost": (speed.stops_lost, (120.0, 24.0)),
    "rows_for_rate": (speed.rows_for_rate, (100.0, 6.35)),
    "largest_window_mm": (coverage.largest_window_mm, (31.0, 1.78)),
}


@pytest.mark.parametrize("name", CASES)
def test_arrays_give_what_scalars_give(name):
    function, arguments = CASES[name]
    scale = np.array([1.0, 1.01, 1.02, 1.03, 1.04, 1.05])
    stretched = [a * scale for a in arguments]
    for shape in ((6,), (2, 3)):
        got = function(*(a.reshape(shape) for a in stretched))
        for part, result in enumerate(got if isinstance(got, tuple) else (got,)):
            assert result.shape == shape
            for i in range(6):
                alone = function(*(float(a[i]) for a in stretched))
                alone = alone[part] if isinstance(alone, tuple) else alone
                assert float(result.flat[i]) == float(alone)


@pytest.mark.parametrize("bad", [0.0, -1.0, np.nan, np.inf])
@pytest.mark.parametrize("name", CASES)
def test_impossible_quantities_are_refused(name, bad):
    function, arguments = CASES[name]
    with pytest.raises(InvalidInputError, match="must be a finite number above zero"):
        function(bad, *arguments[1:])


def test_point_in_focus_has_no_blur_and_infinity_the_most():
    args = (3000.0, 50.0, 0.0169, 2.8)
    z, rest = args[0], args[1:]
    assert float(depth.blur_disc_mm(z, z, *rest)) == 0.0
    assert float(depth.blur_disc_mm(z, np.inf, *rest)) == pytest.approx(0.0169 * 50 / 2.8)


def test_hyperfocal_focus_reaches_infinity_and_halves_the_near_limit():
    h = float(depth.hyperfocal_from_lens_mm(50.0, 2.8, 0.025))
    m = float(conjugates.magnification_from_lens(50.0, h))
    z = float(conjugates.pupil_to_subject(50.0, m))
    near, far = depth.depth_limits(z, 50.0, m, 2.8, 0.025)
    assert np.isinf(far)
    assert float(near) == pytest.approx(z / 2, rel=1e-12)
    assert np.isfinite(depth.depth_limits(z * 0.999, 50.0, 50 / (z * 0.999 - 50), 2.8, 0.025)[1])


def test_unknown_circle_of_confusion_gives_unknown_limits():
    near, far = depth.depth_limits(3000.0, 50.0, 0.0169, 2.8, np.nan)
    assert np.isnan(near)
    assert np.isnan(far)


def test_only_rows_make_a_sensor_faster():
    slow = readout.highest_rate(readout.frame_time_us(3000, 5.0, 200.0), np.nan)
    fast = readout.highest_rate(readout.frame_time_us(1500, 5.0, 200.0), np.nan)
    assert float(slow[0]) == pytest.approx(1e6 / 15200)
    assert float(fast[0]) == pytest.approx(1e6 / 7700)


@pytest.mark.parametrize(
    ("frame_us", "stated", "interlaced", "fps", "by_readout"),
    [
        (10_000.0, np.nan, False, 100.0, True),
        (10_000.0, 60.0, False, 60.0, False),
        (10_000.0, 200.0, False, 100.0, True),
        (np.nan, 30.0, False, 30.0, False),
        # A mode that stops at 30 scans cannot record 50i (25 frames): common practice, no source.
        (np.nan, 30.0, True, 15.0, False),
        (20_000.0, np.nan, True, 25.0, True),
    ],
)
def test_highest_rate_and_what_binds_it(frame_us, stated, interlaced, fps, by_readout):
    rate, bound = readout.highest_rate(frame_us, stated, interlaced)
    assert float(rate) == pytest.approx(fps)
    assert bool(bound) is by_readout


def test_printed_rates_are_rounded():
    assert readout.rate_fits(60.0, 60000 / 1001)
    assert not readout.rate_fits(60.0, 59.0)


def test_rate_is_unknown_without_timing():
    assert np.isnan(readout.highest_rate(np.nan, np.nan)[0])


def test_marked_stops_are_thirds():
    """ISO 517 (from memory): full stops are powers of the square root of two; marks round them."""
    for i, mark in enumerate(stops.MARKED):
        assert stops.stops_between(2 ** ((i - 3) / 6), mark) == pytest.approx(0, abs=0.14), mark


def test_stops_of_a_lens_begin_with_its_widest():
    assert stops.stops_of_lens(2.0)[:4] == [2.0, 2.2, 2.5, 2.8]
    assert stops.stops_of_lens(1.5)[:3] == [1.5, 1.8, 2.0]
    assert max(stops.stops_of_lens(2.8)) == 22.0


@pytest.mark.parametrize(
    ("width", "height", "name"),
    [(54.0, 25.6, "large format"), (52.5, 23.0, "65 mm"), (36.0, 24.0, "full frame"), (24.89, 14.0, "Super 35"),
     (12.52, 7.41, "Super 16"), (9.6, 5.4, "2/3 inch"), (17.3, 13.0, "four thirds"), (13.2, 8.8, "1 inch"),
     (23.5, 15.6, "APS-C"), (22.3, 14.9, "APS-C"), (40.96, 21.6, "8-perforation 35"), (36.0, 15.1, "full frame"),
     (27.0, 14.25, "Super 35"), (30.0, 16.0, None), (6.0, 4.0, None), (36.0, 9.0, None)],
)  # fmt: skip
def test_a_class_belongs_to_a_size_and_what_is_near_to_none_has_none(width, height, name):
    """Common practice, no source."""
    assert format_class(width, height) == name
    assert class_words(width, height) == (name or f"{width:.1f} × {height:.1f} mm")


def test_the_size_of_a_classs_name_is_of_that_class_and_the_list_goes_from_the_largest():
    assert all(format_class(*class_size_mm(name)) == name for name in CLASSES)
    circles = [class_circle_mm(name) for name in CLASSES]
    assert circles == sorted(circles, reverse=True)


@pytest.mark.parametrize(("pupil", "z"), [(1.0, 50 * (10 + 1)), (2.0, 50 * (10 + 0.5)), (0.5, 50 * (10 + 2))])
def test_the_entrance_pupil_lies_before_the_principal_plane_by_the_pupils_ratio(pupil, z):
    """z = f (1/m + 1/p), by hand for f = 50 and m = 1/10."""
    assert float(conjugates.pupil_to_subject(50.0, 0.1, pupil)) == pytest.approx(z)
