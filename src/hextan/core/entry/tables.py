"""Tables as people paste them (from a page, a spreadsheet, Markdown, CSV): columns by their titles, rows as lines.

A row of a spec table becomes the line that a person would have typed; what no column's title tells is said.
"""

from __future__ import annotations

import csv
import re
from collections.abc import Iterable
from dataclasses import dataclass, field

from typing_extensions import TypedDict

#: What the title of a column means, a row each: the pattern, and how its cell stands in the line.
TITLES: tuple[tuple[str, str, str], ...] = (
    ("mm", r"\bmm\b|\bsize\b|\barea\b|\bdimensions?\b", "{} mm"),
    ("width", r"^(?:width|columns|h(?:or(?:izontal)?)?\.?(?: pixels)?|pixels? (?:wide|across))$", "{}"),
    ("height", r"^(?:height|rows|lines|v(?:er(?:tical)?)?\.?(?: pixels)?|pixels? (?:high|down))$", "{}"),
    ("window", r"resolution|photosites|pixels|window|raster|recording area", "{}"),
    ("rates", r"\bfps\b|frame ?rates?|\brates?\b|speed", "{}"),
    ("sampling", r"sampling|binning|read-?out|method", "{}"),
    ("aspect", r"aspect|ratio|shape", "{}"),
    ("crop", r"\bcrop\b", "crop {}"),
    ("name", r"mode|name|format|setting|menu", "{}"),
)  # fmt: skip
_SEPARATORS = ("\t", "|", ";", ",")
_RULER = re.compile(r"^[\s|:+=-]+$")
_A_NUMBER = re.compile(r"\d+(?:[.,]\d+)?")


class ColumnRead(TypedDict):
    """A column of a pasted table, and what it was taken for; none where it was left out."""

    title: str
    taken_for: str | None


@dataclass
class Table:
    """A table, and what was understood of it."""

    lines: list[str] = field(default_factory=list)
    #: Titles of its columns with what each was taken for; none for one that was left out.
    columns: list[tuple[str, str | None]] = field(default_factory=list)


def read_table(text: str) -> Table | None:
    """Read a table; None where the text is none.

    >>> read_table("Mode\\tPixels\\tMax fps\\nFull\\t6144 x 3240\\t60").lines
    ['Full 6144 x 3240 up to 60']
    """
    rows = cells_of(text)
    if rows is None:
        return None
    titles, *body = rows
    meanings = _meanings(titles)
    if not any(meanings):
        return None
    table = Table(columns=list(zip(titles, meanings, strict=True)))
    for row in body:
        told = [
            part
            for title, meaning, cell in zip(titles, meanings, row, strict=False)
            if meaning is not None and (part := _part(title, meaning, cell.strip()))
        ]
        line = " ".join(told)
        # A width and a height in columns of their own are one window.
        line = re.sub(r"\bw=(\d+)\s+h=(\d+)", r"\1x\2", line)
        if line:
            table.lines.append(line)
    return table


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
    found = meanings_of(titles, ((name, pattern) for name, pattern, _ in TITLES))
    # The name is the first column's of all.
    if found and found[0] is None:
        found[0] = "name"
    return found


def _part(title: str, meaning: str, cell: str) -> str:
    if not cell or cell in ("-", "–", "n/a"):
        return ""
    if meaning == "rates":
        numbers = _A_NUMBER.findall(cell)
        highest = len(numbers) == 1 and re.search(r"max|up to|highest|top", f"{title} {cell}", re.IGNORECASE)
        return f"up to {numbers[0]}" if highest else cell
    if meaning == "width":
        return f"w={cell}"
    if meaning == "height":
        return f"h={cell}"
    if meaning == "mm" and cell.lower().endswith("mm"):
        return cell
    return next(form for name, _, form in TITLES if name == meaning).format(cell)
