"""Documents as JSON files with a schema name and version (docs/files.md): bodies, lens sets, mounts and adapters."""

from __future__ import annotations

import json
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any, Generic, TypeVar

from pydantic import BaseModel

from hextan.core import body_document, lens_document, rig_document
from hextan.core.errors import Fault, InvalidInputError
from hextan.formats.text import decode_json

D = TypeVar("D", bound=BaseModel)
MOST_DOCUMENTS = 200


@dataclass(frozen=True)
class JsonFile(Generic[D]):
    """One kind of file."""

    schema: str
    version: int
    parse: Callable[[Any, str], D]
    #: One step for each older version: takes a document of that version, gives one of the next.
    upgrades: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = field(default_factory=dict)

    def write(self, documents: Sequence[D]) -> bytes:
        """Write one document as an object, several as a list."""
        plain: Any = [document.model_dump(mode="json") for document in documents]
        if len(plain) == 1:
            plain = plain[0]
        return (json.dumps(plain, indent=1, ensure_ascii=False) + "\n").encode()

    def read(self, data: bytes) -> list[D]:
        """Read one document or a list of them; all or none.

        Raises
        ------
        InvalidInputError
            Text that is no JSON, another schema, a newer version, and whatever the document itself refuses.
        """
        plain = decode_json(data)
        items = plain if isinstance(plain, list) else [plain]
        if not 1 <= len(items) <= MOST_DOCUMENTS:
            raise InvalidInputError.of(Fault("file", len(items), f"holds 1 to {MOST_DOCUMENTS} documents"))
        faults: list[Fault] = []
        more = 0
        documents = []
        for i, item in enumerate(items):
            path = f"[{i}]" if isinstance(plain, list) else ""
            try:
                documents.append(self.parse(self._newest(item, path), path))
            except InvalidInputError as error:
                faults += error.faults
                more += error.more
        if faults:
            raise InvalidInputError.of(*faults, more=more)
        return documents

    def _newest(self, item: Any, path: str) -> Any:
        """Bring a document to the newest version."""
        if not isinstance(item, dict) or item.get("schema") != self.schema:
            given = item.get("schema") if isinstance(item, dict) else type(item).__name__
            raise InvalidInputError.of(Fault(f"{path}.schema".lstrip("."), given, f"must be {self.schema}"))
        version = item.get("schema_version")
        if not isinstance(version, int) or not 1 <= version <= self.version:
            rule = f"must be 1 to {self.version}: a file of a newer version needs a newer Hextan"
            raise InvalidInputError.of(Fault(f"{path}.schema_version".lstrip("."), version, rule))
        for step in range(version, self.version):
            item = self.upgrades[step](item)
        return item


BODY_FILE = JsonFile(body_document.SCHEMA, body_document.SCHEMA_VERSION, body_document.parse_body)
LENS_FILE = JsonFile(lens_document.SCHEMA, lens_document.SCHEMA_VERSION, lens_document.parse_lens_set)
RIG_FILE = JsonFile(rig_document.SCHEMA, rig_document.SCHEMA_VERSION, rig_document.parse_rig)
