"""A question in one line is parted into the words of the trade: figures, windows, sizes, and what is asked of them."""

from __future__ import annotations

import math
import re
from typing import Any

from hextan.core.base import InvalidInputError, parse_distance_m, parse_rate
from hextan.core.reading.lexicon import CLASS_WORDS, RASTERS, SIZE_WORDS
from hextan.core.reading.scan import FILLER, N, NotOneError, Phrase, Scanner, Word, number

_FEET = rf"{N}\s*(?:'|′|’|ft\b|feet\b)(?:\s*{N}\s*(?:\"|''|″|”|in\b)?)?|{N}\s*(?:\"|″|”|in\b(?!\s+(?:ff|full|s35|super))|inch(?:es)?\b)"
_METRES = rf"{N}\s*(?:m|cm|metres?|meters?)"
_TERABYTES = {"tb": 1e12, "gb": 1e9}

#: What is asked, by the words that ask it: the names of the questions that these words may begin.
INTENTS: tuple[tuple[str, frozenset[str]], ...] = (
    (r"(?:angle|field)\s+of\s+view|fov|aov", frozenset({"angle", "field"})),
    (r"angle", frozenset({"angle"})),
    (r"hyperfocal(?:\s+distance)?", frozenset({"hyperfocal"})),
    (r"same\s+depth(?:\s+as)?|(?:what|which)\s+stop|(?:for\s+)?the\s+depth\s+of|matching\s+stop", frozenset({"stop for"})),
    (r"dof|depth(?:\s+of\s+field)?|near\s+and\s+far|in\s+focus", frozenset({"field", "depth"})),
    (r"how\s+wide|how\s+much\s+(?:do\s+i\s+|does\s+it\s+)?sees?|field|sees", frozenset({"field", "which format"})),
    (r"(?:which|what)\s+(?:lens|focal(?:\s+length)?)|lens\s+for", frozenset({"which lens", "like"})),
    (r"how\s+(?:far|near|close)|distance(?:\s+for)?|where\s+do\s+i\s+stand", frozenset({"distance for"})),
    (r"(?:which|what)\s+(?:shutter|angle)|flickers?|banding", frozenset({"flicker"})),
    (r"nd(?:\s+for)?|how\s+many\s+stops|(?:which|what)\s+ei", frozenset({"equal light"})),
    (r"how\s+long|minutes|cards?|runs?", frozenset({"card"})),
    (r"covers?|vignettes?", frozenset({"covers"})),
    (r"how\s+much\s+light|(?:how\s+many\s+)?lux", frozenset({"light"})),
    (r"(?:which|what)\s+(?:mode|format)s?", frozenset({"which format"})),
    (r"35\s*mm\s+equivalent(?:\s+of)?|equivalent(?:\s+of)?|(?:looks?|frames?)\s+like|same\s+as", frozenset({"like"})),
)  # fmt: skip


def _above_zero(figure: float) -> float:
    if not 0 < figure <= 1e9:
        raise NotOneError("has to be above zero, and at most 1e+09")
    return figure


def _distance(text: str) -> float:
    try:
        return parse_distance_m(text)
    except InvalidInputError as error:
        raise NotOneError(error.faults[0].rule) from None


def _fps(found: re.Match[str]) -> float:
    try:
        return float(parse_rate(found[1]))
    except InvalidInputError as error:
        raise NotOneError(error.faults[0].rule) from None


def _ratio(over: str, under: str) -> float:
    return number(over) / _above_zero(number(under))


def _named(patterns: dict[Any, str], kind: str) -> list[Phrase]:
    def row(name: Any, pattern: str) -> Phrase:
        return Phrase(kind, f"(?:{pattern})", lambda found: name)

    return [row(name, pattern) for name, pattern in patterns.items()]


#: The words of a question, in the order in which they are tried.
QUESTION: tuple[Phrase, ...] = (
    Phrase("intent", r"35\s*mm\s+equivalent(?:\s+of)?", lambda m: frozenset({"like"})),
    *_named(dict(CLASS_WORDS), "class"),
    Phrase("time", r"1\s*/\s*([1-9]\d*)(?:\s*s)?", lambda m: 1 / int(m[1])),
    Phrase("aspects", rf"({N})\s*:\s*({N})\s*(?:of|in|from|out\s+of)\s*({N})\s*:\s*({N})", lambda m: (_ratio(m[1], m[2]), _ratio(m[3], m[4]))),
    Phrase("aspect", r"(\d{1,2}(?:\.\d+)?)\s*:\s*(\d{1,2}(?:\.\d+)?)", lambda m: _ratio(m[1], m[2])),
    Phrase("aspect", r"2\.39|2\.35|1\.85", lambda m: float(m[0])),
    Phrase("factors", rf"({N})\s*[x×]\s+({N}(?:\s*[x×]\s+{N}|\s+[x×]\s*{N})+)\s*[x×]?", lambda m: [number(n) for n in re.findall(N, m[0])]),
    Phrase("size", rf"({N})\s*(?:mm)?\s*(?:[x×]|by)\s*(?=\d\d|[3-9])({N})(?:\s*mm)?", lambda m: (_above_zero(number(m[1])), _above_zero(number(m[2])))),
    Phrase("storage", rf"({N})\s*(tb|gb)(?:\s+(?:cards?|drives?))?", lambda m: number(m[1]) * _TERABYTES[m[2].lower()]),
    Phrase("megabits", rf"({N})\s*(?:mbit/s|mbps|mb/s|mbit)", lambda m: _above_zero(number(m[1]))),
    Phrase("distance", _FEET, lambda m: _distance(m[0])),
    Phrase("distance", _METRES, lambda m: _distance(m[0])),
    Phrase("t_stop", rf"t\s*/?\s*({N})", lambda m: _above_zero(number(m[1]))),
    Phrase("f_number", rf"f\s*/?\s*({N})", lambda m: _above_zero(number(m[1]))),
    Phrase("ei", r"(?:ei|iso|asa)\s*(\d+)", lambda m: int(m[1])),
    Phrase("fps", rf"({N})\s*(?:fps|p|frames?)", _fps),
    Phrase("hz", rf"({N})\s*hz", lambda m: _above_zero(number(m[1]))),
    Phrase("angle", rf"({N})\s*(?:°|deg(?:rees)?)", lambda m: _above_zero(number(m[1]))),
    Phrase("megapixels", rf"({N})\s*(?:mp|megapixels?)", lambda m: _above_zero(number(m[1]))),
    Phrase("squeeze", rf"({N})\s*[x×]\s*(?:anamorphic|ana|squeeze|scope)|(?:anamorphic|squeeze)\s*({N})\s*[x×]?", lambda m: _above_zero(number(m[1] or m[2]))),
    Phrase("crop", rf"(?:/|crop(?:\s+factor)?(?:\s+of)?)\s*({N})\s*[x×]?|({N})\s*[x×]\s*crop", lambda m: _above_zero(number(m[1] or m[2]))),
    Phrase("crop", rf"[x×]({N})(?!\s*[x×]\s*\d)", lambda m: _above_zero(number(m[1]))),
    Phrase("times", rf"({N})\s*[x×]", lambda m: _above_zero(number(m[1]))),
    *_named(dict(RASTERS.values()), "raster"),
    *(Phrase("intent", f"(?:{pattern})", lambda m, means=means: means) for pattern, means in INTENTS),  # type: ignore[misc]
    *_named(dict(SIZE_WORDS), "framing"),
    Phrase("circle", r"(?:image\s+)?circle|ø"),
    Phrase("like", r"like|="),
    Phrase("of", r"of"),
    Phrase("to", r"to|in|into|instead\s+of|->|→"),
    Phrase("unit", r"(?:m|metres?|meters?)", lambda m: "m"),
    Phrase("unit", r"(?:ft|feet|foot)", lambda m: "ft"),
    Phrase(FILLER, r"on|at|an?|the|with|lens|and|for|from|under|between|what(?:'s|\s+is|\s+are)?|is|does|do|i|need|gives?|me|please|as|"
                   r"frames?|looks?|how|which|that|shot|person|mains|sensor|mode|shutter|stop|focal\s+length|want|\?"),
    Phrase("zoom", rf"({N})\s*-\s*({N})(?:\s*mm)?", lambda m: (_above_zero(number(m[1])), _above_zero(number(m[2])))),
    Phrase("number", rf"({N})(?:\s*mm)?", lambda m: _above_zero(number(m[1]))),
)  # fmt: skip
_scan = Scanner(QUESTION)


def scan_question(line: str) -> list[Word]:
    """Part a question into its words, each character into one.

    >>> [(word.kind, word.text) for word in scan_question("85 f1.2 0.85m s35") if word.kind != "space"]
    [('number', '85'), ('f_number', 'f1.2'), ('distance', '0.85m'), ('class', 's35')]
    """
    return [word if not _odd(word) else word.ask("is no figure of the trade") for word in _scan(line)]


def _odd(word: Word) -> bool:
    return isinstance(word.value, float) and not math.isfinite(word.value)
