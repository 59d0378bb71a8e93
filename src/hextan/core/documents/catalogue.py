"""What a catalogue says differently since a body or a lens set was copied from it, taken one by one or left.

What a production has is a copy: an approved plan never changes by itself. Three documents are held
against one another: the catalogue's as it was when it was taken, the catalogue's now, and the copy.
"""

from __future__ import annotations

import copy
from dataclasses import dataclass
from typing import Any, Literal

from hextan.core.base import NotFoundError, Plain, Row

#: The lists of rows in a document.
ROWS = ("modes", "formats", "crops", "lenses")
#: What belongs to each copy alone, or is held against the other row by row.
OWN = frozenset({"key", "claims", "schema", "schema_version", "origins", *ROWS})


@dataclass(frozen=True)
class Change:
    """One difference: a field, or a whole row that came or went.

    `path` is made of keys, so that it holds when rows move: ``modes/KEY/formats/KEY/rates``.
    """

    path: str
    where: str
    field: str
    kind: Literal["changed", "added", "gone"]
    taken: Any
    catalogue: Any
    here: Any

    @property
    def touched(self) -> bool:
        """Whether the copy has been changed at this place as well."""
        return bool(self.here != self.taken)


def changes(taken: Row, now: Row, here: Row) -> list[Change]:
    """List what the catalogue changed, in the order of the document.

    Parameters
    ----------
    taken : the catalogue's body when the copy was made, or as far as changes were settled since
    now : the catalogue's document
    here : the copy
    """
    return _row_changes(
        taken.model_dump(mode="json"), now.model_dump(mode="json"), here.model_dump(mode="json"), "", ""
    )


def _row_changes(taken: Plain, now: Plain, here: Plain, path: str, where: str) -> list[Change]:
    found = [
        Change(f"{path}{field}", where, field, "changed", taken[field], now[field], here.get(field))
        for field in now
        if field not in OWN and taken.get(field) != now[field] and here.get(field) != now[field]
    ]
    for rows in ROWS:
        if rows in now:
            found += _list_changes(
                taken.get(rows, []), now[rows], here.get(rows, []), f"{path}{rows}/", where
            )
    return found


def _list_changes(
    taken: list[Plain], now: list[Plain], here: list[Plain], path: str, where: str
) -> list[Change]:
    old, new, own = ({row["key"]: row for row in rows} for rows in (taken, now, here))
    found = []
    for key, row in new.items():
        name = f"{where}, {row['name']}" if where else row["name"]
        if key not in old:
            if key not in own:
                found.append(Change(f"{path}{key}", name, "", "added", None, row, None))
        elif key in own:
            found += _row_changes(old[key], row, own[key], f"{path}{key}/", name)
    for key, row in old.items():
        if key not in new and key in own:
            name = f"{where}, {row['name']}" if where else row["name"]
            found.append(Change(f"{path}{key}", name, "", "gone", row, None, own[key]))
    return found


def apply(document: Plain, change: Change) -> Plain:
    """Make a document say at one place what the catalogue says; gives a new document.

    Raises
    ------
    NotFoundError
        When the row that the change belongs to is not in the document.
    """
    result = copy.deepcopy(document)
    steps = change.path.split("/")
    row = result
    while len(steps) > 2 or (len(steps) == 2 and change.field):
        rows, key, *steps = steps
        found = next((r for r in row[rows] if r["key"] == key), None)
        if found is None:
            raise NotFoundError(f"{change.where} is not here any more: its change cannot be taken.")
        row = found
    if change.field:
        row[change.field] = copy.deepcopy(change.catalogue)
        return result
    rows, key = steps
    row[rows] = [r for r in row[rows] if r["key"] != key]
    if change.kind == "added":
        row[rows].append(copy.deepcopy(change.catalogue))
    elif rows == "modes":
        _forget_mode(result, key)
    return result


def _forget_mode(document: Plain, key: str) -> None:
    """A scan mode that goes takes the rules and claims with it that speak of it."""
    for crop in document["crops"]:
        crop["rules"] = [rule for rule in crop["rules"] if rule["mode"] != key]
    claims = document["claims"]
    for kind in ("crops", "tapes", "pixels"):
        claims[kind] = [claim for claim in claims[kind] if claim["mode"] != key]
