"""Tables as people paste them (from a page, a spreadsheet, Markdown, CSV): columns by their titles, rows as lines.

A row of a spec table becomes the line that a person would have typed; what no column's title tells is said.
"""

from __future__ import annotations

import csv
import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field

from typing_extensions import TypedDict

from hextan.core.reading import (
    NAME_OF_RASTER,
    NUMBER,
    SIGN,
    SPACE,
    UNKNOWN,
    PageLine,
    Word,
    number,
    scan_page,
    understand,
)

#: What the title of a column means, a row each: the more special ones stand first.
TITLES: tuple[tuple[str, str], ...] = (
    ("mm", r"\bmm\b|\bsize\b|\barea\b|\bdimensions?\b"),
    ("width", r"^(?:width|columns|h(?:or(?:izontal)?)?\.?(?: pixels)?|pixels? (?:wide|across))$"),
    ("height", r"^(?:height|rows|lines|v(?:er(?:tical)?)?\.?(?: pixels)?|pixels? (?:high|down))$"),
    ("recorded", r"resolution|raster|recorded|recording size|output"),
    ("window", r"photosites|pixels|window|recording area"),
    ("bits", r"\bbits?\b|depth"),
    ("samples", r"chroma|colou?r sampl|^samples?$|subsampling"),
    ("codec", r"codec|compression|encoding|quality"),
    ("data rate", r"data ?rate|bit ?rate|mbps|mbit"),
    ("rates", r"\bfps\b|frame ?rates?|\brates?\b|speed"),
    ("read", r"sampling|binning|read-?out|method"),
    ("aspect", r"aspect|ratio|shape"),
    ("crop", r"\bcrop\b"),
    ("needs", r"needs?|requires?|remarks?|notes?"),
    ("name", r"mode|name|format|setting|menu"),
)
_SEPARATORS = ("\t", "|", ";", ",")
_RULER = re.compile(r"^[\s|:+=-]+$")
_NOTHING = ("-", "–", "—", "n/a", "")


class ColumnRead(TypedDict):
    """A column of a pasted table, and what it was taken for; none where it was left out."""

    title: str
    taken_for: str | None


@dataclass
class Table:
    """A table, and what was understood of it."""

    #: Each row as the line that a person would have typed, its words by their places in the whole text.
    lines: list[PageLine] = field(default_factory=list)
    #: Titles of its columns with what each was taken for; none for one that was left out.
    columns: list[tuple[str, str | None]] = field(default_factory=list)


def read_table(text: str) -> Table | None:
    """Read a table; None where the text is none.

    >>> table = read_table("Mode\\tPixels\\tMax fps\\nFull\\t6144 x 3240\\t60")
    >>> table.lines[0].formats[0].photosites, table.lines[0].formats[0].rates[0].text
    ((6144, 3240), '1-60')
    """
    rows = cells_of(text)
    if rows is None:
        return None
    titles, *body = rows
    meanings = _meanings(titles)
    if not any(meanings):
        return None
    table = Table(columns=list(zip(titles, meanings, strict=True)))
    at = 0
    for row in body:
        words: list[Word] = []
        width: Word | None = None
        for title, meaning, cell in zip(titles, meanings, row, strict=False):
            found = text.find(cell, at) if cell else -1
            # Quotes within a cell are doubled in the text: it is read all the same, and has no place there.
            start = at if found < 0 else found
            at = start + (len(cell) if found >= 0 else 0)
            if meaning is None or cell.lower() in _NOTHING:
                continue
            told = [moved(word, start) for word in _words(title, meaning, cell)]
            if meaning == "width" and len(told) == 1:
                width = told[0]
                continue
            if meaning == "height" and width is not None and len(told) == 1:
                pair = (int(width.value or 0), int(told[0].value or 0))
                told = [told[0]._replace(kind="pair", value=pair)] if min(pair) >= 1 else told
            words += [*told, Word(SIGN, at, at, ",")]
        line = understand("  ".join(cell for cell in row if cell), words)
        if line.says or line.asked:
            table.lines.append(line)
    return table


def moved(word: Word, by: int) -> Word:
    """The word, so many characters farther on."""
    return word._replace(start=word.start + by, end=word.end + by)


def cells_of(text: str) -> list[list[str]] | None:
    """The cells of a table whose first row has titles only; None where there is no such table."""
    lines = [line for line in text.splitlines() if line.strip() and not _RULER.match(line)]
    if len(lines) < 2:
        return None
    for separator in _SEPARATORS:
        bare = [line.strip().strip("|") if separator == "|" else line for line in lines]
        rows = [[cell.strip() for cell in row] for row in csv.reader(bare, delimiter=separator)]
        if all(len(row) >= 2 for row in rows) and min(map(len, rows[1:])) >= len(rows[0]) - 1:
            titled = not any(re.search(r"\d{2}", cell) for cell in rows[0])
            return rows if titled else None
    return None


def meanings_of(titles: list[str], known: Iterable[tuple[str, str]]) -> list[str | None]:
    """What each title means, of patterns by their meanings; the first column that says a thing says it."""
    patterns = list(known)
    found: list[str | None] = []
    for title in titles:
        told = title.lower().strip()
        meaning = next((name for name, pattern in patterns if re.search(pattern, told)), None)
        found.append(None if meaning in found and meaning is not None else meaning)
    return found


def _meanings(titles: list[str]) -> list[str | None]:
    found = meanings_of(titles, TITLES)
    # The name is the first column's of all.
    if found and found[0] is None:
        found[0] = "name"
    return found


#: What a bare figure in a column is.
_BARE: dict[str, Callable[[Word], Word]] = {
    "crop": lambda w: w._replace(kind="factor", value=(w.text, float(w.value))),
    "aspect": lambda w: (
        w if w.kind == "aspect" else w._replace(kind="aspect", value=(w.text, float(w.value)))
    ),
    "bits": lambda w: w._replace(kind="bits", value=int(w.value)),
    "data rate": lambda w: w._replace(kind="megabits", value=float(w.value)),
}


def _words(title: str, meaning: str, cell: str) -> list[Word]:
    """The words of a cell, as its column has them."""
    words = scan_page(cell)
    told = [word for word in words if word.kind != SPACE]
    if meaning == "name":
        # What is in no list is the mode's own name.
        return [word._replace(kind="name") if word.kind in (UNKNOWN, NUMBER) else word for word in words]
    if meaning in ("recorded", "window"):
        return [_pair(word, meaning, alone=len(told) == 1) for word in words]
    if len(told) != 1:
        return words
    (only,) = told
    if only.kind == NUMBER and meaning == "rates":
        highest = re.search(r"max|up to|highest|top", title, re.IGNORECASE)
        only = only._replace(kind="cap" if highest else "rate", value=(only.text.replace(",", "."), ""))
    elif only.kind in (NUMBER, "aspect") and meaning in _BARE:
        only = _BARE[meaning](only._replace(value=number(only.text)) if only.kind == NUMBER else only)
    return [only]


def _pair(word: Word, meaning: str, alone: bool) -> Word:
    """A pair of counts in a column of rasters is recorded, if one is called so; alone in a column of windows it is read."""
    if word.kind != "pair":
        return word
    if meaning == "recorded":
        return word._replace(kind="raster") if word.value in NAME_OF_RASTER else word
    return word._replace(kind="photosites") if alone else word
