"""Write what the front end is made from, or check it: the OpenAPI document, from which its types come, and its choices."""

from __future__ import annotations

import json
import sys
from pathlib import Path

from hextan.api.app import DOCUMENT, bare_app
from hextan.api.choices import choices

WEB = Path(__file__).resolve().parents[3] / "web"


def main(arguments: list[str]) -> int:
    """Write both; with ``--check`` only tell whether they are in step."""
    written = {
        DOCUMENT: json.dumps(bare_app().openapi(), indent=1, sort_keys=True) + "\n",
        WEB / "src" / "lib" / "generated" / "choices.ts": choices(),
    }
    late = [file for file, text in written.items() if not file.exists() or file.read_text() != text]
    if "--check" not in arguments:
        for file in late:
            file.write_text(written[file])
        return 0
    for file in late:
        print(f"{file.name} is out of step with the code. Run: ./hextan types", file=sys.stderr)
    return 1 if late else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
