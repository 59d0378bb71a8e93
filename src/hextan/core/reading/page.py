"""A line of a spec page is understood: which windows, recording formats and rates it states, and what of it is open.

The words come from the lexicon. A line states one format after another; a part of it that says a thing again
begins the next one, which takes over what stood before that thing.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field, replace
from typing import Any

from hextan.core.optics import FormatClass
from hextan.core.reading.lexicon import NAME_OF_RASTER, PAGE
from hextan.core.reading.scan import FILLER, NUMBER, SIGN, SPACE, UNKNOWN, Option, Scanner, Word

_scan = Scanner(PAGE, prose=True)
_PAIR = re.compile(r"\d{3,5}\s*[x×*]\s*\d{3,5}", re.IGNORECASE)
#: Rates that every menu offers.
USUAL_RATES = {
    "24",
    "25",
    "30",
    "48",
    "50",
    "60",
    "72",
    "75",
    "90",
    "96",
    "100",
    "120",
    "150",
    "180",
    "200",
    "240",
}
#: Rasters of so many lines are sensors as well.
_LARGE = 4320
DENIES = "denies what follows: say what there is instead"
#: Rates of no camera.
_MOST_FPS = 1000


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
class PageLine:
    """A line, all its words, and what it states."""

    text: str
    words: list[Word]
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
    def asked(self) -> list[Word]:
        """Words that can mean two things, or nothing."""
        return [word for word in self.words if word.asked]

    @property
    def unused(self) -> list[Word]:
        """Words that are not in the trade's lists."""
        return [word for word in self.words if word.kind == UNKNOWN]

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
#: Kinds beside which a pair of counts is a recorded raster.
_SAYS_RECORDED = {"raw", "bits", "samples", "codec", "megabits", "rate", "rates", "cap", "records"}
_MOST_OF_A_NAME = 4
#: A label is among the first words of its line.
_LABEL = 2
_SAYS_NOTHING = {SPACE, SIGN, FILLER, UNKNOWN, "nothing"}
_WINDOW = {"class", "whole", "open_gate", "photosites", "size_mm", "factor"}
#: Kinds that a window is called by.
_NAMES = {"class", "whole", "open_gate", "factor", "aspect", "thousands", "method", "grid"}
#: Kinds whose neighbours of the same kind are other choices of the same thing: UHD and HD, 17:9 / 16:9.
_CHOICES = {"raster", "aspect", "squeeze"}
#: Signs that part the line for good, and those that part what may belong together.
_HARD, _SOFT = ";\n", ",/()|+"


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
    if not any(word.kind not in _SAYS_NOTHING for word in scanned):
        return PageLine(text, scanned)
    words = _named(_settled(scanned))
    line = PageLine(text, words)
    told = [word for word in words if word.kind not in (SPACE, FILLER)]
    line.heads = bool(told) and told[-1].text == ":"
    head: list[Word] = []
    for statement in _parted(words, _HARD):
        scope, rest = _head(statement)
        if not scope and any(word.kind in _WINDOW for word in rest):
            head = []
        head = scope or head
        parts = [part for part in _parted(rest, _SOFT) if any(_kind_matters(word) for word in part)]
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


def _kind_matters(word: Word) -> bool:
    return word.kind not in (SPACE, SIGN, FILLER, UNKNOWN, "nothing", "no")


def _parted(words: list[Word], signs: str) -> list[list[Word]]:
    parts: list[list[Word]] = [[]]
    for i, word in enumerate(words):
        if word.kind == SIGN and word.text == "/" and _between_rates(words, i):
            continue
        if (word.kind == SIGN and word.text in signs) or (
            signs == _SOFT and word.text.lower() in ("and", "or")
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
        if word.kind == SIGN and word.text in _SOFT:
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
    told = [word for word in words if _kind_matters(word)]
    end = next((i for i, word in enumerate(told) if word.kind not in _WINDOW), len(told))
    return told[:end] if end < len(told) else []


def _settled(words: list[Word]) -> list[Word]:
    """Words whose neighbours say what they are: pairs of figures, bare numbers, what is denied, one class or another."""
    for settle in (_off_topic, _vague, _by_neighbours, _denied, _pairs, _apart, _bare, _one_class_or_another):
        words = settle(words)
    return words


def _off_topic(words: list[Word]) -> list[Word]:
    """What a page says of other things: a line that begins with their word, and parts of lines that have one."""
    told = [word for word in words if word.kind not in (SPACE, FILLER, SIGN)]
    whole = bool(told) and "off_topic" in {word.kind for word in told[:_LABEL]}
    found: list[Word] = []
    for part in _with_signs(words):
        off = whole or any(word.kind == "off_topic" for word in part)
        found += [
            word._replace(kind="nothing", value=None) if off and word.kind not in (SPACE, SIGN) else word
            for word in part
        ]
    return found


def _with_signs(words: list[Word]) -> list[list[Word]]:
    """The parts of a line, each with the sign behind it."""
    parts: list[list[Word]] = [[]]
    for word in words:
        parts[-1].append(word)
        if word.kind == SIGN and word.text in _HARD + _SOFT:
            parts.append([])
    return parts


#: Bits that there are.
_BITS = (8, 10, 12, 14, 16)
_REFUSED = {
    "lowest": "says where rates begin: say up to which they go, like 1-60",
    "against": "is a crop against another window: write the size that it leaves, like 22.5 x 15 mm",
}


def _by_neighbours(words: list[Word]) -> list[Word]:
    """Words that only those before them explain: 4:2:2 10, 8/10 bit, up to UHD 60p, up to 60p/50p."""
    found: list[Word] = []
    last: Word | None = None
    before: Word | None = None
    capped = False
    for word in words:
        stroke = last is not None and last.kind == SIGN and last.text == "/" and before is not None
        if word.kind in _REFUSED:
            found.append(word._replace(kind=UNKNOWN, asked=_REFUSED[word.kind]))
        elif (
            word.kind == NUMBER
            and word.value in _BITS
            and last is not None
            and (last.kind == "samples" or (stroke and before is not None and before.kind == "bits"))
        ):
            found.append(word._replace(kind="bits", value=int(word.value)))
        elif word.kind == "rate" and (capped or (stroke and before is not None and before.kind == "cap")):
            found.append(word._replace(kind="cap"))
        else:
            found.append(word)
        capped = capped or word.kind == "cap_word"
        if word.kind not in (SPACE, FILLER):
            before, last = last, found[-1]
    return [w._replace(kind=FILLER) if w.kind == "cap_word" else w for w in found]


def _vague(words: list[Word]) -> list[Word]:
    """A crop without its factor says only that there is one; beside a class or a factor it says no more than they do."""
    rule = "by how much? Write its factor, like crop 1.5x"
    kinds = {word.kind for word in words}
    told = kinds & {"class", "factor", "in_camera"}
    steady = "stabiliser" in kinds
    found: list[Word] = []
    steadied = False
    for word in words:
        steadied = steadied or word.kind == "in_camera"
        after = steadied and "crop" not in word.text.lower()
        if word.kind == "vague":
            found.append(word._replace(kind=FILLER) if told else word._replace(kind=UNKNOWN, asked=rule))
        elif word.kind == "factor" and (steady or after) and word.value[0]:
            found.append(word._replace(kind="in_camera", value=[word.value[1]]))
        elif word.kind in ("stabiliser", "fraction"):
            found.append(
                word._replace(kind=FILLER if word.kind == "stabiliser" and steady and told else UNKNOWN)
            )
        else:
            found.append(word)
    return found


def _named(words: list[Word]) -> list[Word]:
    """Words of no list that a line begins with are the name of what it speaks of: Ocean Gate 24 25."""
    first = next((i for i, word in enumerate(words) if word.kind not in _SAYS_NOTHING), len(words))
    begun = [i for i, word in enumerate(words[:first]) if word.kind == UNKNOWN and not word.asked]
    if not begun or len(begun) > _MOST_OF_A_NAME or first == len(words):
        return words
    return [
        word._replace(kind="name", value=word.text) if i in begun else word for i, word in enumerate(words)
    ]


def _denied(words: list[Word]) -> list[Word]:
    """After `no` nothing holds until the next comma; the word is marked."""
    found, off = [], False
    for word in words:
        if word.kind == "no":
            off = True
            found.append(word._replace(kind=UNKNOWN, asked=DENIES))
            continue
        off = off and not (word.kind == SIGN and word.text in _HARD + _SOFT)
        found.append(
            word._replace(kind="nothing", value=None) if off and word.kind not in (SPACE, FILLER) else word
        )
    return found


def _pairs(words: list[Word]) -> list[Word]:
    """A pair of counts is read of the sensor or recorded: its neighbours tell, or it is asked."""
    kinds = {word.kind for word in words}
    named = {word.value for word in words if word.kind == "raster"}
    recorded = bool(kinds & _SAYS_RECORDED)
    read = bool(kinds & {"megapixels", "open_gate", "records"}) or any(
        word.kind == FILLER and word.text.lower() in ("photosites", "sensor", "pixels") for word in words
    )

    def settled(word: Word) -> Word:
        if word.kind == "reads":
            return word._replace(kind="photosites")
        if word.kind == "records":
            return word._replace(kind="raster")
        if word.kind != "pair":
            return word
        size, known = word.value, word.value in NAME_OF_RASTER
        if known and not read and not (named and size not in named):
            if size[1] < _LARGE and (size in named or recorded or "thousands" in kinds):
                return word._replace(kind="raster")
            if size[1] < _LARGE or recorded:
                return _either_read_or_recorded(word)
        return word._replace(kind="photosites")

    return [settled(word) for word in words]


def _either_read_or_recorded(word: Word) -> Word:
    w, h = word.value
    return word._replace(kind="open").ask(
        f"{w} x {h}: is this what is recorded, or what is read of the sensor?",
        Option("recorded", f"records {w} x {h}"),
        Option("read of the sensor", f"reads {w} x {h}"),
    )


def _apart(words: list[Word]) -> list[Word]:
    """A bare figure with a comma whose halves are both usual rates is two figures: 25,50."""
    found = []
    for word in words:
        low, comma, high = word.text.partition(",")
        if word.kind == NUMBER and comma and {low, high} <= USUAL_RATES:
            middle = word.start + len(low)
            found += [
                Word(NUMBER, word.start, middle, low, float(low)),
                Word(SIGN, middle, middle + 1, ","),
                Word(NUMBER, middle + 1, word.end, high, float(high)),
            ]
        else:
            found.append(word)
    return found


def _one_class_or_another(words: list[Word]) -> list[Word]:
    """Two classes with nothing but a stroke or an "or" between them are one word that has to be asked about."""
    found: list[Word] = []
    for word in words:
        before = [w for w in found[-4:] if w.kind != SPACE]
        if (
            word.kind == "class"
            and len(before) >= 2
            and before[-2].kind == "class"
            and before[-2].value != word.value
            and before[-1].text.lower() in ("/", "or")
        ):
            first = before[-2]
            cut = found.index(first)
            text = "".join(w.text for w in found[cut:]) + word.text
            one = Word("open", first.start, word.end, text)
            found[cut:] = [
                one.ask(
                    f"{text}: which of them is the window's size?",
                    Option(str(first.value), first.text),
                    Option(str(word.value), word.text),
                )
            ]
        else:
            found.append(word)
    return found


def _bare(words: list[Word]) -> list[Word]:
    """Bare numbers are rates where rates are listed or a format stands before them; one alone is asked about."""
    told = [i for i, word in enumerate(words) if word.kind not in (SPACE,)]
    bare = [i for i in told if words[i].kind == NUMBER]
    if not bare:
        return words
    others = [i for i in told if _kind_matters(words[i]) and words[i].kind != NUMBER]
    found = list(words)
    for i in bare:
        after = next((words[j] for j in told if j > i), None)
        before = next(
            (words[j] for j in reversed(told) if j < i and words[j].kind not in (FILLER, SIGN)), None
        )
        word = words[i]
        # What a word of no list follows is a figure of something else: 3.2 inches, 10 marks.
        if (
            any(near is not None and near.kind == UNKNOWN and not near.asked for near in (after, before))
            and others
        ):
            found[i] = word._replace(kind=UNKNOWN)
        elif len(bare) == 1 and not others:
            found[i] = word._replace(kind="open").ask(
                f"{word.text}: a rate, or something else?",
                Option(f"{word.text} frames a second", f"{word.text} fps"),
                Option(f"up to {word.text} frames a second", f"up to {word.text} fps"),
            )
        elif word.value > _MOST_FPS or (
            after is not None and after.kind == SIGN and after.text in "\"'″′”’°%"
        ):
            found[i] = word._replace(kind=UNKNOWN)
        else:
            found[i] = word._replace(kind="rate", value=(word.text.replace(",", "."), ""))
    return found


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
        told = [word for word in part if _kind_matters(word) and word.kind not in _OF_BODY]
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
            if _kind_matters(word) and word.kind not in _OF_BODY and not any(word == w for w in self.words):
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
