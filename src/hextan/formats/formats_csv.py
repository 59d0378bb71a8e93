"""Recording formats as CSV, one row each, with the scan mode that each belongs to repeated beside it.

Read back, all of a file or nothing of it: errors name row and column. Semicolons and tabs are taken for
commas, and decimal commas for points. Cells that a spreadsheet would take for a formula are written
with an apostrophe before them, which is taken off again.
"""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from hextan.core.body_document import BodyDocument, FormatDocument, ModeDocument, new_key, parse_body
from hextan.core.errors import Fault, InvalidInputError
from hextan.formats.text import decode

MOST_ROWS = 20_000
_FORMULA = ("=", "+", "-", "@", "\t", "\r")
_THOUSANDS = re.compile(r"\d{1,3}(,\d{3})+")
_YES = {"yes": True, "true": True, "1": True, "no": False, "false": False, "0": False, "": False}


@dataclass(frozen=True)
class Column:
    """A column of the file: where it stands in the document, and how its cells are read."""

    name: str
    write: Callable[[ModeDocument, FormatDocument, float], Any]
    read: Callable[[str], Any]
    #: Path in the document below the mode, or below the format.
    path: str
    of_mode: bool = False
    needed: bool = False


def _number(text: str) -> Any:
    if text == "":
        return None
    if _THOUSANDS.fullmatch(text):
        raise ValueError("may be read two ways: write it without separators, with a point for decimals")
    try:
        return float(text.replace(",", "."))
    except ValueError:
        raise ValueError("must be a number") from None


def _whole(text: str) -> Any:
    value = _number(text)
    if value is None:
        return None
    if value != int(value):
        raise ValueError("must be a whole number")
    return int(value)


def _flag(text: str) -> bool:
    if text.lower() not in _YES:
        raise ValueError("must be yes or no")
    return _YES[text.lower()]


def _word(text: str) -> str:
    return text


def _rates(text: str) -> list[str]:
    parts = re.split(r"[;|]", text) if re.search(r"[;|]", text) else re.split(r",?\s+", text)
    return [part.strip() for part in parts if part.strip()]


COLUMNS: tuple[Column, ...] = (
    Column("mode", lambda m, f, p: m.name, _word, "name", of_mode=True, needed=True),
    Column("window_w", lambda m, f, p: m.photosites(p)[0], _whole, "window[0]", of_mode=True, needed=True),
    Column("window_h", lambda m, f, p: m.photosites(p)[1], _whole, "window[1]", of_mode=True, needed=True),
    Column("offset_x", lambda m, f, p: m.offset[0], _whole, "offset[0]", of_mode=True),
    Column("offset_y", lambda m, f, p: m.offset[1], _whole, "offset[1]", of_mode=True),
    Column("sampling_h", lambda m, f, p: m.sampling[0], _whole, "sampling[0]", of_mode=True),
    Column("sampling_v", lambda m, f, p: m.sampling[1], _whole, "sampling[1]", of_mode=True),
    Column("method_h", lambda m, f, p: m.methods[0], _word, "methods[0]", of_mode=True),
    Column("method_v", lambda m, f, p: m.methods[1], _word, "methods[1]", of_mode=True),
    Column("row_time_us", lambda m, f, p: m.row_time_us, _number, "row_time_us", of_mode=True),
    Column("overhead_us", lambda m, f, p: m.overhead_us, _number, "overhead_us", of_mode=True),
    Column("mode_max_fps", lambda m, f, p: m.max_fps, _number, "max_fps", of_mode=True),
    Column("format", lambda m, f, p: f.name, _word, "name", needed=True),
    Column("raster_w", lambda m, f, p: f.raster[0], _whole, "raster[0]", needed=True),
    Column("raster_h", lambda m, f, p: f.raster[1], _whole, "raster[1]", needed=True),
    Column("map", lambda m, f, p: f.map, _word, "map"),
    Column("codec", lambda m, f, p: f.codec, _word, "codec"),
    Column("bits", lambda m, f, p: f.bits, _whole, "bits"),
    Column("samples", lambda m, f, p: f.samples, _word, "samples"),
    Column("compression", lambda m, f, p: f.compression, _number, "compression"),
    Column("megabits", lambda m, f, p: f.megabits, _number, "megabits"),
    Column("megabits_at_fps", lambda m, f, p: f.megabits_at_fps, _number, "megabits_at_fps"),
    Column("raw", lambda m, f, p: "yes" if f.raw else "no", _flag, "raw"),
    Column("interlaced", lambda m, f, p: "yes" if f.interlaced else "no", _flag, "interlaced"),
    Column("rates", lambda m, f, p: "; ".join(f.rates), _rates, "rates", needed=True),
    Column("highest_fps", lambda m, f, p: f.highest_fps, _number, "highest_fps"),
)
_BY_NAME = {column.name: column for column in COLUMNS}
_NEEDED = [column.name for column in COLUMNS if column.needed]
_PAIRS: dict[str, list[Any]] = {"offset": [0, 0], "sampling": [1, 1], "methods": ["full", "full"]}


def write_formats(document: BodyDocument) -> bytes:
    """Write a body's recording formats, one row each."""
    rows = [
        [_cell(column.write(mode, f, document.pitch_um)) for column in COLUMNS]
        for mode in document.modes
        for f in mode.formats
    ]
    return _write(rows)


def write_template() -> bytes:
    """Write an empty file with an example row, to be filled in."""
    mode = ModeDocument(name="Full 17:9", window=[4560, 2406], row_time_us=5.9, overhead_us=380.0)
    example = FormatDocument(name="17:9 to 4096", raster=[4096, 2160], codec="intra 4:2:2", megabits=800.0,
                             megabits_at_fps=25.0, rates=["23.976", "24", "25", "30-60"])  # fmt: skip
    return _write([[_cell(column.write(mode, example, 1.0)) for column in COLUMNS]])


def _write(rows: list[list[str]]) -> bytes:
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow([column.name for column in COLUMNS])
    writer.writerows(rows)
    return out.getvalue().encode()


def _cell(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, str):
        return f"'{value}" if value.startswith(_FORMULA) else value
    return str(int(value)) if float(value).is_integer() else repr(value)


def read_formats(data: bytes, document: BodyDocument) -> BodyDocument:
    """Read recording formats into a body: modes and formats of the same name are changed, others added.

    Modes and formats that the file does not name stay as they are.

    Raises
    ------
    InvalidInputError
        One fault for each wrong cell, as ``row 3, column raster_w``.
    """
    header, rows = _table(decode(data))
    faults: list[Fault] = []
    read: list[dict[str, Any]] = []
    for number, cells in rows:
        got: dict[str, Any] = {}
        if len(cells) > len(header):
            faults.append(
                Fault(f"row {number}", len(cells), f"has more cells than the {len(header)} of the first row")
            )
        for name, text in zip(header, cells + [""] * (len(header) - len(cells)), strict=False):
            told = text.strip()
            told = told[1:] if told.startswith("'") and told[1:].startswith(_FORMULA) else told
            try:
                got[name] = _BY_NAME[name].read(told)
            except ValueError as error:
                faults.append(Fault(f"row {number}, column {name}", text, str(error)))
            if not told and name in _NEEDED:
                faults.append(Fault(f"row {number}, column {name}", text, "is required"))
        read.append(got)
    if faults:
        raise InvalidInputError.of(*faults)
    return _merge(document, header, [number for number, _ in rows], read)


def _table(text: str) -> tuple[list[str], list[tuple[int, list[str]]]]:
    first = text.split("\n", 1)[0]
    delimiter = max(",;\t", key=first.count)
    try:
        lines = list(csv.reader(io.StringIO(text), delimiter=delimiter, strict=True))
    except csv.Error as error:
        raise InvalidInputError.of(Fault("file", "(text)", f"is not a CSV file: {error}")) from None
    header = [name.strip().lower() for name in lines[0]] if lines else []
    faults = [
        Fault("row 1", name, "is not a column of this file: see the template")
        for name in header
        if name not in _BY_NAME
    ]
    faults += [
        Fault("row 1", name, "is there twice") for name in sorted({n for n in header if header.count(n) > 1})
    ]
    faults += [
        Fault("row 1", None, f"the column {name} is missing") for name in _NEEDED if name not in header
    ]
    rows = [(i, cells) for i, cells in enumerate(lines[1:], 2) if any(cell.strip() for cell in cells)]
    if not faults and not rows:
        faults.append(Fault("file", "(text)", "has no rows below the first"))
    if len(rows) > MOST_ROWS:
        faults.append(Fault("file", len(rows), f"may hold {MOST_ROWS} rows at most"))
    if faults:
        raise InvalidInputError.of(*faults)
    return header, rows


def _merge(
    document: BodyDocument, header: list[str], numbers: list[int], rows: list[dict[str, Any]]
) -> BodyDocument:
    plain = document.model_dump(mode="json")
    modes = {mode["name"]: mode for mode in plain["modes"]}
    said: dict[str, tuple[int, dict[str, Any]]] = {}
    places: dict[tuple[str, str], int] = {}
    faults = []
    for number, row in zip(numbers, rows, strict=True):
        name = row["mode"]
        told = {column: row[column] for column in header if _BY_NAME[column].of_mode}
        if name in said:
            before, other = said[name]
            faults += [
                Fault(f"row {number}, column {column}", told[column], f"says otherwise of {name} than row {before}: {other[column]}")
                for column in told if told[column] != other[column]
            ]  # fmt: skip
            mode = modes[name]
        else:
            said[name] = (number, told)
            mode = modes.get(name)
            if mode is None:
                mode = {"key": new_key(), "name": name, "formats": []} | {
                    k: list(v) for k, v in _PAIRS.items()
                }
                modes[name] = mode
                plain["modes"].append(mode)
            # The file speaks in photosites.
            mode["window"], mode["window_mm"] = [None, None], None
            _set_all(mode, told)
        if (name, row["format"]) in places:
            rule = f"is there already, in row {places[name, row['format']]}"
            faults.append(Fault(f"row {number}, column format", row["format"], rule))
            continue
        places[name, row["format"]] = number
        f = next((f for f in mode["formats"] if f["name"] == row["format"]), None)
        if f is None:
            f = {"key": new_key(), "raster": [None, None]}
            mode["formats"].append(f)
        _set_all(f, {column: row[column] for column in header if not _BY_NAME[column].of_mode})
    if faults:
        raise InvalidInputError.of(*faults)
    try:
        return parse_body(plain)
    except InvalidInputError as error:
        raise InvalidInputError.of(*(_at_row(fault, plain, said, places) for fault in error.faults)) from None


def _set_all(target: dict[str, Any], cells: dict[str, Any]) -> None:
    for name, value in cells.items():
        path = _BY_NAME[name].path
        if path.endswith("]"):
            key, index = path[:-1].split("[")
            if value is None and key in _PAIRS:
                continue
            if value != "":
                target[key][int(index)] = value
        elif value is None and path == "overhead_us":
            target[path] = 0.0
        elif value not in ("", None) or path not in ("map", "samples", "bits"):
            target[path] = value


_PLACE = re.compile(r"modes\[(\d+)\](?:\.formats\[(\d+)\])?\.?(.*)")


def _at_row(
    fault: Fault, plain: dict[str, Any], said: dict[str, tuple[int, Any]], places: dict[tuple[str, str], int]
) -> Fault:
    """Say a fault of the document by the row and column that it came from."""
    found = _PLACE.fullmatch(fault.field)
    if found is None:
        return fault
    mode = plain["modes"][int(found[1])]
    path, of_mode = found[3], found[2] is None
    row = said.get(mode["name"], (None,))[0]
    if not of_mode:
        row = places.get((mode["name"], mode["formats"][int(found[2])]["name"]))
    column = next(
        (
            c.name
            for c in COLUMNS
            if c.of_mode == of_mode and c.path.split("[")[0] == path.split("[")[0] != ""
        ),
        None,
    )
    exact = next((c.name for c in COLUMNS if c.of_mode == of_mode and c.path == path), column)
    if row is None:
        return fault
    return Fault(f"row {row}" + (f", column {exact}" if exact else ""), fault.value, fault.rule)
