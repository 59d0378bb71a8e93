"""Versions of documents: what an older Hextan wrote is brought up step by step when it is read."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, TypeAlias

from hextan.core.base.errors import Fault, InvalidInputError

Plain: TypeAlias = dict[str, Any]


@dataclass(frozen=True)
class Schema:
    """The schema of one kind of document."""

    name: str
    version: int
    #: One step for each older version: takes a document of that version and gives one of the next.
    steps: dict[int, Callable[[Plain], Plain]] = field(default_factory=dict)

    def newest(self, plain: Plain, version: int) -> Plain:
        """Bring a document up from a version that this one or an older Hextan wrote.

        >>> toy = Schema("toy", 3, {1: lambda d: d | {"b": 2}, 2: lambda d: d | {"c": 3}})
        >>> toy.newest({"a": 1, "schema_version": 1}, 1)
        {'a': 1, 'schema_version': 3, 'b': 2, 'c': 3}
        """
        if version == self.version:
            return plain
        for step in range(version, self.version):
            plain = self.steps[step](plain)
        # The Bench says its version beside its state.
        return plain | {"schema_version": self.version} if "schema_version" in plain else plain

    def stored(self, plain: Plain) -> Plain:
        """Bring up what says its version itself; without one it is of the first."""
        return self.newest(plain, plain.get("schema_version", 1))

    def foreign(self, item: Any, path: str = "") -> Plain:
        """Bring up what somebody sends: it has to say what it is.

        Raises
        ------
        InvalidInputError
            No document of this schema, or of a version that this Hextan does not know.
        """
        if not isinstance(item, dict) or item.get("schema") != self.name:
            given = item.get("schema") if isinstance(item, dict) else type(item).__name__
            raise InvalidInputError.of(Fault(f"{path}.schema".lstrip("."), given, f"must be {self.name}"))
        version = item.get("schema_version")
        if not isinstance(version, int) or not 1 <= version <= self.version:
            rule = f"must be 1 to {self.version}: a file of a newer version needs a newer Hextan"
            raise InvalidInputError.of(Fault(f"{path}.schema_version".lstrip("."), version, rule))
        return self.newest(item, version)
