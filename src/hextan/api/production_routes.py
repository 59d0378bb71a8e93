"""The endpoints of productions themselves: parse, call, answer."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any
from urllib.parse import quote

from fastapi import APIRouter, Body, Header, Query, Request, Response

from hextan.api.errors import refusals, stale
from hextan.api.package_schemas import Removal
from hextan.api.paging import Pages
from hextan.api.plumbing import Db, Id, ProductionId, made
from hextan.api.production_schemas import (
    ProductionKept,
    ProductionList,
    ProductionNew,
    ProductionRead,
    ProductionWrite,
    ShelfRead,
)
from hextan.api.route import Route
from hextan.demo.load import reset_demo
from hextan.formats import production_json
from hextan.store import models, productions, repositories
from hextan.store.keeper import find_production
from hextan.store.kinds import SET, SETTINGS

router = APIRouter(route_class=Route, tags=["Productions"])
#: Made by whoever asks: a request that is sent again, because nobody knows whether it arrived, adds nothing twice.
AskedKey = Annotated[str | None, Header(min_length=8, max_length=64, pattern=r"^[0-9A-Za-z_-]+$")]
FileBytes = Annotated[bytes, Body(media_type="application/octet-stream")]
DOWNLOAD: dict[int | str, dict[str, Any]] = {
    200: {"content": {"application/json": {}}, "description": "The file."}
}


@router.get("/productions", name="productions_list")
def list_productions(db: Db, request: Request, pages: Pages) -> ProductionList:
    """List the productions, the last changed first, with what each carries."""
    every = productions.every(db)
    here, removed = pages.of(
        *([each for each in every if each[0].archived is away] for away in (False, True))
    )

    def read(row: models.Production, changed: datetime) -> ProductionRead:
        return ProductionRead(
            id=row.id, version=row.version, **productions.facts_of(row).model_dump(), changed_at=changed,
            demo=row.demo_key is not None, glance=request.app.state.packages.glance(db, row.id),
        )  # fmt: skip

    return ProductionList(here=[read(*each) for each in here], removed=[read(*each) for each in removed])


def _kept(db: Db, row: models.Production) -> ProductionKept:
    settings = SETTINGS.read(db, row.id)
    return ProductionKept(
        id=row.id,
        version=row.version,
        facts=productions.facts_of(row),
        archived=row.archived,
        demo=row.demo_key is not None,
        words=settings.words,
        unit=settings.unit,
    )


def _added(db: Db, response: Response, row: models.Production) -> ProductionKept:
    return made(response, str(row.id), _kept(db, row))


@router.post("/productions", name="production_add", status_code=201, responses=refusals(404, 410))
def add_production(
    asked: ProductionNew, db: Db, response: Response, idempotency_key: AskedKey = None
) -> ProductionKept:
    """Make a production: empty, or as a copy of another. Sent again with the same `Idempotency-Key`, it gives the one that was made."""
    before = productions.asked_before(db, idempotency_key)
    if before is not None:
        return _added(db, response, before)
    if asked.production_id is None:
        return _added(db, response, productions.make(db, asked.facts, idempotency_key))
    return _added(db, response, productions.copy(db, asked.production_id, asked.facts, idempotency_key))


@router.post("/productions/file", name="production_file_read", status_code=201)
def read_file(
    data: FileBytes, db: Db, response: Response, idempotency_key: AskedKey = None
) -> ProductionKept:
    """Add a production from its file, all of it or nothing: every fault is told with its place. The key is as in `production_add`."""
    before = productions.asked_before(db, idempotency_key)
    if before is not None:
        return _added(db, response, before)
    return _added(db, response, productions.add_document(db, production_json.read(data), idempotency_key))


@router.post("/demo", name="demo_reset", status_code=201)
def demo(db: Db, response: Response) -> ProductionKept:
    """Add the demo, or put away the one that is here and begin it anew."""
    return _added(db, response, reset_demo(db))


@router.get("/productions/{production_id}", name="production_read")
def read_production(production_id: ProductionId, db: Db) -> ProductionKept:
    """Give what is said of a production."""
    return _kept(db, productions.own(db, production_id))


@router.put("/productions/{production_id}", name="production_write", responses=stale(ProductionWrite))
def write_production(production_id: ProductionId, asked: ProductionWrite, db: Db) -> ProductionKept:
    """Rename a production, or say more of it; 409 with both when somebody else did in between."""
    return _kept(db, productions.save_facts(db, production_id, asked.version, asked.facts))


@router.post(
    "/productions/{production_id}/removal", name="production_remove", responses=stale(ProductionWrite)
)
def archive_production(
    production_id: ProductionId, asked: Removal, db: Db, request: Request
) -> ProductionKept:
    """Put a production away, or bring it back; nothing is lost. Nobody listens to the cameras of one that is away."""
    row = productions.set_archived(db, production_id, asked.version, asked.removed)
    request.app.state.cameras.listen(
        production_id, [] if asked.removed else SET.read(db, production_id).sources
    )
    return _kept(db, row)


@router.get(
    "/productions/{production_id}/file",
    name="production_file_write",
    response_class=Response,
    responses=DOWNLOAD,
)
def write_file(production_id: ProductionId, db: Db, removed: bool = False) -> Response:
    """Give a whole production as one file; with `removed` also what was taken out of it."""
    row = find_production(db, production_id)
    name = quote(f"{row.name}.{production_json.SUFFIX}", safe="")
    data = production_json.write(productions.document_of(db, production_id, removed))
    header = {"Content-Disposition": f"attachment; filename*=UTF-8''{name}"}
    return Response(data, media_type="application/json", headers=header)


@router.get("/catalogue", name="catalogue_read")
def catalogue(db: Db, production_id: Annotated[Id | None, Query()] = None) -> ShelfRead:
    """Give the catalogue from which a production takes copies; the demo has one of its own."""
    shelf = repositories.catalogue_of(db, production_id)
    return ShelfRead(id=shelf.id, name=shelf.name)
