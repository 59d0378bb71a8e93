"""A sheet as data: tables, grids of pictures, and words. Paper, screen and table files draw from the same."""

from __future__ import annotations

from typing import Literal, TypeAlias

from typing_extensions import TypedDict

#: How a cell is told besides its text: coverage by verdict, what is meant most, what is of less weight.
Tone: TypeAlias = Literal["", "covers", "marginal", "short", "focus", "quiet"]
#: How a shape is drawn; colours and widths are the business of whoever draws.
ShapeStyle: TypeAlias = Literal[
    "frame", "thin", "dashed", "fill", "soft", "dark", "hatch", "focus", "circle", "text"
]


class Cell(TypedDict):
    """A figure as it is shown, and as a number in the unit of its column (None: it is text, or infinite)."""

    text: str
    value: float | None
    tone: Tone


class SheetColumn(TypedDict):
    """A column. Columns of one group stand together under its title; units stand in titles, never in cells."""

    title: str
    unit: str
    group: str
    #: Second line of the group's title.
    group_more: str
    #: Whether it holds text, which is set to the left and may be broken.
    words: bool


class SheetRow(TypedDict):
    """A row. Rows of one section stand together under its title, and are not torn from it."""

    section: str
    cells: list[Cell]


class SheetTable(TypedDict):
    """A table. Where it is ``stacked``, the columns of a group stand one below another on paper."""

    kind: Literal["table"]
    heading: str
    #: One line under the heading: what the figures are.
    told: str
    columns: list[SheetColumn]
    #: So many columns at the left are repeated where a table is broken across.
    fixed: int
    stacked: bool
    rows: list[SheetRow]
    #: Whether it begins a page of its own.
    own_page: bool


class Shape(TypedDict):
    """A line, an area, an oval ([centre, radii]) or a text, in the units of its picture: x right, y down."""

    kind: Literal["line", "area", "oval", "text"]
    style: ShapeStyle
    points: list[list[float]]
    text: str


class SheetPicture(TypedDict):
    """A drawing to scale: shapes within a frame, and lines of figures beneath it."""

    x: float
    y: float
    width: float
    height: float
    shapes: list[Shape]
    lines: list[str]
    #: In words, for whoever does not see it.
    told: str


class PictureRow(TypedDict):
    """A row of pictures; None where there is none, and then why."""

    title: str
    more: str
    pictures: list[SheetPicture | None]
    why_not: list[str]


class SheetPictures(TypedDict):
    """A grid of pictures. All are drawn at one scale when ``to_scale``, else each fills its place."""

    kind: Literal["pictures"]
    heading: str
    told: str
    columns: list[str]
    columns_more: list[str]
    rows: list[PictureRow]
    to_scale: bool
    own_page: bool


class SheetWords(TypedDict):
    """Sentences; cautions are set apart."""

    kind: Literal["words"]
    heading: str
    lines: list[str]
    caution: bool


Block: TypeAlias = SheetTable | SheetPictures | SheetWords


class StampFact(TypedDict):
    """One fact of the stamp."""

    name: str
    text: str


class Sheet(TypedDict):
    """One sheet."""

    kind: str
    title: str
    #: What it is about, under the title.
    lead: str
    blocks: list[Block]
    #: What the figures rest on: production, rule for sharp, reference, unit, where distances count from.
    stamp: list[StampFact]
    #: Why there is nothing to print; empty where there is.
    why_empty: str
    #: What was asked for and is not in the package any more, or cannot be told.
    notes: list[str]


def words(text: str, tone: Tone = "") -> Cell:
    """A cell of text."""
    return {"text": text, "value": None, "tone": tone}


def figure(value: float | None, text: str, tone: Tone = "") -> Cell:
    """A cell with a number and how it is shown."""
    return {"text": text, "value": value, "tone": tone}


def number(value: float | None, digits: int, tone: Tone = "") -> Cell:
    """A cell with a number to so many decimals; a dash where it is not known.

    >>> number(28.44, 1)["text"], number(None, 1)["text"]
    ('28.4', '–')
    """
    return {"text": "–" if value is None else f"{value:.{digits}f}", "value": value, "tone": tone}


def column(title: str, unit: str = "", group: str = "", more: str = "", words: bool = False) -> SheetColumn:
    """A column; of figures, unless it holds words."""
    return {"title": title, "unit": unit, "group": group, "group_more": more, "words": words}


def table(
    columns: list[SheetColumn],
    rows: list[SheetRow],
    heading: str = "",
    told: str = "",
    fixed: int = 1,
    stacked: bool = False,
    own_page: bool = False,
) -> SheetTable:
    """A table out of its columns and rows."""
    return {
        "kind": "table",
        "heading": heading,
        "told": told,
        "columns": columns,
        "fixed": fixed,
        "stacked": stacked,
        "rows": rows,
        "own_page": own_page,
    }


def row(cells: list[Cell], section: str = "") -> SheetRow:
    """A row out of its cells."""
    return {"section": section, "cells": cells}


def told(lines: list[str], heading: str = "", caution: bool = False) -> SheetWords:
    """A block of sentences."""
    return {"kind": "words", "heading": heading, "lines": lines, "caution": caution}
