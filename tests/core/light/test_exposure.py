"""What balances an exposure, chosen among few things that can be set."""

import math

import pytest

from hextan.core.light import NdFilter
from hextan.core.light.exposure import Means, NdChoice, Settings, balance, nd_choices, needed_lux

STOP, TIME = 2.8, 0.02
NDS = [NdChoice(3.0, ("ND 0.9",)), NdChoice(2.0, ("ND 0.6",)), NdChoice(1.5, ("ND 0.45",))]


def dark_by(stops):
    lux = float(needed_lux(STOP, TIME, 800.0, 3.0)) / 2.0**stops
    return Settings(STOP, TIME, 800, 3.0, lux, 0.0)


def means(*base_eis):
    return Means(stops=[STOP], eis=[800, 1130, 1600], base_eis=base_eis, nds=NDS, times_s=[TIME])


def set_to(found):
    return found.settings.ei, found.settings.nd_stops


@pytest.mark.parametrize(
    ("base_eis", "ei", "nd"),
    # Two stops by half a stop of EI and one and a half of ND, or by one of each: the native one is nearer at hand.
    [((800, 1600), 1600, 2.0), ((800, 1130), 1130, 1.5)],
)
def test_a_native_sensitivity_goes_before_one_that_is_not(base_eis, ei, nd):
    found = balance(dark_by(2.0), means(*base_eis), ("nd", "ei"))
    assert set_to(found) == (ei, nd)
    assert abs(found.off_stops) < 1 / 6


def test_what_may_not_move_stays():
    found = balance(dark_by(1.0), means(800, 1600), ("nd",))
    assert (set_to(found), found.nd_parts) == ((800, 2.0), ("ND 0.6",))
    assert balance(dark_by(1.0), means(800, 1600), ()).off_stops == pytest.approx(-1.0)
    assert set_to(balance(dark_by(1.0), means(800, 1600), ("ei",))) == (1600, 3.0)


EIS = (100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250, 1600, 2000, 2500, 3200, 4000, 5000)
BAG = nd_choices([], [NdFilter("ND 0.1", 1 / 3), NdFilter("ND 0.3", 1.0), NdFilter("ND 0.6", 2.0)])


@pytest.mark.parametrize("off", [k / 12 for k in range(-60, 61)])
def test_no_nd_goes_into_a_dark_picture_and_none_is_taken_back_by_ei(off):
    """Every twelfth of a stop from five too dark to five too bright, at EI 800 without ND; the light may move at last."""
    lux = 250 * 4.0**2 / (0.02 * 800) * 2**off
    now = Settings(4.0, 0.02, 800, 0.0, lux)
    for bag in (BAG, nd_choices([], [NdFilter("ND 0.3", 1.0)])):
        found = balance(now, Means((4.0,), EIS, (800,), bag, (0.02,)), ["nd", "ei", "light"])
        if off < 0:
            assert found.settings.nd_stops == 0
        alone = min(abs(off + math.log2(ei / 800)) for ei in EIS)
        if alone <= 1 / 3 and found.settings.ei != 800:
            assert found.settings.nd_stops == 0, (off, found)
        assert abs(found.off_stops) <= 1 / 3 + 1e-6


def test_half_a_stop_over_is_an_ei_alone():
    now = Settings(4.0, 0.02, 800, 0.0, 250 * 16 / (0.02 * 800) * 2**0.5)
    means = Means((4.0,), (500, 800, 1250), (800,), nd_choices([], [NdFilter("ND 0.3", 1.0)]), (0.02,))
    found = balance(now, means, ["nd", "ei", "light"])
    assert (found.settings.ei, found.nd_parts, found.settings.lux) == (500, (), now.lux)
    assert found.off_stops == pytest.approx(-0.178, abs=1e-3)


def test_a_third_is_a_third():
    assert nd_choices([1 / 3, 1.6666667], [])[1].parts == ("built-in ND ⅓",)
