"""The faces of printed pages: how wide a text is, and with which face each of its signs is drawn.

They are those of the screen, cut by `web/fonts/paper.mjs`: words, the same stronger, accents, and signs that neither
has. Figures of the face are all of one width.
"""

from __future__ import annotations

from functools import cache, lru_cache
from pathlib import Path
from typing import NamedTuple

from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont

FOLDER = Path(__file__).parent / "fonts"
#: For each weight the faces that are tried in their order.
_CHAINS = {False: ("words", "words-more", "signs"), True: ("strong", "strong-more", "signs")}
#: Stands for a sign that no face has.
UNKNOWN = "□"
MM_OF_PT = 25.4 / 72
#: Height of a line, in its size.
LEADING = 1.24


class Run(NamedTuple):
    """A part of a text that one face draws."""

    face: str
    text: str


@cache
def _face(name: str) -> TTFont:
    face = TTFont(f"hextan-{name}", str(FOLDER / f"{name}.ttf"))
    pdfmetrics.registerFont(face)
    return face


@lru_cache(maxsize=8192)
def _face_of(sign: str, strong: bool) -> str | None:
    for name in _CHAINS[strong]:
        if ord(sign) in _face(name).face.charWidths:
            return name
    return None


@lru_cache(maxsize=65536)
def runs(text: str, strong: bool = False) -> tuple[Run, ...]:
    """Split a text by the faces that draw it; what none has becomes an empty box."""
    found: list[Run] = []
    for sign in text.replace("\n", " ").replace("\t", " "):
        name, shown = _face_of(sign, strong), sign
        if name is None:
            name, shown = _face_of(UNKNOWN, strong) or "signs", UNKNOWN
        # A blank goes with what stands before it, but for signs: theirs are wider.
        if found and (found[-1].face == name or (sign == " " and found[-1].face != "signs")):
            found[-1] = Run(found[-1].face, found[-1].text + shown)
        else:
            found.append(Run(name, shown))
    return tuple(found)


def missing(text: str) -> set[str]:
    """Signs of a text that no face can draw."""
    return {sign for sign in text if sign not in "\n\t" and _face_of(sign, False) is None}


@lru_cache(maxsize=65536)
def width_mm(text: str, size_pt: float, strong: bool = False) -> float:
    """How wide a text is, millimetres."""
    units = sum(float(_face(run.face).stringWidth(run.text, 1000)) for run in runs(text, strong)) / 1000
    return units * size_pt * MM_OF_PT


def line_mm(size_pt: float) -> float:
    """Height of a line of text, millimetres."""
    return size_pt * LEADING * MM_OF_PT


@lru_cache(maxsize=16384)
def wrapped(text: str, size_pt: float, most_mm: float, strong: bool = False) -> tuple[str, ...]:
    """Break a text into lines no wider than that; a word that is wider alone is broken where it has to be."""
    lines: list[str] = []
    line = ""
    for word in text.split():
        longer = f"{line} {word}" if line else word
        if width_mm(longer, size_pt, strong) <= most_mm:
            line = longer
            continue
        if line:
            lines.append(line)
        line = word
        while width_mm(line, size_pt, strong) > most_mm and len(line) > 1:
            n = len(line) - 1
            while n > 1 and width_mm(line[:n], size_pt, strong) > most_mm:
                n -= 1
            lines.append(line[:n])
            line = line[n:]
    return (*lines, line) if line or not lines else tuple(lines)


def longest_word_mm(text: str, size_pt: float, strong: bool = False) -> float:
    """How wide the widest word of a text is."""
    return max((width_mm(word, size_pt, strong) for word in text.split()), default=0.0)
