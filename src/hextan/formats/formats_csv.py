"""Recording formats as CSV, one row each, with the scan mode that each belongs to repeated beside it.

Read back, all of a file or nothing of it: errors name row and column. Semicolons and tabs are taken for
commas, and decimal commas for points. Cells that a spreadsheet would take for a formula are written
with an apostrophe before them, which is taken off again.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from hextan.core.base import Fault, InvalidInputError, new_key
from hextan.core.documents import MOST_FORMATS, BodyDocument, FormatDocument, ModeDocument, parse_body
from hextan.formats.table import (
    Faults,
    cell_text,
    flag,
    plain_number,
    read_rows,
    whole_number,
    word,
    write_rows,
)


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


def _rates(text: str) -> list[str]:
    parts = re.split(r"[;|]", text) if re.search(r"[;|]", text) else re.split(r",?\s+", text)
    return [part.strip() for part in parts if part.strip()]


def _names(text: str) -> list[str]:
    return [part.strip() for part in re.split(r"[;|]", text) if part.strip()]


COLUMNS: tuple[Column, ...] = (
    Column("mode", lambda m, f, p: m.name, word, "name", of_mode=True, needed=True),
    Column(
        "window_w", lambda m, f, p: m.photosites(p)[0], whole_number, "window[0]", of_mode=True, needed=True
    ),
    Column(
        "window_h", lambda m, f, p: m.photosites(p)[1], whole_number, "window[1]", of_mode=True, needed=True
    ),
    Column("offset_x", lambda m, f, p: m.offset[0], whole_number, "offset[0]", of_mode=True),
    Column("offset_y", lambda m, f, p: m.offset[1], whole_number, "offset[1]", of_mode=True),
    Column("sampling_h", lambda m, f, p: m.sampling[0], whole_number, "sampling[0]", of_mode=True),
    Column("sampling_v", lambda m, f, p: m.sampling[1], whole_number, "sampling[1]", of_mode=True),
    Column("method_h", lambda m, f, p: m.methods[0], word, "methods[0]", of_mode=True),
    Column("method_v", lambda m, f, p: m.methods[1], word, "methods[1]", of_mode=True),
    Column("row_time_us", lambda m, f, p: m.row_time_us, plain_number, "row_time_us", of_mode=True),
    Column("overhead_us", lambda m, f, p: m.overhead_us, plain_number, "overhead_us", of_mode=True),
    Column("mode_max_fps", lambda m, f, p: m.max_fps, plain_number, "max_fps", of_mode=True),
    Column("format", lambda m, f, p: f.name, word, "name", needed=True),
    Column("raster_w", lambda m, f, p: f.raster[0], whole_number, "raster[0]", needed=True),
    Column("raster_h", lambda m, f, p: f.raster[1], whole_number, "raster[1]", needed=True),
    Column("map", lambda m, f, p: f.map, word, "map"),
    Column("codec", lambda m, f, p: f.codec, word, "codec"),
    Column("bits", lambda m, f, p: f.bits, whole_number, "bits"),
    Column("samples", lambda m, f, p: f.samples, word, "samples"),
    Column("compression", lambda m, f, p: f.compression, plain_number, "compression"),
    Column("megabits", lambda m, f, p: f.megabits, plain_number, "megabits"),
    Column("megabits_at_fps", lambda m, f, p: f.megabits_at_fps, plain_number, "megabits_at_fps"),
    Column("raw", lambda m, f, p: "yes" if f.raw else "no", flag, "raw"),
    Column("interlaced", lambda m, f, p: "yes" if f.interlaced else "no", flag, "interlaced"),
    Column("rates", lambda m, f, p: "; ".join(f.rates), _rates, "rates", needed=True),
    Column("highest_fps", lambda m, f, p: f.highest_fps, plain_number, "highest_fps"),
    Column("needs", lambda m, f, p: "; ".join(f.needs), _names, "needs"),
    Column(
        "from_firmware", lambda m, f, p: f.from_firmware, lambda text: word(text) or None, "from_firmware"
    ),
)
_BY_NAME = {column.name: column for column in COLUMNS}
_PAIRS: dict[str, list[Any]] = {"offset": [0, 0], "sampling": [1, 1], "methods": ["full", "full"]}


def write_formats(document: BodyDocument) -> bytes:
    """Write a body's recording formats, one row each."""
    rows = [
        [cell_text(column.write(mode, f, document.pitch_um)) for column in COLUMNS]
        for mode in document.modes
        for f in mode.formats
    ]
    return write_rows(COLUMNS, rows)


def write_template() -> bytes:
    """Write an empty file with an example row, to be filled in."""
    mode = ModeDocument(name="Full 17:9", window=[4560, 2406], row_time_us=5.9, overhead_us=380.0)
    example = FormatDocument(name="17:9 to 4096", raster=[4096, 2160], codec="intra 4:2:2", megabits=800.0,
                             megabits_at_fps=25.0, rates=["23.976", "24", "25", "30-60"])  # fmt: skip
    return write_rows(COLUMNS, [[cell_text(column.write(mode, example, 1.0)) for column in COLUMNS]])


def read_formats(data: bytes, document: BodyDocument) -> BodyDocument:
    """Read recording formats into a body: modes and formats of the same name are changed, others added.

    Modes and formats that the file does not name stay as they are.

    Raises
    ------
    InvalidInputError
        One fault for each wrong cell, as ``row 3, column raster_w``.
    """
    header, numbers, read = read_rows(data, COLUMNS)
    return _merge(document, header, numbers, read)


def _merge(
    document: BodyDocument, header: list[str], numbers: list[int], rows: list[dict[str, Any]]
) -> BodyDocument:
    plain = document.model_dump(mode="json")
    modes = {mode["name"]: mode for mode in plain["modes"]}
    said: dict[str, tuple[int, dict[str, Any]]] = {}
    places: dict[tuple[str, str], int] = {}
    known = {name: {f["name"]: f for f in mode["formats"]} for name, mode in modes.items()}
    faults = Faults()
    for number, row in zip(numbers, rows, strict=True):
        name = row["mode"]
        told = {column: row[column] for column in header if _BY_NAME[column].of_mode}
        if name in said:
            before, other = said[name]
            for column, value in told.items():
                if value != other[column]:
                    rule = f"says otherwise of {name} than row {before}: {other[column]}"
                    faults.add(f"row {number}, column {column}", value, rule)
            mode = modes[name]
        else:
            said[name] = (number, told)
            mode = modes.get(name)
            if mode is None:
                mode = {"key": new_key(), "name": name, "formats": []} | {
                    k: list(v) for k, v in _PAIRS.items()
                }
                modes[name] = mode
                known[name] = {}
                plain["modes"].append(mode)
            # The file speaks in photosites.
            mode["window"], mode["window_mm"] = [None, None], None
            _set_all(mode, told)
        if (name, row["format"]) in places:
            rule = f"is there already, in row {places[name, row['format']]}"
            faults.add(f"row {number}, column format", row["format"], rule)
            continue
        places[name, row["format"]] = number
        f = known[name].get(row["format"])
        if f is None:
            if len(mode["formats"]) >= MOST_FORMATS:
                rule = (
                    f"{name} has {MOST_FORMATS} recording formats already, the most that a scan mode can have"
                )
                raise InvalidInputError.of(Fault(f"row {number}", row["format"], rule))
            f = {"key": new_key(), "raster": [None, None]}
            known[name][row["format"]] = f
            mode["formats"].append(f)
        _set_all(f, {column: row[column] for column in header if not _BY_NAME[column].of_mode})
    faults.raise_any()
    try:
        return parse_body(plain)
    except InvalidInputError as error:
        told_at = (_at_row(fault, plain, said, places) for fault in error.faults)
        raise InvalidInputError.of(*told_at, more=error.more) from None


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
