"""Rows out of CSV, counted as they come: a file that is too large is refused where it becomes so, not after it was read."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Iterator

#: Of one table: rows, cells of a row, letters of a cell, and letters of all cells together.
MOST_ROWS, MOST_CELLS, MOST_LETTERS, MOST_IN_ALL = 20_000, 200, 8_000, 12_000_000


class TooLargeError(ValueError):
    """What is too much, in words."""


def delimiter_of(text: str) -> str:
    """What parts the cells of the first row: commas, semicolons or tabs.

    >>> delimiter_of("a;b,c;d")
    ';'
    """
    first = text[: text.find("\n") + 1 or None]
    return max(",;\t", key=first.count)


def bounded(rows: Iterable[Iterable[str]], most_rows: int = MOST_ROWS) -> Iterator[list[str]]:
    """Pass rows on, without empty cells at their ends.

    Raises
    ------
    TooLargeError
        More rows, cells or letters than a table may have; says which.
    """
    letters = 0
    for number, row in enumerate(rows, 1):
        if number > most_rows:
            raise TooLargeError(f"may hold {most_rows} rows at most")
        cells: list[str] = []
        for cell in row:
            if len(cells) >= MOST_CELLS:
                if cell == "":
                    continue
                raise TooLargeError(f"row {number} has more than {MOST_CELLS} cells")
            if len(cell) > MOST_LETTERS:
                raise TooLargeError(f"row {number} has a cell of more than {MOST_LETTERS} letters")
            cells.append(cell)
            letters += len(cell)
        if letters > MOST_IN_ALL:
            raise TooLargeError(f"has more than {MOST_IN_ALL / 1e6:.0f} million letters up to row {number}")
        while cells and cells[-1] == "":
            cells.pop()
        yield cells


def csv_rows(text: str, most_rows: int = MOST_ROWS) -> list[list[str]]:
    """Read CSV.

    Raises
    ------
    ValueError
        It is none, or it is too large; says why.
    """
    try:
        reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter_of(text), strict=True)
        return list(bounded(reader, most_rows))
    except csv.Error as error:
        raise ValueError(f"is not a CSV file: {error}") from None
