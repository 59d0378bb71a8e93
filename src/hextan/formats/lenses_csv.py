"""The lenses of a set as CSV, one row each; read back, all of a file or nothing of it.

Lengths are millimetres, close focus any distance that people write (a bare number is metres). A table of
image circles stands in one cell: ``2.4: 27.9; 4: 28.7; 5.6: 29.8``, along what `circle_by` says.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from hextan.core.base import Fault, InvalidInputError, new_key, parse_distance_m, parse_weight_kg
from hextan.core.documents import LensDocument, LensSetDocument, parse_lens_set
from hextan.formats.table import Faults, cell_text, plain_number, read_rows, word, write_rows

_WITH_UNIT = re.compile(r"(?P<number>[\d.,]+)\s*(?P<unit>[a-zA-Z\"'”′]+)")


@dataclass(frozen=True)
class Column:
    """A column of the file and the field of the document with the same name."""

    name: str
    read: Callable[[str], Any]
    needed: bool = False
    write: Callable[[LensDocument], Any] | None = None


def _millimetres(text: str) -> Any:
    found = _WITH_UNIT.fullmatch(text)
    if found is None:
        return plain_number(text)
    if found["unit"].lower() != "mm":
        raise ValueError("is in millimetres: write the number alone")
    return plain_number(found["number"])


def _distance(text: str) -> Any:
    if text == "":
        return None
    try:
        return round(parse_distance_m(text, "m"), 6)
    except InvalidInputError as error:
        raise ValueError(error.faults[0].rule) from None


def _stop(text: str) -> Any:
    return plain_number(re.sub(r"^(?:[TtFf]\s*/?)\s*", "", text))


def _percent(text: str) -> Any:
    return plain_number(text.removesuffix("%").strip())


def _kilograms(text: str) -> Any:
    if not re.search("[a-zA-Z]", text):
        return plain_number(text)
    try:
        return round(parse_weight_kg(text), 6)
    except InvalidInputError as error:
        raise ValueError(error.faults[0].rule) from None


def _circles(text: str) -> list[dict[str, Any]]:
    rows = []
    for part in filter(None, (p.strip() for p in re.split(r"[;|]", text))):
        at, colon, circle = part.partition(":")
        if not colon:
            raise ValueError("write it like 2.4: 27.9; 4: 28.7 (place, colon, circle)")
        place = at.strip().lower()
        rows.append(
            {
                "at": None if place in ("inf", "infinity", "∞") else plain_number(place),
                "circle_mm": plain_number(circle.strip()),
            }
        )
    return rows


def _circles_text(lens: LensDocument) -> str:
    return "; ".join(
        f"{'inf' if row.at is None else f'{row.at:g}'}: {row.circle_mm:g}" for row in lens.circles
    )


COLUMNS: tuple[Column, ...] = (
    Column("name", word, needed=True),
    Column("focal_mm", _millimetres, needed=True),
    Column("focal_long_mm", _millimetres),
    Column("f_number", _stop),
    Column("t_stop", _stop),
    Column("f_number_long", _stop),
    Column("t_stop_long", _stop),
    Column("image_circle_mm", _millimetres),
    Column("circle_by", word),
    Column("circles", _circles, write=_circles_text),
    Column("squeeze", lambda text: plain_number(text.lower().rstrip("x×").strip())),
    Column("close_focus_m", _distance),
    Column("mount", word, needed=True),
    Column("designed_for", word),
    Column("projection", word),
    Column("pupil_magnification", plain_number),
    Column("breathing_percent", _percent),
    Column("front_mm", _millimetres),
    Column("length_mm", _millimetres),
    Column("weight_kg", _kilograms),
    Column("correction", plain_number),
    Column("correction_long", plain_number),
    Column("iris", word),
    Column("data_link", word),
)
#: What an empty cell means where it does not mean "not stated".
_EMPTY: dict[str, Any] = {
    "circle_by": None,
    "designed_for": None,
    "squeeze": 1.0,
    "projection": "rectilinear",
    "pupil_magnification": 1.0,
    "iris": "ring",
}


def write_lenses(document: LensSetDocument) -> bytes:
    """Write a set's lenses, one row each."""
    return write_rows(COLUMNS, [[_cell(column, lens) for column in COLUMNS] for lens in document.lenses])


def _cell(column: Column, lens: LensDocument) -> str:
    value = column.write(lens) if column.write else getattr(lens, column.name)
    return cell_text(value)


def write_template() -> bytes:
    """Write a file with two example rows, a prime and a zoom, to be filled in."""
    prime = LensDocument(name="Prime 40", focal_mm=40.0, f_number=1.8, t_stop=2.1, image_circle_mm=31.5,
                         close_focus_m=0.45, mount="K50", designed_for="Super 35")  # fmt: skip
    zoom = LensDocument.model_validate(
        {"name": "Zoom 20–80", "focal_mm": 20.0, "focal_long_mm": 80.0, "f_number": 2.6, "t_stop": 2.9, "mount": "K50",
         "circle_by": "focal", "circles": [{"at": 20.0, "circle_mm": 28.9}, {"at": 30.0, "circle_mm": 31.0}]}
    )  # fmt: skip
    return write_lenses(LensSetDocument(name="Template", maker="-", lenses=[prime, zoom]))


def read_lenses(data: bytes, document: LensSetDocument) -> LensSetDocument:
    """Read lenses into a set: those of the same name are changed, others added, the rest stays.

    Raises
    ------
    InvalidInputError
        One fault for each wrong cell, as ``row 3, column focal_mm``.
    """
    _, numbers, rows = read_rows(data, COLUMNS)
    plain = document.model_dump(mode="json")
    lenses = {lens["name"]: lens for lens in plain["lenses"]}
    said: dict[str, int] = {}
    faults = Faults()
    for number, row in zip(numbers, rows, strict=True):
        name = row["name"]
        if name in said:
            faults.add(f"row {number}, column name", name, f"is there already, in row {said[name]}")
            continue
        said[name] = number
        lens = lenses.get(name)
        if lens is None:
            lens = {"key": new_key()}
            lenses[name] = lens
            plain["lenses"].append(lens)
        for column, value in row.items():
            lens[column] = _EMPTY[column] if value in ("", None) and column in _EMPTY else value
    faults.raise_any()
    try:
        return parse_lens_set(plain)
    except InvalidInputError as error:
        told_at = (_at_row(fault, plain, said) for fault in error.faults)
        raise InvalidInputError.of(*told_at, more=error.more) from None


_PLACE = re.compile(r"lenses\[(\d+)\]\.?(\w*)(.*)")


def _at_row(fault: Fault, plain: dict[str, Any], said: dict[str, int]) -> Fault:
    """Say a fault of the document by the row and column that it came from."""
    found = _PLACE.fullmatch(fault.field)
    if found is None:
        return fault
    row = said.get(plain["lenses"][int(found[1])].get("name", ""))
    if row is None:
        return fault
    known = any(column.name == found[2] for column in COLUMNS)
    return Fault(f"row {row}, column {found[2]}" if known else f"row {row}", fault.value, fault.rule)
