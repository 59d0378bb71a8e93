"""Lenses from a table as people paste it: columns by their titles, a lens in each row."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, field

from hextan.core.base import Fault, InvalidInputError, Plain, Unit, parse_distance_m, parse_weight_kg
from hextan.core.entry.tables import cells_of, meanings_of
from hextan.core.optics import CLASSES
from hextan.core.reading import class_of

#: What the title of a column means, a row each. The more special ones stand first.
TITLES: tuple[tuple[str, str], ...] = (
    ("close focus", r"close|minimum|\bmod\b|\bmfd\b|nearest"),
    ("image circle", r"circle|coverage"),
    ("front", r"front|filter"),
    ("length", r"^length|\blong\b"),
    ("weight", r"weight|\bkg\b|\bg\b|\blbs?\b|mass"),
    ("squeeze", r"squeeze|anamorphic"),
    ("class", r"class|format|made for|designed"),
    ("mount", r"mount"),
    ("T", r"^t\b|t-?\s*stop|t/|transmission"),
    ("f", r"^f\b(?!ocal)|f-?\s*(?:number|stop)|f/|aperture|iris"),
    ("focal length", r"focal|^mm$|^lens$"),
    ("name", r"name|model|type"),
)  # fmt: skip
_NUMBER = r"\d+(?:[.,]\d+)?"
_WEIGHT_UNITS = {
    "kg": "kg",
    "kilo": "kg",
    "g": "g",
    "gram": "g",
    "lb": "lb",
    "pound": "lb",
    "oz": "oz",
    "ounce": "oz",
}
_WEIGHT_UNIT = r"\b(kg|kilo|g|gram|lb|pound|oz|ounce)(?:ram|s)*\b"
_RANGE = re.compile(rf"({_NUMBER})\s*(?:mm)?(?:\s*(?:-|–|to)\s*({_NUMBER}))?", re.IGNORECASE)


@dataclass
class LensTable:
    """A table, and what was understood of it."""

    lenses: list[Plain] = field(default_factory=list)
    columns: list[tuple[str, str | None]] = field(default_factory=list)
    faults: list[Fault] = field(default_factory=list)


def read_lens_table(text: str, mount: str) -> LensTable | None:
    """Read a table; None where the text is none, or has no column of focal lengths.

    Parameters
    ----------
    mount : that of lenses whose row says none

    >>> read_lens_table("Lens\\tT\\tClose focus\\n25 mm\\t1.5\\t0.3 m\\n24-70\\t2.9\\t15 in", "K50").lenses[0]["t_stop"]
    1.5
    """
    rows = cells_of(text)
    if rows is None:
        return None
    titles, *body = rows
    columns = list(zip(titles, meanings_of(titles, TITLES), strict=True))
    if all(meaning != "focal length" for _, meaning in columns):
        return None
    table = LensTable(columns=columns)
    seen: dict[str, int] = {}
    for number, row in enumerate(body, 1):
        lens: Plain = {"mount": mount}
        for (title, meaning), cell in zip(columns, row, strict=False):
            if meaning is None or not cell.strip() or cell.strip() in ("-", "–", "n/a", "?"):
                continue
            try:
                _READERS[meaning](lens, cell.strip(), title)
            except ValueError as error:
                table.faults.append(Fault(f"row {number}, {title}", cell.strip()[:80], str(error)))
        told = bool(table.faults) and table.faults[-1].field.startswith(f"row {number},")
        if "focal_mm" not in lens:
            if not told:
                table.faults.append(Fault(f"row {number}", " ".join(row)[:80], "says no focal length"))
            continue
        if not told and lens.get("t_stop") is None and lens.get("f_number") is None:
            table.faults.append(
                Fault(f"row {number}", " ".join(row)[:80], "says no aperture: a column T or f is needed")
            )
        name = lens.setdefault("name", _focal_words(lens))
        seen[name] = seen.get(name, 0) + 1
        if seen[name] > 1:
            lens["name"] = f"{name} ({seen[name]})"
        table.lenses.append(lens)
    return table


def _focal_words(lens: Plain) -> str:
    long = lens.get("focal_long_mm")
    return f"{lens['focal_mm']:g}" if long is None else f"{lens['focal_mm']:g}-{long:g}"


def _number(text: str) -> float:
    found = re.search(_NUMBER, text)
    if found is None:
        raise ValueError("has no figure")
    if re.search(r"\d,\d{3}(?!\d)", text):
        raise ValueError("could be a thousand or a decimal: write it without the comma, or with a point")
    return float(found[0].replace(",", "."))


def _focal(lens: Plain, cell: str, title: str) -> None:
    found = _RANGE.search(cell)
    if found is None:
        raise ValueError("says no focal length, like 25 or 24-70")
    lens["focal_mm"] = float(found[1].replace(",", "."))
    if found[2]:
        lens["focal_long_mm"] = float(found[2].replace(",", "."))
    if title.strip().lower() == "lens" and re.search(r"[a-z]{3,}", cell, re.IGNORECASE):
        lens["name"] = cell[:80]


def _stop(kind: str) -> Callable[[Plain, str, str], None]:
    def read(lens: Plain, cell: str, title: str) -> None:
        found = re.findall(_NUMBER, cell)
        if not found:
            raise ValueError("has no stop, like T1.5 or 2.8-4")
        # A column of apertures may say T or f cell by cell.
        which = (
            "t_stop"
            if re.match(r"t", cell, re.IGNORECASE)
            else "f_number"
            if re.match(r"f", cell, re.IGNORECASE)
            else kind
        )
        lens[which] = float(found[0].replace(",", "."))
        if len(found) > 1:
            lens[f"{which}_long"] = float(found[1].replace(",", "."))

    return read


def _distance(lens: Plain, cell: str, title: str) -> None:
    unit: Unit = "ft" if re.search(r"\bft\b|feet|'", title) else "m"
    scale = (
        0.01
        if re.search(r"\bcm\b", title) and re.fullmatch(_NUMBER, cell)
        else 0.0254
        if re.search(r"\bin(?:ch(?:es)?)?\b", title) and re.fullmatch(_NUMBER, cell)
        else None
    )
    if scale is not None:
        lens["close_focus_m"] = round(_number(cell) * scale, 6)
        return
    try:
        lens["close_focus_m"] = parse_distance_m(cell, unit)
    except InvalidInputError as error:
        raise ValueError(error.faults[0].rule) from None


def _weight(lens: Plain, cell: str, title: str) -> None:
    units = list(dict.fromkeys(_WEIGHT_UNITS[found] for found in re.findall(_WEIGHT_UNIT, title.lower())))
    # A second figure in other units says the same again: 2.0 kg / 4.4 lb, 2.0 kg (4.4 lb).
    first, *second = (part.strip() for part in re.split(r"[/(|]", cell, maxsplit=1))
    if len(units) > 1 and not re.search("[a-z]", first, re.IGNORECASE) and not second:
        raise ValueError(f"may be in {' or '.join(units)}: write the unit in the cell")
    try:
        lens["weight_kg"] = round(parse_weight_kg(first, units[0] if units else "kg"), 6)
    except InvalidInputError as error:
        raise ValueError(error.faults[0].rule) from None


def _class(lens: Plain, cell: str, title: str) -> None:
    found = class_of(cell)
    if found is None:
        raise ValueError(f"is no class: {', '.join(CLASSES)}")
    lens["designed_for"] = found


def _figure(name: str) -> Callable[[Plain, str, str], None]:
    def read(lens: Plain, cell: str, title: str) -> None:
        lens[name] = _number(cell)

    return read


def _text(name: str) -> Callable[[Plain, str, str], None]:
    def read(lens: Plain, cell: str, title: str) -> None:
        lens[name] = cell[:80]

    return read


_READERS: dict[str, Callable[[Plain, str, str], None]] = {
    "close focus": _distance,
    "image circle": _figure("image_circle_mm"),
    "front": _figure("front_mm"),
    "length": _figure("length_mm"),
    "weight": _weight,
    "squeeze": _figure("squeeze"),
    "class": _class,
    "mount": _text("mount"),
    "T": _stop("t_stop"),
    "f": _stop("f_number"),
    "focal length": _focal,
    "name": _text("name"),
}
