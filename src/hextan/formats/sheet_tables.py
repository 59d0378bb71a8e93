"""The tables of a sheet as CSV, XLSX and ODS: numbers as numbers, units in titles, text that never computes anything."""

from __future__ import annotations

from hextan.core.sheets import Cell, Sheet, SheetColumn, SheetTable
from hextan.formats.spreadsheets import Cell as Value
from hextan.formats.spreadsheets import TableKind, write


def title_of(column: SheetColumn) -> str:
    """The title of a column in a file: its group, its own, and its unit.

    >>> title_of({"title": "near", "unit": "m", "group": "T2.8", "group_more": "", "words": False})
    'T2.8: near (m)'
    """
    group = ", ".join(part for part in (column["group"], column["group_more"]) if part)
    name = ": ".join(part for part in (group, column["title"]) if part)
    return f"{name} ({column['unit']})".strip() if column["unit"] else name


def _value(cell: Cell, words: bool) -> Value:
    if words or cell["value"] is None:
        return cell["text"]
    # What rounding in a computation leaves is not told.
    return float(f"{cell['value']:.9g}")


def rows_of(table: SheetTable) -> list[list[Value]]:
    """A table as rows of cells, its titles first; where it has sections, their name is the first column."""
    sections = any(row["section"] for row in table["rows"])
    head: list[Value] = [*(["section"] if sections else []), *(title_of(c) for c in table["columns"])]
    rows: list[list[Value]] = [head]
    for row in table["rows"]:
        cells = [
            _value(cell, column["words"]) for cell, column in zip(row["cells"], table["columns"], strict=True)
        ]
        rows.append([*([row["section"]] if sections else []), *cells])
    return rows


def write_tables(sheet: Sheet, kind: TableKind) -> bytes:
    """All tables of a sheet in one file, one after the other, each under its heading; then what it rests on."""
    rows: list[list[Value]] = [[sheet["title"]]]
    if sheet["lead"]:
        rows.append([sheet["lead"]])
    for block in sheet["blocks"]:
        rows.append([])
        if block["kind"] == "table":
            if block["heading"]:
                rows.append([block["heading"]])
            if block["told"]:
                rows.append([block["told"]])
            rows += rows_of(block)
        elif block["kind"] == "words":
            rows += [[line] for line in ([block["heading"]] if block["heading"] else []) + block["lines"]]
        else:
            rows += [
                [picture["told"]]
                for each in block["rows"]
                for picture in each["pictures"]
                if picture is not None
            ]
    rows.append([])
    rows += [[fact["name"], fact["text"]] for fact in sheet["stamp"]]
    rows += [[note] for note in sheet["notes"]]
    return write(kind, rows, sheet["title"][:31] or "Sheet")
