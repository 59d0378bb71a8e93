"""Tables as CSV, XLSX and ODS: rows of cells in, bytes out, and back. Foreign files are read in a child process."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Callable, Sequence
from datetime import UTC, datetime
from typing import Literal, TypeAlias

import orjson
from odf.opendocument import OpenDocumentSpreadsheet
from odf.table import Table, TableCell, TableRow
from odf.text import P
from openpyxl import Workbook
from openpyxl.cell import WriteOnlyCell

from hextan.core.base import Fault, InvalidInputError
from hextan.formats.children import TooMuchError, TooSlowError, run
from hextan.formats.csv_rows import MOST_ROWS, csv_rows
from hextan.formats.text import decode

Cell: TypeAlias = str | float | int | None
TableKind: TypeAlias = Literal["csv", "xlsx", "ods"]
#: What a spreadsheet would take for the beginning of a formula.
_FORMULA = ("=", "+", "-", "@", "\t", "\r")
#: A child that has not read, or written, by then is ended; seconds.
CHILD_SECONDS, WRITE_SECONDS = 20, 90
#: What is smaller is read, or written, faster than a process begins.
SMALL_BYTES, SMALL_CELLS = 200_000, 600
MEDIA: dict[TableKind, str] = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "ods": "application/vnd.oasis.opendocument.spreadsheet",
}


def write(kind: TableKind, rows: Sequence[Sequence[Cell]], title: str = "Shots") -> bytes:
    """Write a table: numbers as numbers, text as text, whatever it begins with. A large one is written in a process of its own.

    Raises
    ------
    BusyError
        Too many files wait already.
    InvalidInputError
        It takes too long, or more memory than it may.
    """
    if kind == "csv" or sum(map(len, rows)) <= SMALL_CELLS:
        return write_here(kind, rows, title)
    try:
        done = run("hextan.formats.writing_child", [kind, title], orjson.dumps(rows), WRITE_SECONDS)
    except (TooSlowError, TooMuchError):
        done = None
    if done is None or done.code != 0:
        raise InvalidInputError.of(
            Fault("kind", kind, "takes longer to write than it may: take CSV")
        ) from None
    return done.answer


def write_here(kind: TableKind, rows: Sequence[Sequence[Cell]], title: str) -> bytes:
    """Write a table in this process."""
    return _WRITERS[kind](rows, title)


def read(kind: TableKind, data: bytes) -> list[list[str]]:
    """Read the first sheet of a table; all cells as text.

    Raises
    ------
    InvalidInputError
        A file that is none, that is too large unpacked, or that takes too long.
    """
    return _read_csv(data) if kind == "csv" else in_a_child(kind, data)


def _write_csv(rows: Sequence[Sequence[Cell]], title: str) -> bytes:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    for row in rows:
        writer.writerow(_harmless(cell) for cell in row)
    return out.getvalue().encode("utf-8-sig")


def _harmless(cell: Cell) -> str:
    text = "" if cell is None else f"{cell!r}" if isinstance(cell, float) else str(cell)
    # An apostrophe keeps a spreadsheet from computing it, and is taken off again; one that was there is doubled.
    return f"'{text}" if isinstance(cell, str) and text.startswith((*_FORMULA, "'")) else text


def _read_csv(data: bytes) -> list[list[str]]:
    return [[_as_written(cell) for cell in row] for row in rows_of_csv(data)]


def _as_written(cell: str) -> str:
    return cell[1:] if cell.startswith("'") and cell[1:].startswith((*_FORMULA, "'")) else cell


def _write_xlsx(rows: Sequence[Sequence[Cell]], title: str) -> bytes:
    book = Workbook(write_only=True)
    sheet = book.create_sheet(title)
    sheet.freeze_panes = "B2"
    for row in rows:
        cells = []
        for value in row:
            cell = WriteOnlyCell(sheet, value=_clean(value) if isinstance(value, str) else value)
            if isinstance(value, str):
                cell.data_type = "s"
            cells.append(cell)
        sheet.append(cells)
    out = io.BytesIO()
    # The same rows give the same bytes, whenever they are written.
    book.properties.created = book.properties.modified = datetime(2026, 1, 1, tzinfo=UTC).replace(tzinfo=None)
    book.save(out)
    return out.getvalue()


def _clean(text: str) -> str:
    """Without the control characters that XML cannot hold."""
    return re.sub(r"[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]", "", text)


def _write_ods(rows: Sequence[Sequence[Cell]], title: str) -> bytes:
    book = OpenDocumentSpreadsheet()
    table = Table(name=title)
    for row in rows:
        line = TableRow()
        for value in row:
            if isinstance(value, int | float):
                cell = TableCell(valuetype="float", value=repr(value))
                cell.addElement(P(text=repr(value)))
            else:
                cell = TableCell(valuetype="string")
                for part in _clean(value or "").split("\n"):
                    cell.addElement(P(text=part))
            line.addElement(cell)
        table.addElement(line)
    book.spreadsheet.addElement(table)
    out = io.BytesIO()
    book.write(out)
    return out.getvalue()


_WRITERS: dict[TableKind, Callable[[Sequence[Sequence[Cell]], str], bytes]] = {
    "csv": _write_csv,
    "xlsx": _write_xlsx,
    "ods": _write_ods,
}


def in_a_child(kind: str, data: bytes, *more: str) -> list[list[str]]:
    """Hand the file to a process of its own, which limits its memory, its time and its output before it looks at it.

    Raises
    ------
    InvalidInputError
        The file is none, is too large, or takes too long.
    BusyError
        Too many files wait already.
    """
    name = "(text)" if kind == "csv" else f"({kind})"
    try:
        done = run("hextan.formats.child", [kind, *more], data, CHILD_SECONDS)
    except TooSlowError:
        raise InvalidInputError.of(
            Fault("file", name, f"takes longer than {CHILD_SECONDS} s to read")
        ) from None
    except TooMuchError:
        raise InvalidInputError.of(Fault("file", name, "holds more than a table may")) from None
    if done.code != 0:
        told = done.said() or f"is no {kind.upper()} file that can be read"
        raise InvalidInputError.of(Fault("file", name, told))
    rows: list[list[str]] = orjson.loads(done.answer)
    return rows


def rows_of_csv(data: bytes, most_rows: int = MOST_ROWS) -> list[list[str]]:
    """Read CSV: a small file here, a large one in a process of its own.

    Raises
    ------
    InvalidInputError
        It is no UTF-8, no CSV, or too large.
    """
    text = decode(data)
    if len(data) > SMALL_BYTES:
        return in_a_child("csv", data, str(most_rows))
    try:
        return csv_rows(text, most_rows)
    except ValueError as error:
        raise InvalidInputError.of(Fault("file", "(text)", str(error))) from None
