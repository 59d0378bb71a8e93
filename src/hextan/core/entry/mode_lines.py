"""Scan modes from lines in the words of a camera's menu: `S35 crop 1.5x up to 60`, `6K 6144x3240 24 25`.

A line may say, in any order: a window (photosites, millimetres, a crop factor, a class, the whole width), an aspect
that crops it, how it is sampled, and the rates that the menu offers. What it says is kept as its name.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, field
from fractions import Fraction

from hextan.core.base import Fault, InvalidInputError, RateSet, either_way
from hextan.core.entry.figures import CLASS_WORDS
from hextan.core.entry.sensor import NOMINAL
from hextan.core.optics import FormatClass

#: A scan mode of a line without rates is recorded at these, and it is said that nobody typed them.
USUAL_RATES = ("23.976", "24", "25", "29.97", "30")
#: A window in millimetres this near to the sensor, as a share, is the sensor: both are rounded in print.
SAME = 0.003
_N = r"\d+(?:[.,]\d+)?"
#: A crop factor: below ten, so that it is no window.
_FACTOR = r"\d(?:[.,]\d+)?(?!\d)"
_TIMES = r"\s*[x×*]\s*"


@dataclass
class ModeLine:
    """A line, and what was understood of it."""

    line: str
    name: str = ""
    window: tuple[int, int] | None = None
    sampling: int = 1
    method: str = "full"
    rates: list[str] = field(default_factory=list)
    interlaced: bool = False
    #: Whether it says no rates, so that the usual ones stand in.
    usual_rates: bool = False
    #: What stands in for something that the line does not say.
    assumed: list[str] = field(default_factory=list)
    faults: list[Fault] = field(default_factory=list)


@dataclass
class _Said:
    """What a line says, before the sensor is asked."""

    px: tuple[int, int] | None = None
    mm: tuple[float, float] | None = None
    factor: float | None = None
    of_class: FormatClass | None = None
    whole: bool = False
    aspect: float | None = None
    #: The thousands of pixels that binning leaves, and how many photosites go into one.
    thousands: float | None = None
    step: int | None = None
    method: str = "full"
    rates: list[str] = field(default_factory=list)
    interlaced: bool = False
    #: What has to be asked about.
    asked: list[str] = field(default_factory=list)

    def rate(self, found: re.Match[str], text: str) -> None:
        told = text.replace(",", ".")
        either = [ask for number in found.groups() if (ask := either_way(number or ""))]
        self.asked += either
        if told not in self.rates and not either:
            self.rates.append(told)
        self.interlaced |= (found[found.re.groups] or "").lower() == "i"


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def _sampled(said: _Said, found: re.Match[str]) -> None:
    said.thousands = _number(found[1]) if found[1] else None
    said.method = "binned" if found[2].lower() == "binned" else "skipped"
    said.step = int(found[3]) if found[3] else None


def _of_class(name: FormatClass) -> Callable[[_Said, re.Match[str]], None]:
    return lambda said, found: setattr(said, "of_class", name)


_UNIT = r"\s*(?:fps\b|(p|i)\b)?"
#: What a line may say, a row each: how it is written (tried in this order, each as often as it stands there), what it
#: sets, and whether it is left out of the name.
PHRASES: tuple[tuple[str, Callable[[_Said, re.Match[str]], None], bool], ...] = (
    (rf"\b(?:up\s*to|max\.?)\s*({_N}){_UNIT}", lambda s, m: s.rate(m, f"1-{m[1]}"), True),
    (rf"(?<![\d.,/])({_N})\s*(?:-|–|\.\.|to)\s*({_N}){_UNIT}(?![\d.,]*{_TIMES}\d)",
     lambda s, m: s.rate(m, f"{m[1]}-{m[2]}"), True),
    (rf"\bcrop\s*(?:factor\s*)?[x×]?\s*({_FACTOR})\s*[x×]?", lambda s, m: setattr(s, "factor", _number(m[1])), False),
    (rf"(?<![\d.,])({_FACTOR})\s*[x×]\s*crop\b", lambda s, m: setattr(s, "factor", _number(m[1])), False),
    (rf"(?:(?<![\d.,])({_N})\s*k\s*)?\b(binned|line[\s-]*skipp(?:ed|ing)|skipped)\b(?:\s*[x×]?\s*([2-9])(?!\d)\s*[x×]?)?",
     _sampled, False),
    (rf"(?<![\d.,])(\d{{3,5}}){_TIMES}(\d{{3,5}})(?:\s*(?:px|pixels|photosites)\b)?",
     lambda s, m: setattr(s, "px", (int(m[1]), int(m[2]))), True),
    (rf"(?<![\d.,])({_N}){_TIMES}({_N})(?:\s*mm\b)?",
     lambda s, m: setattr(s, "mm", (_number(m[1]), _number(m[2]))), True),
    (rf"(?<![\d.,:])({_N})\s*:\s*({_N})", lambda s, m: setattr(s, "aspect", _number(m[1]) / _number(m[2])), False),
    (r"(?<![\d.,])([123][.,]\d{1,3})(?!\d|[.,]\d|\s*k\b)",
     lambda s, m: setattr(s, "aspect", _number(m[1])), False),
    *((pattern, _of_class(name), False) for name, pattern in CLASS_WORDS.items()),
    (r"\b(?:full|whole|open\s*gate)(?:\s*(?:width|sensor|window|area|height))?\b", lambda s, m: setattr(s, "whole", True), False),
    (r"\binterlaced\b", lambda s, m: setattr(s, "interlaced", True), True),
    (rf"(?<![\d.,])(?:{_N})\s*k\b", lambda s, m: None, False),
    (rf"(?<![\w.,])({_N}){_UNIT}", lambda s, m: s.rate(m, m[1]), True),
)  # fmt: skip
_COMPILED = [(re.compile(pattern, re.IGNORECASE), act, left_out) for pattern, act, left_out in PHRASES]


def split_lines(text: str) -> list[str]:
    """One line for each scan mode; commas part them only where every part has a window of its own.

    >>> split_lines("8192 x 4320, Super 35 5952 x 3140"), split_lines("full width, 2K binned")
    (['8192 x 4320', 'Super 35 5952 x 3140'], ['full width, 2K binned'])
    """
    lines: list[str] = []
    for line in re.split(r"[\n;]", text):
        parts = re.split(r",\s", line)
        lines += parts if all(re.search(rf"\d{{3,5}}{_TIMES}\d{{3,5}}", part) for part in parts) else [line]
    return [line.strip() for line in lines if line.strip()]


def _understood(line: str) -> tuple[_Said, str]:
    """What a line says, and what of it makes its name."""
    said, rest = _Said(), line
    name = line
    for pattern, act, left_out in _COMPILED:
        for found in pattern.finditer(rest):
            if any(re.fullmatch(_N, part or "") and _number(part) == 0 for part in found.groups()):
                said.asked.append(f"{found[0].strip()} cannot be: every figure is above zero")
            else:
                act(said, found)
            if left_out:
                name = name.replace(found[0].strip(), " ", 1)
        # What was understood is not read again as something else.
        rest = pattern.sub(lambda found: "\0" * len(found[0]), rest)
    told = re.sub(r"[\s,/|]+$|^[\s,/|]+", "", re.sub(r"\s{2,}|\s+(?=,)", " ", name))
    return said, told


def stated_window(line: str) -> tuple[int, int] | None:
    """The window in photosites that a line states by itself.

    >>> stated_window("Super 35 5952 x 3140"), stated_window("crop 1.5x")
    ((5952, 3140), None)
    """
    return _understood(line)[0].px


def read_mode(line: str, at: str, photosites: tuple[int, int], pitch_um: float | None) -> ModeLine:
    """Understand one line.

    Parameters
    ----------
    at : its place, told in faults
    photosites, pitch_um : the sensor's; without a pitch what is said in millimetres is a fault

    >>> read_mode("S35 crop 1.5x up to 60", "modes[0]", (6000, 4000), 6.0).window
    (4000, 2667)
    """
    said, name = _understood(line)
    mode = ModeLine(line, name=name, interlaced=said.interlaced)
    mode.faults += [Fault(at, line, asked) for asked in said.asked]
    in_mm = said.px is None and said.factor is None and (said.mm is not None or said.of_class is not None)
    if in_mm and pitch_um is None:
        mode.faults.append(Fault(at, line, "is told by its size: say the sensor's size or pitch as well"))
        return mode
    window = _window(said, mode, photosites, pitch_um or 1.0)
    if window is None:
        rule = "says no window: write it like 6144x3240, crop 1.5x, S35 or full width"
        mode.faults.append(Fault(at, line, rule))
        return mode
    for size, whole, way in zip(window, photosites, ("wide", "high"), strict=True):
        if size > whole:
            mode.faults.append(Fault(at, line, f"is {size} photosites {way}, and the sensor has {whole}"))
            return mode
    mode.window = window
    mode.method = said.method
    if said.method != "full":
        by_pixels = 2 if said.thousands is None else max(2, round(window[0] / (said.thousands * 1024)))
        mode.sampling = said.step or by_pixels
        if said.step is None:
            mode.assumed.append(f"{mode.sampling} photosites each way for a pixel, as its size suggests")
    try:
        mode.rates = RateSet.parse(said.rates or USUAL_RATES).texts()
    except InvalidInputError as error:
        mode.faults.append(Fault(at, line, error.faults[0].rule))
    mode.usual_rates = not said.rates and not said.asked
    if mode.usual_rates:
        mode.assumed.append("it says no rates: 23.976 to 30 stand in")
    # Where a line says nothing else, its window is its name.
    if not mode.name:
        mode.name = f"{window[0]} x {window[1]}"
    return mode


def _window(
    said: _Said, mode: ModeLine, photosites: tuple[int, int], pitch_um: float
) -> tuple[int, int] | None:
    w, h = photosites
    if said.px is not None:
        window = said.px
    elif said.mm is not None:
        across, down = (round(mm * 1000 / pitch_um) for mm in said.mm)
        near = [abs(n - whole) <= whole * SAME for n, whole in ((across, w), (down, h))]
        window = (w if near[0] else across), (h if near[1] else down)
    elif said.factor is not None:
        window = round(w / said.factor), round(h / said.factor)
    elif said.of_class is not None:
        wide, high = NOMINAL[said.of_class]
        across, down = round(wide * 1000 / pitch_um), round(high * 1000 / pitch_um)
        window = min(w, across), min(h, down)
        if window[0] < w:
            mode.assumed.append(f"a {said.of_class} window is taken as {wide:g} x {high:g} mm")
    elif said.whole or said.aspect is not None or said.method != "full":
        window = photosites
    else:
        return None
    return window if said.aspect is None or said.px is not None else _cropped(window, said.aspect)


def _cropped(window: tuple[int, int], aspect: float) -> tuple[int, int]:
    """The largest part of a window with this aspect, in whole photosites.

    >>> _cropped((6000, 4000), 2.4)
    (6000, 2500)
    """
    w, h = window
    shape = Fraction(aspect).limit_denominator(10_000)
    return (w, round(w / shape)) if w <= h * shape else (round(h * shape), h)
