"""Write the OpenAPI document from which the front end's types are generated, or check it."""

from __future__ import annotations

import json
import sys
from pathlib import Path

from hextan.api.app import bare_app

DOCUMENT = Path(__file__).resolve().parents[3] / "web" / "openapi.json"


def main(arguments: list[str]) -> int:
    """Write the document; with ``--check`` only tell whether it is in step."""
    text = json.dumps(bare_app().openapi(), indent=1, sort_keys=True) + "\n"
    if "--check" in arguments:
        if DOCUMENT.exists() and DOCUMENT.read_text() == text:
            return 0
        print(f"{DOCUMENT.name} is out of step with the code. Run: ./hextan types", file=sys.stderr)
        return 1
    DOCUMENT.write_text(text)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
