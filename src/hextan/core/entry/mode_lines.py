"""Scan modes from lines of a page or a menu: what each states becomes windows on the sensor, and what is recorded of them.

The words are understood in `reading`; here they meet the sensor. What a line leaves open stands in, and is said.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, field
from fractions import Fraction

from hextan.core.base import Fault, InvalidInputError, RateSet
from hextan.core.optics import class_size_mm
from hextan.core.reading import NAME_OF_RASTER, PageLine, Rate, Stated, name_of

#: A scan mode of a line without rates is recorded at these, and it is said that nobody typed them.
USUAL_RATES = ("23.976", "24", "25", "29.97", "30")
#: Letters of a line that are read together.
MOST_OF_A_LINE = 400
#: A window in millimetres this near to the sensor, as a share, is the sensor: both are rounded in print.
SAME = 0.003
#: From this rate on, an interlaced one counts fields, two to a frame: 50i is 25 frames a second.
_FIELDS = 40
#: Lines of the tallest raster that is recorded interlaced (ITU-R BT.709; BT.2020 has progressive ones alone; from memory).
MOST_INTERLACED_LINES = 1080


@dataclass
class ModeLine:
    """A scan mode, and what was understood of the line that states it."""

    line: str
    name: str = ""
    #: Its place, told in faults.
    at: str = ""
    window: tuple[int, int] | None = None
    sampling: int = 1
    method: str = "full"
    #: Rates of whole frames, and of frames of two fields, as a body keeps them.
    rates: list[str] = field(default_factory=list)
    interlaced: list[str] = field(default_factory=list)
    #: What is recorded, where the line says it.
    recorded: list[Stated] = field(default_factory=list)
    #: The crop as it is printed: its last digit is rounded.
    factor_text: str = ""
    row_us: float | None = None
    #: Whether it says no rates, so that the usual ones stand in; whether it names no window either.
    usual_rates: bool = False
    no_window: bool = False
    #: Whether the line gives it a name, and not only its figures.
    named: bool = False
    #: What stands in for something that the line does not say.
    assumed: list[str] = field(default_factory=list)
    faults: list[Fault] = field(default_factory=list)

    @property
    def sampled(self) -> tuple[int, int]:
        """Samples across and down."""
        assert self.window is not None
        return self.window[0] // self.sampling, self.window[1] // self.sampling


def split_lines(text: str) -> list[tuple[int, str]]:
    """Each line with the place of its first character; commas part them only where every part has a window of its own.

    >>> split_lines("8192 x 4320, Super 35 5952 x 3140"), split_lines("full width, 2K binned")
    ([(0, '8192 x 4320'), (13, 'Super 35 5952 x 3140')], [(0, 'full width, 2K binned')])
    """
    lines: list[tuple[int, str]] = []
    # A line without end is read in pieces, parted at white space where there is some.
    for found in re.finditer(rf"[^\n]{{1,{MOST_OF_A_LINE}}}(?=\s|$)|[^\n]{{1,{MOST_OF_A_LINE}}}", text):
        line, at = found[0], found.start()
        parts = re.split(r"(,\s)", line)
        windows = all(re.search(r"\d{3,5}\s*[x×*]\s*\d{3,5}", part) for part in parts[::2])
        for part in parts if windows else [line]:
            if part.strip(", \t"):
                lines.append((at + len(part) - len(part.lstrip()), part.strip()))
            at += len(part)
    return lines


def stated_window(line: PageLine) -> tuple[int, int] | None:
    """The window in photosites that a line states by itself.

    >>> from hextan.core.reading import read_page_line
    >>> stated_window(read_page_line("Super 35 5952 x 3140")), stated_window(read_page_line("crop 1.5x"))
    ((5952, 3140), None)
    """
    return next((stated.photosites for stated in line.formats if stated.photosites), None)


def asks_of(line: PageLine, at: str) -> list[Fault]:
    """What has to be asked about a line, each with its word."""
    return [Fault(at, word.text.strip(), word.rule) for word in line.asked]


def read_modes(
    line: PageLine, at: str, photosites: tuple[int, int], pitch_um: float | None
) -> list[ModeLine]:
    """What one line states: a mode for each window.

    Parameters
    ----------
    at : its place, told in faults
    photosites, pitch_um : the sensor's; without a pitch what is said in millimetres is a fault

    >>> from hextan.core.reading import read_page_line
    >>> [mode.window for mode in read_modes(read_page_line("S35 crop 1.5x up to 60"), "modes[0]", (6000, 4000), 6.0)]
    [(4000, 2667)]
    """
    faults = asks_of(line, at)
    modes: list[ModeLine] = []
    groups: list[list[Stated]] = []
    for stated in line.formats:
        same = next((group for group in groups if _of_window(group[0]) == _of_window(stated)), None)
        if same is None:
            groups.append([stated])
        else:
            same.append(stated)
    for group in groups:
        mode = _mode(line, group, at, photosites, pitch_um)
        mode.name = mode.name or (
            f"{line.above} {name_of(line)}".strip() if len(groups) == 1 else group[0].name
        )
        mode.named = bool(mode.name)
        if mode.window is not None and not mode.name:
            # Where a line says nothing else, its window is its name.
            mode.name = (
                "Full"
                if mode.window == photosites and mode.no_window
                else f"{mode.window[0]} x {mode.window[1]}"
            )
        modes.append(mode)
    if not modes and line.text.strip() and not line.body.said and not line.of_sensor:
        modes = [ModeLine(line.text, name=line.text)]
        if not faults:
            rule = "is not understood: write a window and rates, like S35 crop 1.5x up to 60"
            faults.append(Fault(at, line.text, rule))
    if modes:
        modes[0].faults = faults + modes[0].faults
    return modes


def _of_window(stated: Stated) -> tuple[object, ...]:
    """What of a statement says which window is read."""
    return (stated.of_class, stated.photosites, stated.size_mm, stated.factor, stated.whole, stated.open_gate,
            stated.aspect if stated.raster is None else None, stated.method, stated.step)  # fmt: skip


def _mode(
    line: PageLine, group: list[Stated], at: str, photosites: tuple[int, int], pitch_um: float | None
) -> ModeLine:
    said = group[0]
    mode = ModeLine(line.text, at=at, factor_text=said.factor_text, row_us=said.row_us)
    in_mm = (
        said.photosites is None
        and said.factor is None
        and (said.size_mm is not None or said.of_class is not None)
    )
    if in_mm and pitch_um is None:
        rule = "is told by its size: say the sensor's size or pitch as well"
        mode.faults.append(Fault(at, line.text, rule))
        return mode
    window = _window(said, mode, photosites, pitch_um or 1.0)
    for size, whole, way in zip(window, photosites, ("wide", "high"), strict=True):
        if size > whole:
            mode.faults.append(
                Fault(at, line.text, f"is {size} photosites {way}, and the sensor has {whole}")
            )
            return mode
    mode.window = window
    if said.method not in (None, "full"):
        assert said.method is not None
        mode.method = said.method
        by_pixels = 2 if said.thousands is None else max(2, round(window[0] / (said.thousands * 1024)))
        mode.sampling = said.step or by_pixels
        if said.step is None:
            mode.assumed.append(f"{mode.sampling} photosites each way for a pixel, as its size suggests")
    if said.readout_ms is not None and mode.row_us is None:
        mode.row_us = round(said.readout_ms * 1000 / (window[1] / mode.sampling), 3)
    _rates(mode, group, line, at)
    mode.recorded = [stated for stated in group if stated.recorded]
    return mode


def kept_rates(rates: Sequence[Rate]) -> tuple[list[str], list[str]]:
    """Rates of whole frames, and of frames of two fields, as a body keeps them.

    Raises
    ------
    InvalidInputError
        What is no rate.

    >>> kept_rates([Rate("23.98", "23.98"), Rate("50", "50", interlaced=True)])
    (['24000/1001'], ['25'])
    """
    frames = [rate.text for rate in rates if not rate.interlaced]
    fields = [rate.text for rate in rates if rate.interlaced]
    kept = RateSet.parse(fields).spans
    halves = [
        f"{_frames(span.low)}" if span.low == span.high else f"{_frames(span.low)}..{_frames(span.high)}"
        for span in kept
    ]
    return list(dict.fromkeys(RateSet.parse(frames).texts())), list(dict.fromkeys(halves))


def _frames(rate: Fraction) -> Fraction:
    return rate / 2 if rate > _FIELDS else rate


def _rates(mode: ModeLine, group: list[Stated], line: PageLine, at: str) -> None:
    rates = [rate for stated in group for rate in stated.rates]
    try:
        mode.rates, mode.interlaced = kept_rates(rates)
    except InvalidInputError as error:
        mode.faults.append(Fault(at, line.text, error.faults[0].rule))
    if not rates:
        mode.rates = RateSet.parse(USUAL_RATES).texts()
        mode.usual_rates = not line.asked
    if mode.usual_rates:
        mode.assumed.append("it says no rates: 23.976 to 30 stand in")


def _window(said: Stated, mode: ModeLine, photosites: tuple[int, int], pitch_um: float) -> tuple[int, int]:
    w, h = photosites
    aspect = said.aspect
    if said.photosites is not None:
        return said.photosites
    if said.size_mm is not None:
        across, down = (round(mm * 1000 / pitch_um) for mm in said.size_mm)
        near = [abs(n - whole) <= whole * SAME for n, whole in ((across, w), (down, h))]
        window = (w if near[0] else across), (h if near[1] else down)
    elif said.factor is not None:
        window = round(w / said.factor), round(h / said.factor)
    elif said.of_class is not None:
        wide, high = class_size_mm(said.of_class)
        across, down = round(wide * 1000 / pitch_um), round(high * 1000 / pitch_um)
        window = min(w, across), min(h, down)
        if window[0] < w:
            mode.assumed.append(f"a {said.of_class} window is taken as {wide:g} x {high:g} mm")
    else:
        window = photosites
        mode.no_window = not (said.whole or said.open_gate or aspect or said.method not in (None, "full"))
        if mode.no_window:
            mode.assumed.append("it names no window: the whole width stands in")
    # What is recorded in a shape is read in it.
    return window if aspect is None else _cropped(window, aspect)


def _cropped(window: tuple[int, int], aspect: float) -> tuple[int, int]:
    """The largest part of a window with this aspect, in whole photosites.

    >>> _cropped((6000, 4000), 2.4)
    (6000, 2500)
    """
    w, h = window
    shape = Fraction(aspect).limit_denominator(10_000)
    return (w, round(w / shape)) if w <= h * shape else (round(h * shape), h)


def format_words(stated: Stated) -> str:
    """What a recording is called behind the arrow.

    >>> format_words(Stated(raster=(3840, 2160), samples="4:2:2", bits=10)), format_words(Stated(raw=True, bits=12))
    ('UHD 4:2:2 10 bit', 'raw 12 bit')
    """
    raster = None
    if stated.raster is not None:
        raster = NAME_OF_RASTER.get(stated.raster, f"{stated.raster[0]} x {stated.raster[1]}")
    parts = (
        raster,
        "raw" if stated.raw else None,
        stated.samples,
        f"{stated.bits} bit" if stated.bits else None,
        stated.codec,
    )
    return " ".join(part for part in parts if part)
