"""What would admit a format that the finder rejected: the smallest change of each kind."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from hextan.core.base import Flags, Floats, parse_rate, rate_words
from hextan.core.equipment import Lens, Mounting, Package, PackageSettings, ways
from hextan.core.finder.ask import FinderAsk
from hextan.core.finder.checks import Candidates, Check, angles_of
from hextan.core.optics import angle_of_view_deg, needed_circle_mm, rate_fits, spans_where


@dataclass(frozen=True)
class LensOption:
    """Another lens, in one way that it goes on a body."""

    lens: Lens
    way: Mounting

    @property
    def name(self) -> str:
        """The lens, with what stands behind it."""
        return self.lens.name + (f" with {self.way.name}" if self.way.adapters else "")

    @cached_property
    def marks(self) -> tuple[tuple[float, float], ...]:
        """Its circle by focal length, without adapters."""
        return tuple(self.lens.circle_marks())

    @cached_property
    def whole_mm(self) -> tuple[float, float]:
        """All its focal lengths, with adapters: the shortest and the longest."""
        return (
            self.lens.focal_min_mm * self.way.magnification,
            self.lens.focal_max_mm * self.way.magnification,
        )

    def off(self, focal_mm: float) -> float:
        """How far all its focal lengths lie from another one, as a logarithm; 0 where it lies among them."""
        low, high = self.whole_mm
        return abs(math.log(min(max(focal_mm, low), high) / focal_mm))

    def focals_mm(self, needed_mm: float) -> list[tuple[float, float]]:
        """Spans of focal lengths, with adapters, at which its circle reaches what is needed (0: anything)."""
        m, whole = self.way.magnification, [self.whole_mm]
        if needed_mm <= 0:
            return whole
        if not self.marks:
            return []
        if not self.lens.is_zoom:
            return whole if self.marks[0][1] * m >= needed_mm else []
        marks = list(self.marks)
        return [(a * m, b * m) for a, b in spans_where(marks, lambda c: c * m >= needed_mm, [needed_mm / m])]


class Changes:
    """The nearest changes that would admit a rejected format: another rate, window, lens or card."""

    def __init__(self, package: Package, c: Candidates, settings: PackageSettings, ask: FinderAsk,
                 admitted: Flags) -> None:  # fmt: skip
        self.c, self.settings, self.ask = c, settings, ask
        self.admitted = np.flatnonzero(admitted)
        self.carried = package.carried
        self.body_ids = np.array([p.body.id for p in c.places])
        self.lens_options = self._lens_options(package) if c.lens is not None else {}
        self._angles: dict[tuple[int, float], Floats] = {}

    def admitting(self, i: int, failing: list[str]) -> list[str]:
        """Say what would admit a format, the smallest change first."""
        told = []
        only = set(failing)
        if only == {"rate"}:
            told.append(self._next_rate(i))
        if only and only <= {"covers", "angle_deg"}:
            told.append(self._other_lens(i))
        if only == {"carried"}:
            told.append(self._carried(i))
        if only == {"card_minutes"}:
            told.append(self._larger_card(i))
        told.append(self._next_window(i))
        return [text for text in told if text]

    def _carried(self, i: int) -> str | None:
        """What would have to be carried; other firmware is not for a list of accessories."""
        names = [name for name in self.c.places[i].recording.needs if name not in self.carried]
        return f"carry {' and '.join(names)}" if names else None

    def _next_rate(self, i: int) -> str | None:
        """The nearest lower rate of the same format that can be had."""
        assert self.ask.rate is not None
        here, h = self.c.places[i].recording, self.c.highest[i]
        if here.interlaced is not self.ask.rate.interlaced:
            return None
        wanted = parse_rate(self.ask.rate.fps)
        rates = {rate for span in here.rates.spans for rate in (span.low, span.high)}
        had = [
            r for r in rates if r < wanted and (h.possible_fps is None or rate_fits(float(r), h.possible_fps))
        ]
        return f"{rate_words(max(had))} fps instead of {rate_words(wanted)}" if had else None

    def _next_window(self, i: int) -> str | None:
        """The admitted format of the same body whose picture is nearest in size."""
        same = self.admitted[self.body_ids[self.admitted] == self.body_ids[i]]
        if not same.size:
            return None
        width = self.c.columns.picture_w
        best = self.c.places[int(same[np.argmin(np.abs(np.log(width[same] / width[i])))])]
        other = best.mode.name != self.c.places[i].mode.name
        return f"{best.recording.name}{f' in {best.mode.name}' if other else ''} of the same body"

    def _lens_options(self, package: Package) -> dict[int, list[tuple[float, LensOption]]]:
        """Every other lens of the kit with the squeeze at hand, by body, in every way that is possible there.

        With each how far its focal lengths lie from the one at hand, as a logarithm; the nearest first.
        """
        assert self.c.lens is not None
        bodies = {place.body.id: place.body for place in self.c.places}
        others = [
            lens
            for _, lens in package.lenses.values()
            if lens.squeeze == self.c.lens.squeeze and lens.id != self.c.lens.id
        ]
        found: dict[int, list[tuple[float, LensOption]]] = {}
        for body in bodies.values():
            possible = [
                LensOption(lens, way)
                for lens in others
                for way in ways(package.rig, lens, body)
                if way.verdict != "impossible"
            ]
            far = [(option.off(self.c.focal_mm), option) for option in possible]
            found[body.id] = sorted(far, key=lambda pair: pair[0])
        return found

    def _angle_deg(self, i: int, lens: Lens, focal_mm: float) -> float:
        """The horizontal angle of another lens in a format: of a prime in all formats at once, for the next one."""
        if lens.is_zoom:
            cols = self.c.columns
            width, offset = cols.picture_w[i] * lens.squeeze, cols.offset_x[i] * lens.squeeze
            return float(angle_of_view_deg(width, focal_mm, offset, lens.projection))
        if (lens.id, focal_mm) not in self._angles:
            self._angles[lens.id, focal_mm] = angles_of(self.c.columns, lens, focal_mm)
        return float(self._angles[lens.id, focal_mm][i])

    def _other_lens(self, i: int) -> str | None:
        """The lens nearest in focal length that mounts, covers and is wide enough here."""
        cols, ask, current = self.c.columns, self.ask, self.c.lens
        assert current is not None
        needed = float(
            needed_circle_mm(cols.recorded_w[i], cols.recorded_h[i], cols.offset_x[i], cols.offset_y[i])
        )
        needed = needed if ask.covers is not None and ask.covers.must else 0.0
        least = ask.angle_deg.least if ask.angle_deg is not None and ask.angle_deg.must else 0.0
        nearest: tuple[float, str] | None = None
        for off, option in self.lens_options[self.c.places[i].body.id]:
            if nearest is not None and off > nearest[0]:
                break
            for low, high in option.focals_mm(needed):
                # As near as it comes; where that is too long, as wide as it covers.
                for focal in dict.fromkeys((min(max(self.c.focal_mm, low), high), low)):
                    if self._angle_deg(i, option.lens, focal) >= least:
                        at = f" at {focal / option.way.magnification:.1f} mm" if option.lens.is_zoom else ""
                        name = option.name.replace(option.lens.name, option.lens.name + at, 1)
                        found = (abs(math.log(focal / self.c.focal_mm)), name)
                        nearest = found if nearest is None else min(nearest, found)
                        break
        return f"{nearest[1]} instead of {current.name}" if nearest else None

    def _larger_card(self, i: int) -> str | None:
        assert self.ask.card_minutes is not None
        rate = self.c.bytes_s[i]
        enough = [
            card for card in self.settings.cards if card.bytes / rate / 60 >= self.ask.card_minutes.least
        ]
        return f"the card {min(enough, key=lambda card: card.bytes).name}" if enough else None


def why_empty(musts: list[Check]) -> str:
    """Say which must would have to be loosened so that something is left."""
    left = {}
    for check in musts:
        others = [other.met for other in musts if other is not check]
        count = len(check.met) if not others else int(np.logical_and.reduce(others).sum())
        if count:
            left[check.label] = count
    if left:
        told = "; ".join(
            f"without “{label}” {count} would" for label, count in sorted(left.items(), key=lambda x: -x[1])
        )
        return f"No format meets every must. Make one of them a wish: {told} remain."
    impossible = [check.label for check in musts if not check.met.any()]
    if impossible:
        return f"No format meets “{'”, nor “'.join(impossible)}”, whatever else is asked."
    return (
        "No format meets every must, and no single one stands in the way: at least two have to be loosened."
    )
