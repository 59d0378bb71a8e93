"""The command that answers the public evaluation format: JSON in, JSON out."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path

import orjson

from hextan.core import evaluate
from hextan.core.base import HextanError


def main(arguments: list[str] | None = None) -> int:
    """Run ``evaluate FILE`` (or ``-``); 2 and a message on standard error for bad input."""
    parser = argparse.ArgumentParser(prog="hextan")
    commands = parser.add_subparsers(dest="command", required=True)
    command = commands.add_parser("evaluate", help="answer a request of the public evaluation format")
    command.add_argument("file", help="a JSON file, or - for standard input")
    options = parser.parse_args(arguments)
    try:
        data = sys.stdin.buffer.read() if options.file == "-" else Path(options.file).read_bytes()
        answer = evaluate(data)
    except OSError as error:
        print(f"hextan: {options.file}: {error.strerror}", file=sys.stderr)
        return 2
    except HextanError as error:
        print(f"hextan: {error.message}", file=sys.stderr)
        return 2
    sys.stdout.write(orjson.dumps(answer, option=orjson.OPT_INDENT_2).decode() + "\n")
    return 0


if __name__ == "__main__":
    sys.exit(main())
