"""How fast each scan mode goes, what binds it, and what the speed costs: field, light, skew.

Rates are frames a second. Only rows count for the readout; codec, stated limits and what the body
writes bind besides.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from hextan.core.base import Floats, RateSet, Real, highest_rate_words, mm_from_um, parse_rate, positive
from hextan.core.equipment.answers import (
    FreeWindow,
    HighestRate,
    Limit,
    Skew,
    SpeedCost,
    SpeedCurve,
    SpeedRow,
    SpeedTable,
    WantedRate,
)
from hextan.core.equipment.package import Body, FormatInPackage, Package, ScanMode
from hextan.core.equipment.settings import MOVEMENTS, PackageSettings
from hextan.core.optics import RATE_TOLERANCE, frame_time_us, rate_fits

#: Points of a sensor's curve in the plot.
CURVE_STEPS = 48


def shutter_time_s(angle_deg: Real, fps: Real) -> Floats:
    """Exposure time of a shutter angle: angle / (360 * fps).

    >>> float(shutter_time_s(172.8, 24.0))
    0.02
    """
    positive(angle_deg=angle_deg, fps=fps)
    return np.asarray(np.asarray(angle_deg, dtype=float) / (360.0 * np.asarray(fps)))


def stops_lost(fps: Real, base_fps: Real) -> Floats:
    """Stops that a higher rate costs at the same angle: log2(fps / base).

    >>> round(float(stops_lost(120.0, 24.0)), 2)
    2.32
    """
    positive(fps=fps, base_fps=base_fps)
    return np.asarray(np.log2(np.asarray(fps, dtype=float) / base_fps))


def skew_share(readout_s: Real, crossing_s: Real) -> Floats:
    """How far an upright edge leans, as a share of the frame's width.

    Parameters
    ----------
    readout_s : time from the first to the last recorded row
    crossing_s : time that the movement takes to cross the frame

    Notes
    -----
    Skew in pixels = speed (pixels a second) x rows x row time; with speed = width / crossing time the
    width cancels.

    >>> float(skew_share(0.016, 0.8))
    0.02
    """
    positive(crossing_s=crossing_s)
    return np.asarray(np.asarray(readout_s, dtype=float) / crossing_s)


def rows_for_rate(fps: Real, row_time_us: Real, overhead_us: Real = 0.0) -> Floats:
    """Most rows that can be read at a rate; below 1 where the overhead alone takes too long.

    >>> float(rows_for_rate(100.0, 6.35, 420.0))
    1508.0
    """
    positive(fps=fps, row_time_us=row_time_us)
    # A printed limit may be rounded up by 0.1 %; a hair more keeps whole rows whole.
    return np.floor((1e6 / np.asarray(fps, dtype=float) - overhead_us) / row_time_us + 1e-9)


@dataclass(frozen=True)
class Highest:
    """The highest rate of a format: what its menu offers, and what readout, codec or card allow.

    One rule for every filter and question: what counts is what can be chosen on the camera.
    """

    possible_fps: float | None
    limited_by: Limit | None
    rates: RateSet

    @property
    def offered_fps(self) -> float:
        """The highest rate on the menu."""
        return float(self.rates.highest)

    @cached_property
    def usable_fps(self) -> float | None:
        """The highest rate on the menu that is possible; None where none of them is."""
        if self.possible_fps is None:
            return self.offered_fps
        return self.rates.highest_within(self.possible_fps / (1 - RATE_TOLERANCE))

    def reaches(self, fps: float) -> bool:
        """Whether so many frames a second, or more, can be chosen."""
        return self.usable_fps is not None and bool(rate_fits(fps, self.usable_fps))

    def allows(self, fps: float) -> bool:
        """Whether just this rate can be chosen."""
        possible = self.possible_fps is None or bool(rate_fits(fps, self.possible_fps))
        return possible and self.rates.offers(fps)

    @property
    def text(self) -> str:
        """What can be chosen, and what allows more or less: 30 (readout 42.7)."""
        return highest_rate_words(self.usable_fps, self.possible_fps, self.limited_by)


def readout_fps(mode: ScanMode) -> float | None:
    """Scan rate that the readout allows; None where the row time is unknown."""
    if mode.row_time_us is None:
        return None
    return 1e6 / float(frame_time_us(mode.rows_read, mode.row_time_us, mode.overhead_us))


def highest_of(here: FormatInPackage) -> Highest:
    """Work out the highest rate of a recording format."""
    readout = readout_fps(here.mode)
    limits: dict[Limit, float] = {} if readout is None else {"readout": readout}
    limits |= here.stated_limits
    rates = here.recording.rates
    if not limits:
        return Highest(None, None, rates)
    bound = min(limits, key=lambda name: limits[name])
    return Highest(limits[bound] / (2 if here.recording.interlaced else 1), bound, rates)


def speed_table(package: Package, settings: PackageSettings) -> SpeedTable:
    """Answer the questions of speed for every scan mode of a package.

    Returns
    -------
    ``modes`` (one row each), ``curves`` (rate against window height, for each sensor and way of
    reading it), ``movements`` to choose from, ``wanted_fps`` and ``base_fps``.
    """
    base, wanted = parse_rate(settings.base_fps), parse_rate(settings.wanted_fps)
    return {
        "base_fps": float(base),
        "wanted_fps": float(wanted),
        "movements": [{"name": name, "crossing_s": seconds} for name, seconds in MOVEMENTS.items()],
        "modes": [
            _mode_row(body, mode, settings, float(base), float(wanted))
            for body in package.bodies
            for mode in body.modes
        ],
        "curves": [curve for body in package.bodies for curve in _curves(body)],
    }


def _mode_row(body: Body, mode: ScanMode, settings: PackageSettings, base: float, wanted: float) -> SpeedRow:
    scan = readout_fps(mode)
    readout_ms = None if mode.row_time_us is None else mode.rows_read * mode.row_time_us / 1000
    progressive = _best(body, mode, interlaced=False)
    top = progressive and progressive["usable_fps"]
    cost: SpeedCost = {"slow_motion": None, "shutter_ms": None, "stops_lost": None}
    if top:
        cost = {
            "slow_motion": top / base,
            "shutter_ms": 1000 * float(shutter_time_s(settings.shutter_deg, top)),
            "stops_lost": float(stops_lost(top, base)),
        }
    mm = mm_from_um(body.pitch_um)
    return {
        "body_id": body.id,
        "mode_id": mode.id,
        "name": mode.name,
        "body": body.name,
        "width_mm": mode.window[0] * mm,
        "height_mm": mode.window[1] * mm,
        "share_of_width": mode.window[0] / body.photosites[0],
        "rows_read": mode.rows_read,
        "method": mode.method,
        "scan_fps": scan,
        "readout_ms": readout_ms,
        "progressive": progressive,
        "interlaced": _best(body, mode, interlaced=True),
        **cost,
        "skew": None if readout_ms is None else _skew(mode, readout_ms, settings),
        "wanted": _wanted(body, mode, progressive, wanted),
    }


def _best(body: Body, mode: ScanMode, interlaced: bool) -> HighestRate | None:
    """The fastest format of a kind in a mode; for a mode without progressive formats its bare limit."""
    found = [
        (highest_of(FormatInPackage(body, mode, f)), f) for f in mode.formats if f.interlaced is interlaced
    ]
    if not found:
        return None if interlaced or mode.formats else _bare(mode)
    best, recording = max(found, key=lambda pair: (pair[0].usable_fps or 0.0, pair[0].possible_fps or 0.0))
    return {
        "possible_fps": best.possible_fps,
        "limited_by": best.limited_by,
        "usable_fps": best.usable_fps,
        "text": best.text,
        "format_id": recording.id,
        "format": recording.name,
    }


def _bare(mode: ScanMode) -> HighestRate | None:
    scan = readout_fps(mode)
    limits: dict[Limit, float | None] = {"readout": scan, "stated limit": mode.max_fps}
    known = {name: limit for name, limit in limits.items() if limit is not None}
    if not known:
        return None
    name = min(known, key=lambda n: known[n])
    return {
        "possible_fps": known[name],
        "limited_by": name,
        "usable_fps": known[name],
        "text": highest_rate_words(None, known[name], name),
        "format_id": None,
        "format": None,
    }


def _skew(mode: ScanMode, readout_ms: float, settings: PackageSettings) -> Skew:
    share = float(skew_share(readout_ms / 1000, settings.crossing_s))
    across = mode.window[0] / mode.sampling[0]
    return {
        "share": share,
        "samples": share * across,
        # The lean of an edge that was upright, in the picture's true proportions.
        "degrees": math.degrees(math.atan(share * mode.window[0] / mode.window[1])),
    }


def _wanted(body: Body, mode: ScanMode, progressive: HighestRate | None, wanted: float) -> WantedRate | None:
    """Whether the wanted rate is reached; on a body with free windows, which window would reach it."""
    if progressive is None:
        return None
    usable = progressive["usable_fps"]
    fits = usable is not None and bool(rate_fits(wanted, usable))
    window: FreeWindow | None = None
    if body.free_windows and mode.row_time_us is not None:
        rows = int(rows_for_rate(wanted, mode.row_time_us, mode.overhead_us)) * mode.sampling[1]
        rows = min(rows, body.photosites[1])
        if rows >= mode.sampling[1]:
            window = {
                "rows": rows,
                "height_mm": mm_from_um(rows * body.pitch_um),
            }
    return {"fits": fits, "free_window": window}


def _curves(body: Body) -> list[SpeedCurve]:
    """Rate against window height for each way in which a sensor is read."""
    ways: dict[tuple[float, float, int], list[ScanMode]] = {}
    for mode in body.modes:
        if mode.row_time_us is not None:
            ways.setdefault((mode.row_time_us, mode.overhead_us, mode.sampling[1]), []).append(mode)
    curves: list[SpeedCurve] = []
    for (row_time, overhead, step), modes in ways.items():
        least = min(mode.window[1] for mode in modes) * 0.75
        rows = np.linspace(least, body.photosites[1], CURVE_STEPS)
        fps = 1e6 / frame_time_us(rows / step, row_time, overhead)
        points = np.column_stack((mm_from_um(rows * body.pitch_um), fps)).tolist()
        every = "" if step == 1 else f", skips {step - 1} of {step} rows"
        curves.append({"body_id": body.id, "name": f"{body.name}{every}", "points": points})
    return curves
