"""The commands that answer by themselves: the public evaluation format and plans (JSON in, JSON out), sheets, heads of clips, and
questions in one line."""

from __future__ import annotations

import argparse
import sys
from base64 import b64decode
from datetime import datetime, timedelta
from pathlib import Path

import orjson

from hextan.core import evaluate
from hextan.core.ask import ask
from hextan.core.base import HextanError, InvalidInputError, refuse_bad_arithmetic
from hextan.core.packing import Watch
from hextan.core.production import Plan, material_of, plan, plan_kit, plan_packages
from hextan.core.record import ClipFacts
from hextan.formats import production_json
from hextan.media.heads import is_read, merged, of_path
from hextan.paper.printing import PrintWork, Stamped
from hextan.search.quiet import quiet


def main(arguments: list[str] | None = None) -> int:
    """Run ``evaluate FILE`` (or ``-``); 2 and a message on standard error for bad input."""
    refuse_bad_arithmetic()
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
    heads = commands.add_parser("clips", help="read the heads of clips, stills and tables in a folder")
    heads.add_argument("folder", type=Path)
    heads.add_argument("--json", action="store_true", help="as JSON instead of lines")
    options = parser.parse_args(arguments)
    if options.command == "clips":
        return _clips(options.folder, options.json)
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


def _clips(folder: Path, as_json: bool) -> int:
    """Read what lies in a folder, one file after another; 1 where some could not be read, 2 where there is none."""
    if not folder.exists():
        print(f"hextan: there is no {folder}", file=sys.stderr)
        return 2
    files = (
        [folder]
        if folder.is_file()
        else sorted(f for f in folder.rglob("*") if f.is_file() and is_read(f.name))
    )
    offset = datetime.now().astimezone().utcoffset() or timedelta()
    facts: list[ClipFacts] = []
    unread = 0
    for file in files:
        try:
            facts += of_path(file, round(offset.total_seconds() / 60))
        except (HextanError, OSError) as error:
            unread += 1
            print(f"hextan: {getattr(error, 'message', error)}", file=sys.stderr)
    found = merged(facts)
    if as_json:
        sys.stdout.write(orjson.dumps([each.model_dump(mode="json") for each in found]).decode() + "\n")
    else:
        for each in found:
            print(_line(each))
    if not files:
        print(f"hextan: no clip, still or table lies in {folder}", file=sys.stderr)
    return 1 if unread else 0 if found else 2


def _line(clip: ClipFacts) -> str:
    raster = "raster not told" if clip.raster is None else f"{clip.raster[0]} × {clip.raster[1]}"
    parts = [clip.name, raster, f"{clip.fps:.5g} fps" if clip.fps else "", clip.codec, f"{clip.bits} bit" if clip.bits else "",
             clip.timecode, f"{clip.seconds:.1f} s" if clip.seconds else "", clip.lens]  # fmt: skip
    return "  ".join(part for part in parts if part)


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
