"""A document as rows: what is edited by itself stands in a row of its own, and is put together again when it is read.

Which lists of a model are rows follows from the model: those of a `Row`, which has a key. Nothing of a document is named here, so a
field that is added to a model is kept.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, get_args

from pydantic import BaseModel

from hextan.core.base import Plain, Row

#: Rows of a list by the row above them, in their order.
Below = Mapping[int, Sequence[Any]]


@dataclass(frozen=True)
class Shape:
    """How documents of a model stand in rows."""

    kind: str
    #: Its lists of rows, by their fields.
    lists: dict[str, Shape] = field(default_factory=dict)
    keyed: bool = False

    @classmethod
    def of(cls, kind: str, model: type[BaseModel]) -> Shape:
        """Read the shape off a model."""
        rows = {name: row for name, each in model.model_fields.items() if (row := _row_of(each.annotation))}
        lists = {name: cls.of(f"{kind}.{name}", row) for name, row in rows.items()}
        return cls(kind, lists, "key" in model.model_fields)

    def parts(self, plain: Plain) -> tuple[str, Plain, dict[str, list[Plain]]]:
        """Take a document apart: its key, what its own row says, and its lists of rows."""
        own = {name: value for name, value in plain.items() if name not in self.lists}
        key = own.pop("key", "") if self.keyed else ""
        return key, own, {name: plain.get(name, []) for name in self.lists}

    def whole(self, row: Any, below: Below) -> Plain:
        """Put a document together: a row with `id`, `key` and `body`, and the rows below it."""
        plain = {**row.body, **{name: [] for name in self.lists}}
        if self.keyed:
            plain["key"] = row.key
        for each in below.get(row.id, ()):
            name = each.kind.rpartition(".")[2]
            plain[name].append(self.lists[name].whole(each, below))
        return plain

    def keys(self, plain: Plain) -> Iterator[tuple[str, str]]:
        """Kind and key of every row below a document."""
        for name, shape in self.lists.items():
            for item in plain.get(name, []):
                yield shape.kind, item["key"]
                yield from shape.keys(item)


def _row_of(annotation: Any) -> type[Row] | None:
    """The model of a list's rows; None of what is no list of rows."""
    if getattr(annotation, "__origin__", None) is not list:
        return None
    (item,) = get_args(annotation)
    return item if isinstance(item, type) and issubclass(item, Row) else None
