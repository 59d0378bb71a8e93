"""A whole production as one JSON file, `NAME.hextan.json` (docs/files.md)."""

from __future__ import annotations

import json

from hextan.core.production import ProductionDocument, parse_production
from hextan.formats.text import decode_json

SUFFIX = "hextan.json"


def write(document: ProductionDocument) -> bytes:
    """Write a production."""
    return (json.dumps(document.model_dump(mode="json"), indent=1, ensure_ascii=False) + "\n").encode()


def read(data: bytes) -> ProductionDocument:
    """Read a production, completely checked.

    Raises
    ------
    InvalidInputError
        Text that is no JSON, another schema, a newer version, and whatever is wrong in any part of it.
    """
    return parse_production(decode_json(data))
