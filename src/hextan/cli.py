"""The commands that answer by themselves: the public evaluation format and plans (JSON in, JSON out), sheets, and questions in
one line."""

from __future__ import annotations

import argparse
import sys
from base64 import b64decode
from pathlib import Path

import orjson

from hextan.core import evaluate
from hextan.core.ask import ask
from hextan.core.base import HextanError, InvalidInputError
from hextan.core.packing import Watch
from hextan.core.production import Plan, material_of, plan, plan_kit, plan_packages
from hextan.formats import production_json
from hextan.paper.printing import PrintWork, Stamped
from hextan.search.quiet import quiet


def main(arguments: list[str] | None = None) -> int:
    """Run ``evaluate FILE`` (or ``-``); 2 and a message on standard error for bad input."""
    parser = argparse.ArgumentParser(prog="hextan")
    commands = parser.add_subparsers(dest="command", required=True)
    command = commands.add_parser("evaluate", help="answer a request of the public evaluation format")
    command.add_argument("file", help="a JSON file, or - for standard input")
    question = commands.add_parser("ask", help="answer a question in one line")
    question.add_argument("words", nargs="+", help="like: 50 s35")
    planned = commands.add_parser("plan", help="judge the shots of a production's file")
    planned.add_argument("file", help="a .hextan.json file, or - for standard input")
    asked = planned.add_mutually_exclusive_group()
    asked.add_argument(
        "--kit", nargs="?", const="", metavar="NAME", help="and its smallest kit, or the kit of a name"
    )
    asked.add_argument("--packages", metavar="A,B", help="and two packages for the same shots")
    printed = commands.add_parser("sheets", help="print the sheets of a production's file as PDF")
    printed.add_argument("file", help="a .hextan.json file, or - for standard input")
    printed.add_argument("pdf", type=Path, help="the PDF to write")
    printed.add_argument("--bundle", metavar="NAME", help="this bundle alone")
    options = parser.parse_args(arguments)
    if options.command == "ask":
        return _ask(" ".join(options.words))
    try:
        data = sys.stdin.buffer.read() if options.file == "-" else Path(options.file).read_bytes()
        if options.command == "sheets":
            return _printed(data, options)
        answer = _planned(data, options) if options.command == "plan" else evaluate(data)
    except OSError as error:
        print(f"hextan: {options.file}: {error.strerror}", file=sys.stderr)
        return 2
    except HextanError as error:
        print(f"hextan: {error.message}", file=sys.stderr)
        return 2
    sys.stdout.write(orjson.dumps(answer, option=orjson.OPT_INDENT_2).decode() + "\n")
    return 0


def _planned(data: bytes, options: argparse.Namespace) -> Plan:
    document = production_json.read(data)
    with quiet():
        if options.kit is not None:
            return plan_kit(document, options.kit, Watch())
        return plan_packages(document, options.packages, Watch()) if options.packages else plan(document)


def _printed(data: bytes, options: argparse.Namespace) -> int:
    """Print sheets; says how many pages, and which sheets had nothing to print."""
    document = production_json.read(data)
    bundles = [b for b in document.sheets.bundles if options.bundle in (None, b.name)]
    if not bundles:
        names = ", ".join(bundle.name for bundle in document.sheets.bundles) or "it has none"
        raise InvalidInputError(f"No bundle of sheets is called {options.bundle or 'anything'}: {names}.")
    plans = tuple(plan for bundle in bundles for plan in bundle.sheets)
    work = PrintWork(material_of(document), plans, Stamped("", ""), document.name)
    with quiet():
        printed = work.done(Watch(), lambda known: None)
    options.pdf.write_bytes(b64decode(printed["pdf_base64"]))
    print(f"{options.pdf}: {printed['pages']} pages")
    for why in printed["empty"].values():
        print(f"hextan: {why}", file=sys.stderr)
    return 0


def _ask(line: str) -> int:
    """Answer a line for reading; 2 where it is no question."""
    asked = ask(line)
    for word in asked["words"]:
        if word["understood"] is None:
            print(f"hextan: {word['text']} is not understood: {word['could_be']}", file=sys.stderr)
    for answer in asked["answers"]:
        print(answer["told"])
        wide = max((len(figure["name"]) for figure in answer["figures"]), default=0)
        for figure in answer["figures"]:
            print(f"  {figure['name']:<{wide}}  {figure['value']}")
        for step in answer["steps"]:
            print(f"    {step}")
    for want in asked["wants"]:
        print(f"hextan: {want}", file=sys.stderr)
    return 0 if asked["answers"] else 2


if __name__ == "__main__":
    sys.exit(main())
