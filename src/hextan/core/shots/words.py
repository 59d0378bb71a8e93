"""What a shot needs, as people say it: each cell's text is read here, and refused with what it could say instead."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Literal, TypeAlias, TypeVar

from hextan.core.base import (
    Fault,
    InvalidInputError,
    Unit,
    either_way,
    figure_of,
    parse_distance_m,
    parse_rate,
    parse_weight_kg,
)
from hextan.core.kit import FRAMINGS
from hextan.core.light import LUX_PER_FOOT_CANDLE, MOST_LUX
from hextan.core.reading import (
    MOVES,
    PLACE_WORDS,
    SIZE_LETTERS,
    SIZE_WORDS,
    SIZES_WITHOUT_FIGURE,
    SUPPORT_WORDS,
    TIME_WORDS,
    called,
)

Side: TypeAlias = Literal["width", "height"]
T = TypeVar("T")
_TO = re.compile(r"\s*(?:\.\.|–|-|\bto\b)\s*")
_NUMBER = r"(\d+(?:[.,]\d+)?)"
#: Light that a time of day stands for, lux (common practice, no source): an overcast day, a street at night.
TIMES_LUX = {"day": 10_000.0, "night": 10.0}
#: So much nearer or farther than its mark a movement goes when only its size is given.
_ABOUT = re.compile(r"(?:±|\+/-|\+-)\s*(.+)")


#: Rates that a camera can be asked for, frames a second.
_RATES = (0.1, 100_000)


class NotReadError(ValueError):
    """Text that says nothing; its message says what could stand there."""


@dataclass(frozen=True)
class Span:
    """From one figure to another; an open end is 0 or infinite."""

    low: float
    high: float

    @property
    def fixed(self) -> bool:
        """Whether it is one figure."""
        return self.low == self.high


@dataclass(frozen=True)
class Framing:
    """A field at the subject, by one of its sides, or the angle of a focal length on a window of reference."""

    side: Side = "height"
    #: None where a person's framing says it, which needs the height of the person.
    field_m: float | None = None
    person: str | None = None
    #: Focal length whose angle is wanted, on which window, and the distance at which its field is meant.
    like_mm: float | None = None
    on: str | None = None
    at_m: float | None = None


@dataclass(frozen=True)
class Hold:
    """What has to be sharp: from here to there, or so much about the subject."""

    near_m: float | None = None
    far_m: float | None = None
    about_m: float | None = None
    #: From the subject to infinity.
    deep: bool = False


@dataclass(frozen=True)
class Soft:
    """A background that has to blur: its disc as a share of the picture's width, at a distance (infinite: far away)."""

    share: float
    at_m: float


@dataclass(frozen=True)
class Stops:
    """Stops that may be set, and by which marks they are meant."""

    span: Span
    marks: Literal["T", "f"]


@dataclass(frozen=True)
class Lit:
    """The light there is, and sensitivities that may be set."""

    lux: float | None = None
    ei: Span | None = None


@dataclass(frozen=True)
class Picture:
    """What the recording has to be."""

    raw: bool | None = None
    bits: int | None = None
    full_read: bool = False
    oversampling: float | None = None
    reframe_percent: float | None = None
    levelling_deg: float | None = None
    stabiliser: bool = False
    #: Whether distortion is corrected in camera, which crops as much as the lens says.
    corrected: bool = False
    #: Whether what is recorded may be dark outside the delivered picture.
    dark_outside: bool = False
    #: Whether the production's main format does not bind this shot, and the longer edge that is enough for it.
    any_format: bool = False
    least_px: int | None = None


@dataclass(frozen=True)
class Carrier:
    """What carries the camera."""

    kind: Literal["tripod", "hand", "dolly", "gimbal", "crane", "car", ""] = ""
    limit_kg: float | None = None
    no_lens_change: bool = False


def _figure(text: str) -> float:
    """A figure with a point or a comma before its decimals; what may be thousands is asked about."""
    asked = either_way(text)
    if asked is not None:
        raise NotReadError(f"{text} {asked}")
    return figure_of(text)


def _metres(text: str, unit: Unit) -> float:
    try:
        metres = parse_distance_m(text.strip(), unit)
    except InvalidInputError as error:
        raise NotReadError(error.faults[0].rule) from None
    return _within(metres, "a distance in metres", 0.001, 100_000)


def _within(figure: float, what: str, least: float, most: float) -> float:
    """Refuse a figure that is a slip of the pen."""
    if not least <= figure <= most:
        raise NotReadError(f"{what} has to be from {least:g} to {most:,.10g}")
    return figure


def distance(text: str, unit: Unit) -> float:
    """Read one distance, metres.

    Raises
    ------
    NotReadError
        Text that is none.
    """
    return _metres(text, unit)


def distances(text: str, unit: Unit) -> Span:
    """Read a distance, or from where to where; an end may stay open.

    >>> distances("2-4 m", "m"), distances("up to 3 m", "m"), distances("6'2\\" - 9'", "ft").fixed
    (Span(low=2.0, high=4.0), Span(low=0.0, high=3.0), False)
    """
    told = text.strip()
    moved = movement(told, unit)
    if moved is not None:
        return Span(min(moved), min(moved))
    for pattern, low in ((r"(?:from|at least|>|≥)\s*(.+)", True), (r"(?:up to|at most|<|≤)\s*(.+)", False)):
        found = re.fullmatch(pattern, told, re.IGNORECASE)
        if found and not _TO.search(found[1]):
            metres = _metres(found[1], unit)
            return Span(metres, math.inf) if low else Span(0.0, metres)
    ends = _ends(told.removeprefix("from "))
    if len(ends) == 1:
        metres = _metres(ends[0], unit)
        return Span(metres, metres)
    low_m, high_m = (_metres(end, unit) for end in _with_unit(ends))
    if not low_m <= high_m:
        raise NotReadError("goes from the nearer distance to the farther one")
    return Span(low_m, high_m)


def movement(text: str, unit: Unit) -> tuple[float, float] | None:
    """From where to where a camera or a subject moves, metres; None where the text says no movement.

    A span that begins with its farther end is one, and one behind a word that moves.

    >>> [round(metres, 3) for metres in movement("dolly 60ft-20ft", "m")], movement("2-4 m", "m")
    ([18.288, 6.096], None)
    """
    plain = re.sub(rf"^(?:(?:{MOVES})\s+)+", "", text.strip(), flags=re.IGNORECASE)
    ends = [part for part in re.split(r"\s*(?:→|->|>|\.\.|–|-|\bto\b)\s*", plain) if part]
    if len(ends) != 2:
        return None
    try:
        first, last = (_metres(end, unit) for end in _with_unit(ends))
    except NotReadError:
        return None
    told = plain != text.strip() and not re.match(r"from\s", text.strip(), re.IGNORECASE)
    return (first, last) if first > last or told or "→" in text or "->" in text else None


def _ends(text: str) -> list[str]:
    """Part a span; a hyphen between a figure and its fraction parts nothing (6-1/2")."""
    parts = [part for part in _TO.split(text) if part]
    if len(parts) > 2 or not parts:
        raise NotReadError("write it like 3 m, 2-4 m or up to 5 m")
    return parts


def _with_unit(ends: list[str]) -> list[str]:
    """The unit of the second end is the first one's too: 2-4 m."""
    unit = re.search(r"[a-z'\"′″]+\s*$", ends[1], re.IGNORECASE)
    bare = re.fullmatch(r"\s*[\d.,]+\s*", ends[0])
    return [ends[0] + unit[0] if bare and unit else ends[0], ends[1]]


def framing(text: str, unit: Unit, sizes: Mapping[str, str] = MappingProxyType({})) -> Framing:
    """Read a framing.

    Parameters
    ----------
    sizes : what shorthand means in this production, in small letters; before what most people mean by it

    >>> framing("waist", "m").person, framing("1.9 m wide", "m").field_m, framing("as 35 on Super 35 at 3 m", "m").like_mm
    ('waist', 1.9, 35.0)
    """
    told = re.sub(r"\s+", " ", text.strip())
    person = _person(told, sizes)
    if person is not None:
        return Framing(person=person)
    size = called(told, SIZES_WITHOUT_FIGURE)
    if size is not None:
        raise NotReadError(f"a size of which no field follows ({size}): write how wide it is, like 6 m wide")
    found = re.fullmatch(r"(.+?) ?(wide|high|tall)", told, re.IGNORECASE)
    if found:
        side: Side = "width" if found[2].lower() == "wide" else "height"
        return Framing(side, _metres(found[1], unit))
    found = re.fullmatch(rf"(?:as|like) {_NUMBER} ?(?:mm)?(?: on (.+?))?(?: at (.+))?", told, re.IGNORECASE)
    if found:
        at = None if found[3] is None else _metres(found[3], unit)
        return Framing(
            "width",
            like_mm=_within(_figure(found[1]), "a focal length in mm", 0.5, 5000),
            on=found[2],
            at_m=at,
        )
    names = ", ".join(FRAMINGS)
    raise NotReadError(
        f"may be {names}, a width (1.9 m wide), a height (1.2 m high), or as 35 on Super 35 at 3 m"
    )


def _person(text: str, own: Mapping[str, str]) -> str | None:
    """The framing of a person that a text says, alone or before what is seen: ECU hands. None where it says none, or two."""
    alone = own.get(text.lower()) or called(text, SIZE_WORDS) or called(text, SIZE_LETTERS)
    words = text.split(" ")
    if alone is not None or len(words) < 2 or re.search(r"\d", text):
        return alone
    every = {**SIZE_WORDS, **SIZES_WITHOUT_FIGURE}
    sizes = [size for word in words if (size := own.get(word.lower()) or called(word, every))]
    heads = (" ".join(words[:n]) for n in range(len(words) - 1, 0, -1))
    before = next(
        (size for head in heads if (size := own.get(head.lower()) or called(head, SIZE_WORDS))), None
    )
    return before if before is not None and set(sizes) <= {before, "insert"} else None


def speed(text: str, base_fps: float) -> Span:
    """Read the rate of the camera: one, a ramp, or so many times slower than the base rate.

    >>> speed("4x slow", 25.0), speed("25-100", 25.0), speed("48 fps", 25.0).high
    (Span(low=100.0, high=100.0), Span(low=25.0, high=100.0), 48.0)
    """
    told = re.sub(r"\s*(?:fps|p)$", "", text.strip().lower())
    if re.fullmatch(rf"{_NUMBER}\s*i", told):
        raise NotReadError(
            "is interlaced, and shots are judged for whole frames: write half of it, like 25 for 50i"
        )
    found = re.fullmatch(rf"{_NUMBER}\s*[x×]\s*(?:slow(?:er)?)?", told)
    if found:
        fps = _within(base_fps * _figure(found[1]), "a rate", *_RATES)
        return Span(fps, fps)
    try:
        ends = [float(parse_rate(end)) for end in _TO.split(told) if end]
    except InvalidInputError:
        ends = []
    if not ends or len(ends) > 2 or ends[0] > ends[-1]:
        raise NotReadError("write it like 100, 4x slow, or 25-100 for a ramp")
    low, high = (_within(end, "a rate", *_RATES) for end in (ends[0], ends[-1]))
    return Span(low, high)


def hold(text: str, unit: Unit) -> Hold:
    """Read what has to be sharp.

    >>> hold("deep", "m").deep, hold("±30 cm", "m").about_m, hold("2.5-4 m", "m").far_m
    (True, 0.3, 4.0)
    """
    told = text.strip()
    if told.lower() == "deep":
        return Hold(deep=True)
    found = _ABOUT.fullmatch(told)
    if found:
        return Hold(about_m=_metres(found[1], unit))
    if re.search(r"(infinity|inf|∞)$", told, re.IGNORECASE):
        near = _TO.split(re.sub(r"\s*(infinity|inf|∞)$", "", told, flags=re.IGNORECASE))[0]
        return Hold(_metres(near, unit), math.inf)
    try:
        span = distances(told, unit)
    except NotReadError:
        span = Span(0.0, 0.0)
    if span.fixed or span.low <= 0 or math.isinf(span.high):
        raise NotReadError("may be deep, ±30 cm, 2.5-4 m, or 2 m to infinity")
    return Hold(span.low, span.high)


def background(text: str, unit: Unit) -> Soft:
    """Read how soft a background has to be.

    >>> background("3 % at 8 m", "m"), background("2 %", "m").at_m
    (Soft(share=0.03, at_m=8.0), inf)
    """
    found = re.fullmatch(rf"{_NUMBER}\s*%(?:\s*(?:of the width)?\s*at (.+))?", text.strip(), re.IGNORECASE)
    if found is None or not 0.01 <= _figure(found[1]) <= 100:
        raise NotReadError("says how wide a point of light is drawn: 3 % at 8 m")
    return Soft(_figure(found[1]) / 100, math.inf if found[2] is None else _metres(found[2], unit))


def stops(text: str) -> Stops:
    """Read stops that may be set.

    >>> stops("T2-T4").span, stops("f/2.8").marks, stops("up to T4").span.low
    (Span(low=2.0, high=4.0), 'f', 0.3)
    """
    told = text.strip()
    marks: Literal["T", "f"] = "f" if re.search(r"\bf/?\s*\d", told, re.IGNORECASE) else "T"
    open_low = re.match(r"(?:up to|at most|<|≤)\s*", told, re.IGNORECASE)
    open_high = re.match(r"(?:from|at least|>|≥)\s*", told, re.IGNORECASE)
    rest = told[(open_low or open_high).end() :] if open_low or open_high else told  # type: ignore[union-attr]
    ends = [re.fullmatch(rf"(?:t|f/?)?\s*{_NUMBER}", part, re.IGNORECASE) for part in _TO.split(rest) if part]
    figures = [_figure(end[1]) for end in ends if end]
    if (
        not figures
        or len(figures) != len(ends)
        or len(figures) > 2
        or not all(0.3 <= f <= 256 for f in figures)
    ):
        raise NotReadError("write it like T2.8, T2-T4 or up to T4")
    low, high = figures[0], figures[-1]
    if low > high:
        raise NotReadError("goes from the wider stop to the narrower one")
    return Stops(Span(0.3 if open_low else low, 256.0 if open_high else high), marks)


def light(text: str) -> Lit:
    """Read the light and the sensitivities that may be set.

    >>> light("200 lux, EI 400-1600").ei, light("night").lux
    (Span(low=400.0, high=1600.0), 10.0)
    """
    lux: float | None = None
    ei: Span | None = None
    for part in _parts(text):
        found = re.fullmatch(r"(?:(?:ei|iso)\s*)(?P<up>(?:up to|<|≤)\s*)?(\d+)(?:\s*(?:-|–|to)\s*(\d+))?", part, re.IGNORECASE)  # fmt: skip
        when = _time(part)
        if when is not None:
            lux = when if when > 0 else lux
        elif found:
            low, high = _figure(found[2]), _figure(found[3] or found[2])
            ei = Span(1.0 if found["up"] else low, high)
            if not 0 < low <= high:
                raise NotReadError("goes from the lower EI to the higher one")
        elif (
            amount := re.fullmatch(rf"{_NUMBER}\s*(lux|lx|fc|foot-?candles?)", part, re.IGNORECASE)
        ) and _figure(amount[1]) > 0:
            per = 1.0 if amount[2].lower() in ("lux", "lx") else LUX_PER_FOOT_CANDLE
            lux = _within(_figure(amount[1]) * per, "light in lux", 1e-6, MOST_LUX)
        else:
            raise NotReadError(
                "may be day, night, 200 lux, 20 fc, EI 800, EI 400-1600, or two of them with a comma"
            )
    return Lit(lux, ei)


def _time(text: str) -> float | None:
    """Lux that a time of day stands for, as lists write it; 0 where it says where, and so nothing of the light.

    >>> _time("EXT N"), _time("night"), _time("INT D"), _time("A/N"), _time("200")
    (10.0, 10.0, 0.0, 10.0, None)
    """
    words = [word for word in re.split(r"[\s/,.]+", text.strip()) if word]
    places = [called(word, PLACE_WORDS) for word in words]
    times = [called(word, TIME_WORDS) for word in words]
    if not words or any(place is None and time is None for place, time in zip(places, times, strict=True)):
        return None
    if "inside" in places:
        return 0.0
    when = next((time for place, time in zip(places, times, strict=True) if time and place is None), None)
    return TIMES_LUX[when] if when else 0.0


def lamps(text: str) -> float:
    """Read how often a second the lamps brighten: mains of 50 or 60 Hz, or pulses.

    >>> lamps("50 Hz"), lamps("pulsed 400 Hz")
    (100.0, 400.0)
    """
    found = re.fullmatch(rf"(pulsed\s*)?{_NUMBER}\s*(?:hz)?(?:\s*mains)?", text.strip(), re.IGNORECASE)
    hz = _figure(found[2]) if found else 0.0
    if not 1 <= hz <= 1_000_000:
        raise NotReadError("write it like 50 Hz for lamps on the mains, or pulsed 400 Hz")
    return hz if found and found[1] else 2 * hz


def picture(text: str) -> Picture:
    """Read what the recording has to be.

    >>> picture("raw, 12 bit, re-frame 20 %").reframe_percent, picture("not raw, stabiliser").raw
    (20.0, False)
    """
    said: dict[str, object] = {}
    for part in _parts(text):
        name, value = _picture_word(part)
        said[name] = value
    return Picture(**said)  # type: ignore[arg-type]


#: What may be said of a recording: the pattern, the field, and its value.
_PICTURE: tuple[tuple[str, str, Callable[[str], object]], ...] = (
    (r"raw", "raw", lambda _: True),
    (r"(?:not|no) raw", "raw", lambda _: False),
    (rf"{_NUMBER}[ -]?bits?", "bits", lambda n: int(_within(_figure(n), "a number of bits", 1, 32))),
    (r"no binning|no binned read|every photosite|full read", "full_read", lambda _: True),
    (r"photosite for pixel|1:1|oversampled", "oversampling", lambda _: 1.0),
    (
        rf"{_NUMBER} samples",
        "oversampling",
        lambda n: _within(_figure(n), "samples for each pixel", 0.1, 100),
    ),
    (
        rf"re-?fram(?:e|ing) {_NUMBER} ?%",
        "reframe_percent",
        lambda n: _within(_figure(n), "what is left to re-frame, in per cent,", 0.1, 1000),
    ),
    (
        rf"level(?:ling)? {_NUMBER} ?(?:°|deg)?",
        "levelling_deg",
        lambda n: _within(_figure(n), "levelling in degrees", 0.01, 45),
    ),
    (r"stabili[sz]ed?r?|steady", "stabiliser", lambda _: True),
    (r"(?:lens )?correct(?:ion|ed)(?: in camera)?", "corrected", lambda _: True),
    (r"dark outside(?: the picture)?(?: only)?", "dark_outside", lambda _: True),
    (r"any (?:recording )?format|off the main format", "any_format", lambda _: True),
    (
        rf"(?:from|down to) {_NUMBER} ?(?:px|pixels?)(?: wide)?",
        "least_px",
        lambda n: int(_within(_figure(n), "pixels along the longer edge", 16, 100_000)),
    ),
)


def _picture_word(part: str) -> tuple[str, object]:
    for pattern, name, value in _PICTURE:
        found = re.fullmatch(pattern, part, re.IGNORECASE)
        if found:
            return name, value(found[1] if found.groups() else "")
    raise NotReadError(
        f"“{part}” is not understood: may be raw, not raw, 12 bit, no binning, 1:1, 1.3 samples, re-frame 20 %, "
        "level 3°, stabiliser, lens correction, dark outside, any format, from 1920 px"
    )


def _carries(text: str) -> float:
    try:
        return _within(parse_weight_kg(text), "what it carries, in kg,", 0.01, 10_000)
    except InvalidInputError as error:
        raise NotReadError(error.faults[0].rule) from None


def rig(text: str) -> Carrier:
    """Read what carries the camera.

    >>> rig("gimbal 4.5 kg").limit_kg, rig("hand, no lens change").no_lens_change
    (4.5, True)
    """
    kind, limit, held = "", None, False
    for part in _parts(text):
        found = re.fullmatch(
            r"(\D+?)(?:\s+([\d.,]+ ?(?:kg|g|lbs?|pounds?)(?: \d+ ?oz)?))?",
            part,
            re.IGNORECASE,
        )
        support = called(found[1], SUPPORT_WORDS) if found else None
        if found and support is not None:
            kind, limit = support, _carries(found[2]) if found[2] else limit
        elif re.fullmatch(r"no lens changes?", part, re.IGNORECASE):
            held = True
        else:
            raise NotReadError("may be tripod, hand, car, crane 8 kg, gimbal 10 lb, no lens change")
    return Carrier(kind, limit, held)  # type: ignore[arg-type]


@dataclass(frozen=True)
class Glass:
    """The lens that is asked for: a focal length that it has, and both ends where it has to be a zoom."""

    focal_mm: float | None = None
    zoom_mm: tuple[float, float] | None = None


def glass(text: str) -> Glass:
    """Read which lens is asked for.

    >>> glass("35"), glass("24-70 at 35").zoom_mm, glass("about 50").focal_mm, glass("100 macro").focal_mm
    (Glass(focal_mm=35.0, zoom_mm=None), (24.0, 70.0), 50.0, 100.0)
    """
    told = re.sub(
        r"\b(?:about|approx\.?|ca\.?|macro|prime|zoom|lens|mm)\b|(?<=\d)\s*mm\b",
        " ",
        text.strip(),
        flags=re.IGNORECASE,
    )
    told = re.sub(r"\s+", " ", told).strip()
    found = re.fullmatch(rf"{_NUMBER}(?:\s*(?:-|–)\s*{_NUMBER})?(?:\s*(?:at|@)\s*{_NUMBER})?", told)
    if found is None:
        raise NotReadError(
            "may be a focal length (35), a zoom (24-70), a zoom set to one (24-70 at 35), or the name of a lens"
        )
    first, long, at = (
        None if part is None else _within(_figure(part), "a focal length in mm", 0.5, 5000)
        for part in found.groups()
    )
    if long is None:
        return Glass(first)
    if not first or not first < long:
        raise NotReadError("goes from the shorter focal length to the longer one")
    return Glass(at, (first, long))


def look(text: str) -> float:
    """Read the squeeze that the lens has to have.

    >>> look("spherical"), look("2x")
    (1.0, 2.0)
    """
    told = text.strip().lower()
    found = re.fullmatch(rf"{_NUMBER}\s*[x×](?:\s*(?:scope|anamorphic))?", told)
    if told == "spherical":
        return 1.0
    if found is None or not 0.5 <= _figure(found[1]) <= 4:
        raise NotReadError("may be spherical, 1.5x or 2x")
    return _figure(found[1])


def _parts(text: str) -> list[str]:
    # A comma between digits is a decimal one: 0,5 fc.
    parts = [re.sub(r"\s+", " ", part.strip()) for part in re.split(r";|(?<!\d),|,(?!\d)", text)]
    return [part for part in parts if part]


def read(field: str, text: str, reader: Callable[[str], T], faults: list[Fault]) -> T | None:
    """Read a cell: None where it is empty, or where it cannot be read, which is then among the faults."""
    if not text.strip():
        return None
    try:
        return reader(text)
    except NotReadError as error:
        faults.append(Fault(field, text, str(error)))
        return None
