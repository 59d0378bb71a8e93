"""The endpoints of sheets: parse, make, answer. Many pages are printed by a process of its own, never in a request."""

from __future__ import annotations

import time
from base64 import b64decode
from dataclasses import replace
from datetime import UTC, datetime
from typing import Annotated, Any

from fastapi import APIRouter, Path, Query, Request, Response
from sqlalchemy.orm import Session

from hextan.api.errors import stale
from hextan.api.plumbing import Db, ProductionId, file_answer, json_answer, no_longer_needed
from hextan.api.route import Route
from hextan.api.sheet_schemas import (
    PrintAsk,
    PrintSeen,
    SheetAsk,
    SheetSeen,
    SheetsKept,
    SheetsWrite,
    TableFile,
)
from hextan.core.base import InvalidInputError, Key, NotFoundError
from hextan.core.packing import KitAnswer, KitPlan
from hextan.core.sheets import Material, Sheet, fingerprint, sheet_of
from hextan.formats.sheet_tables import write_tables
from hextan.formats.spreadsheets import MEDIA
from hextan.paper.fonts import missing
from hextan.paper.layout import laid_out
from hextan.paper.pdf import pdf_of
from hextan.paper.printing import PrintWork, Stamped, pages_of
from hextan.search.searches import Search
from hextan.search.work import Work
from hextan.store.keeper import find_production
from hextan.store.kinds import SHEETS
from hextan.store.material import changed_at, material_of

router = APIRouter(route_class=Route, prefix="/productions/{production_id}/sheets")
PrintName = Annotated[str, Path(pattern=r"^print-[0-9a-f]{16}$")]
SEEN: dict[int | str, dict[str, Any]] = {200: {"model": SheetSeen}}
PRINT: dict[int | str, dict[str, Any]] = {200: {"model": PrintSeen}}
FILE: dict[int | str, dict[str, Any]] = {
    200: {"content": {"application/octet-stream": {}}, "description": "The file."}
}
#: So long a request waits for a kit that is being looked for, seconds.
_PATIENCE_S = 6.0


@router.get("", name="sheets_read", tags=["Sheets"])
def read_sheets(production_id: ProductionId, db: Db) -> SheetsKept:
    """Give a production's sheets; version 0 and none when none were kept yet."""
    version, document = SHEETS.versioned(db, production_id)
    return SheetsKept(version=version, document=document)


@router.put("", name="sheets_write", tags=["Sheets"], responses=stale(SheetsWrite))
def write_sheets(production_id: ProductionId, asked: SheetsWrite, db: Db) -> SheetsKept:
    """Keep sheets; 409 with both when somebody else kept some in between."""
    version = SHEETS.save(db, production_id, asked.version, asked.document)
    return SheetsKept(version=version, document=asked.document)


@router.post("/view", name="sheet_view", tags=["Sheets"], responses=SEEN)
def view_sheet(production_id: ProductionId, asked: SheetAsk, db: Db, request: Request) -> Response:
    """Make a sheet as it would be printed now: its data, and some of its pages."""
    material, stamped, working = _material(production_id, db, request)
    sheet, state, pages = pages_of(material, asked.plan, stamped)
    shown = {
        "sheet": sheet,
        "fingerprint": state,
        "working": bool(working),
        "page_count": len(pages),
        "first": asked.first,
        "pages": pages[asked.first : asked.first + asked.most],
        "unknown_signs": "".join(sorted(missing(" ".join(_texts(sheet))))),
    }
    return json_answer(shown)


@router.get("/{key}/view", name="sheet_seen", tags=["Sheets"], responses=SEEN)
def seen_sheet(
    production_id: ProductionId,
    key: Key,
    db: Db,
    request: Request,
    first: Annotated[int, Query(ge=0, le=10_000)] = 0,
    most: Annotated[int, Query(ge=0, le=20)] = 4,
) -> Response:
    """Make a saved sheet as it would be printed now, at an address of its own: a browser keeps it for when there is no line."""
    plan = next((p for b in SHEETS.read(db, production_id).bundles for p in b.sheets if p.key == key), None)
    if plan is None:
        raise NotFoundError("There is no such sheet any more.")
    return view_sheet(production_id, SheetAsk(plan=plan, first=first, most=most), db, request)


@router.post("/prints", name="sheets_print", tags=["Sheets"], responses=PRINT)
def begin(production_id: ProductionId, asked: PrintAsk, db: Db, request: Request) -> Response:
    """Begin to print sheets as one PDF; the same sheets go on, or are there at once."""
    material, stamped, _ = _material(production_id, db, request)
    # A process that prints looks for kits itself.
    own = replace(material, kit=Material.kit)
    work = PrintWork(own, tuple(asked.plans), stamped, f"{material.name}, {asked.title}")
    name = f"print-{work.asked}"
    return _print_seen(name, request.app.state.searches.begin(production_id, name, work))


@router.get("/prints/{name}", name="sheets_print_seen", tags=["Sheets"], responses=PRINT)
def seen(production_id: ProductionId, name: PrintName, db: Db, request: Request) -> Response:
    """Tell how far printing is."""
    return _print_seen(name, _find(production_id, name, db, request))


@router.post("/prints/{name}/stop", name="sheets_print_stop", tags=["Sheets"], responses=PRINT)
def stop(production_id: ProductionId, name: PrintName, db: Db, request: Request) -> Response:
    """Stop printing: there is no file then."""
    search = _find(production_id, name, db, request)
    search.stop()
    return _print_seen(name, search)


@router.get(
    "/prints/{name}/file", name="sheets_print_file", tags=["Sheets"], response_class=Response, responses=FILE
)
def printed_file(production_id: ProductionId, name: PrintName, db: Db, request: Request) -> Response:
    """Give the file that was printed; 404 as long as there is none."""
    search = _find(production_id, name, db, request)
    if search.state != "done" or search.answer is None:
        raise NotFoundError("It is not printed yet: ask how far it is.")
    return file_answer(
        b64decode(search.answer["pdf_base64"]), "application/pdf", f"{search.answer['title']}.pdf"
    )


@router.get("/{key}/{kind}", name="sheet_file", tags=["Sheets"], response_class=Response, responses=FILE)
def sheet_file(production_id: ProductionId, key: Key, kind: TableFile, db: Db, request: Request) -> Response:
    """Give one kept sheet as a file: as PDF, or its tables for spreadsheets."""
    plan = next((p for b in SHEETS.read(db, production_id).bundles for p in b.sheets if p.key == key), None)
    if plan is None:
        raise NotFoundError("There is no such sheet any more.")
    material, stamped, working = _material(production_id, db, request)
    sheet = sheet_of(material, plan)
    if working:
        raise InvalidInputError("Its kit is still being looked for: ask again in some seconds.")
    name = f"{sheet['title']}.{kind}"
    if kind == "pdf":
        pages = laid_out(sheet, plan, stamped.on(plan.key, fingerprint(sheet)))
        return file_answer(
            pdf_of([(sheet["title"], pages)], f"{material.name}: {sheet['title']}"), "application/pdf", name
        )
    return file_answer(write_tables(sheet, kind), MEDIA[kind], name)


def _material(production_id: int, db: Session, request: Request) -> tuple[Material, Stamped, list[str]]:
    """What sheets are made from, what they are stamped with, and kits that are still being looked for."""
    material = material_of(db, production_id, request.app.state.packages.package(db, production_id))
    working: list[str] = []

    def kit(m: Material, plan: KitPlan) -> KitAnswer | None:
        """As on the page of kits: found by a process, and the same one for both."""
        work = Work(m.package, m.settings, m.shots, m.packing, (plan,))
        search: Search = request.app.state.searches.begin(production_id, plan.key, work)
        until = time.monotonic() + _PATIENCE_S
        while search.at_work and search.answer is None and time.monotonic() < until:
            time.sleep(0.05)
        if search.answer is None:
            if search.state == "failed":
                raise InvalidInputError(search.problem)
            working.append(plan.name)
        found: KitAnswer | None = search.answer
        return found

    changed = changed_at(db, production_id)
    now = datetime.now(UTC)
    words = f"Printed {_day(now)}" + (
        f" · plan last changed {_day(changed.astimezone(UTC))}" if changed else ""
    )
    address = f"{request.app.state.address}/p/{production_id}/sheets"
    # Kits are waited for, and pages laid out, without it.
    no_longer_needed(db)
    return replace(material, kit=kit), Stamped(words, address), working


def _day(at: datetime) -> str:
    return f"{at.day} {at:%b %Y, %H:%M} UTC"


def _texts(sheet: Sheet) -> list[str]:
    """Everything that is written on a sheet."""
    texts = [sheet["title"], sheet["lead"], *sheet["notes"], *(fact["text"] for fact in sheet["stamp"])]
    for block in sheet["blocks"]:
        if block["kind"] == "table":
            texts += [cell["text"] for row in block["rows"] for cell in row["cells"]]
            texts += [c["title"] + c["group"] + c["group_more"] for c in block["columns"]]
            texts += [block["heading"], block["told"], *(row["section"] for row in block["rows"])]
        elif block["kind"] == "words":
            texts += [block["heading"], *block["lines"]]
        else:
            texts += [block["heading"], block["told"], *block["columns"], *block["columns_more"]]
            texts += [
                line for row in block["rows"] for p in row["pictures"] if p is not None for line in p["lines"]
            ]
            texts += [row["title"] + row["more"] for row in block["rows"]]
    return texts


def _find(production_id: int, name: str, db: Session, request: Request) -> Search:
    find_production(db, production_id)
    found: Search | None = request.app.state.searches.find(production_id, name)
    if found is None:
        raise NotFoundError("These sheets are not being printed any more: print them again.")
    return found


def _print_seen(name: str, search: Search) -> Response:
    answer = search.answer or {}
    return json_answer(
        {
            "name": name,
            "state": search.state,
            "told": search.told,
            "seconds": round(search.seconds, 2),
            "pages": answer.get("pages", 0),
            "fingerprints": answer.get("fingerprints", {}),
            "empty": answer.get("empty", {}),
            "at": f"{datetime.now(UTC):%Y-%m-%dT%H:%M:%SZ}",
            "problem": search.problem,
        }
    )
