"""The process in which large spreadsheets are written: rows as JSON on standard input, the file on standard output.

``python -m hextan.formats.writing_child xlsx|ods TITLE``
"""

from __future__ import annotations

import resource
import sys

import orjson

from hextan.formats.spreadsheets import write_here

#: Memory, bytes; time on the processor, seconds.
MEMORY, SECONDS = 2 << 30, 60


def main(kind: str, title: str) -> int:
    """Write one file."""
    for what, most in (
        (resource.RLIMIT_AS, MEMORY),
        (resource.RLIMIT_CPU, SECONDS),
        (resource.RLIMIT_CORE, 0),
    ):
        resource.setrlimit(what, (most, most))
    rows = orjson.loads(sys.stdin.buffer.read())
    sys.stdout.buffer.write(write_here(kind, rows, title))  # type: ignore[arg-type]
    return 0


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:3]))
