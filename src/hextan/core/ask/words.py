"""The words of a question in one line: each is a row of a table, and the line is read into them from left to right."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from hextan.core.base import InvalidInputError, either_way, mm_from_um, parse_distance_m, parse_rate
from hextan.core.equipment import Package
from hextan.core.kit import FRAMINGS
from hextan.core.optics import LABELS, NAMED, class_size_mm
from hextan.core.reading import CLASS_WORDS

N = r"\d+(?:[.,]\d+)?"
#: No figure of the trade is larger.
LARGEST = 1e9


@dataclass(frozen=True)
class Word:
    """A word of the line, or what was not understood of it (kind `unknown`)."""

    kind: str
    text: str
    value: Any
    start: int
    #: What has to be asked about it, or what could stand there.
    asked: str = ""


@dataclass(frozen=True)
class Window:
    """A window that a word names: in millimetres."""

    name: str
    width_mm: float
    height_mm: float
    #: The production's recording format that it is, where it is one.
    format_id: int | None = None


@dataclass(frozen=True)
class KindOfWord:
    """A kind of word: how it is written, what it is worth, what it is called, an example."""

    kind: str
    pattern: str
    value: Callable[[re.Match[str]], Any]
    called: str
    example: str


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def _ratio(over: str, under: str) -> float:
    """A ratio; zero, which no figure may be, where there is none."""
    return _number(over) / _number(under) if _number(under) else 0.0


def _reference(name: str) -> Window:
    for key, label in LABELS.items():
        if label == name:
            return Window(name, *NAMED[key])
    return Window(name, *class_size_mm(name))  # type: ignore[arg-type]  # one of the classes, as the table of their words has it


def _class_word(name: str, pattern: str) -> KindOfWord:
    return KindOfWord("window", pattern, lambda m: _reference(name), "a format", "s35")


#: Kinds of words, tried in this order at each place of the line.
KINDS: tuple[KindOfWord, ...] = (
    *(_class_word(name, rf"(?:{pattern})(?![^\W_])") for name, pattern in CLASS_WORDS.items()),
    KindOfWord("distance", rf"{N}\s*(?:'|′|’|ft\b|feet\b)(?:\s*{N}\s*(?:\"|''|″|”|in\b)?)?|{N}\s*(?:\"|in\b|inch(?:es)?\b)",
               lambda m: parse_distance_m(m[0]), "a distance", "6'2\""),
    KindOfWord("distance", rf"{N}\s*(?:m|cm|metres?|meters?)\b", lambda m: parse_distance_m(m[0]), "a distance", "5m"),
    KindOfWord("size", rf"({N})\s*[x×]\s*({N})(?:\s*mm\b)?", lambda m: (_number(m[1]), _number(m[2])), "a size in mm", "25.3x14.2"),
    KindOfWord("time", r"1\s*/\s*([1-9]\d*)(?:\s*s\b)?", lambda m: 1 / int(m[1]), "a shutter time", "1/50"),
    KindOfWord("t_stop", rf"t\s*/?\s*({N})\b", lambda m: _number(m[1]), "a T-stop", "T2.8"),
    KindOfWord("f_number", rf"f\s*/?\s*({N})\b", lambda m: _number(m[1]), "an f-number", "f1.2"),
    KindOfWord("ei", r"(?:ei|iso|asa)\s*(\d+)\b", lambda m: int(m[1]), "a sensitivity", "ei800"),
    KindOfWord("fps", rf"({N})\s*(?:fps|p)\b", lambda m: float(parse_rate(m[1])), "a rate", "25fps"),
    KindOfWord("hz", rf"({N})\s*hz\b", lambda m: _number(m[1]), "the mains", "50 hz"),
    KindOfWord("angle", rf"({N})\s*(?:°|deg(?:rees)?\b)", lambda m: _number(m[1]), "a shutter angle", "180°"),
    KindOfWord("megapixels", rf"({N})\s*(?:mp|megapixels?)\b", lambda m: _number(m[1]), "megapixels", "24 MP"),
    KindOfWord("crop", rf"(?:/|crop)\s*({N})\s*[x×]?|({N})\s*[x×]\s*crop\b", lambda m: _number(m[1] or m[2]), "a crop", "/1.5"),
    KindOfWord("aspect", r"(\d{1,2}(?:\.\d+)?)\s*:\s*(\d{1,2}(?:\.\d+)?)", lambda m: _ratio(m[1], m[2]), "an aspect", "2.39:1"),
    KindOfWord("aspect", r"(?:uhd|hd)\b", lambda m: 16 / 9, "a delivery", "uhd"),
    KindOfWord("framing", "|".join(rf"{name}\b" for name in FRAMINGS), lambda m: m[0].lower(), "a framing", "waist"),
    KindOfWord("circle", r"circle\b|ø", lambda m: None, "the word circle", "circle"),
    KindOfWord("like", r"like\b|=", lambda m: None, "the word like", "like"),
    KindOfWord("of", r"of\b", lambda m: None, "the word of", "of"),
    KindOfWord("to", r"to\b|in\b|->", lambda m: None, "the word to", "to"),
    KindOfWord("unit", r"(?:m|metres?|meters?)\b", lambda m: "m", "a unit", "m"),
    KindOfWord("unit", r"(?:ft|feet)\b", lambda m: "ft", "a unit", "ft"),
    KindOfWord("filler", r"(?:on|at|a|an|the|with|lens|and|for|,)(?:\b|(?<=,))", lambda m: None, "", ""),
    KindOfWord("number", rf"({N})(?:\s*mm\b)?", lambda m: _number(m[1]), "a focal length", "50"),
)  # fmt: skip
_COMPILED = [(row, re.compile(row.pattern, re.IGNORECASE)) for row in KINDS]
_SPACE = re.compile(r"\s+")
_ANYTHING = re.compile(r"\S+")


def _named(package: Package | None) -> list[tuple[str, Window | Any]]:
    """Names of a production's formats, scan modes and lenses, the longest first."""
    if package is None:
        return []
    found: dict[str, Any] = {}
    for here in package.formats.values():
        mm = mm_from_um(here.body.pitch_um)
        w, h = here.mode.window[0] * mm, here.mode.window[1] * mm
        window = Window(f"{here.recording.name}, {here.body.name}", w, h, here.recording.id)
        found.setdefault(here.recording.name.lower(), window)
        found.setdefault(here.mode.name.lower(), window)
        found.setdefault(here.body.name.lower(), window)
    for kit, lens in package.lenses.values():
        found.setdefault(lens.name.lower(), lens)
        found.setdefault(f"{kit.name} {lens.name}".lower(), lens)
    return sorted(((name, thing) for name, thing in found.items() if len(name) > 2 and not name[0].isdigit()),
                  key=lambda row: -len(row[0]))  # fmt: skip


def read(line: str, package: Package | None = None) -> list[Word]:
    """Read a line into its words; fillers are left out.

    >>> [(word.kind, word.text) for word in read("85 f1.2 0.85m s35")]
    [('number', '85'), ('f_number', 'f1.2'), ('distance', '0.85m'), ('window', 's35')]
    """
    names = _named(package)
    words: list[Word] = []
    at = 0
    while at < len(line):
        space = _SPACE.match(line, at)
        if space:
            at = space.end()
            continue
        named, word = _name_at(line, at, names), _word_at(line, at)
        # "Full" may be a scan mode, and "full frame" is a format all the same: the longer word is meant.
        if named is not None and (word.kind == "unknown" or len(named.text) >= len(word.text)):
            word = named
        if word.kind != "filler":
            words.append(word)
        at += len(word.text)
    return words


def _name_at(line: str, at: int, names: list[tuple[str, Any]]) -> Word | None:
    low = line.lower()
    for name, thing in names:
        end = at + len(name)
        if low.startswith(name, at) and (end == len(line) or not line[end].isalnum()):
            kind = "window" if isinstance(thing, Window) else "lens"
            return Word(kind, line[at:end], thing, at)
    return None


def _word_at(line: str, at: int) -> Word:
    for row, pattern in _COMPILED:
        found = pattern.match(line, at)
        if not found or not found[0]:
            continue
        # A figure that goes on in letters is something else.
        if found[0][-1:].isalnum() and line[found.end() : found.end() + 1].isalpha():
            continue
        try:
            value = row.value(found)
        except InvalidInputError as error:
            return Word("unknown", found[0], None, at, error.faults[0].rule)
        either = next(
            (ask for number in re.findall(r"\d{1,3},\d{3}", found[0]) if (ask := either_way(number))), None
        )
        if either:
            return Word("unknown", found[0], None, at, either)
        figures = value if isinstance(value, tuple) else (value,)
        if any(isinstance(n, int | float) and not 0 < n <= LARGEST for n in figures):
            return Word("unknown", found[0], None, at, f"has to be above zero, and at most {LARGEST:g}")
        return Word(row.kind, found[0], value, at)
    rest = _ANYTHING.match(line, at)
    assert rest is not None
    return Word("unknown", rest[0], None, at)
