"""The sums of the trade: crops and what they leave, circles, rates, cards, units."""

from __future__ import annotations

import math
import re
from fractions import Fraction

from hextan.core.ask.said import Figure, Reply, Said, focal_words
from hextan.core.base import (
    Fault,
    InvalidInputError,
    distance_words,
    just_covers_words,
    margin_words,
    rate_words,
    stops_words,
)
from hextan.core.equipment import Package
from hextan.core.light import rate_cost_stops
from hextan.core.optics import (
    NAMED,
    class_words,
    coverage_verdict,
    dark_where_short,
    needed_circle_mm,
)


def what_of(said: Said, package: Package | None) -> Reply:
    """A crop, or several one after another, of a focal length and its stop."""
    crops = said.crops
    whole = math.prod(crops)
    ends = said.one("zoom") or (said.focal_mm,)
    value = "-".join(f"{focal * whole:g}" if len(ends) > 1 else f"{focal * whole:.4g}" for focal in ends)
    figures: list[Figure] = [{"name": "frames like", "value": f"{value} mm"}]
    told = f"{focal_words(Said([w for w in said.words if w.kind != 'times']))} with a crop of {_chain(crops)} frames like {value} mm"
    stop = said.one("t_stop") or said.one("f_number")
    if stop is not None:
        mark = "T" if said.one("t_stop") else "f/"
        figures.append({"name": "depth like, at that framing", "value": f"{mark}{stop * whole:.3g}"})
        figures.append({"name": "exposure", "value": f"{mark}{stop:g}, as it is"})
        told += f", with the depth of {mark}{stop * whole:.3g}"
    steps = [f"{focal:g} × {_chain(crops)} = {focal * whole:.4g}" for focal in ends]
    if stop is not None:
        steps.append(
            f"the same framing from the same place on the whole window has this depth at {stop:g} × {whole:.4g}; the light stays"
        )
    return f"{told}.", figures, steps


def _chain(crops: list[float]) -> str:
    return " × ".join(f"{crop:g}" for crop in crops)


def chained(said: Said, package: Package | None) -> Reply:
    """Say what crops one after another come to, or one aspect within another."""
    aspects = said.one("aspects")
    if aspects is not None:
        kept, whole = aspects
        k = max(whole / kept, kept / whole)
        across = "width" if kept < whole else "height"
        figures: list[Figure] = [
            {"name": "crop", "value": f"{k:.4f}×"},
            {"name": f"of the {across}", "value": f"{100 / k:.1f} %"},
        ]
        return (
            f"{kept:.3f} of {whole:.3f} is a crop of {k:.4f} of the {across}.",
            figures,
            [f"{max(aspects):.4f} / {min(aspects):.4f} = {k:.4f}"],
        )
    k = math.prod(said.crops)
    figures = [{"name": "crop", "value": f"{k:.3f}×"}, {"name": "of the width", "value": f"{100 / k:.1f} %"}]
    return f"{_chain(said.crops)} is a crop of {k:.3f}.", figures, [f"{_chain(said.crops)} = {k:.4f}"]


def crop_of(said: Said, package: Package | None) -> Reply:
    """Say how much a part of a width crops."""
    part, whole = said.all("number")
    k = whole / part
    figures: list[Figure] = [
        {"name": "crop", "value": f"{k:.3f}×"},
        {"name": "of the width", "value": f"{100 / k:.1f} %"},
        {"name": "of the area, in the same shape", "value": f"{100 / k**2:.1f} %"},
    ]
    return f"{part:g} of {whole:g} is a crop of {k:.3f}.", figures, [f"{whole:g} / {part:g} = {k:.4f}"]


def megapixels(said: Said, package: Package | None) -> Reply:
    """Say what crops leave of the pixels."""
    pixels, window = said.one("megapixels"), said.one("window")
    crops = said.crops or [NAMED["full_frame"][0] / window.width_mm]
    small = next((k for k in crops if k < 1), None)
    if small is not None:
        rule = f"a crop of {small:g} would leave more than there is: say {1 / small:.3g} for a {1 / small:.3g}x crop"
        raise InvalidInputError.plainly(Fault("line", said.text("crop") or said.text("window"), rule))
    k = math.prod(crops)
    left = pixels / k**2
    figures: list[Figure] = [{"name": "left", "value": f"{left:.1f} MP" if left >= 10 else f"{left:.2f} MP"}]
    named = (
        f"{window.name} of a full frame of"
        if window is not None and not said.crops
        else f"A crop of {' × '.join(f'{c:.3g}' for c in crops)} leaves {figures[0]['value'].removesuffix(' MP')} of"
    )
    told = f"{named} {pixels:g} MP" + (
        f" is {figures[0]['value']}" if window is not None and not said.crops else ""
    )
    return f"{told}.", figures, [f"{pixels:g} / {k:.4g}² = {left:.2f}"]


def covers(said: Said, package: Package | None) -> Reply:
    """Say whether a circle covers a window, and by how much."""
    circle, window = said.one("number"), said.one("window")
    w, h = said.one("size") or (window.width_mm, window.height_mm)
    needed = float(needed_circle_mm(w, h))
    verdict = coverage_verdict(circle, needed, float(dark_where_short(circle, w, h)))
    spare = circle - needed
    told = just_covers_words(spare) if verdict == "marginal" else margin_words(spare)
    if verdict == "short":
        told = f"{told.removesuffix(' short').removeprefix('just short, by ')} too small: dark corners"
    figures: list[Figure] = [
        {"name": "needed", "value": f"{needed:.2f} mm"},
        {"name": "circle", "value": told},
        {"name": "class of the window", "value": class_words(w, h)},
    ]
    steps = [f"the diagonal of {w:g} × {h:g} mm is √({w:g}² + {h:g}²) = {needed:.2f} mm"]
    return (
        f"A circle of {circle:g} mm {'is ' if verdict == 'short' else ''}{told}.",
        figures,
        steps,
    )


def rates_apart(said: Said, package: Package | None) -> Reply:
    """Say what another rate costs at the same shutter angle."""
    rates = [word.value for word in said.words if word.kind in ("number", "fps")][:2]
    low, high = rates
    stops = float(rate_cost_stops(high, low))
    figures: list[Figure] = [
        {"name": "light", "value": f"{-stops:+.2f} stops"},
        {"name": "slower on the screen", "value": f"{high / low:.2f}×"},
    ]
    moved = "costs" if stops > 0 else "gives"
    told = f"From {rate_words(low)} to {rate_words(high)} fps at the same shutter angle {moved} {stops_words(stops)} of light."
    return told, figures, [f"log2({rate_words(high)} / {rate_words(low)}) = {stops:.2f} stops"]


def converted(said: Said, package: Package | None) -> Reply:
    """Write a distance in the unit that is asked for."""
    metres, unit = said.one("distance"), said.one("unit")
    told = distance_words(metres, unit)
    return f"{told}.", [{"name": "distance", "value": told}], ["1 ft is 0.3048 m, exactly"]


def card_time(said: Said, package: Package | None) -> Reply:
    """How long storage is, at a data rate or in each recording format whose data are known."""
    size, megabits = said.one("storage"), said.one("megabits")
    card = re.sub(r"\s*(?:cards?|drives?)$", "", said.text("storage").strip(), flags=re.IGNORECASE)
    if megabits is not None:
        seconds = size * 8 / (megabits * 1e6)
        told = f"{card} at {megabits:g} Mbit/s holds {_hours(seconds)}."
        return (
            told,
            [{"name": "time", "value": _hours(seconds)}],
            [f"{size:.4g} bytes × 8 / {megabits:g} Mbit/s = {seconds:.0f} s"],
        )
    rows = []
    for here in [] if package is None else package.formats.values():
        fps = said.one("fps") or float(here.recording.rates.nearest(Fraction(25)))
        rate = here.recording.bytes_per_second(fps)
        if rate:
            rows.append((size / rate, f"{here.recording.name}, {here.body.name}", fps))
    if not rows:
        rule = "needs a data rate, like 600 Mbit/s: no recording format of a production says its own"
        raise InvalidInputError.plainly(Fault("line", said.text("storage"), rule))
    rows.sort()
    figures: list[Figure] = [
        {"name": name, "value": f"{_hours(seconds)} at {rate_words(fps)} fps"}
        for seconds, name, fps in rows[:12]
    ]
    told = f"{card} holds from {_hours(rows[0][0])} ({rows[0][1]}) to {_hours(rows[-1][0])} ({rows[-1][1]})."
    return told, figures, ["storage is counted in powers of ten; bytes over bytes a second of each format"]


def _hours(seconds: float) -> str:
    minutes = int(seconds // 60)
    return f"{minutes} min" if minutes < 60 else f"{minutes // 60} h {minutes % 60} min"
