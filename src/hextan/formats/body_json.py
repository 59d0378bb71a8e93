"""Bodies as JSON files with a schema name and version (docs/files.md)."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from hextan.core.body_document import SCHEMA, SCHEMA_VERSION, BodyDocument, parse_body
from hextan.core.errors import Fault, InvalidInputError
from hextan.formats.text import decode_json

#: One step for each older version: takes a document of that version, gives one of the next.
UPGRADES: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {}
MOST_BODIES = 200


def write_bodies(documents: list[BodyDocument]) -> bytes:
    """Write one body as an object, several as a list."""
    plain: Any = [document.model_dump(mode="json") for document in documents]
    if len(plain) == 1:
        plain = plain[0]
    return (json.dumps(plain, indent=1, ensure_ascii=False) + "\n").encode()


def read_bodies(data: bytes) -> list[BodyDocument]:
    """Read one body or a list of bodies; all of them or none.

    Raises
    ------
    InvalidInputError
        Text that is no JSON, another schema, a newer version, and whatever `parse_body` refuses.
    """
    plain = decode_json(data)
    items = plain if isinstance(plain, list) else [plain]
    if not 1 <= len(items) <= MOST_BODIES:
        raise InvalidInputError.of(Fault("file", len(items), f"holds 1 to {MOST_BODIES} bodies"))
    faults: list[Fault] = []
    documents = []
    for i, item in enumerate(items):
        path = f"[{i}]" if isinstance(plain, list) else ""
        try:
            documents.append(parse_body(_newest(item, path), path))
        except InvalidInputError as error:
            faults += error.faults
    if faults:
        raise InvalidInputError.of(*faults)
    return documents


def _newest(item: Any, path: str) -> Any:
    """Bring a document to the newest version."""
    if not isinstance(item, dict) or item.get("schema") != SCHEMA:
        given = item.get("schema") if isinstance(item, dict) else type(item).__name__
        raise InvalidInputError.of(Fault(f"{path}.schema".lstrip("."), given, f"must be {SCHEMA}"))
    version = item.get("schema_version")
    if not isinstance(version, int) or not 1 <= version <= SCHEMA_VERSION:
        rule = f"must be 1 to {SCHEMA_VERSION}: a file of a newer version needs a newer Hextan"
        raise InvalidInputError.of(Fault(f"{path}.schema_version".lstrip("."), version, rule))
    for step in range(version, SCHEMA_VERSION):
        item = UPGRADES[step](item)
    return item
