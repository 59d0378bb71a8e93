"""The words of a question meet a production: its names are words too, and a word that is two things is read both ways."""

from __future__ import annotations

import itertools
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, NamedTuple

from hextan.core.base import mm_from_um
from hextan.core.equipment import Body, FormatInPackage, Package
from hextan.core.optics import LABELS, NAMED, NAMED_WINDOWS, FormatClass, class_size_mm, format_class
from hextan.core.reading import FILLER, SIGN, SPACE, UNKNOWN, Word, scan_question

#: So many readings of one line are answered at most.
MOST_READINGS = 4
#: Names shorter than this, or that begin with a figure, are no words.
_LEAST_NAME = 3


@dataclass(frozen=True)
class Window:
    """A window that a word names: in millimetres."""

    name: str
    width_mm: float
    height_mm: float
    #: The production's recording format that it is, where it is one.
    format_id: int | None = None


class KindOfWord(NamedTuple):
    """A kind of word: what it is called, and an example."""

    kind: str
    called: str
    example: str


#: What words are, as they are told.
KINDS: tuple[KindOfWord, ...] = (
    KindOfWord("number", "a focal length", "50"),
    KindOfWord("zoom", "a zoom", "24-70"),
    KindOfWord("lens", "a lens of the production", ""),
    KindOfWord("window", "a format", "s35"),
    KindOfWord("body", "a body of the production", ""),
    KindOfWord("distance", "a distance", "6'2\""),
    KindOfWord("size", "a size in mm", "25.3x14.2"),
    KindOfWord("time", "a shutter time", "1/50"),
    KindOfWord("t_stop", "a T-stop", "T2.8"),
    KindOfWord("f_number", "an f-number", "f1.2"),
    KindOfWord("ei", "a sensitivity", "ei800"),
    KindOfWord("fps", "a rate", "25fps"),
    KindOfWord("hz", "the mains", "50 hz"),
    KindOfWord("angle", "a shutter angle", "180°"),
    KindOfWord("megapixels", "megapixels", "24 MP"),
    KindOfWord("crop", "a crop", "crop 1.5"),
    KindOfWord("times", "a crop", "1.6x"),
    KindOfWord("factors", "several crops", "1.5x 1.067x"),
    KindOfWord("squeeze", "a squeeze", "2x anamorphic"),
    KindOfWord("aspect", "an aspect", "2.39:1"),
    KindOfWord("aspects", "one aspect within another", "16:9 of 17:9"),
    KindOfWord("raster", "a recording", "uhd"),
    KindOfWord("framing", "a framing", "waist"),
    KindOfWord("storage", "storage", "1 TB"),
    KindOfWord("megabits", "a data rate", "600 Mbit/s"),
    KindOfWord("circle", "the word circle", "circle"),
    KindOfWord("like", "the word like", "like"),
    KindOfWord("of", "the word of", "of"),
    KindOfWord("to", "the word to", "to"),
    KindOfWord("unit", "a unit", "m"),
    KindOfWord("intent", "what is asked", ""),
)
CALLED = {row.kind: row.called for row in KINDS}


def reference(name: FormatClass) -> Window:
    """The window that the name of a class stands for; Super 35 and full frame as references have them."""
    key = next((key for key, label in LABELS.items() if label == name), None)
    return Window(name, *(NAMED[key] if key else class_size_mm(name)))


def window_of(here: FormatInPackage, name: str) -> Window:
    """The window of a recording format."""
    w, h = (mm_from_um(n * here.body.pitch_um) for n in here.mode.window)
    return Window(name, w, h, here.recording.id)


@dataclass(frozen=True)
class _Name:
    """A name of the production, in small letters, and what it is."""

    text: str
    kind: str
    thing: Any


def _names(package: Package | None) -> list[_Name]:
    """Names of a production's bodies, formats, scan modes and lenses, the longest first."""
    if package is None:
        return []
    found: dict[str, _Name] = {}

    def add(text: str, kind: str, thing: Any) -> None:
        if len(text) >= _LEAST_NAME and not text[0].isdigit():
            found.setdefault(text.lower(), _Name(text.lower(), kind, thing))

    for body in package.bodies:
        add(body.name, "body", body)
    for here in package.formats.values():
        add(here.recording.name, "window", window_of(here, f"{here.recording.name}, {here.body.name}"))
        add(here.mode.name, "window", window_of(here, f"{here.mode.name}, {here.body.name}"))
    for kit, lens in package.lenses.values():
        add(lens.name, "lens", lens)
        add(f"{kit.name} {lens.name}", "lens", lens)
    return sorted(found.values(), key=lambda name: -len(name.text))


def readings(line: str, package: Package | None = None) -> list[list[Word]]:
    """Read a line into its words, as many ways as its words allow; fillers are left out.

    >>> [(word.kind, word.text) for word in readings("85 f1.2 0.85m s35")[0]]
    [('number', '85'), ('f_number', 'f1.2'), ('distance', '0.85m'), ('window', 's35')]
    >>> [[word.value.width_mm for word in reading if word.kind == "window"] for reading in readings("35 on aps-c")]
    [[23.6], [22.3]]
    """
    names = _names(package)
    choices: list[list[Word]] = []
    at = 0
    while at < len(line):
        named = _name_at(line, at, names)
        word = _word_at(line, at)
        if named is not None and (word.kind in (UNKNOWN, FILLER) or named.end >= word.end):
            # "S35" may be a scan mode and a class: both are read.
            both = word.kind == "class" and named.end == word.end and named.kind == "window"
            choices.append([*(_windows(word) if both else []), named])
            at = named.end
            continue
        if word.kind == "class":
            choices.append(_windows(word))
        elif word.kind not in (SPACE, FILLER, SIGN):
            choices.append([word])
        at = word.end
    found = list(itertools.islice(itertools.product(*choices), MOST_READINGS))
    return [_with_bodies(list(words), package) for words in found]


def _word_at(line: str, at: int) -> Word:
    # The scanner reads on to the end: a window of the line is enough for the longest word.
    first = scan_question(line[at : at + 60])[0]
    return first._replace(start=at, end=at + first.end)


def _windows(word: Word) -> list[Word]:
    """What a class stands for: one window, or two where its name has two sizes."""
    name = word.value
    sizes = [
        w for w in NAMED_WINDOWS if w.of_class == name and w.name.startswith(f"{name}, ") and name == "APS-C"
    ]
    windows = [Window(w.name, w.width_mm, w.height_mm) for w in sizes] or [reference(name)]
    return [word._replace(kind="window", value=window) for window in windows]


def _name_at(line: str, at: int, names: Iterable[_Name]) -> Word | None:
    if at and line[at - 1].isalnum():
        return None
    low = line.lower()
    for name in names:
        end = at + len(name.text)
        if low.startswith(name.text, at) and (end == len(line) or not line[end].isalnum()):
            return Word(name.kind, at, end, line[at:end], name.thing)
    return None


def _with_bodies(words: list[Word], package: Package | None) -> list[Word]:
    """A body beside a class or a mode is that window of the body; alone it is its largest."""
    bodies = [word for word in words if word.kind == "body"]
    if package is None or len(bodies) != 1:
        return words
    (body,) = bodies
    windows = [word for word in words if word.kind == "window"]
    beside = next(
        (w for w in windows if abs(words.index(w) - words.index(body)) == 1 and w.value.format_id is None),
        None,
    )
    found = _on_body(package, body.value, None if beside is None else beside.value)
    if found is None:
        return words
    kept = [word for word in words if word is not beside or found is None]
    return [word._replace(kind="window", value=found) if word is body else word for word in kept]


def _on_body(package: Package, body: Body, like: Window | None) -> Window | None:
    """The window of a body that is of a class; its largest where none is said, None where it has none of it."""
    places = [here for here in package.formats.values() if here.body.id == body.id]
    windows = [window_of(here, f"{here.mode.name}, {body.name}") for here in places]
    if like is not None:
        wanted = format_class(like.width_mm, like.height_mm)
        windows = [w for w in windows if format_class(w.width_mm, w.height_mm) == wanted]
    return max(windows, key=lambda window: window.width_mm * window.height_mm, default=None)


def skipped(word: Word) -> bool:
    """Whether a word may be passed over: it is in no list, has no figure, and nothing is asked about it."""
    return word.kind == UNKNOWN and not word.asked and not any(sign.isdigit() for sign in word.text)


def refused(word: Word) -> bool:
    """Whether a word stands in the way: it has a figure, or something has to be asked about it."""
    return (word.kind == UNKNOWN and not skipped(word)) or bool(word.asked)
