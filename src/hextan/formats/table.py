"""Tables as CSV: how cells are read and written, with row and column in every error.

Semicolons and tabs are taken for commas, and decimal commas for points. Cells that a spreadsheet would
take for a formula are written with an apostrophe before them, which is taken off again.
"""

from __future__ import annotations

import csv
import io
import math
import re
from collections.abc import Callable, Sequence
from typing import Any, Protocol

from hextan.core.base import MOST_FAULTS, Fault, InvalidInputError
from hextan.formats.spreadsheets import rows_of_csv

_FORMULA = ("=", "+", "-", "@", "\t", "\r")
_THOUSANDS = re.compile(r"\d{1,3}(,\d{3})+")
_NUMBER = re.compile(r"[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?", re.ASCII | re.IGNORECASE)
_YES = {"yes": True, "true": True, "1": True, "no": False, "false": False, "0": False, "": False}


class AnyColumn(Protocol):
    """What a table has to know of a column."""

    @property
    def name(self) -> str:
        """Header."""
        ...

    @property
    def read(self) -> Callable[[str], Any]:
        """Read a cell; raises ValueError with the rule that is broken."""
        ...

    @property
    def needed(self) -> bool:
        """Whether the column has to be there, and every cell of it filled."""
        ...


class Faults:
    """Faults as they are found: as many as are told are kept, the rest is counted."""

    def __init__(self) -> None:
        self.told: list[Fault] = []
        self.more = 0

    def add(self, field: str, value: Any, rule: str) -> None:
        """One more."""
        if len(self.told) < MOST_FAULTS:
            self.told.append(Fault(field, value, rule))
        else:
            self.more += 1

    def raise_any(self) -> None:
        """Refuse when there is any.

        Raises
        ------
        InvalidInputError
            With the first hundred, and the number of the rest.
        """
        if self.told:
            raise InvalidInputError.of(*self.told, more=self.more)


def plain_number(text: str) -> Any:
    """Read a number, with a point or a comma for decimals; None for an empty cell."""
    if text == "":
        return None
    if _THOUSANDS.fullmatch(text):
        raise ValueError("may be read two ways: write it without separators, with a point for decimals")
    if not _NUMBER.fullmatch(text):
        raise ValueError("must be a number")
    value = float(text.replace(",", "."))
    if not math.isfinite(value):
        raise ValueError("is too large")
    return value


def whole_number(text: str) -> Any:
    """Read a whole number."""
    value = plain_number(text)
    if value is None:
        return None
    if value != int(value):
        raise ValueError("must be a whole number")
    return int(value)


def flag(text: str) -> bool:
    """Read yes or no."""
    if text.lower() not in _YES:
        raise ValueError("must be yes or no")
    return _YES[text.lower()]


def word(text: str) -> str:
    """Read text as it is."""
    return text


def read_rows(data: bytes, columns: Sequence[AnyColumn]) -> tuple[list[str], list[int], list[dict[str, Any]]]:
    """Read a table.

    Returns
    -------
    The header, the number of each row in the file, and what was read of each row by column.

    Raises
    ------
    InvalidInputError
        One fault for each wrong cell, as ``row 3, column raster_w``.
    """
    by_name = {column.name: column for column in columns}
    header, rows = _table(data, columns)
    faults = Faults()
    read: list[dict[str, Any]] = []
    for number, cells in rows:
        got: dict[str, Any] = {}
        if len(cells) > len(header):
            faults.add(f"row {number}", len(cells), f"has more cells than the {len(header)} of the first row")
        for name, text in zip(header, cells + [""] * (len(header) - len(cells)), strict=False):
            told = text.strip()
            told = told[1:] if told.startswith("'") and told[1:].startswith(_FORMULA) else told
            try:
                got[name] = by_name[name].read(told)
            except ValueError as error:
                faults.add(f"row {number}, column {name}", text, str(error))
            if not told and by_name[name].needed:
                faults.add(f"row {number}, column {name}", text, "is required")
        read.append(got)
    faults.raise_any()
    return header, [number for number, _ in rows], read


def _table(data: bytes, columns: Sequence[AnyColumn]) -> tuple[list[str], list[tuple[int, list[str]]]]:
    names = {column.name for column in columns}
    lines = rows_of_csv(data)
    header = [name.strip().lower() for name in lines[0]] if lines else []
    faults = [
        Fault("row 1", name, "is not a column of this file: see the template")
        for name in header
        if name not in names
    ]
    faults += [
        Fault("row 1", name, "is there twice") for name in sorted({n for n in header if header.count(n) > 1})
    ]
    faults += [
        Fault("row 1", None, f"the column {name} is missing")
        for name in (c.name for c in columns if c.needed)
        if name not in header
    ]
    rows = [(i, cells) for i, cells in enumerate(lines[1:], 2) if any(cell.strip() for cell in cells)]
    if not faults and not rows:
        faults.append(Fault("file", "(text)", "has no rows below the first"))
    if faults:
        raise InvalidInputError.of(*faults)
    return header, rows


def write_rows(columns: Sequence[AnyColumn], rows: list[list[str]]) -> bytes:
    """Write a table with its header."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow([column.name for column in columns])
    writer.writerows(rows)
    return out.getvalue().encode()


def cell_text(value: Any) -> str:
    """Write a cell; what a spreadsheet would take for a formula gets an apostrophe."""
    if value is None:
        return ""
    if isinstance(value, str):
        return f"'{value}" if value.startswith(_FORMULA) else value
    return str(int(value)) if float(value).is_integer() else repr(value)
