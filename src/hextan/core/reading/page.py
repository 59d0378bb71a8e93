"""A line of a spec page is understood: which windows, recording formats and rates it states, and what of it is open.

The words come from the lexicon. A line states one format after another; a part of it that says a thing again
begins the next one, which takes over what stood before that thing.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field, replace
from typing import Any

from hextan.core.optics import FormatClass
from hextan.core.reading.lexicon import PAGE
from hextan.core.reading.neighbours import DENIES, HARD, SAYS_NOTHING, SOFT, matters, named, settled
from hextan.core.reading.scan import FILLER, SIGN, SPACE, UNKNOWN, Option, Read, Scanner, Word

_scan = Scanner(PAGE, prose=True)
_PAIR = re.compile(r"\d{3,5}\s*[x×*]\s*\d{3,5}", re.IGNORECASE)


@dataclass(frozen=True)
class Rate:
    """A rate as it is written, a span of rates, or the highest (a span from 1)."""

    low: str
    high: str
    interlaced: bool = False
    #: Only the highest is said.
    highest: bool = False

    @property
    def text(self) -> str:
        """As a body keeps it."""
        return self.low if self.low == self.high else f"{self.low}-{self.high}"


@dataclass
class Stated:
    """What a line states of one recording format and its window; None and empty where it says nothing."""

    #: What of the words makes a name of its window.
    name: str = ""
    #: The window.
    of_class: FormatClass | None = None
    photosites: tuple[int, int] | None = None
    size_mm: tuple[float, float] | None = None
    #: The crop against the whole width, and how it is written: its digits say how exactly it is known.
    factor: float | None = None
    factor_text: str = ""
    whole: bool = False
    open_gate: bool = False
    aspect: float | None = None
    aspect_text: str = ""
    megapixels: float | None = None
    #: Thousands of pixels or photosites that it is called by.
    thousands: float | None = None
    #: How it is read, and how many photosites go into one sample.
    method: str | None = None
    step: int | None = None
    row_us: float | None = None
    readout_ms: float | None = None
    #: The recording.
    raster: tuple[int, int] | None = None
    raw: bool = False
    bits: int | None = None
    samples: str | None = None
    codec: str | None = None
    compression: float | None = None
    megabits: float | None = None
    rates: list[Rate] = field(default_factory=list)
    needs: list[str] = field(default_factory=list)
    buffer_s: float | None = None
    firmware: str | None = None
    squeeze: float | None = None

    @property
    def window(self) -> bool:
        """Whether it says which window is read."""
        return bool(self.of_class or self.photosites or self.size_mm or self.factor or self.whole or self.open_gate
                    or self.aspect or (self.method and self.method != "full"))  # fmt: skip

    @property
    def recorded(self) -> bool:
        """Whether it says how it is recorded."""
        return self.raw or any((self.raster, self.bits, self.samples, self.codec, self.megabits, self.needs))


@dataclass
class BodyFacts:
    """What a line states of the whole body."""

    eis: tuple[int, int] | list[int] | None = None
    base_eis: list[int] | None = None
    #: Densities; a pair in a tuple is a span.
    nd: list[float] | tuple[float, float] | None = None
    in_camera: list[float] = field(default_factory=list)
    in_camera_name: str = ""
    not_raw: bool = False
    mount: str | None = None
    weight_kg: float | None = None

    @property
    def said(self) -> bool:
        """Whether a line says any of it."""
        return self != BodyFacts()


@dataclass
class PageLine(Read):
    """A line, all its words, and what it states."""

    formats: list[Stated] = field(default_factory=list)
    body: BodyFacts = field(default_factory=BodyFacts)
    #: Ends with a colon: what it says holds for the lines below.
    heads: bool = False
    #: Was taken as a heading, or as what is said of the sensor: no scan mode comes of it.
    heading: bool = False
    #: What the heading above it is called, where its window is that of the heading.
    above: str = ""
    of_sensor: bool = False

    @property
    def says(self) -> bool:
        """Whether anything of it was understood."""
        return bool(self.formats) or self.body.said


#: What a kind of word says of a format: the fields that it sets. A kind that is not here is handled by itself.
_SETS: dict[str, tuple[str, ...]] = {
    "class": ("of_class",), "photosites": ("photosites",), "size_mm": ("size_mm",), "factor": ("factor_text", "factor"),
    "aspect": ("aspect_text", "aspect"), "megapixels": ("megapixels",), "thousands": ("thousands",), "method": ("method", "step"),
    "row_us": ("row_us",), "readout_ms": ("readout_ms",), "raster": ("raster",), "bits": ("bits",), "samples": ("samples",),
    "codec": ("codec",), "compression": ("compression",), "megabits": ("megabits",), "buffer_s": ("buffer_s",),
    "firmware": ("firmware",), "squeeze": ("squeeze",),
}  # fmt: skip
_FLAGS = {"whole": "whole", "open_gate": "open_gate", "raw": "raw"}
_OF_BODY = {"eis", "base_eis", "nd", "nd_range", "in_camera", "mount", "weight_kg", "not_raw"}
_RATES = {"rate", "cap", "rates"}
_WINDOW = {"class", "whole", "open_gate", "photosites", "size_mm", "factor"}
#: Kinds that a window is called by.
_NAMES = {"class", "whole", "open_gate", "factor", "aspect", "thousands", "method", "grid"}
#: Kinds whose neighbours of the same kind are other choices of the same thing: UHD and HD, 17:9 / 16:9.
_CHOICES = {"raster", "aspect", "squeeze"}


def read_page_line(text: str) -> PageLine:
    """Understand a line.

    >>> [f.raster for f in read_page_line("UHD up to 60 / HD up to 120").formats]
    [(3840, 2160), (1920, 1080)]
    >>> [(f.bits, f.rates[0].text, f.needs) for f in read_page_line("raw 12 bit up to 30, 10 bit up to 60 with recorder").formats]
    [(12, '1-30', []), (10, '1-60', ['recorder'])]
    """
    return understand(text, scan_page(text))


def scan_page(text: str) -> list[Word]:
    """The words of a text, before their neighbours say what they are."""
    return _scan(text)


def understand(text: str, scanned: list[Word]) -> PageLine:
    """Understand the words of one line, or those of one row of a table."""
    if not any(word.kind not in SAYS_NOTHING for word in scanned):
        return PageLine(text, scanned)
    words = named(settled(scanned))
    line = PageLine(text, words)
    told = [word for word in words if word.kind not in (SPACE, FILLER)]
    line.heads = bool(told) and told[-1].text == ":"
    head: list[Word] = []
    for statement in _parted(words, HARD):
        scope, rest = _head(statement)
        if not scope and any(word.kind in _WINDOW for word in rest):
            head = []
        head = scope or head
        parts = [part for part in _parted(rest, SOFT) if any(matters(word) for word in part)]
        formats = _formats(head, parts, line.body)
        # What is only said not to be is no format: raw: no 100p.
        denied = any(word.kind == UNKNOWN and word.asked == DENIES for word in statement)
        line.formats = _merged(line.formats, [f for f in formats if f.rates or not denied])
        # A window that begins a statement holds for those behind it that name none.
        head = head or _first(rest)
    _ask_what_is_open(line)
    return line


def name_of(line: PageLine) -> str:
    """What of a line makes a name: all of it but what is recorded, at which rates, and figures of its window."""
    parts = [word.text for word in line.words if word.kind in _NAMES or word.kind in (SPACE, "name", FILLER)]
    told = re.sub(r"\s+", " ", "".join(parts)).strip()
    told = re.sub(r"^(?:(?:at|with|in|on|of|and|or|from|the)\s+)+", "", told, flags=re.IGNORECASE)
    return re.sub(r"(?:\s+(?:at|with|in|on|of|and|or|from|the))+$", "", told)


def _parted(words: list[Word], signs: str) -> list[list[Word]]:
    parts: list[list[Word]] = [[]]
    for i, word in enumerate(words):
        if word.kind == SIGN and word.text == "/" and _between_rates(words, i):
            continue
        if (word.kind == SIGN and word.text in signs) or (
            signs == SOFT and word.text.lower() in ("and", "or")
        ):
            parts.append([])
        else:
            parts[-1].append(word)
    return [part for part in parts if part]


def _between_rates(words: list[Word], at: int) -> bool:
    """Whether a stroke parts two rates of one list: 50/60p."""
    before = next((w.kind for w in reversed(words[max(0, at - 3) : at]) if w.kind != SPACE), "")
    after = next((w.kind for w in words[at + 1 : at + 4] if w.kind != SPACE), "")
    return before == "rate" == after


def _head(words: list[Word]) -> tuple[list[Word], list[Word]]:
    """What stands before a colon and holds for all behind it; and that."""
    for i, word in enumerate(words):
        if word.kind == SIGN and word.text == ":" and any(w.kind == "class" for w in words[:i]):
            return words[:i], words[i + 1 :]
        if word.kind == SIGN and word.text in SOFT:
            break
    return [], words


def _merged(formats: list[Stated], more: list[Stated]) -> list[Stated]:
    """All formats; two of one raster that differ in rates alone are one: 1080/59.94i 1080/50i."""
    found = list(formats)
    for stated in more:
        last = found[-1] if found else None
        plain = stated.raster is not None and not any(
            rate.highest or rate.low != rate.high for rate in stated.rates
        )
        if (
            last is not None
            and plain
            and last.rates
            and replace(last, rates=[]) == replace(stated, rates=[])
            and not any(rate.highest for rate in last.rates)
        ):
            last.rates = [*last.rates, *(rate for rate in stated.rates if rate not in last.rates)]
        else:
            found.append(stated)
    return found


def _first(words: list[Word]) -> list[Word]:
    """The words of windows that a statement begins with."""
    told = [word for word in words if matters(word)]
    end = next((i for i, word in enumerate(told) if word.kind not in _WINDOW), len(told))
    return told[:end] if end < len(told) else []


def _rates_of(word: Word) -> list[Rate]:
    if word.kind == "rates":
        low, high, suffix = word.value
        return [Rate(low, high, suffix == "i")]
    text, suffix = word.value
    return [
        Rate("1" if word.kind == "cap" and float(text) > 1 else text, text, suffix == "i", word.kind == "cap")
    ]


def _formats(head: list[Word], parts: list[list[Word]], body: BodyFacts) -> list[Stated]:
    """The formats of one statement."""
    found = [_Format(head)]
    for part in parts:
        for word in part:
            _body_fact(word, body)
        told = [word for word in part if matters(word) and word.kind not in _OF_BODY]
        if not told:
            continue
        here = found[-1]
        only_rates = all(word.kind in _RATES for word in told)
        if only_rates and here.goes_on_with(told):
            here.take(told)
            continue
        if here.choices_go_on(told):
            here.take(told)
            continue
        again = [word for word in told if here.says(word)] + here.other_name(told)
        if again:
            here = _Format(head, here.before(again))
            found.append(here)
        here.take(told)
    return [stated for each in found for stated in each.stated()]


class _Format:
    """A format while its words come in."""

    def __init__(self, head: list[Word], taken_over: list[Word] | None = None) -> None:
        self.words: list[Word] = []
        self.own = 0
        for word in [*head, *(taken_over or [])]:
            if matters(word) and word.kind not in _OF_BODY and not any(word == w for w in self.words):
                self.words.append(word)

    def says(self, word: Word) -> bool:
        """Whether it says already what kind of thing this word is, and another one."""
        kind = _RATES if word.kind in _RATES else {word.kind}
        if word.kind == "samples" and any(w.kind == "raw" for w in self.words):
            return True
        there = [w for w in self.words if w.kind in kind]
        return (
            bool(there)
            and word.kind not in ("need", "class", "raw", "thousands", "open")
            and any(w.value != word.value for w in there)
        ) or (
            word.kind in ("class", "thousands")
            and any(w.kind == word.kind and w.value != word.value for w in there)
        )

    def other_name(self, told: list[Word]) -> list[Word]:
        """A name in thousands beside a raster, or the other way round, where more is said of it: another format."""
        names = [word for word in told if word.kind in ("raster", "thousands")]
        there = {word.kind for word in self.words} & {"raster", "thousands"}
        return names if there and len(told) > 1 and any(word.kind not in there for word in names) else []

    def before(self, again: list[Word]) -> list[Word]:
        """What stood before the first thing that is said again."""
        kinds = {kind for word in again for kind in (_RATES if word.kind in _RATES else {word.kind})}
        # A name in thousands and a raster are the same thing said: 6K raw to 30, UHD to 60.
        if kinds & {"raster", "thousands"}:
            kinds |= {"raster", "thousands"}
        # Raw has no colour samples.
        if "samples" in kinds:
            kinds.add("raw")
        first = next((i for i, word in enumerate(self.words) if word.kind in kinds), 0)
        return self.words[:first]

    def goes_on_with(self, told: list[Word]) -> bool:
        """Whether these rates only lengthen the list of rates that it ends with."""
        return (
            bool(self.words)
            and self.words[-1].kind in ("rate", "rates")
            and all(w.kind == "rate" for w in told)
        )

    def choices_go_on(self, told: list[Word]) -> bool:
        """Whether this begins with another choice of what was said last."""
        return bool(self.words) and told[0].kind in _CHOICES and self.words[-1].kind == told[0].kind

    def take(self, told: list[Word]) -> None:
        self.words += told

    def stated(self) -> list[Stated]:
        """What it states: as many formats as there are choices."""
        rows: list[Stated] = [Stated()]
        raw_rates: list[Word] = []
        for word in self.words:
            if word.kind in _RATES:
                raw_rates.append(word)
                continue
            values = word.value if word.kind == "squeeze" else [word.value]
            if word.kind in _CHOICES and getattr(rows[0], _SETS[word.kind][-1]) is not None:
                first = rows[0]
                more = [replace(first) for _ in values]
                for row, value in zip(more, values, strict=True):
                    _set(row, word, value)
                rows += [row for row in more if row not in rows]
            elif word.kind == "squeeze":
                more = [replace(row) for row in rows for _ in values]
                for row, value in zip(more, list(values) * len(rows), strict=True):
                    _set(row, word, value)
                rows = more
            else:
                for row in rows:
                    _set(row, word, word.value)
        rates = [rate for word in raw_rates for rate in _rates_of(word)]
        if any(
            word.kind == "interlaced" or (word.kind == "scan_letter" and word.value == "i")
            for word in self.words
        ):
            rates = [replace(rate, interlaced=True) for rate in rates]
        # A raster's scan letter holds for its rates, and a single "N fps" without one is the highest.
        if (
            len(raw_rates) == 1
            and raw_rates[0].kind == "rate"
            and raw_rates[0].value[1] == "fps"
            and rows[0].raster is None
            and rows[0].buffer_s is None
            and "." not in raw_rates[0].value[0]
        ):
            text = raw_rates[0].value[0]
            rates = [Rate("1" if float(text) > 1 else text, text, False, True)]
        for row in rows:
            row.rates = list(rates)
            row.needs = list(row.needs)
            # What is as wide as full frame is full frame, where pixels are told beside it.
            row.name = " ".join(w.text.strip() for w in self.words if w.kind in _NAMES)
            if row.factor == 1 and row.megapixels and row.of_class is None:
                row.of_class = "full frame"
        return [row for row in rows if replace(row, name="") != Stated()]


def _set(row: Stated, word: Word, value: Any) -> None:
    if word.kind in _FLAGS:
        setattr(row, _FLAGS[word.kind], True)
    elif word.kind == "need":
        row.needs = [*row.needs, value] if value not in row.needs else row.needs
        if value == "recorder" and row.bits is None and row.samples is None and not row.raw:
            return
    elif word.kind in _SETS:
        fields = _SETS[word.kind]
        values = value if len(fields) > 1 else (value,)
        for name, each in zip(fields, values, strict=True):
            setattr(row, name, each)


def _body_fact(word: Word, body: BodyFacts) -> None:
    if word.kind == "eis":
        body.eis = word.value
    elif word.kind == "base_eis":
        body.base_eis = word.value
    elif word.kind in ("nd", "nd_range"):
        body.nd = word.value
    elif word.kind == "in_camera":
        body.in_camera = [*body.in_camera, *(k for k in word.value if k not in body.in_camera)]
        body.in_camera_name = body.in_camera_name or word.text
    elif word.kind == "not_raw":
        body.not_raw = True
    elif word.kind == "mount":
        body.mount = word.value
    elif word.kind == "weight_kg":
        body.weight_kg = word.value


def _ask_what_is_open(line: PageLine) -> None:
    """What the words leave open, though each of them is plain."""
    of_window = [f for f in line.formats if f.photosites or f.size_mm]
    rates = [word for word in line.words if word.kind in _RATES]
    for i, word in enumerate(line.words):
        if word.kind == "rate" and len(rates) == 1 and word.value[1] == "fps" and not word.asked:
            rate = word.value[0]
            options = (Option(f"up to {rate}", f"up to {rate} fps"), Option(f"{rate} alone", f"{rate}p"))
            line.words[i] = word._replace(options=options)
        after = next((w.kind for w in line.words[i + 1 :] if w.kind != SPACE), "")
        # 2K binned: what the binned window comes to.
        if word.kind == "thousands" and after != "method" and not (of_window or _PAIR.search(line.text)):
            sites = f"{word.value * 1024:.0f}"
            line.words[i] = word.ask(
                f"{word.text.strip()}: is this what is recorded, or how wide a window is read?",
                Option(f"recorded, {sites} wide", f"records {_recorded(word.value)}"),
                Option(f"read, {sites} photosites wide", f"reads {_recorded(word.value)}"),
            )


def _recorded(thousands: float) -> str:
    w = round(thousands * 1024)
    return f"{w} x {round(w * 9 / 17 / 2) * 2}"
