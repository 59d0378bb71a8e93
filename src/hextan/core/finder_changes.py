"""What would admit a format that the finder rejected: the smallest change of each kind."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from hextan.core.coverage import needed_circle_mm
from hextan.core.finder_ask import FinderAsk
from hextan.core.finder_checks import Candidates, Check, angles_of
from hextan.core.kit_reach import spans_where
from hextan.core.mounting import Mounting, ways
from hextan.core.numbers import Flags
from hextan.core.package import Lens, Package
from hextan.core.package_settings import PackageSettings
from hextan.core.rates import parse_rate, rate_words
from hextan.core.readout import rate_fits


@dataclass(frozen=True)
class LensOption:
    """Another lens on a body, in one way."""

    lens: Lens
    way: Mounting
    body_id: int

    @property
    def name(self) -> str:
        """The lens, with what stands behind it."""
        return self.lens.name + (f" with {self.way.name}" if self.way.adapters else "")

    def focals_mm(self, needed_mm: float) -> list[tuple[float, float]]:
        """Spans of focal lengths, with adapters, at which its circle reaches what is needed (0: anything)."""
        m, marks = self.way.magnification, self.lens.circle_marks()
        if needed_mm <= 0:
            return [(self.lens.focal_min_mm * m, self.lens.focal_max_mm * m)]
        if not marks:
            return []
        return [(a * m, b * m) for a, b in spans_where(marks, lambda c: c * m >= needed_mm, [needed_mm / m])]


class Changes:
    """The nearest changes that would admit a rejected format: another rate, window, lens or card."""

    def __init__(self, package: Package, c: Candidates, settings: PackageSettings, ask: FinderAsk,
                 admitted: Flags) -> None:  # fmt: skip
        self.c, self.settings, self.ask = c, settings, ask
        self.admitted = np.flatnonzero(admitted)
        self.body_ids = np.array([p.body.id for p in c.places])
        self.lens_options = self._lens_options(package) if c.lens is not None else []

    def admitting(self, i: int, failing: list[str]) -> list[str]:
        """Say what would admit a format, the smallest change first."""
        told = []
        only = set(failing)
        if only == {"rate"}:
            told.append(self._next_rate(i))
        if only and only <= {"covers", "angle_deg"}:
            told.append(self._other_lens(i))
        if only == {"card_minutes"}:
            told.append(self._larger_card(i))
        told.append(self._next_window(i))
        return [text for text in told if text]

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

    def _lens_options(self, package: Package) -> list[LensOption]:
        """Every other lens of the kit with the squeeze at hand, on each body in every way that is possible."""
        assert self.c.lens is not None
        bodies = {place.body.id: place.body for place in self.c.places}
        return [
            LensOption(lens, way, body.id)
            for _, lens in package.lenses.values()
            if lens.squeeze == self.c.lens.squeeze and lens.id != self.c.lens.id
            for body in bodies.values()
            for way in ways(package, lens, body)
            if way.verdict != "impossible"
        ]

    def _other_lens(self, i: int) -> str | None:
        """The lens nearest in focal length that mounts, covers and is wide enough here."""
        cols, ask, current = self.c.columns, self.ask, self.c.lens
        assert current is not None
        needed = float(
            needed_circle_mm(cols.recorded_w[i], cols.recorded_h[i], cols.offset_x[i], cols.offset_y[i])
        )
        needed = needed if ask.covers is not None and ask.covers.must else 0.0
        least = ask.angle_deg.least if ask.angle_deg is not None and ask.angle_deg.must else 0.0
        fits: list[tuple[float, str]] = []
        for option in self.lens_options:
            if option.body_id != self.c.places[i].body.id:
                continue
            for low, high in option.focals_mm(needed):
                # As near as it comes; where that is too long, as wide as it covers.
                for focal in (min(max(self.c.focal_mm, low), high), low):
                    if float(angles_of(cols, option.lens, focal)[i]) >= least:
                        at = f" at {focal / option.way.magnification:.1f} mm" if option.lens.is_zoom else ""
                        fits.append((abs(math.log(focal / self.c.focal_mm)), option.name.replace(
                            option.lens.name, option.lens.name + at, 1)))  # fmt: skip
                        break
        return f"{min(fits)[1]} instead of {current.name}" if fits else None

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
