"""A line about lenses is understood: which lenses it names, and what it says of each and of all of them.

An aperture belongs to the focal lengths before it back to the last aperture, or to those behind it where the line
begins with one. What is said once and stands last is said of all.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any

from hextan.core.base import InvalidInputError, parse_distance_m, parse_weight_kg
from hextan.core.optics import FormatClass
from hextan.core.reading.lexicon import CLASSES
from hextan.core.reading.scan import (
    FILLER,
    NUMBER,
    SIGN,
    SPACE,
    UNKNOWN,
    N,
    NotOneError,
    Option,
    Phrase,
    Read,
    Scanner,
    Word,
    number,
)

#: Apertures and focal lengths beyond which a figure is a slip of the pen.
_APERTURES, _FOCALS = (0.5, 64.0), (2.9, 3000.0)
#: A bare figure in millimetres behind what is said of a lens is the diameter of its front, from this on.
_LEAST_FRONT_MM = 60.0
_FACTOR = r"\d(?:[.,]\d+)?"
_TO = r"\s*(?:-|–|—|\bto\b)\s*"
#: Between the apertures of a zoom's ends: a spaced dash is one between words.
_TO_STOP = r"(?:-|–|\s*\bto\b\s*)"
_METRES = rf"{N}\s*(?:m|cm|metres?|meters?)"
_FEET = rf"{N}\s*(?:'|′|’|ft|feet)(?:\s*{N}\s*(?:\"|″|”|''|in|inch(?:es)?)?)?|{N}\s*(?:\"|″|”|''|in\b|inch(?:es)?)"


def _within(figure: float, span: tuple[float, float], rule: str) -> float:
    if not span[0] <= figure <= span[1]:
        raise NotOneError(rule)
    return figure


def _stop(low: str, high: str | None) -> tuple[float, float | None]:
    rule = "is no aperture that a lens has: write it like T1.5 or f2.8"
    first = _within(number(low), _APERTURES, rule)
    return first, None if high is None else _within(number(high), _APERTURES, rule)


def _zoom(found: re.Match[str]) -> tuple[float, float]:
    return number(found[1]), number(found[2])


def _focals(found: re.Match[str]) -> list[float]:
    figures = [
        number(part) for part in re.split(r"\s*[/,]\s*", re.sub(r"\s*mm$", "", found[0], flags=re.IGNORECASE))
    ]
    if not all(_FOCALS[0] <= focal <= _FOCALS[1] for focal in figures):
        raise NotOneError("are not all focal lengths")
    return figures


def _metres(text: str) -> float:
    try:
        return round(parse_distance_m(text), 6)
    except InvalidInputError as error:
        raise NotOneError(error.faults[0].rule) from None


def _kilograms(text: str) -> float:
    try:
        return round(parse_weight_kg(text), 3)
    except InvalidInputError as error:
        raise NotOneError(error.faults[0].rule) from None


#: The words of a list of lenses, in the order in which they are tried.
LENSES: tuple[Phrase, ...] = (
    *CLASSES,
    # A slower end of a zoom, told in brackets: T2 (T2.8 at 30).
    Phrase("long_t", rf"\(\s*t\s*/?\s*({N})\s*at\s*{N}\s*(?:mm)?\s*\)", lambda m: number(m[1])),
    Phrase("t_or", rf"t\s*/?\s*({N}){_TO}t\s*/?\s*({N})", lambda m: (number(m[1]), number(m[2]))),
    Phrase("t", rf"t\s*[/.]?\s*({N})(?:{_TO_STOP}({N}))?(?!\s*mm)", lambda m: _stop(m[1], m[2])),
    Phrase("f", rf"f\s*[/.]?\s*({N})(?:{_TO_STOP}({N}))?(?!\s*mm)", lambda m: _stop(m[1], m[2])),
    Phrase("f", rf"1\s*:\s*([1-9]\d*[.,]\d+|[2-9]|[1-4]\d)(?:{_TO_STOP}({N}))?(?=\s|$|,|;)", lambda m: _stop(m[1], m[2])),
    Phrase("list", rf"{N}(?:\s*/\s*{N}){{2,}}(?:\s*mm)?|\d{{1,3}}(?:,\d{{1,3}}){{2,}}(?:\s*mm)?", _focals),
    # 50/1.4 and 1.4/50: the aperture is the one below three.
    Phrase("fast_zoom", rf"({N})/({N})\s*-\s*({N})(?=\s|$|,|;)", lambda m: (number(m[1]), number(m[2]), number(m[3]))),
    Phrase("both", rf"({N})/({N})(?=\s|$|,|;)", lambda m: _both(number(m[1]), number(m[2]))),
    Phrase("circle", rf"(?:image\s*)?circle\s*:?\s*(?:of\s*)?({N})(?:\s*mm)?(?:\s*\([^()]*\))?", lambda m: number(m[1])),
    Phrase("circle", rf"({N})\s*mm\s*(?:image\s*)?circle", lambda m: number(m[1])),
    Phrase("circle", rf"(?:covers|coverage|ø|cir\.?|c\.?)\s*:?\s*({N})(?:\s*mm)?", lambda m: number(m[1])),
    Phrase("covers", r"covers|coverage"),
    Phrase("or", r"or"),
    Phrase("span", rf"from\s+({N})\s*(?:mm)?\s*(?:to|-|–|thru|through)\s*({N})|({N})\s*(?:thru|through|till|bis)\s*({N})"),
    Phrase("close", rf"(?:close(?:st)?(?:\s*focus)?|min(?:imum|\.)?\s*(?:focus|distance)|cf|mod|mfd|nearest)\s*:?\s*({_METRES}|{_FEET})", lambda m: _metres(m[1])),
    Phrase("close", rf"({_FEET})", lambda m: _metres(m[1])),
    Phrase("close", rf"({_METRES})", lambda m: _metres(m[1])),
    Phrase("front", rf"front\s*(?:diameter)?\s*:?\s*({N})(?:\s*mm)?|({N})\s*mm\s*front", lambda m: number(m[1] or m[2])),
    Phrase("weight", rf"(?:weight|weighs)?\s*:?\s*({N}\s*(?:kg|kilos?|g|grams?|lbs?|pounds?|oz))(?:\s*each)?", lambda m: _kilograms(m[1])),
    Phrase("squeeze", rf"(?:squeeze|anamorphic|ana)\s*:?\s*({_FACTOR})\s*[x×]?(?!\s*\d)", lambda m: number(m[1])),
    Phrase("squeeze", rf"({_FACTOR})\s*[x×](?:\s*(?:anamorphic|ana|squeeze|scope))", lambda m: number(m[1])),
    Phrase("count", rf"(\d)\s*[x×]\s*(?={N}(?:{_TO}{N})?\s*(?:mm\s*)?[tf]\s*/?\s*\d)", lambda m: int(m[1]), True),
    Phrase("squeeze", rf"({_FACTOR})\s*[x×](?!\s*\d)", lambda m: number(m[1])),
    Phrase("crop", rf"crop\s*(?:factor\s*)?[x×]?\s*{_FACTOR}\s*[x×]?"),
    Phrase("nothing", r"1\s*:\s*1|s/n\s*[\w-]+|(?:serial|no\.?|nr\.?)\s*[\w-]*\d[\w-]*"),
    Phrase("nothing", r"(?:returned|back|due|until|from)?\s*(?:\d{1,2}\.?\s*(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*|\d{4}-\d\d-\d\d)"),
    Phrase("storage", r"\d+\s*tb\s*cards?"),
    Phrase("mount", r"([\w]{1,12})[\s-]mount", lambda m: m[1]),
    Phrase("mount", r"mount\s*:?\s*([\w]{1,12})", lambda m: m[1]),
    Phrase("adapter", r"(?:\+\s*)?adapter(?:\s+[A-Za-z]\w*\s+to\s+\w+)?"),
    # What is no word of ours is no mount either: a letter or more and digits, in capitals.
    Phrase("mount", r"(?-i:([A-EG-SU-Z][A-Z]{0,2}\d{1,3}))", lambda m: m[1]),
    Phrase("zoom", rf"({N})\s*(?:mm)?{_TO}({N})\s*(?:mm)?(?!\s*[x×])", _zoom),
    Phrase("focal", rf"({N})\s*mm(?!\s*(?:format|film|image))", lambda m: number(m[1])),
    Phrase("film", rf"({N})\s*mm\s*(?:format|film)"),
    Phrase("set_of", r"\d+\s+(?:primes|lenses|zooms)|set\s+of\s+(?:\d+|two|three|four|five|six|seven|eight|nine|ten|twelve)"),
    Phrase("group", r"(?:all|each)"),
    Phrase("filler", r"(?:primes?|zooms?|lens(?:es)?|for|and|with|at|mm|of|the|we\s+have|spherical|anamorphic|macro|tele|fisheye|rehoused|vintage|"
                     r"wide|mount|focal\s+lengths?|focus|set)"),
)  # fmt: skip
_scan = Scanner(LENSES)


def _both(a: float, b: float) -> tuple[float, float]:
    """Focal length and f-number of two figures with a stroke between them.

    Raises
    ------
    NotOneError
        Where either could be either.
    """
    low, high = sorted((a, b))
    if not (low < 8 and high >= 8 and high / low >= 3):
        raise NotOneError(
            "may be two focal lengths, or a focal length and an aperture: write 50 f1.4, or 50, 85"
        )
    return high, low


@dataclass
class LensSaid:
    """What a line says of one lens."""

    focal_mm: float
    long_mm: float | None = None
    t_stop: float | None = None
    t_long: float | None = None
    f_number: float | None = None
    f_long: float | None = None
    of_class: FormatClass | None = None
    circle_mm: float | None = None
    mount: str | None = None
    close_m: float | None = None
    weight_kg: float | None = None
    front_mm: float | None = None
    squeeze: float | None = None
    name: str = ""


@dataclass
class LensLineRead(Read):
    """A line, all its words, and the lenses that it names."""

    lenses: list[LensSaid] = field(default_factory=list)


#: So many words of a line are looked back at.
MOST_BEFORE = 60
#: A line goes on behind so many words as another one.
MOST_IN_LINE = 400
#: Kinds that name lenses.
_FOCAL = ("focal", "zoom", "both", "list", "fast_zoom")
#: What a kind of word sets of a lens.
_SETS = {"class": "of_class", "circle": "circle_mm", "mount": "mount", "close": "close_m", "weight": "weight_kg",
         "front": "front_mm", "squeeze": "squeeze"}  # fmt: skip


def read_lens_words(text: str, mounts: Sequence[str] = ()) -> LensLineRead:
    """Understand a line, or several.

    Parameters
    ----------
    mounts : those of the production: their names are understood whatever they look like

    >>> [(lens.focal_mm, lens.f_number) for lens in read_lens_words("28 f2.0 55 f1.8 full frame E18").lenses]
    [(28.0, 2.0), (55.0, 1.8)]
    """
    words = _settled(_scan_lines(text), {mount.lower() for mount in mounts})
    read = LensLineRead(text, words)
    name, of_all, named = "", dict[str, Any](), set[int]()
    for line in _lines(words):
        told, began = _line(line)
        # A line that names no lens says it of those below it.
        name = began or name
        lenses, shared = told
        for lens in lenses:
            for key, value in {**of_all, **shared}.items():
                if getattr(lens, key) is None:
                    setattr(lens, key, value)
            lens.name = lens.name or name
        if not lenses:
            of_all |= shared
        read.lenses += lenses
        named |= {word.start for word in line if word.kind == "name"}
    read.words = [w._replace(kind="name", value=w.text) if w.start in named else w for w in words]
    return read


def _scan_lines(text: str) -> list[Word]:
    """The words of all lines: none goes on from one line to the next."""
    words: list[Word] = []
    for found in re.finditer(r"\n|[^\n]+", text):
        start = found.start()
        words += [w._replace(start=start + w.start, end=start + w.end) for w in _scan(found[0])]
    return words


def _lines(words: list[Word]) -> list[list[Word]]:
    """The words of each line; a full stop or a semicolon ends one as well."""
    lines: list[list[Word]] = [[]]
    for word in words:
        if (
            (word.kind == SPACE and "\n" in word.text)
            or (word.kind == SIGN and word.text in ".;")
            or len(lines[-1]) >= MOST_IN_LINE
        ):
            lines.append([])
        else:
            lines[-1].append(word)
    return [line for line in lines if any(word.kind != SPACE for word in line)]


def _settled(words: list[Word], mounts: set[str]) -> list[Word]:
    """Words whose neighbours say what they are, and those that have to be asked about."""
    whole: list[Word] = []
    # What stood in the line so far; of a line without end the last words alone.
    line: list[Word] = []
    for word in words:
        settle = _SETTLES.get(word.kind)
        if word.kind in (UNKNOWN, FILLER) and word.text.lower() in mounts:
            settled = word._replace(kind="mount", value=word.text)
        else:
            settled = word if settle is None else settle(word, line)
        whole.append(settled)
        line = [] if "\n" in word.text else [*line[-MOST_BEFORE:], settled]
    return _lone(whole)


def _settle_unknown(word: Word, before: list[Word]) -> Word:
    if re.fullmatch(r"[A-Z]{1,2}\d{1,3}[a-z]", word.text):
        return word.ask(f"{word.text}: a mount, or part of a name?",
                        Option("a mount", f"mount {word.text}"), Option("nothing", ""))  # fmt: skip
    if re.fullmatch(r"[A-Z]{2}", word.text) and _after_class(before):
        return word._replace(kind="mount", value=word.text)
    return word


def _settle_class(word: Word, before: list[Word]) -> Word:
    """65 mm before an aperture is a lens."""
    lens = word.value == "65 mm" and re.fullmatch(r"65\s*mm", word.text, re.IGNORECASE)
    if lens and not any(w.kind in ("t", "f") for w in before):
        return word._replace(kind="focal", value=65.0)
    return word


def _settle_stops(word: Word, before: list[Word]) -> Word:
    options = (Option(f"T{stop:g}", f"T{stop:g}") for stop in word.value)
    return word._replace(kind=UNKNOWN).ask(f"{word.text}: which of them?", *options)


def _settle_zoom(word: Word, before: list[Word]) -> Word:
    short, long = word.value
    if short < long:
        return word
    return word._replace(kind=UNKNOWN).ask(
        f"{word.text}: a zoom begins with its short end",
        Option(f"a zoom of {long:g}-{short:g} mm", f"{long:g}-{short:g}"),
        Option(f"two lenses, {short:g} and {long:g} mm", f"{short:g} {long:g}"),
    )


def _settle_film(word: Word, before: list[Word]) -> Word:
    classes = (Option("Super 35", "Super 35"), Option("full frame", "full frame"))
    return word._replace(kind=UNKNOWN).ask(f"{word.text}: Super 35, or full frame?", *classes)


def _settle_focal(word: Word, before: list[Word]) -> Word:
    if word.value < _FOCALS[0]:
        return word._replace(kind=UNKNOWN, asked="is no focal length")
    if word.value >= _LEAST_FRONT_MM and _said_of_a_lens(before):
        return word._replace(kind="front")
    told = [w for w in before if w.kind != SPACE]
    if (
        told
        and told[-1].kind in ("t", "f")
        and any(w.kind == "focal" and "mm" in w.text.lower() for w in told)
    ):
        return word._replace(kind=UNKNOWN).ask(
            f"{word.text}: an image circle, a front, or another lens?",
            Option("an image circle", f"circle {word.value:g}"),
            Option("a front", f"front {word.value:g}"),
            Option("another lens", f", {word.value:g}"),
        )
    return word


def _settle_number(word: Word, before: list[Word]) -> Word:
    """A bare number is a focal length, if there is one of that length; behind "covers" it is a circle."""
    told = [w for w in before if w.kind != SPACE]
    if any(w.kind == "covers" for w in told[-2:]):
        return word._replace(kind="circle")
    if (
        told
        and told[-1].kind == UNKNOWN
        and not told[-1].asked
        and told[-1].text[:1].islower()
        and any(w.kind in _FOCAL for w in told)
    ):
        return word._replace(kind=UNKNOWN, asked=f"is {word.text} a lens? The word before it is in no list")
    if _FOCALS[0] <= word.value <= _FOCALS[1]:
        return word._replace(kind="focal")
    more = ": an aperture has T or f before it" if word.value < _FOCALS[0] else ""
    return word._replace(kind=UNKNOWN, asked=f"is no focal length{more}")


def _settle_class_after(word: Word, before: list[Word]) -> Word:
    """A class behind another one and a stroke is one of two: which, has to be asked."""
    told = [w for w in before if w.kind != SPACE]
    if (
        len(told) > 1
        and told[-1].text.lower() in ("/", "or")
        and told[-2].kind == "class"
        and told[-2].value != word.value
    ):
        return word._replace(kind=UNKNOWN).ask(
            f"{told[-2].text}/{word.text}: for which of them are they made?",
            Option(f"{told[-2].value} alone", ""),
        )
    return _settle_class(word, before)


def _settle_count(word: Word, before: list[Word]) -> Word:
    """2x 100 are two of them; 2x100 may be one with a squeeze."""
    if word.text[-1:].isspace():
        return word
    return word._replace(kind=UNKNOWN).ask(
        f"{word.text}: so many lenses, or a squeeze?",
        Option(f"{word.value} lenses", f"{word.value}x "),
        Option(f"a squeeze of {word.value}", f"squeeze {word.value} "),
    )


def _settle_or(word: Word, before: list[Word]) -> Word:
    return word._replace(
        kind=UNKNOWN, asked="leaves open which of them: write the one that is meant, or both with a comma"
    )


def _settle_span(word: Word, before: list[Word]) -> Word:
    low, high = (part for part in re.findall(N, word.text)[:2])
    return word._replace(kind=UNKNOWN).ask(
        f"{word.text}: a zoom, or a set of primes?",
        Option(f"a zoom of {low}-{high} mm", f"{low}-{high}"),
        Option("two primes", f"{low} {high}"),
    )


def _settle_refused(word: Word, before: list[Word]) -> Word:
    return word._replace(kind=UNKNOWN, asked=_NOT_OF_A_LENS[word.kind])


_SETTLES: dict[str, Callable[[Word, list[Word]], Word]] = {
    UNKNOWN: _settle_unknown,
    "class": _settle_class_after,
    "or": _settle_or,
    "count": _settle_count,
    "span": _settle_span,
    "t_or": _settle_stops,
    "zoom": _settle_zoom,
    "film": _settle_film,
    "focal": _settle_focal,
    NUMBER: _settle_number,
    "crop": _settle_refused,
    "storage": _settle_refused,
    "adapter": _settle_refused,
}
_NOT_OF_A_LENS = {
    "crop": "says something of a body: a lens has no crop",
    "storage": "is no lens",
    "adapter": "is no lens: enter adapters under Mounts and adapters",
}


def _lone(words: list[Word]) -> list[Word]:
    """Without any focal length an aperture is of no lens, and a factor no squeeze: T2, doubler 2x."""
    if any(word.kind in _FOCAL or word.options for word in words):
        return words
    rule = "is of no lens: a focal length is needed, like 50 or 24-70"
    return [
        w._replace(kind=UNKNOWN, asked=rule) if w.kind in ("squeeze", "t", "f", "long_t") else w
        for w in words
    ]


def _after_class(found: list[Word]) -> bool:
    told = [word for word in found if word.kind != SPACE]
    return bool(told) and told[-1].kind == "class"


def _said_of_a_lens(found: list[Word]) -> bool:
    """Whether weights, distances or mounts were the last things that were said."""
    told = [word for word in found if word.kind not in (SPACE, SIGN)]
    return bool(told) and told[-1].kind in ("close", "weight", "circle", "front")


def _line(words: list[Word]) -> tuple[tuple[list[LensSaid], dict[str, Any]], str]:
    """The lenses of one line, what is said of all of them, and the name that it begins with."""
    lenses: list[LensSaid] = []
    began, words = _name(words)
    told = [word for word in words if word.kind not in (SPACE, FILLER, SIGN, UNKNOWN, "nothing")]
    prefix = _prefixed(told)
    stop: Word | None = None
    waiting: list[LensSaid] = []
    count = 1
    for word in told:
        if word.kind in _FOCAL:
            for lens in [lens for _ in range(count) for lens in _lenses_of(word)]:
                if prefix and stop is not None:
                    _aperture(lens, stop)
                lenses.append(lens)
                waiting.append(lens)
            count = 1
        elif word.kind in ("t", "f"):
            stop = word
            # What had its aperture of this kind already is done with.
            for lens in [] if prefix else waiting:
                _aperture(lens, word)
            if not prefix:
                waiting = [w for w in waiting if w is waiting[-1]] if _again(told, word) else []
        elif word.kind == "long_t":
            for lens in lenses[-1:]:
                lens.t_long = word.value
        elif word.kind == "count":
            count = word.value
    shared = _shared(told, lenses)
    return (lenses, shared), began


def _again(told: list[Word], word: Word) -> bool:
    """Whether another aperture of the other kind follows at once: f1.4 (T1.5)."""
    i = told.index(word)
    return i + 1 < len(told) and told[i + 1].kind in ("t", "f") and told[i + 1].kind != word.kind


def _prefixed(told: list[Word]) -> bool:
    """Whether apertures stand before their focal lengths."""
    first = next((word.kind for word in told if word.kind in ("t", "f", *_FOCAL)), "")
    return first in ("t", "f")


def _lenses_of(word: Word) -> list[LensSaid]:
    if word.kind == "list":
        return [LensSaid(focal) for focal in word.value]
    if word.kind == "zoom":
        return [LensSaid(word.value[0], word.value[1])]
    if word.kind == "both":
        return [LensSaid(word.value[0], f_number=word.value[1])]
    if word.kind == "fast_zoom":
        return [LensSaid(word.value[1], word.value[2], f_number=word.value[0])]
    return [LensSaid(word.value)]


def _aperture(lens: LensSaid, word: Word) -> None:
    low, high = word.value
    if word.kind == "t":
        lens.t_stop, lens.t_long = low, high
    else:
        lens.f_number, lens.f_long = low, high


def _shared(told: list[Word], lenses: list[LensSaid]) -> dict[str, Any]:
    """What is said once is said of all; what is said more than once, each of the lenses before it."""
    shared: dict[str, Any] = {}
    for kind, name in _SETS.items():
        there = [word for word in told if word.kind == kind]
        values = list(dict.fromkeys(word.value for word in there))
        if len(values) == 1:
            shared[name] = values[0]
        elif values:
            _each(told, kind, name, lenses)
    return shared


def _each(told: list[Word], kind: str, name: str, lenses: list[LensSaid]) -> None:
    at = -1
    since = 0
    for word in told:
        if word.kind in _FOCAL:
            at += len(_lenses_of(word))
        elif word.kind == kind:
            for lens in lenses[since : at + 1]:
                setattr(lens, name, word.value)
            since = at + 1


def _name(words: list[Word]) -> tuple[str, list[Word]]:
    """A name before the first figure, in capitals: Merrow set 25/35/50; and the words without it."""
    first = next(
        (i for i, w in enumerate(words) if w.kind not in (SPACE, FILLER, UNKNOWN, SIGN, "set_of")), len(words)
    )
    names = [
        i for i, w in enumerate(words[:first]) if w.kind == UNKNOWN and not w.asked and w.text[:1].isupper()
    ]
    if not names or first == len(words):
        return "", words
    begin = next(i for i, w in enumerate(words) if w.kind != SPACE)
    named = [w for w in words[: names[-1] + 1] if w.text.lower() != "set" or begin == 0]
    for i in names:
        words[i] = words[i]._replace(kind="name", value=words[i].text)
    return "".join(w.text for w in named).strip(), [*words[:begin], *(w for w in words if w.kind != "name")]
