"""Exposure against ISO 2720 relations; flicker against numerical integration of the lamp's waveform."""

import importlib
import itertools
import math
import warnings
from fractions import Fraction

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad

from hextan.core.base import InvalidInputError
from hextan.core.documents import parse_rig
from hextan.core.documents.rig import filter_markings
from hextan.core.light import exposure, flicker
from hextan.core.light.exposure import Means, Settings, balance, nd_choices
from hextan.core.light.filters import NdFilter
from tests.budget import examples

MARKS = [2.0, 2.2, 2.5, 2.8, 3.2, 3.6, 4.0, 4.5, 5.0, 5.6]
EIS = (200, 400, 800, 1600, 3200)
FILTERS = [NdFilter("ND 0.3", 1.0), NdFilter("ND 0.6", 2.0, 2), NdFilter("ND 1.2", 4.0)]


def means(nd=(2.0, 4.0, 6.0)):
    return Means(MARKS, EIS, (800,), nd_choices(nd, FILTERS), [1 / 50, 1 / 100])


def test_the_published_point():
    """FORMULAS: 980 lx for T2.8, 1/50 s, ISO 100, after ISO 2720 with C = 250 (from memory)."""
    assert float(exposure.needed_lux(2.8, 1 / 50, 100.0)) == pytest.approx(980)
    assert Settings(2.8, 1 / 50, 100, 0.0, 980.0).off_stops == pytest.approx(0, abs=1e-12)


@pytest.mark.parametrize(
    ("ev", "stop", "time"), [(0, 1.0, 1.0), (12, 8.0, 1 / 64), (15, 16.0, 1 / 128), (-4, 1.0, 16.0)]
)
def test_exposure_values(ev, stop, time):
    """APEX: EV = log2(T*T/t); at EI 100 the light for it is 2.5 lux * 2^EV (ISO 2720, C = 250; from memory)."""
    assert float(exposure.needed_lux(stop, time, 100.0)) == pytest.approx(2.5 * 2.0**ev)


@pytest.fixture(scope="module")
def library():
    """A general imaging library; it warns on import that it cannot draw plots."""
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        return importlib.import_module("colour_hdri.exposure")


@pytest.mark.parametrize("stop", [1.4, 2.8, 5.6, 22.0])
@pytest.mark.parametrize("time", [1 / 8, 1 / 48, 1 / 2000])
@pytest.mark.parametrize("ei", [100, 800, 5000])
def test_needed_light_against_a_library(library, stop, time, ei):
    """colour-hdri's average illuminance at the exposure value, with C = 250, and at EI 100 by its EV100."""
    expected = float(library.average_illuminance(stop, time, ei, 250))
    assert float(exposure.needed_lux(stop, time, float(ei))) == pytest.approx(expected)
    ev100 = float(library.exposure_value_100(stop, time, ei))
    assert Settings(stop, time, ei, 0.0, 2.5 * 2.0**ev100).off_stops == pytest.approx(0, abs=1e-9)


@settings(max_examples=examples(200))
@given(st.floats(0.7, 32), st.floats(1e-5, 10), st.integers(25, 100_000), st.floats(0, 20), st.floats(-2, 6))
def test_light_and_stop_answer_each_other(stop, time, ei, nd, lost):
    lux = float(exposure.needed_lux(stop, time, float(ei), nd + lost))
    assert float(exposure.stop_for_lux(lux, time, float(ei), nd + lost)) == pytest.approx(stop)
    assert Settings(stop, time, ei, nd, lux, lost).off_stops == pytest.approx(0, abs=1e-9)
    assert Settings(stop, time, ei, nd, 2 * lux, lost).off_stops == pytest.approx(1)
    assert Settings(stop, time, ei, nd + 1, 2 * lux, lost).off_stops == pytest.approx(0, abs=1e-9)


def test_formulas_take_arrays():
    stops = np.array(MARKS)
    assert exposure.needed_lux(stops, 1 / 50, 800.0).shape == (10,)
    assert exposure.shutter_s(np.array([[180.0], [90.0]]), np.array([24.0, 25.0, 50.0])).shape == (2, 3)
    for bad in (0.0, -1.0, math.nan, math.inf):
        with pytest.raises(InvalidInputError, match="t_stop: must be a finite number above zero"):
            exposure.needed_lux(bad, 1 / 50, 800.0)


def test_rates_and_density():
    # BRIEF: 24 to 120 frames at the same angle is 2.3 stops.
    assert float(exposure.rate_cost_stops(120.0, 24.0)) == pytest.approx(2.3, abs=0.03)
    # 0.3 of density is one stop, an ND4 two: common practice, no source.
    rows = [{"key": f"s{n}", "name": f"{n} stops", "stops": float(n)} for n in (1, 2, 3)]
    engraved = filter_markings(parse_rig({"filters": rows}))
    assert [engraved[f"s{n}"]["density"] for n in (1, 2, 3)] == pytest.approx([0.3, 0.6, 0.9], abs=0.005)
    assert [engraved[f"s{n}"]["factor"] for n in (1, 2, 3)] == [2.0, 4.0, 8.0]


@pytest.mark.parametrize(
    ("stops", "text"),
    [
        (0.0, "0"),
        (0.16, "0"),
        (0.17, "+⅓"),
        (-0.34, "−⅓"),
        (0.66, "+⅔"),
        (1.0, "+1"),
        (-2.35, "−2⅓"),
        (11.9, "+12"),
    ],
)
def test_thirds(stops, text):
    assert exposure.thirds_text(stops) == text


def test_nd_against_every_stack():
    """One built-in step and up to three filters: against a plain search over all of them."""
    pool = [("ND 0.3", 1.0), ("ND 0.6", 2.0), ("ND 0.6", 2.0), ("ND 1.2", 4.0)]
    sums = {}
    for step in (0.0, 2.0, 4.0, 6.0):
        for n in range(4):
            for stack in itertools.combinations(pool, n):
                total = step + sum(stops for _, stops in stack)
                pieces = n + (step > 0)
                sums[total] = min(sums.get(total, 99), pieces)
    found = nd_choices([2.0, 4.0, 6.0], FILTERS)
    assert {c.stops: len(c.parts) for c in found} == sums
    assert found[0].parts == ()


@settings(max_examples=examples(120), deadline=None)
@given(
    st.sampled_from(MARKS), st.sampled_from(EIS), st.sampled_from([0.0, 1.0, 2.0, 4.0]), st.floats(0.5, 200_000),
    st.sets(st.sampled_from(["nd", "ei", "stop", "shutter"]), max_size=4).map(sorted),
)  # fmt: skip
def test_balance_against_exhaustive_search(stop, ei, nd, lux, may_move):
    """Nothing that could be set is nearer than what was found, unless fewer moves were enough."""
    now = Settings(stop, 1 / 50, ei, nd, lux)
    kit = means()
    found = balance(now, kit, may_move)
    assert found.off_stops == pytest.approx(found.settings.off_stops)
    best = min(
        abs(Settings(t, time, e, c, lux).off_stops)
        for t in (kit.stops if "stop" in may_move else [stop])
        for e in (kit.eis if "ei" in may_move else [ei])
        for c in ([x.stops for x in kit.nds] if "nd" in may_move else [nd])
        for time in (kit.times_s if "shutter" in may_move else [1 / 50])
    )
    # An EI alone that comes within a third is enough: nothing else is moved for less (notes of `balance`).
    enough = 1 / 3 if set(found.moved) <= {"ei", "nd"} and "ei" in found.moved else 1 / 6
    assert abs(found.off_stops) <= max(best, enough) + 1e-6
    held = {"nd": ("nd_stops", nd), "ei": ("ei", ei), "stop": ("t_stop", stop), "shutter": ("time_s", 1 / 50)}
    for mover, (name, value) in held.items():
        if mover not in may_move:
            assert getattr(found.settings, name) == value
    assert found.settings.lux == lux


def test_order_of_movers():
    bright = Settings(2.0, 1 / 50, 800, 0.0, float(exposure.needed_lux(2.0, 1 / 50, 800.0, 4.0)))
    by_nd = balance(bright, means(), ["nd", "ei", "light"])
    assert (by_nd.settings.nd_stops, by_nd.settings.ei, by_nd.moved) == (4.0, 800, ("nd",))
    by_ei = balance(bright, means(), ["ei"])
    assert (by_ei.settings.ei, by_ei.balanced) == (200, False)
    assert by_ei.off_stops == pytest.approx(2.0)
    by_light = balance(bright, means(), ["light"])
    assert by_light.settings.lux == pytest.approx(bright.lux / 16)
    assert by_light.off_stops == pytest.approx(0, abs=1e-9)
    dark = Settings(2.0, 1 / 50, 800, 0.0, 0.5)
    assert balance(dark, means(), ["nd"]).off_stops == pytest.approx(dark.off_stops)
    assert balance(dark, means(), ["nd", "ei", "light"]).settings.ei == 3200
    assert balance(dark, means(), []).moved == ()


LAMPS = [
    flicker.Lamp(100, 0.75),
    flicker.Lamp(120, 0.08),
    flicker.Lamp(1200, 1, 0.3),
    flicker.Lamp(100, 1, 0.62),
]


@pytest.mark.parametrize("lamp", LAMPS)
@pytest.mark.parametrize("time_s", [1 / 50, 1 / 48, 1 / 500, 0.0031, 0.01])
def test_exposures_by_integrating_the_waveform(lamp, time_s):
    """SciPy's quad over the waveform, and the extremes over a dense set of openings."""
    starts = np.linspace(0, 1 / lamp.hz, 13)
    for start in starts:
        edges = [] if lamp.duty is None else [
            e / lamp.hz for k in range(-1, math.ceil((start + time_s) * lamp.hz) + 1) for e in (k, k + lamp.duty)
            if start < e / lamp.hz < start + time_s
        ]  # fmt: skip
        whole, _ = quad(
            lambda t: float(lamp.level(t)), start, start + time_s, points=edges or None, limit=400
        )
        assert float(lamp.exposure(start, time_s)) == pytest.approx(whole / time_s, rel=1e-6, abs=1e-9)
    dense = lamp.exposure(np.linspace(0, 1 / lamp.hz, 20_001), time_s)
    least, most = lamp.spread(time_s)
    assert least == pytest.approx(dense.min(), abs=2e-3)
    assert most == pytest.approx(dense.max(), abs=2e-3)
    assert least <= dense.min() + 1e-9
    assert most >= dense.max() - 1e-9


def safe_angles(hz, fps):
    return [360.0 * fps * float(t) for t in flicker.safe_times(hz, fps)]


def test_published_safe_angles():
    """FORMULAS: at 24 fps and 50 Hz, at 25 fps and 50 Hz, 1/50 s at 24 fps, none at 400 fps."""
    assert safe_angles(100, 24) == pytest.approx([86.4, 172.8, 259.2, 345.6])
    assert safe_angles(100, 25) == pytest.approx([90, 180, 270, 360])
    assert Fraction(1, 50) in flicker.safe_times(100, 24)
    assert safe_angles(100, 400) == []
    assert safe_angles(120, 24000 / 1001)[2] == pytest.approx(215.78, abs=0.01)
    assert flicker.safe_times(100, 100.05) == [Fraction(1, 100)]


@settings(max_examples=examples(150), deadline=None)
@given(st.floats(20, 2000), st.floats(1, 300), st.floats(1e-4, 1.0))
def test_nearest_safe_against_all_of_them(hz, fps, wanted):
    every = flicker.safe_times(hz, fps)
    found = flicker.nearest_safe(hz, fps, wanted)
    assert (found is None) == (not every)
    if found is not None:
        best = min(abs(math.log2(float(t) / wanted)) for t in every)
        assert abs(math.log2(float(found) / wanted)) == pytest.approx(best, abs=1e-9)


def test_fast_lamps_and_slow_cameras_stay_within_bounds():
    """A lamp of a million pulses a second at a frame in a hundred seconds has 10^8 safe times: the longest are listed."""
    longest = flicker.safe_times(1e6, 0.01, 24)
    assert len(longest) == 24
    assert float(longest[-1]) == pytest.approx(100, rel=2e-3)
    assert flicker.safe_count(1e6, 0.01) == pytest.approx(1e8, rel=2e-3)
    assert len(flicker.locking_rates(1e6, 1, 1e6)) == 24
    assert flicker.judge(flicker.Lamp(1e6, 1.0, 0.1), 1e-7, 1e6, 0.01).beat_hz == 0.0


@settings(max_examples=examples(100), deadline=None)
@given(st.sampled_from([100.0, 120.0]), st.floats(1, 300), st.floats(0, 0.03))
def test_safe_shutters_show_nothing(hz, fps, readout):
    for time in flicker.safe_times(hz, fps)[:5]:
        told = flicker.judge(flicker.Lamp(hz, 1.0, 0.4), float(time), fps, readout)
        assert max(told.spread_stops, told.frame_stops, told.band_stops) < 1e-6


def test_locked_rates_and_bands():
    lamp = flicker.Lamp(100, 0.75)
    assert [float(r) for r in flicker.locking_rates(100, 20, 60)] == pytest.approx(
        [50, 33.3333, 25, 20], abs=1e-3
    )
    # Locked, but 1/200 s is not a whole swing: frames are alike and bands stand.
    locked = flicker.judge(lamp, 1 / 200, 50, 0.015)
    assert (locked.frame_stops, locked.beat_hz) == (0.0, 0.0)
    assert locked.bands == pytest.approx(1.5)
    assert locked.band_stops > 0.5
    # 24 fps under 50 Hz: 100 - 4*24 = 4 pulses a second. A global shutter has no bands.
    beating = flicker.judge(lamp, 1 / 200, 24, 0.0)
    assert beating.beat_hz == pytest.approx(4)
    assert beating.frame_stops > 0.5
    assert beating.band_stops == 0
    assert flicker.judge(flicker.Lamp(100, 1, 0.2), 1 / 1000, 24, 0.01).spread_stops == math.inf


@pytest.mark.parametrize("kind", ["tungsten", "magnetic", "electronic", "steady"])
def test_measured_ripple_replaces_the_usual(kind):
    usual = flicker.lamp_of(kind, 60, 1200, 0.5)
    assert usual.hz == 120
    assert flicker.lamp_of(kind, 60, 1200, 0.5, 0.4).ripple == 0.4
    assert flicker.lamp_of("pulsed", 60, 1200, 0.5).hz == 1200
