"""What can be asked in one line: each question is a row, with the words that it needs, those that it may have, and examples."""

from __future__ import annotations

import math
import re
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from typing_extensions import TypedDict

from hextan.core.ask.words import Window, window_of
from hextan.core.base import (
    Fault,
    InvalidInputError,
    distance_words,
    just_covers_words,
    limits,
    margin_words,
    needed_light,
    rate_words,
    stops_words,
)
from hextan.core.equipment import Package
from hextan.core.evaluation import evaluate
from hextan.core.kit import FramingWish, field_of_person_m
from hextan.core.light import LUX_PER_FOOT_CANDLE, flicker, needed_lux, rate_cost_stops, shutter_s
from hextan.core.optics import (
    LABELS,
    NAMED,
    angle_of_view_deg,
    class_words,
    coverage_verdict,
    magnification_from_sensor,
    needed_circle_mm,
    trim_to_aspect,
)
from hextan.core.reading import Word

#: A shutter of a line that says none (common practice, no source).
USUAL_SHUTTER_DEG = 180.0
#: A time and an angle within this of one another are the same shutter: times are printed rounded.
SAME_SHUTTER = 0.02


class Figure(TypedDict):
    """A figure of an answer."""

    name: str
    value: str


class OnBench(TypedDict):
    """What a question sets on the Bench of its production."""

    format_id: int
    lens_id: int
    focal_mm: float | None
    stop: float | None
    subject_m: float | None


class Answered(TypedDict):
    """One reading of a line, with its answer."""

    question: str
    #: The answer in a sentence.
    told: str
    figures: list[Figure]
    #: How it is worked out, one step after another.
    steps: list[str]
    #: None where the production has nothing to set it with.
    bench: OnBench | None


class Said:
    """The words of a line by their kinds."""

    def __init__(self, words: list[Word]) -> None:
        self.words = words

    def all(self, kind: str) -> list[Any]:
        """What the words of a kind are worth, in their order."""
        return [word.value for word in self.words if word.kind == kind]

    def one(self, kind: str) -> Any:
        """What the first word of a kind is worth; None without one."""
        return next(iter(self.all(kind)), None)

    def text(self, kind: str) -> str:
        """The first word of a kind, as it is written."""
        return next((word.text for word in self.words if word.kind == kind), "")

    @property
    def focal_mm(self) -> float:
        """Focal length: a number, or that of a lens of the production; the short end of a zoom."""
        lens, zoom = self.one("lens"), self.one("zoom")
        if zoom is not None:
            return float(zoom[0])
        return float(lens.focal_min_mm if lens is not None else self.one("number"))

    @property
    def squeeze(self) -> float:
        """Squeeze of the lens; 1 where none is said. Beside a format a bare 2x is one."""
        return float(self.one("squeeze") or self.one("times") or 1.0)

    @property
    def window_of_lens(self) -> Window:
        """The window that the focal length is on: the one that stands next to it."""
        at = next(
            (
                i
                for i, word in enumerate(self.words)
                if word.kind in ("number", "lens", "zoom", "t_stop", "f_number")
            ),
            0,
        )
        windows = [
            (abs(i - at - 0.1), word.value) for i, word in enumerate(self.words) if word.kind == "window"
        ]
        nearest: Window = min(windows, key=lambda row: row[0])[1]
        return nearest

    @property
    def other_window(self) -> Window | None:
        """The other window that is said; None where there is one alone."""
        first = self.window_of_lens
        return next((window for window in self.all("window") if window != first), None)

    @property
    def crops(self) -> list[float]:
        """All crops, in their order."""
        found: list[float] = []
        for word in self.words:
            found += (
                word.value
                if word.kind == "factors"
                else [word.value]
                if word.kind in ("crop", "times")
                else []
            )
        return found

    @property
    def aspect(self) -> float | None:
        """The shape of the picture: an aspect, or that of a raster."""
        raster = self.one("raster")
        return self.one("aspect") or (raster[0] / raster[1] if raster else None)

    @property
    def windows(self) -> list[Window]:
        """The windows that are meant: those that are said, else the two that the trade measures by."""
        return self.all("window") or [Window(LABELS[name], *size) for name, size in NAMED.items()]


def _windows(package: Package | None) -> list[Window]:
    """The references, and one recording format of each picture that the production has."""
    found = [Window(LABELS[name], *size) for name, size in NAMED.items()]
    seen = set()
    for here in [] if package is None else package.formats.values():
        window = window_of(here, f"{here.mode.name}, {here.body.name}")
        if (round(window.width_mm, 2), here.body.id) not in seen:
            seen.add((round(window.width_mm, 2), here.body.id))
            found.append(window)
    return found


def _focal_words(said: Said) -> str:
    squeezed = f" with a squeeze of {said.squeeze:g}" if said.squeeze != 1.0 else ""
    zoom = said.one("zoom")
    return (f"{zoom[0]:g}-{zoom[1]:g} mm" if zoom else f"{said.focal_mm:g} mm") + squeezed


def _like(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    window, wanted = said.window_of_lens, said.other_window
    if wanted is None and any(word.text.startswith("35") for word in said.words if word.kind == "intent"):
        # A 35 mm equivalent is one on full frame.
        wanted = next(other for other in _windows(None) if other.name == LABELS["full_frame"])
    ends = said.one("zoom") or (said.focal_mm,)
    gives = wanted is None and "like" in {word.kind for word in said.words}
    angle = float(angle_of_view_deg(window.width_mm * said.squeeze, ends[0]))
    others = [wanted] if wanted else [other for other in _windows(package) if other.name != window.name]

    def on(other: Window) -> str:
        return (
            "-".join(f"{focal / said.squeeze * other.width_mm / window.width_mm:.1f}" for focal in ends)
            + " mm"
        )

    figures: list[Figure] = [{"name": other.name, "value": on(other)} for other in others]
    first, value = figures[0]["name"], figures[0]["value"]
    told = f"Like {_focal_words(said)} on {window.name} is {value} on {first}." if gives else (
        f"{_focal_words(said)} on {window.name} is like {value} on {first}."
    )  # fmt: skip
    other = others[0]
    per_squeeze = f" / {said.squeeze:g}" if said.squeeze != 1.0 else ""
    steps = [
        f"{window.name} is {window.width_mm:.2f} mm wide, {other.name} {other.width_mm:.2f} mm",
        f"{ends[0]:g}{per_squeeze} × {other.width_mm:.2f} / {window.width_mm:.2f} = {on(other).partition('-')[0].removesuffix(' mm')} mm, by the width",
        f"both see {angle:.1f}° across, focused at infinity",
    ]
    return told, figures, steps


def _what_of(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    """A crop, or several one after another, of a focal length and its stop."""
    crops = said.crops
    whole = math.prod(crops)
    ends = said.one("zoom") or (said.focal_mm,)
    value = "-".join(f"{focal * whole:g}" if len(ends) > 1 else f"{focal * whole:.4g}" for focal in ends)
    figures: list[Figure] = [{"name": "frames like", "value": f"{value} mm"}]
    told = f"{_focal_words(Said([w for w in said.words if w.kind != 'times']))} with a crop of {_chain(crops)} frames like {value} mm"
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


def _chained(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
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


def _picture(window: Window, aspect: float | None) -> tuple[float, float]:
    if aspect is None:
        return window.width_mm, window.height_mm
    w, h = trim_to_aspect(window.width_mm, window.height_mm, aspect)
    return float(w), float(h)


def _evaluated(
    focal_mm: float, picture: tuple[float, float], subject: dict[str, float], **lens: float | None
) -> Any:
    answer = evaluate(
        {
            "lens": {"focal_mm": focal_mm, **lens},
            "subject": subject,
            "formats": [{"id": "it", "window": {"width_mm": picture[0], "height_mm": picture[1]}}],
        }
    )
    return answer["formats"][0]


def _field(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    """Field, angle and, where a stop is said, depth: on the window that is said, else on both that the trade measures by."""
    rows = [_field_on(said, window) for window in said.windows]
    told, figures, steps = rows[0]
    if len(rows) == 1:
        return told, figures, steps
    names = [window.name for window in said.windows]
    told = " ".join(f"{name}: {row[0]}" for name, row in zip(names, rows, strict=True))
    figures = [
        {"name": f"{f['name']}, {name}", "value": f["value"]}
        for name, row in zip(names, rows, strict=True)
        for f in row[1][:3]
    ]
    return told, figures, [*steps, "no format was said: it is told for both that the trade measures by"]


def _field_on(said: Said, window: Window) -> tuple[str, list[Figure], list[str]]:
    focal, distance = said.focal_mm, said.one("distance")
    f_number, t_stop = said.one("f_number"), said.one("t_stop")
    picture = _picture(window, said.aspect)
    row = _evaluated(
        focal, picture, {"distance_m": distance}, f_number=f_number, t_stop=t_stop, squeeze=said.squeeze
    )
    field, depth = row["field_m"], row["depth"]
    unit = _unit_of(said)
    figures: list[Figure] = [
        {
            "name": "field",
            "value": f"{distance_words(field['width'], unit)} × {distance_words(field['height'], unit)}",
        },
        {"name": "angle, focused there", "value": _angles(row["angle_at_focus_deg"])},
        {"name": "angle, at infinity", "value": _angles(row["angle_deg"])},
        {"name": "like, on Super 35", "value": f"{row['effective_focal_mm']:.1f} mm"},
    ]
    told = f"{_focal_words(said)} at {distance_words(distance, unit)} sees {figures[0]['value']}."
    steps = [
        f"{window.name}: a picture of {picture[0]:.1f} × {picture[1]:.1f} mm",
        f"magnification {row['magnification']:.4f}: the picture's size over the field's",
    ]
    if depth["near_m"] is None:
        steps.append("no stop was said: how deep it is sharp, is not told")
        return told, figures, steps
    shown = limits(depth["near_m"], depth["far_m"], distance, unit)
    figures[1:1] = [{"name": "in focus", "value": shown.words()}]
    told = f"{told[:-1]}, in focus {shown.words()}."
    steps.append(f"sharp to {depth['coc_mm']:.4f} mm: the picture's diagonal over 1500")
    if f_number is None:
        steps.append("no f-number: the depth is computed with the T-stop, and told a little too deep")
    return told, figures, steps


def _angle(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    window = said.one("window")
    w, h = _picture(window, said.aspect)
    across, down, over = (
        float(angle_of_view_deg(size, said.focal_mm))
        for size in (w * said.squeeze, h, math.hypot(w * said.squeeze, h))
    )
    figures: list[Figure] = [
        {"name": "across", "value": f"{across:.1f}°"}, {"name": "up and down", "value": f"{down:.1f}°"},
        {"name": "over the diagonal", "value": f"{over:.1f}°"},
    ]  # fmt: skip
    told = f"{_focal_words(said)} on {window.name} sees {across:.1f}° across."
    return (
        told,
        figures,
        [f"2 atan({w * said.squeeze:.2f} / (2 × {said.focal_mm:g})) = {across:.1f}°, focused at infinity"],
    )


def _hyperfocal(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    focal, window = said.focal_mm, said.one("window")
    stop = said.one("f_number") or said.one("t_stop")
    w, h = _picture(window, said.aspect)
    coc = math.hypot(w, h) / 1500
    distance = (focal * focal / (stop * coc) + focal) / 1000
    unit = _unit_of(said)
    figures: list[Figure] = [
        {"name": "hyperfocal distance", "value": distance_words(distance, unit)},
        {"name": "sharp from", "value": distance_words(distance / 2, unit)},
    ]
    steps = [
        f"sharp to {coc:.4f} mm: the picture's diagonal over 1500",
        f"{focal:g}² / ({stop:g} × {coc:.4f}) + {focal:g} = {distance * 1000:.0f} mm",
    ]
    if said.one("f_number") is None:
        steps.append("no f-number: it is computed with the T-stop, and told a little too near")
    return (
        f"Focused at {figures[0]['value']}, all from {figures[1]['value']} to infinity is sharp.",
        figures,
        steps,
    )


def _same_depth(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    """The stop on another format that gives the same depth at the same field: apertures of one diameter."""
    window, other = said.window_of_lens, said.other_window
    if other is None:
        other = next(w for w in _windows(None) if w.name != window.name)
    stop = said.one("t_stop") or said.one("f_number")
    mark = "T" if said.one("t_stop") else "f/"
    k = other.width_mm / window.width_mm
    figures: list[Figure] = [
        {"name": f"stop on {other.name}", "value": f"{mark}{stop * k:.2g}"},
        {"name": "apart", "value": f"{2 * math.log2(k):+.2f} stops"},
    ]
    if said.one("number") is not None or said.one("lens") is not None:
        figures.append({"name": f"focal length on {other.name}", "value": f"{said.focal_mm * k:.1f} mm"})
    told = f"{mark}{stop * k:.2g} on {other.name} is as deep as {mark}{stop:g} on {window.name}, at the same field from the same place."
    return told, figures, [
        f"{other.name} is {other.width_mm:.2f} mm wide, {window.name} {window.width_mm:.2f} mm: {k:.3f} times",
        f"the same diameter of the aperture at {k:.3f} times the focal length: {stop:g} × {k:.3f} = {stop * k:.2f}",
        "the circle of confusion goes with the format; EI or light have to follow",
    ]  # fmt: skip


def _angles(angle: dict[str, float]) -> str:
    return f"{angle['horizontal']:.1f}° × {angle['vertical']:.1f}°"


def _unit_of(said: Said) -> Any:
    text = next((word.text for word in said.words if word.kind == "distance"), "")
    return (
        "ft" if any(sign in text for sign in "'′’\"") or text.lower().endswith(("ft", "feet", "in")) else "m"
    )


def _which(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    framing, distance, window = said.one("framing"), said.one("distance"), said.one("window")
    picture = _picture(window, said.aspect)
    wish = FramingWish(framing=framing)
    high = field_of_person_m(wish)
    # Thin lens: the picture's height over the field's is the magnification, and f = m D / (1 + m)^2 from the sensor.
    m = picture[1] / 1000 / high
    focal = 1000 * distance * m / (1 + m) ** 2
    figures: list[Figure] = [{"name": "focal length", "value": f"{focal:.0f} mm"}]
    for kit, lens in [] if package is None else package.lenses.values():
        if lens.focal_min_mm <= focal <= lens.focal_max_mm or abs(lens.focal_min_mm / focal - 1) < 0.12:
            figures.append({"name": f"{lens.name}, {kit.name}", "value": f"{lens.focal_min_mm:g} mm"})
    told = f"{framing} at {distance_words(distance, _unit_of(said))} on {window.name} wants {focal:.0f} mm."
    steps = [
        _framed(wish, high),
        f"the picture is {picture[0]:.1f} × {picture[1]:.1f} mm on {window.name}",
        f"magnification {m:.4f}; focal length = m D / (1 + m)² = {focal:.1f} mm",
    ]
    return told[0].upper() + told[1:], figures, steps


def _framed(wish: FramingWish, high: float) -> str:
    return f"{wish.framing} of a person of {wish.height_m:g} m is {high:.2f} m high in the picture, with headroom"


def _distance_for(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    framing, window, focal = said.one("framing"), said.one("window"), said.focal_mm
    picture = _picture(window, said.aspect)
    wish = FramingWish(framing=framing)
    high = field_of_person_m(wish)
    m = picture[1] / 1000 / high
    metres = focal * (1 + m) ** 2 / m / 1000
    told = (
        f"{framing} with {_focal_words(said)} on {window.name} is framed from {distance_words(metres, 'm')}."
    )
    figures: list[Figure] = [
        {"name": "distance", "value": distance_words(metres, "m")},
        {"name": "or", "value": distance_words(metres, "ft")},
    ]
    steps = [
        _framed(wish, high),
        f"the picture is {picture[0]:.1f} × {picture[1]:.1f} mm on {window.name}",
        f"magnification {m:.4f}; distance = f (1 + m)² / m = {metres:.2f} m, from the sensor",
    ]
    return told, figures, steps


def _which_format(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    """How large a picture frames a person so with this lens from there."""
    framing, distance, focal = said.one("framing"), said.one("distance"), said.focal_mm
    wish = FramingWish(framing=framing)
    high = field_of_person_m(wish)
    m = float(magnification_from_sensor(focal, distance * 1000))
    if not m > 0:
        raise InvalidInputError.plainly(
            Fault("line", f"{distance:g} m", f"a {focal:g} mm lens forms no image so near")
        )
    h = high * m * 1000
    shape = said.aspect or 16 / 9
    figures: list[Figure] = [{"name": "picture", "value": f"{h * shape:.1f} × {h:.1f} mm"}]
    near = sorted(_windows(package), key=lambda w: abs(math.log(_picture(w, shape)[1] / h)))[:4]
    figures += [
        {"name": window.name, "value": f"{100 * (_picture(window, shape)[1] / h - 1):+.0f} % of the height"}
        for window in near
    ]
    told = f"{_focal_words(said)} at {distance_words(distance, _unit_of(said))} frames {framing} on a picture {h:.1f} mm high; nearest is {near[0].name}."
    return told, figures, [_framed(wish, high), f"magnification {m:.4f} at that distance: {high:.2f} m × {m:.4f} = {h:.1f} mm",
                           f"in {shape:.2f}:1 that is {h * shape:.1f} mm wide"]  # fmt: skip


def _crop_of(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    part, whole = said.all("number")
    k = whole / part
    figures: list[Figure] = [
        {"name": "crop", "value": f"{k:.3f}×"},
        {"name": "of the width", "value": f"{100 / k:.1f} %"},
        {"name": "of the area, in the same shape", "value": f"{100 / k**2:.1f} %"},
    ]
    return f"{part:g} of {whole:g} is a crop of {k:.3f}.", figures, [f"{whole:g} / {part:g} = {k:.4f}"]


def _megapixels(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
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


def _covers(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    circle, window = said.one("number"), said.one("window")
    w, h = said.one("size") or (window.width_mm, window.height_mm)
    needed = float(needed_circle_mm(w, h))
    verdict = coverage_verdict(circle, needed)
    spare = circle - needed
    told = just_covers_words(spare) if verdict == "marginal" else margin_words(spare)
    if spare < 0:
        told = f"{told.removesuffix(' short').removeprefix('just short, by ')} too small: dark corners"
    figures: list[Figure] = [
        {"name": "needed", "value": f"{needed:.2f} mm"},
        {"name": "circle", "value": told},
        {"name": "class of the window", "value": class_words(w, h)},
    ]
    steps = [f"the diagonal of {w:g} × {h:g} mm is √({w:g}² + {h:g}²) = {needed:.2f} mm"]
    return (
        f"A circle of {circle:g} mm {'is ' if spare < 0 else ''}{told}.",
        figures,
        steps,
    )


def _rates(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
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


def _open_s(said: Said, fps: float) -> tuple[float, str]:
    """How long the shutter is open, and how that comes about; no longer than a frame.

    Raises
    ------
    InvalidInputError
        A time and an angle that are not the same, or more of an angle than there is.
    """
    time, angle = said.one("time"), said.one("angle") or said.one("number")
    if time is not None:
        of_time = 360 * fps * float(time)
        if angle is not None and abs(of_time / angle - 1) > SAME_SHUTTER:
            rule = f"1/{1 / time:g} s is {of_time:.4g}° at {rate_words(fps)} fps, and {angle:g}° is said as well: say one of them"
            raise InvalidInputError.plainly(Fault("line", said.text("time"), rule))
        if of_time > 360 * (1 + SAME_SHUTTER):
            return (
                1 / fps,
                f"1/{1 / time:g} s is longer than a frame at {rate_words(fps)} fps: the longest is 1/{fps:g} s",
            )
        return float(time), f"1/{1 / time:g} s"
    angle = angle or USUAL_SHUTTER_DEG
    if angle > 360:
        rule = f"{angle:g}° is more than a whole frame: a shutter is open for 360° at most"
        raise InvalidInputError.plainly(Fault("line", f"{angle:g}°", rule))
    seconds = float(shutter_s(angle, fps))
    return seconds, f"{angle:g}° at {rate_words(fps)} fps are 1/{1 / seconds:.4g} s"


def _whole_frame(said: Said, fps: float) -> str:
    """What is said of a time that no frame has."""
    time = said.one("time")
    if time is None or 360 * fps * float(time) <= 360 * (1 + SAME_SHUTTER):
        return ""
    return (
        f" with the whole frame open (1/{fps:g} s): 1/{1 / time:g} s is not possible at {rate_words(fps)} fps"
    )


def _flicker(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    fps, hz = said.one("fps") or said.one("number"), said.one("hz")
    # A bare figure beside a rate is the angle.
    angle_said = said.one("fps") is not None
    seconds, how = _open_s(Said([word for word in said.words if word.kind != "number" or angle_said]), fps)
    lamp = flicker.lamp_of("magnetic", hz, 0.0, 0.5)
    verdict = flicker.judge(lamp, seconds, fps, 0.0)
    seen = flicker.seen(verdict.frame_stops)
    safe = flicker.nearest_safe(lamp.hz, fps, seconds)
    words = {"none": "nothing is seen", "borderline": "a pulse may be seen", "shows": "frames pulse"}
    told = f"At {rate_words(fps)} fps under {hz:g} Hz {words[seen]}: frames differ by {verdict.frame_stops:.2f} stops{_whole_frame(said, fps)}."
    figures: list[Figure] = [
        {"name": "frames differ", "value": f"{verdict.frame_stops:.2f} stops"},
        {"name": "the lamp swings", "value": f"{lamp.hz:g} times a second"},
        {
            "name": "nearest safe shutter",
            "value": f"1/{1 / float(safe):.4g} s" if safe else "none at this rate",
        },
    ]
    steps = [
        how,
        f"a lamp on {hz:g} Hz swings {lamp.hz:g} times a second: only whole swings in a frame are even",
        "for a discharge lamp on a magnetic ballast; test the lamps that you will have",
    ]
    return told, figures, steps


def _light(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    fps, ei = said.one("fps"), said.one("ei")
    stop = said.one("t_stop") or said.one("f_number")
    if fps is None:
        seconds, how = float(said.one("time")), f"open for {said.text('time')} s"
    else:
        seconds, how = _open_s(said, fps)
    lux = float(needed_lux(stop, seconds, ei))
    figures: list[Figure] = [
        {"name": "light", "value": f"{needed_light(lux)} lux"},
        {"name": "or", "value": f"{needed_light(lux / LUX_PER_FOOT_CANDLE)} foot-candles"},
    ]
    mark = "T" if said.one("t_stop") else "f/"
    steps = [how, f"E = 250 × {stop:g}² / (t × {ei}) = {lux:,.2f} lux (ISO 2720, incident), rounded up"]
    if mark == "f/":
        steps.append("by the f-number: the glass loses a little more")
    return (
        f"{mark}{stop:g} at EI {ei} wants {needed_light(lux)} lux{_whole_frame(said, fps) if fps is not None else ''}.",
        figures,
        steps,
    )


def _convert(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    metres, unit = said.one("distance"), said.one("unit")
    told = distance_words(metres, unit)
    return f"{told}.", [{"name": "distance", "value": told}], ["1 ft is 0.3048 m, exactly"]


def _traded(said: Said) -> tuple[float, str, str, str]:
    """How much light the second of two settings gives more than the first, in stops, and both as they are written."""
    for kind, per in (("t_stop", -2.0), ("f_number", -2.0), ("angle", 1.0), ("time", 1.0), ("ei", 1.0)):
        words = [
            w
            for w in said.words
            if w.kind == kind or (kind == "angle" and w.kind == "number" and said.one("angle"))
        ]
        if len(words) == 2:
            first, second = words
            return per * math.log2(second.value / first.value), first.text.strip(), second.text.strip(), kind
    raise InvalidInputError.plainly(
        Fault("line", "", "needs two stops, two angles, two times or two sensitivities")
    )


def _equal_light(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    """What a change of stop, angle, time or sensitivity costs, and which EI makes up for it."""
    more, first, second, kind = _traded(said)
    figures: list[Figure] = [{"name": "light", "value": f"{more:+.2f} stops"}]
    steps = [
        f"{'2 log2' if kind in ('t_stop', 'f_number') else 'log2'} of the ratio of {first} and {second}: {more:+.2f} stops"
    ]
    told = f"From {first} to {second} {'gives' if more > 0 else 'costs'} {stops_words(abs(more))} of light."
    ei = said.one("ei")
    if ei is not None and kind != "ei":
        balanced = ei / 2**more
        figures.append({"name": "EI that makes up for it", "value": f"{balanced:.0f}"})
        told = f"{told[:-1]}: EI {ei} becomes EI {balanced:.0f}."
        steps.append(f"{ei} / 2^{more:.2f} = {balanced:.1f}")
    density = abs(more) * 0.3
    if kind != "ei" and round(density, 1) > 0:
        figures.append({"name": "ND", "value": f"{density:.1f}"})
        steps.append(f"0.3 of density is a stop: {abs(more):.2f} stops are ND {density:.1f}")
        if any("equal light" in w.value for w in said.words if w.kind == "intent"):
            told = f"{told[:-1]}: ND {density:.1f}."
    return told, figures, steps


def _card(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
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


@dataclass(frozen=True)
class Question:
    """A question: the kinds of words that it needs and may have, how it is answered, and examples of it."""

    name: str
    told: str
    needs: tuple[tuple[str, ...], ...]
    may: tuple[str, ...]
    answer: Callable[[Said, Package | None], tuple[str, list[Figure], list[str]]]
    examples: tuple[str, ...]
    #: Whether it can be set on a Bench.
    on_bench: bool = False
    #: Whether it is asked only where its words are said: which lens, how far.
    by_name: bool = False


_FOCAL = ("number", "lens", "zoom")
_STOP = ("t_stop", "f_number")
_SHAPE = ("aspect", "raster")
#: Needed words, each with what may stand for it; a kind that is named twice is needed twice.
QUESTIONS: tuple[Question, ...] = (
    Question("like", "What is this lens like on other formats, and which gives it there?",
             (_FOCAL, ("window",)), ("window", "squeeze", "times", "like", *_STOP), _like,
             ("50 s35", "75 full frame", "like 35 on full frame", "50 s35 in ff", "24-70 s35", "40 2x ff", "which lens on s16 looks like 50 on full frame"), True),
    Question("field", "What is seen and sharp at a distance?",
             (_FOCAL, ("distance",)), ("window", *_STOP, *_SHAPE, "squeeze", "times"), _field,
             ("85 f1.2 0.85m s35", "40 T2.1 10'6\" full frame 2.39:1", "50 10ft full frame", "how wide is 25 at 4m on s35", "depth 35 f1.5 2m full frame"), True),
    Question("angle", "Which angle does it see?", (_FOCAL, ("window",)), (*_SHAPE, "squeeze", "times"), _angle,
             ("angle of 35 on s35", "fov 24 ff"), False, True),
    Question("hyperfocal", "Where is it focused to be sharp to infinity?", (_FOCAL, _STOP, ("window",)), _SHAPE, _hyperfocal,
             ("hyperfocal 25 f4 s35",), False, True),
    Question("stop for", "Which stop gives the same depth on another format?", (_STOP, ("window",)), ("window", *_FOCAL), _same_depth,
             ("same depth as 50 f2 s35 on full frame", "what stop on ff for the depth of T2 on s35"), False, True),
    Question("which lens", "Which lens frames a person so?",
             (("framing",), ("distance",), ("window",)), _SHAPE, _which,
             ("waist 5m uhd s35", "face 8ft full frame", "which lens for a close-up at 2 m on s35", "MCU 3m s35")),
    Question("distance for", "From how far is a person framed so?", (("framing",), _FOCAL, ("window",)), (*_SHAPE, "squeeze"), _distance_for,
             ("face 8 mm full frame", "how far for waist 50 s35")),
    Question("which format", "Which format frames a person so?", (("framing",), _FOCAL, ("distance",)), _SHAPE, _which_format,
             ("waist 35 2m", "knees 50 12ft")),
    Question("what of", "What does a crop make of a lens?", (_FOCAL, ("crop", "times", "factors")), ("crop", "times", "factors", *_STOP), _what_of,
             ("28 f2 crop 1.5", "85 1.6x", "24-70 crop 1.5", "50 T2 crop 1.5 crop 1.07")),
    Question("crop", "How much does a window crop?", (("number",), ("number",), ("of",)), (), _crop_of, ("5952 of 8192",)),
    Question("crops", "What do crops come to?", (("aspects", "factors", "crop"),), ("crop", "times", "factors"), _chained,
             ("16:9 of 17:9", "2.75x 1.067 x 1.43", "crop 1.5 crop 1.1")),
    Question("megapixels", "What does a crop leave of the pixels?", (("megapixels",), ("crop", "times", "factors", "window")),
             ("crop", "times", "factors"), _megapixels, ("24 MP /1.5", "45 mp crop 1.3", "24 MP /1.5 /1.5", "45 MP s35")),
    Question("covers", "Does a circle cover a window?", (("number",), ("circle", "intent"), ("size", "window")), ("circle",), _covers,
             ("31.5 circle 25.3x14.2", "28.4 circle s35", "does 43.3 cover 36x24")),
    Question("rates", "What does another rate cost?", (("number", "fps"), ("fps",), ("to",)), (), _rates,
             ("24 to 120 fps", "25fps to 100fps")),
    Question("flicker", "Does it flicker?", (("fps", "number"), ("hz",)), ("angle", "time", "number"), _flicker,
             ("400 fps 50 hz", "25 fps 60 hz 1/60", "24 fps 50hz 172.8", "which shutter at 24 under 50 hz")),
    Question("light", "How much light does it want?", (_STOP, ("fps", "time"), ("ei",)), ("angle", "time", "number"),
             _light, ("T2.8 25fps 180 ei800", "f4 24fps 1/50 iso 400", "f4 1/50 iso 400")),
    Question("equal light", "What does another setting cost, and what makes up for it?",
             ((*_STOP, "angle", "time", "ei"), (*_STOP, "angle", "time", "ei", "number"), ("to",)), ("ei", "time", "angle", *_STOP), _equal_light,
             ("iso 800 T2.8 to T5.6", "ND for T2.8 instead of T8", "180 to 90 degrees", "ei 800 to ei 3200", "1/50 to 1/200")),
    Question("card", "How long is a card?", (("storage",),), ("megabits", "fps"), _card,
             ("1 TB at 600 Mbit/s", "how long is a 512 GB card at 400 Mbit/s")),
    Question("convert", "What is it in the other unit?", (("distance",), ("to",), ("unit",)), (), _convert,
             ("6'2\" to m", "1.88m to ft")),
)  # fmt: skip
