"""Flicker: which shutters see every frame equally exposed under a lamp, and what a rolling shutter still shows.

A lamp on the mains flickers at twice their frequency F. An exposure of k/F takes in k whole swings, wherever it begins:
it is safe at any rate and on every row. A pulsed lamp has its own frequency.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal, TypeAlias

import numpy as np

from hextan.core.light import LampKind
from hextan.core.numbers import Floats

Seen: TypeAlias = Literal["none", "borderline", "shows"]
#: Differences of exposure in stops: below the first nothing is seen, above the second it is (common practice, no source).
UNSEEN, SEEN = 0.03, 0.10
#: Printed rates and times are rounded: so much, as a share, is the same.
TOLERANCE = 1e-3
#: So many frames are held against one another at most.
MOST_FRAMES = 20_000
#: Ripple of lamps when nothing was measured (common practice, no source): of the light's mean, up and down.
RIPPLE: dict[LampKind, float] = {"tungsten": 0.08, "magnetic": 0.75, "electronic": 0.03, "steady": 0.0}


@dataclass(frozen=True)
class Lamp:
    """A lamp: how often it swings, and how far. `duty` is set for pulses and None for a swing like a wave."""

    hz: float
    ripple: float
    duty: float | None = None

    def level(self, at_s: Floats) -> Floats:
        """Light at a time, as a share of its mean."""
        phase = np.asarray(at_s, dtype=float) * self.hz
        if self.duty is None:
            return np.asarray(1.0 + self.ripple * np.cos(2.0 * np.pi * phase))
        return np.asarray(np.where(np.mod(phase, 1.0) < self.duty, 1.0 / self.duty, 0.0))

    def exposure(self, start_s: Floats, time_s: float) -> Floats:
        """Light that an opening takes in, as a share of what a steady lamp of the same mean would give.

        Parameters
        ----------
        start_s : when it opens, any shape
        time_s : how long it is open

        Returns
        -------
        The mean of `level` over the opening, exact.
        """
        start = np.asarray(start_s, dtype=float) * self.hz
        turns = time_s * self.hz
        if self.duty is None:
            swing = np.sinc(turns) * np.cos(2.0 * np.pi * (start + turns / 2.0))
            return np.asarray(1.0 + self.ripple * swing)
        return np.asarray((self._lit(start + turns) - self._lit(start)) / turns)

    def _lit(self, turns: Floats) -> Floats:
        """Light since turn 0, in turns of the mean."""
        assert self.duty is not None
        whole = np.floor(turns)
        return np.asarray(whole + np.minimum(turns - whole, self.duty) / self.duty)

    def spread(self, time_s: float) -> tuple[float, float]:
        """Least and most exposure over every moment at which the opening can begin."""
        if self.duty is None:
            swing = self.ripple * abs(float(np.sinc(time_s * self.hz)))
            return 1.0 - swing, 1.0 + swing
        # A sum of corners: least and most lie where an edge of the opening meets an edge of a pulse.
        turns = time_s * self.hz
        corners = np.array([0.0, self.duty, -turns, self.duty - turns]) / self.hz
        found = self.exposure(corners, time_s)
        return float(found.min()), float(found.max())


def lamp_of(
    kind: LampKind, mains_hz: float, pulse_hz: float, duty: float, ripple: float | None = None
) -> Lamp:
    """Describe a lamp by its kind; a measured ripple (0 to 1) replaces the usual one."""
    if kind == "pulsed":
        return Lamp(pulse_hz, 1.0, duty)
    return Lamp(2.0 * mains_hz, RIPPLE[kind] if ripple is None else ripple)


def safe_count(hz: float, fps: float) -> int:
    """How many exposure times are safe at a rate."""
    return math.floor(hz / fps * (1.0 + TOLERANCE))


def safe_times(hz: float, fps: float, most: int | None = None) -> list[Fraction]:
    """Exposure times that are safe at a rate: k/F within a frame, seconds, from the shortest.

    Parameters
    ----------
    most : only so many, the longest; all without

    >>> [str(t) for t in safe_times(100, 24)], safe_times(100, 400)
    (['1/100', '1/50', '3/100', '1/25'], [])
    """
    count = safe_count(hz, fps)
    unit = 1 / Fraction(hz).limit_denominator(1_000_000)
    first = 1 if most is None else max(1, count - most + 1)
    return [k * unit for k in range(first, count + 1)]


def nearest_safe(hz: float, fps: float, time_s: float) -> Fraction | None:
    """The safe exposure time nearest to a wanted one, in stops; None where there is none.

    >>> str(nearest_safe(120, 25, 1 / 50))
    '1/60'
    """
    count = safe_count(hz, fps)
    if count < 1:
        return None
    below = min(max(math.floor(time_s * hz), 1), count)
    k = min((below, min(below + 1, count)), key=lambda n: abs(math.log2(n / (time_s * hz))))
    return k / Fraction(hz).limit_denominator(1_000_000)


def safe_angles(hz: float, fps: float) -> list[float]:
    """Safe shutter angles at a rate: 360*fps*k/F, degrees.

    >>> [round(a, 1) for a in safe_angles(100, 24)]
    [86.4, 172.8, 259.2, 345.6]
    """
    return [min(360.0 * fps * float(t), 360.0) for t in safe_times(hz, fps)]


def locking_rates(hz: float, low_fps: float, high_fps: float, most: int = 24) -> list[Fraction]:
    """Rates at which every frame meets the lamp at the same moment: F/k, from the highest, so many at most.

    >>> [str(r) for r in locking_rates(100, 20, 60)]
    ['50', '100/3', '25', '20']
    """
    exact = Fraction(hz).limit_denominator(1_000_000)
    first = max(1, math.ceil(hz / high_fps * (1 - TOLERANCE)))
    last = min(math.floor(hz / low_fps * (1 + TOLERANCE)), first + most - 1)
    return [exact / k for k in range(first, last + 1)]


def in_stops(least: float, most: float) -> float:
    """Difference of two exposures in stops; infinite where one is dark."""
    return math.inf if least <= 0 else math.log2(most / least)


def seen(stops: float) -> Seen:
    """Whether a difference of exposure is seen.

    >>> seen(0.0), seen(0.05), seen(0.4)
    ('none', 'borderline', 'shows')
    """
    return "none" if stops <= UNSEEN else "borderline" if stops <= SEEN else "shows"


@dataclass(frozen=True)
class FlickerVerdict:
    """What a shutter shows of a lamp.

    `spread_stops` between the darkest and the brightest moment at which an opening can begin; `frame_stops` between
    frames; `band_stops` within a frame, from row to row; `bands` as many as the readout takes in; `beat_hz` how often
    the picture pulses or the bands travel (0: they stand).
    """

    spread_stops: float
    frame_stops: float
    band_stops: float
    bands: float
    beat_hz: float


def judge(lamp: Lamp, time_s: float, fps: float, readout_s: float) -> FlickerVerdict:
    """Hold a shutter against a lamp.

    Parameters
    ----------
    time_s : exposure time
    fps : frame rate
    readout_s : from the first row to the last; 0 for a global shutter
    """
    least, most = lamp.spread(time_s)
    per_frame = lamp.hz / fps
    near = round(per_frame)
    locked = near > 0 and abs(per_frame / near - 1.0) <= TOLERANCE * 1e-2
    beat = 0.0 if locked else abs(lamp.hz - near * fps)
    # Frames meet the lamp at moments n/fps: over two seconds of them, for the first row.
    shot = min(max(2, math.ceil(fps * 2)), MOST_FRAMES)
    frames = lamp.exposure(np.arange(shot) / fps, time_s)
    rows = lamp.exposure(np.linspace(0.0, readout_s, 721), time_s)
    return FlickerVerdict(
        spread_stops=in_stops(least, most),
        frame_stops=0.0 if locked else in_stops(float(frames.min()), float(frames.max())),
        band_stops=in_stops(float(rows.min()), float(rows.max())) if readout_s > 0 else 0.0,
        bands=readout_s * lamp.hz,
        beat_hz=beat,
    )
