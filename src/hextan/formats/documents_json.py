"""Documents as JSON files with a schema name and version (docs/files.md): bodies, lens sets, mounts and adapters."""

from __future__ import annotations

import json
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from pydantic import BaseModel

from hextan.core.base import Fault, InvalidInputError, Schema
from hextan.core.documents import (
    BODY_SCHEMA,
    LENS_SET_SCHEMA,
    RIG_SCHEMA,
    parse_body,
    parse_lens_set,
    parse_rig,
)
from hextan.formats.text import decode_json

D = TypeVar("D", bound=BaseModel)
MOST_DOCUMENTS = 200


@dataclass(frozen=True)
class JsonFile(Generic[D]):
    """One kind of file."""

    schema: Schema
    parse: Callable[[Any, str], D]

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
                documents.append(self.parse(self.schema.foreign(item, path), path))
            except InvalidInputError as error:
                faults += error.faults
                more += error.more
        if faults:
            raise InvalidInputError.of(*faults, more=more)
        return documents


BODY_FILE = JsonFile(BODY_SCHEMA, parse_body)
LENS_FILE = JsonFile(LENS_SET_SCHEMA, parse_lens_set)
RIG_FILE = JsonFile(RIG_SCHEMA, parse_rig)
