"""What balances an exposure, chosen among few things that can be set."""

import pytest

from hextan.core.light.exposure import Means, NdChoice, Settings, balance, needed_lux

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
