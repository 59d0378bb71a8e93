"""Tables as CSV, XLSX and ODS: rows of cells in, bytes out, and back. Foreign files are read in a child process."""

from __future__ import annotations

import csv
import io
import re
import subprocess
import sys
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
from hextan.formats.text import decode

Cell: TypeAlias = str | float | int | None
TableKind: TypeAlias = Literal["csv", "xlsx", "ods"]
#: What a spreadsheet would take for the beginning of a formula.
_FORMULA = ("=", "+", "-", "@", "\t", "\r")
#: A child that has not answered by then is ended; seconds.
CHILD_SECONDS = 20
MEDIA: dict[TableKind, str] = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "ods": "application/vnd.oasis.opendocument.spreadsheet",
}


def write(kind: TableKind, rows: Sequence[Sequence[Cell]], title: str = "Shots") -> bytes:
    """Write a table: numbers as numbers, text as text, whatever it begins with."""
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
    text = decode(data)
    first = text.split("\n", 1)[0]
    delimiter = max(",;\t", key=first.count)
    try:
        rows = list(csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=True))
    except csv.Error as error:
        raise InvalidInputError.of(Fault("file", "(text)", f"is not a CSV file: {error}")) from None
    return [[_as_written(cell) for cell in row] for row in rows]


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
    """Hand the file to a process of its own, which limits its memory, its time and its output before it looks at it."""
    wrong = Fault("file", f"({kind})", f"is no {kind.upper()} file that can be read")
    try:
        run = subprocess.run(
            [sys.executable, "-m", "hextan.formats.child", kind, *more],
            input=data, capture_output=True, timeout=CHILD_SECONDS, check=False,
        )  # fmt: skip
    except subprocess.TimeoutExpired:
        raise InvalidInputError.of(
            Fault("file", f"({kind})", f"takes longer than {CHILD_SECONDS} s to read")
        ) from None
    if run.returncode != 0:
        told = run.stderr.decode("utf-8", "replace").strip().splitlines()
        # What the child says of a file it says in one line that begins so; anything else is its own trouble.
        said = next((line.removeprefix("file: ") for line in told if line.startswith("file: ")), None)
        raise InvalidInputError.of(wrong if said is None else Fault("file", f"({kind})", said))
    rows: list[list[str]] = orjson.loads(run.stdout)
    return rows
