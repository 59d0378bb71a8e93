"""A list of shots as a table: known columns by many names, unknown ones kept and written back; what would change is told first."""

from __future__ import annotations

import re
from bisect import bisect_left
from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, TypeAlias

from typing_extensions import TypedDict

from hextan.core.base import Fault, InvalidInputError, new_key
from hextan.core.shots.answers import ShotAnswer
from hextan.core.shots.document import MOST_SHOTS, NEEDS, Shot, ShotList, parse_shots
from hextan.core.shots.pins import pin_text, read_pin
from hextan.core.shots.rows import ROWS

Value: TypeAlias = str | float | int | None
#: The columns of a table in their order: the field, its title, and what else people call it.
COLUMNS: tuple[tuple[str, str, tuple[str, ...]], ...] = (
    *((row.name, row.title, row.also) for row in ROWS),
    ("wishes", "Wishes", ()),
    ("pin", "Pinned", ()),
    #: Which shot a row is, whatever number it has now.
    ("key", "Hextan key", ()),
)
#: What is answered goes out behind them, and is left out when it comes back.
ANSWERS = ("Verdict", "Body used", "Mode used", "Recording format", "Lens used", "Focal length mm", "Distance used m", "Stop set",
           "EI", "ND stops", "Frames like mm", "Binds")  # fmt: skip
_BY_TITLE = {
    re.sub(r"[\W\d_]", "", said): name
    for name, title, also in reversed(COLUMNS)
    for said in (*also, title.lower())
}
_ANSWERED = {re.sub(r"[\W\d_]", "", title.lower()) for title in ANSWERS}


class ShotsTable(TypedDict):
    """A table that was read: the list as it would be, and what would change."""

    document: ShotList
    new: list[str]
    changed: list[str]
    #: Shots that have another number, as before → now; and shots that stand elsewhere in the order.
    renamed: list[str]
    moved: list[str]
    #: Not named by the table; they stay, unless it is asked for otherwise.
    gone: list[str]
    #: Titles that were understood, kept as they are, and left out.
    understood: list[str]
    kept: list[str]
    left_out: list[str]
    #: What became of each column: its title, and the field, empty where it is kept as it is.
    columns: list[ColumnTaken]
    #: Cells of known shots that say something else now.
    cells: list[CellChanged]


class ColumnTaken(TypedDict):
    """A column of a table, and the field that it was taken for; empty where it is kept under its title."""

    title: str
    field: str


class CellChanged(TypedDict):
    """A cell that says something else than in the version that was read last."""

    shot: str
    column: str
    before: str
    after: str


@dataclass(frozen=True)
class _Column:
    title: str
    #: A field, or None: kept under its title.
    field: str | None
    #: The unit of bare distances in it, where its title says one.
    unit: str = ""


def shots_of_table(
    rows: Sequence[Sequence[str]],
    document: ShotList,
    remove: bool = False,
    columns: Mapping[str, str] | None = None,
) -> ShotsTable:
    """Read a table into a list: known shots are changed, others added, what it does not name stays.

    A row is the shot of its key, where it has one that the list knows, else that of its number.

    Parameters
    ----------
    rows : all cells as text; the titles stand within the first rows, below a title of the list
    columns : what columns are, by their titles, where it was pointed at: a field, or nothing for one that is kept as it is;
        what was pointed at for an earlier version of the list holds as well
    remove : take out what the table does not name

    Raises
    ------
    InvalidInputError
        No column with the number of the shot; cells that cannot stand in a shot, each with row and column.
    """
    filled = [
        (n, [str(cell).strip() for cell in row])
        for n, row in enumerate(rows, 1)
        if any(str(c).strip() for c in row)
    ]
    if not filled:
        raise InvalidInputError.of(
            Fault("file", "", "is empty: the first row has to hold titles, one of them Shot")
        )
    pointed = {**document.columns, **(columns or {})}
    head = _header(filled, pointed)
    titles = filled[head][1]
    found, left_out = _columns(titles, pointed)
    if all(column is None or column.field != "name" for column in found):
        rule = "has no column with the number of the shot: call it Shot, or point at it"
        raise InvalidInputError.of(Fault(f"row {filled[head][0]}", ", ".join(titles)[:200], rule))
    filled = [row for row in filled[head:] if not _SUMS.match(next(cell for cell in row[1] if cell))]
    if len(filled) - 1 > MOST_SHOTS:
        raise InvalidInputError.of(Fault("file", len(filled) - 1, f"may hold {MOST_SHOTS} shots at most"))
    by_key = {shot.key: shot for shot in document.shots}
    rows_of = [(number, _row(found, cells)) for number, cells in filled[1:]]
    claimed = _claimed([plain.pop("key", "") for _, plain in rows_of], by_key)
    waiting: dict[str, list[Shot]] = defaultdict(list)
    for shot in document.shots:
        if shot.key not in claimed:
            waiting[shot.name].append(shot)
    shots: list[dict[str, Any]] = []
    numbers: list[int] = []
    told: dict[str, list[str]] = {"new": [], "changed": [], "renamed": []}
    cells_changed: list[CellChanged] = []
    for (number, plain), key in zip(rows_of, claimed, strict=True):
        same = waiting.get(plain["name"])
        old = by_key[key] if key else same.pop(0) if same else None
        now = _merged(old, plain)
        shots.append(now)
        numbers.append(number)
        if old is not None and old.name != plain["name"]:
            told["renamed"].append(f"{old.name} → {plain['name']}")
        if old is None:
            told["new"].append(plain["name"])
        elif now != old.model_dump(mode="json"):
            told["changed"].append(plain["name"])
            cells_changed += _cells_changed(old, now)
    gone = [shot for left in waiting.values() for shot in left]
    whole = shots if remove else _with_the_rest(document, shots, gone)
    plain_list = {"schema": "hextan.shots", "schema_version": 1, "shots": whole, "columns": pointed,
                  "noted": {key: noted.model_dump(mode="json") for key, noted in document.noted.items()}}  # fmt: skip
    try:
        read = parse_shots(plain_list)
    except InvalidInputError as error:
        places = {shot["key"]: number for shot, number in zip(shots, numbers, strict=True)}
        raise InvalidInputError.of(
            *(_at_row(fault, whole, places) for fault in error.faults), more=error.more
        ) from None
    return {
        "document": read,
        "new": told["new"],
        "changed": told["changed"],
        "renamed": told["renamed"],
        "moved": _moved(document, shots),
        "gone": [shot.name for shot in gone],
        "understood": [column.title for column in found if column is not None and column.field],
        "kept": [column.title for column in found if column is not None and not column.field],
        "left_out": left_out,
        "columns": [
            {"title": column.title, "field": column.field or ""} for column in found if column is not None
        ],
        "cells": cells_changed[:MOST_CELLS],
    }


def _claimed(keys: list[str], by_key: dict[str, Shot]) -> list[str]:
    """The key of each row that is a shot of the list; empty for others, and for a row that was copied."""
    seen: set[str] = set()
    found = []
    for key in keys:
        found.append(key if key in by_key and key not in seen else "")
        seen.add(key)
    return found


def _moved(document: ShotList, shots: list[dict[str, Any]]) -> list[str]:
    """The fewest shots that stand elsewhere: all but the longest run that is still in its order."""
    place = {shot.key: n for n, shot in enumerate(document.shots)}
    kept = [shot for shot in shots if shot["key"] in place]
    ends: list[int] = []
    last: list[int] = []
    before: list[int | None] = []
    for at, shot in enumerate(kept):
        n = place[shot["key"]]
        k = bisect_left(ends, n)
        before.append(last[k - 1] if k else None)
        if k == len(ends):
            ends.append(n)
            last.append(at)
        else:
            ends[k], last[k] = n, at
    still: set[int] = set()
    at_end = last[-1] if last else None
    while at_end is not None:
        still.add(at_end)
        at_end = before[at_end]
    return [shot["name"] for at, shot in enumerate(kept) if at not in still]


#: Rows that sum up are no shots.
_SUMS = re.compile(r"(?:total|sum|summe|gesamt|somme)\b", re.IGNORECASE)
#: So many rows may stand above the titles, and so many changed cells are told.
_ABOVE, MOST_CELLS = 12, 400
#: Fields that several columns may say together: INT in one, D in the next.
_TOGETHER = ("light",)
_FIELDS = {name for name, _, _ in COLUMNS}


def _header(filled: list[tuple[int, list[str]]], pointed: Mapping[str, str]) -> int:
    """Which of the first rows holds the titles: the one with the most that are known, the number of the shot among them."""

    def known(row: list[str]) -> tuple[bool, int]:
        fields = {pointed.get(title, _field_of(title)) for title in row if title} - {None, ""}
        return "name" in fields, len(fields)

    rows = [known(row) for _, row in filled[:_ABOVE]]
    best = max(rows)
    return rows.index(best) if best[1] > 1 else 0


def _field_of(title: str) -> str | None:
    """The field that a title says; what stands in brackets is its unit."""
    if title.strip() in ("#", "№"):
        return "name"
    plain = re.sub(r"[\W\d_]", "", re.sub(r"\(.*?\)", "", title.lower()))
    return _BY_TITLE.get(plain) if plain else None


def _cells_changed(old: Shot, now: dict[str, Any]) -> list[CellChanged]:
    titles = {name: title for name, title, _ in COLUMNS}
    before = old.model_dump(mode="json")
    return [
        {"shot": now["name"], "column": titles.get(name, name), "before": str(before[name]), "after": str(value)}
        for name, value in now.items()
        if isinstance(value, str) and name != "key" and before.get(name) != value
    ]  # fmt: skip


def _columns(titles: list[str], pointed: Mapping[str, str]) -> tuple[list[_Column | None], list[str]]:
    """What each column is; a title that stands twice is kept under its second name."""
    found: list[_Column | None] = []
    left_out: list[str] = []
    used: set[str] = set()
    for n, title in enumerate(titles, 1):
        plain = re.sub(r"[\W\d_]", "", title.lower())
        if plain in _ANSWERED and plain not in _BY_TITLE and title not in pointed:
            left_out.append(title)
            found.append(None)
            continue
        name = (pointed[title] or None) if title in pointed else _field_of(title)
        if name in _FIELDS and (name not in used or name in _TOGETHER):
            used.add(str(name))
            unit = re.search(r"\(\s*(ft|feet|m|cm|in)\s*\)", title, re.IGNORECASE)
            found.append(_Column(title, name, unit[1].lower() if unit else ""))
            continue
        label = title or f"column {n}"
        while label in used:
            label += " (2)"
        used.add(label)
        found.append(_Column(label[:120], None))
    return found, left_out


def _row(columns: list[_Column | None], cells: list[str]) -> dict[str, Any]:
    """What a row says: only what its columns speak of."""
    plain: dict[str, Any] = {"extra": {}}
    for column, cell in zip(columns, [*cells, *[""] * max(0, len(columns) - len(cells))], strict=False):
        if column is None:
            continue
        if column.field is None:
            if cell:
                plain["extra"][column.title] = cell
        elif column.field == "wishes":
            plain["wishes"] = dict(_wishes(cell))
        elif column.field == "pin":
            plain["pin"] = read_pin(cell)
        elif column.field in _TOGETHER and plain.get(column.field):
            plain[column.field] = f"{plain[column.field]} {cell}".strip()
        else:
            bare = column.unit and re.fullmatch(r"\d+(?:[.,]\d+)?", cell)
            plain[column.field] = f"{cell} {column.unit}" if bare else cell
    return plain


def _wishes(text: str) -> Iterator[tuple[str, float]]:
    """Needs that are wishes, each with its weight: ``picture 2; stop``."""
    for part in (part.strip().lower() for part in re.split(r"[;,]", text)):
        found = re.fullmatch(r"([a-z_ -]+?)\s*(?:[x×]?\s*(\d+(?:\.\d+)?))?", part)
        name = found and (_BY_TITLE.get(re.sub(r"[^a-z]", "", found[1])) or found[1])
        if found and name in NEEDS:
            yield name, float(found[2] or 1)


def _merged(old: Shot | None, plain: dict[str, Any]) -> dict[str, Any]:
    before: dict[str, Any] = {"key": new_key()} if old is None else old.model_dump(mode="json")
    extra = {**before.get("extra", {}), **plain["extra"]}
    return before | plain | {"extra": extra}


def _with_the_rest(document: ShotList, shots: list[dict[str, Any]], gone: list[Shot]) -> list[dict[str, Any]]:
    """What the table does not name stays behind the shot that it stood behind."""
    left = {shot.key: shot.model_dump(mode="json") for shot in gone}
    after: dict[str | None, list[dict[str, Any]]] = defaultdict(list)
    last: str | None = None
    for shot in document.shots:
        if shot.key in left:
            after[last].append(left[shot.key])
        else:
            last = shot.key
    found = list(after[None])
    for each in shots:
        found += [each, *after.get(each["key"], [])]
    return found


def _at_row(fault: Fault, whole: list[dict[str, Any]], rows: dict[str, int]) -> Fault:
    found = re.fullmatch(r"shots\[(\d+)\]\.?(\w*)(.*)", fault.field)
    if found is None:
        return fault
    row = rows.get(whole[int(found[1])]["key"])
    title = next((title for name, title, _ in COLUMNS if name == found[2]), found[2])
    return Fault(f"row {row}, column {title}" if row else fault.field, fault.value, fault.rule)


def table_of_shots(document: ShotList, answers: Sequence[ShotAnswer]) -> list[list[Value]]:
    """Write a list as a table: every cell as it was typed, unknown columns as they came, and what is answered behind them."""
    extras = list(dict.fromkeys(title for shot in document.shots for title in shot.extra))
    rows: list[list[Value]] = [[*(title for _, title, _ in COLUMNS), *extras, *ANSWERS]]
    for shot, answer in zip(document.shots, answers, strict=True):
        cells: list[Value] = [_cell(shot, name) for name, _, _ in COLUMNS]
        rows.append([*cells, *(shot.extra.get(title, "") for title in extras), *_answered(answer)])
    return rows


def _cell(shot: Shot, name: str) -> str:
    if name == "wishes":
        return "; ".join(f"{need} {weight:g}" for need, weight in shot.wishes.items())
    if name == "pin":
        return "" if shot.pin is None else pin_text(shot.pin)
    return str(getattr(shot, name))


def _answered(answer: ShotAnswer) -> list[Value]:
    best = answer["best"]
    if best is None:
        return [answer["verdict"], *[""] * (len(ANSWERS) - 2), answer["binds"]]
    stop = "" if best["stop"] is None else f"{best['marks']}{best['stop']:.3g}"
    return [answer["verdict"], best["body"], best["mode"], best["format"], best["lens"], round(best["focal_mm"], 2), best["distance_m"],
            stop, best["ei"], best["nd_stops"], best["effective_mm"], answer["binds"]]  # fmt: skip
