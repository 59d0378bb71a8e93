"""Flicker against numerical integration: the lamp's light is sampled and summed, frame by frame, for twenty seconds.

Nothing of `judge` is used to find the truth: a lamp is a table of light over one swing, an exposure the difference of
its running sum, and the lamp may stand anywhere in its swing when the camera starts.
"""

import itertools
import math

import numpy as np
import pytest

from hextan.core.light import flicker

SECONDS = 20
RATES = [
    24000 / 1001,
    24,
    25,
    30000 / 1001,
    30,
    48000 / 1001,
    48,
    50,
    60000 / 1001,
    60,
    100,
    120000 / 1001,
    120,
]
ANGLES = [11.25, 45, 90, 144, 172.8, 180, 270, 360]
LAMPS = [
    flicker.lamp_of(kind, mains, 0, 0.5)
    for kind in ("tungsten", "magnetic", "electronic")
    for mains in (50, 60)
]
LAMPS += [flicker.Lamp(hz, 1.0, duty) for hz in (100, 120) for duty in (0.1, 0.35, 0.5)]


def moments(hz, fps, most=None):
    """Where in the lamp's swing the frames of twenty seconds begin; those that begin alike are taken once."""
    turns = np.arange(int(SECONDS * fps))[:most] * (hz / fps)
    return np.unique(np.round(np.mod(turns, 1.0), 7))


def starts(count):
    """Where in its swing the lamp may stand when the camera starts."""
    return (np.arange(count) + 0.3) / count


class Sampled:
    """A lamp's light over one swing, in 4,000 samples, and its running sum."""

    def __init__(self, lamp):
        self.hz = lamp.hz
        middle = (np.arange(4000) + 0.5) / 4000 / lamp.hz
        self.total = np.concatenate(([0.0], np.cumsum(lamp.level(middle)))) / 4000

    def light(self, turns):
        whole = np.floor(turns)
        at = (turns - whole) * 4000
        low = at.astype(int)
        return (
            whole * self.total[-1]
            + self.total[low]
            + (at - low) * (self.total[np.minimum(low + 1, 4000)] - self.total[low])
        )

    def exposures(self, start_turns, time_s):
        turns = time_s * self.hz
        return (self.light(start_turns + turns) - self.light(start_turns)) / turns


def stops(least, most):
    return math.inf if least < 1e-9 else math.log2(most / least)


def same(told, true, near):
    """Within a share of it; darkness is darkness however little light is left of it by sampling."""
    if min(told, true) > 4:
        return max(told, true) > 4
    return abs(told - true) <= max(0.01, near * true)


@pytest.mark.parametrize("number", range(len(LAMPS)))
def test_frames_of_twenty_seconds(number):
    """13 rates x 8 angles x 12 lamps: 1,248 situations."""
    lamp = LAMPS[number]
    sampled = Sampled(lamp)
    for fps, angle in itertools.product(RATES, ANGLES):
        time = angle / 360 / fps
        begin = starts(150)[:, None] + moments(lamp.hz, fps)
        found = sampled.exposures(begin, time)
        true = max(stops(a, b) for a, b in zip(found.min(1), found.max(1), strict=True))
        told = flicker.judge(lamp, time, fps, 0.0)
        assert same(told.frame_stops, true, 0.04), (fps, angle, lamp, told.frame_stops, true)
        assert told.band_stops == 0


@pytest.mark.parametrize("readout_s", [0.004, 0.0072, 0.015])
def test_bands_of_every_frame(readout_s):
    """Rows of every frame of twenty seconds, and not of the first one alone."""
    for lamp, fps, angle in itertools.product(LAMPS[2:9], RATES[::3], [45, 172.8, 180]):
        sampled = Sampled(lamp)
        time = angle / 360 / fps
        begin = (starts(24)[:, None] + moments(lamp.hz, fps, 200)).ravel()
        rows = sampled.exposures(begin[:, None] + np.linspace(0, readout_s * lamp.hz, 90), time)
        true = max(stops(a, b) for a, b in zip(rows.min(1), rows.max(1), strict=True))
        told = flicker.judge(lamp, time, fps, readout_s).band_stops
        assert same(told, true, 0.06), (fps, angle, lamp, told, true)


def test_what_two_seconds_do_not_show():
    """59.94 fps at 45 degrees under pulses of 120 a second: some frames are black. 23.976 at 180 under a ballast."""
    fps = 60000 / 1001
    pulsed = flicker.judge(flicker.Lamp(120, 1.0, 0.5), 45 / 360 / fps, fps, 0.0)
    assert pulsed.frame_stops == math.inf
    assert pulsed.beat_hz == pytest.approx(120 / 1001, rel=1e-6)
    ballast = flicker.judge(flicker.lamp_of("magnetic", 60, 0, 0.5), 0.5 * 1001 / 24000, 24000 / 1001, 0.0)
    assert ballast.frame_stops == pytest.approx(0.28, abs=0.005)


def test_a_rate_that_nearly_locks_is_told_as_locked():
    """33.333 for 100/3 is how it is typed: its beat lasts a quarter of an hour."""
    assert flicker.judge(flicker.lamp_of("magnetic", 50, 0, 0.5), 0.01, 33.3333, 0.0).frame_stops == 0.0
    assert flicker.judge(flicker.lamp_of("magnetic", 50, 0, 0.5), 0.004, 33.3, 0.0).frame_stops > 0.5
