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

from hextan.core.base import Floats
from hextan.core.light.settings import LampKind

Seen: TypeAlias = Literal["none", "borderline", "shows"]
#: Differences of exposure in stops: below the first nothing is seen, above the second it is (common practice, no source).
UNSEEN, SEEN = 0.03, 0.10
#: Printed rates and times are rounded: so much, as a share, is the same.
TOLERANCE = 1e-3
#: A rate this near to locking, as a share, is taken for it: the beat is then longer than a take.
LOCKS = 1e-5
#: Frames that meet the lamp at more moments than this see its whole spread.
MOST_MOMENTS = 400
#: A swing is tried at so many moments of its start.
_STARTS = 96


@dataclass(frozen=True)
class LampRow:
    """A kind of lamp: its name, and its ripple when nothing was measured (common practice, no source).

    Ripple is of the light's mean, up and down; a lamp that is dimmed by pulses has none of its own.
    """

    name: str
    ripple: float | None


LAMPS: dict[LampKind, LampRow] = {
    "tungsten": LampRow("tungsten on the mains", 0.08),
    "magnetic": LampRow("discharge lamp, magnetic ballast", 0.75),
    "electronic": LampRow("electronic ballast, flicker-free setting", 0.03),
    "pulsed": LampRow("LED dimmed by pulses", None),
    "steady": LampRow("daylight, battery, direct current", 0.0),
}


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

    def corners(self, time_s: float) -> Floats:
        """Moments, in turns, at which the exposure of an opening may turn from rising to falling or the reverse.

        A pulse's exposure is a line between them: an edge of the opening meets an edge of the pulse. A swing's is a
        wave, which turns where the opening lies evenly about its crest or its trough.
        """
        turns = time_s * self.hz
        if self.duty is None:
            return np.asarray(np.mod(np.array([-turns / 2, 0.5 - turns / 2]), 1.0))
        return np.asarray(np.mod(np.array([0.0, self.duty, -turns, self.duty - turns]), 1.0))

    def at_turns(self, turns: Floats, time_s: float) -> Floats:
        """`exposure` of openings that begin at these moments, in turns of the lamp."""
        return self.exposure(np.asarray(turns / self.hz), time_s)

    def spread(self, time_s: float) -> tuple[float, float]:
        """Least and most exposure over every moment at which the opening can begin."""
        found = self.at_turns(self.corners(time_s), time_s)
        return float(found.min()), float(found.max())


def lamp_of(
    kind: LampKind, mains_hz: float, pulse_hz: float, duty: float, ripple: float | None = None
) -> Lamp:
    """Describe a lamp by its kind; a measured ripple (0 to 1) replaces the usual one."""
    usual = LAMPS[kind].ripple
    if usual is None:
        return Lamp(pulse_hz, 1.0, duty)
    return Lamp(2.0 * mains_hz, usual if ripple is None else ripple)


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
    """What a shutter shows of a lamp, in the worst case: nobody knows where the lamp stands when the camera starts.

    `spread_stops` between the darkest and the brightest moment at which an opening can begin; `frame_stops` between
    frames, over the whole beat; `band_stops` within a frame, from row to row, in the frame that shows most; `bands` as
    many as the readout takes in; `beat_hz` how often the picture pulses or the bands travel (0: they stand).
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

    Notes
    -----
    Frame n meets the lamp n*F/fps turns on. With F/fps = p/q these are q moments, evenly apart; all frames of a beat
    are among them. A rate that locks has one (q = 1); one that does not lock soon comes by every moment, and its
    frames differ by the lamp's whole spread.
    """
    moments = frame_moments(lamp.hz, fps)
    locked = moments == 1
    spread = in_stops(*lamp.spread(time_s))
    return FlickerVerdict(
        spread_stops=spread,
        frame_stops=0.0 if locked else spread if moments is None else _between_frames(lamp, time_s, moments),
        band_stops=_within_frame(lamp, time_s, readout_s * lamp.hz, spread),
        bands=readout_s * lamp.hz,
        beat_hz=0.0 if locked else abs(lamp.hz - round(lamp.hz / fps) * fps),
    )


def frame_moments(hz: float, fps: float) -> int | None:
    """At how many moments of the lamp's swing frames begin; None for more than can be told apart.

    >>> frame_moments(100, 25), frame_moments(120, 48), frame_moments(120, 24000 / 1001)
    (1, 2, 200)
    """
    per_frame = hz / fps
    found = Fraction(per_frame).limit_denominator(MOST_MOMENTS)
    return found.denominator if found and abs(per_frame / float(found) - 1) <= LOCKS else None


def _between_frames(lamp: Lamp, time_s: float, moments: int) -> float:
    """Most that frames differ, wherever in its swing the lamp stands when the camera starts."""
    step = 1.0 / moments
    starts = np.mod(lamp.corners(time_s), step)
    if lamp.duty is None:
        starts = np.concatenate((starts, np.arange(_STARTS) * step / _STARTS))
    exposed = lamp.at_turns(starts[:, None] + np.arange(moments) * step, time_s)
    return max(
        in_stops(low, high)
        for low, high in zip(exposed.min(1).tolist(), exposed.max(1).tolist(), strict=True)
    )


def _within_frame(lamp: Lamp, time_s: float, turns: float, spread_stops: float) -> float:
    """Most that rows of a frame differ which takes in so many turns of the lamp."""
    if turns <= 0:
        return 0.0
    if turns >= 1:
        return spread_stops
    corners = lamp.corners(time_s)
    starts = np.concatenate((corners, corners - turns))
    if lamp.duty is None:
        starts = np.concatenate((starts, np.arange(_STARTS) / _STARTS))
    # Rows at both ends, and at the corners that lie between them.
    inside = np.mod(corners - starts[:, None], 1.0)
    inside = np.where(inside <= turns, inside, 0.0)
    rows = np.column_stack((np.zeros(len(starts)), np.full(len(starts), turns), inside))
    exposed = lamp.at_turns(starts[:, None] + rows, time_s)
    return max(
        in_stops(low, high)
        for low, high in zip(exposed.min(1).tolist(), exposed.max(1).tolist(), strict=True)
    )
