"""The endpoints of the Package view: parse, call, answer."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Path, Request, Response
from sqlalchemy.orm import Session

from hextan.api.errors import BAD, STALE
from hextan.api.gate import StatedRoute
from hextan.api.package_schemas import (
    BodyKept,
    BodyList,
    BodyNew,
    BodySheet,
    BodySummary,
    BodyWrite,
    CatalogueChange,
    ChangesSettled,
    DataTable,
    FinderAnswer,
    Removal,
    SettingsKept,
    SettingsWrite,
    SpeedTable,
)
from hextan.api.plumbing import Db, Id, ProductionId, json_answer
from hextan.api.schemas import ProductionRead
from hextan.core.body_document import BodyDocument, check_body
from hextan.core.body_sheet import body_sheet
from hextan.core.claims import Home
from hextan.core.data_table import DataAsk, data_table
from hextan.core.errors import Fault, InvalidInputError
from hextan.core.finder import find_formats
from hextan.core.finder_ask import FinderAsk
from hextan.core.package_settings import PackageSettings, parse_settings
from hextan.core.speed import speed_table
from hextan.store import bodies, models, repositories
from hextan.store.bodies import BODIES

router = APIRouter(route_class=StatedRoute, responses=BAD, prefix="/productions/{production_id}")
BodyId = Annotated[Id, Path()]
catalogue_router = APIRouter(route_class=StatedRoute, responses=BAD)


@catalogue_router.get("/catalogue")
def catalogue(db: Db) -> ProductionRead:
    """Give the catalogue: a shelf of equipment from which productions take copies."""
    shelf = repositories.catalogue_of(db)
    return ProductionRead(id=shelf.id, version=shelf.version, name=shelf.name, synopsis=shelf.synopsis)


def _summary(db: Session, row: models.Body) -> BodySummary:
    mm = row.pitch_um / 1000
    modes = [mode for mode in row.modes if not mode.removed]
    return BodySummary(
        id=row.id,
        version=row.version,
        maker=row.maker,
        name=row.name,
        mount=row.mount,
        firmware=row.firmware,
        photosites=[row.photosites_w, row.photosites_h],
        width_mm=row.photosites_w * mm,
        height_mm=row.photosites_h * mm,
        modes=len(modes),
        formats=sum(not f.removed for mode in modes for f in mode.formats),
        changes=len(BODIES.catalogue_changes(db, row)),
        catalogue_body_id=row.catalogue_body_id,
    )


@router.get("/bodies")
def list_bodies(production_id: ProductionId, db: Db) -> BodyList:
    """List the bodies of a production."""
    repositories.find_production(db, production_id)
    return BodyList(
        bodies=[_summary(db, row) for row in BODIES.every(db, production_id)],
        removed=[_summary(db, row) for row in BODIES.every(db, production_id, removed=True)],
    )


def kept(row: models.Body) -> BodyKept:
    """Show a body with its version."""
    return BodyKept(id=row.id, version=row.version, document=bodies.document_of(row))


@router.post("/bodies", status_code=201)
def add_body(production_id: ProductionId, asked: BodyNew, db: Db) -> BodyKept:
    """Add a body: from a document, as a copy from the catalogue, or as a copy of one that is here."""
    production = repositories.find_production(db, production_id)
    if asked.catalogue_body_id is not None:
        shelf = repositories.catalogue_of(db)
        source = BODIES.find(db, shelf.id, asked.catalogue_body_id)
        return kept(BODIES.copy_from_catalogue(db, production, source))
    if asked.body_id is not None:
        return kept(BODIES.duplicate(db, production, BODIES.find(db, production_id, asked.body_id)))
    if asked.document is None:
        rule = "give a document, or a catalogue_body_id, or a body_id to copy"
        raise InvalidInputError.of(Fault("document", None, rule))
    check_body(asked.document, "document")
    row = BODIES.add(db, production, asked.document)
    db.commit()
    return kept(row)


@router.post("/bodies/sheet", responses={200: {"model": BodySheet}})
def sheet(production_id: ProductionId, document: BodyDocument, db: Db) -> Response:
    """Check a body as it is typed, and work out what follows from it; keeps nothing."""
    home = _home(db, production_id) if document.claims.crops else None
    return json_answer(body_sheet(document, _others(db, production_id, document), home))


def _home(db: Session, production_id: int) -> Home | None:
    """The reference that the production's Bench goes by; a scan mode's window under its own name."""
    reference = repositories.reference_of(db, production_id)
    if reference.name != "scan_mode":
        return Home.named(reference.name, reference.by)
    mode = None if reference.scan_mode_id is None else db.get(models.ScanMode, reference.scan_mode_id)
    body = None if mode is None else db.get(models.Body, mode.body_id)
    if mode is None or body is None or body.production_id != production_id:
        return None
    mm = body.pitch_um / 1000
    return Home(f"{body.name}, {mode.name}", mode.window_w * mm, mode.window_h * mm, reference.by)


def _others(db: Session, production_id: int, document: BodyDocument) -> list[BodyDocument]:
    """The bodies that a copied page may belong to; asked for only where a crop factor is claimed."""
    if not document.claims.crops:
        return []
    places = dict.fromkeys((production_id, repositories.catalogue_of(db).id))
    found = [bodies.document_of(row) for place in places for row in BODIES.every(db, place)]
    named = {(d.maker, d.name): d for d in found}
    return [d for name, d in named.items() if name != (document.maker, document.name)]


@router.get("/bodies/{body_id}")
def read_body(production_id: ProductionId, body_id: BodyId, db: Db) -> BodyKept:
    """Give a body's document."""
    return kept(BODIES.find(db, production_id, body_id))


@router.put("/bodies/{body_id}", responses=STALE)
def write_body(production_id: ProductionId, body_id: BodyId, asked: BodyWrite, db: Db) -> BodyKept:
    """Keep a body; 409 with both when somebody else kept one in between."""
    check_body(asked.document, "document")
    return kept(BODIES.save(db, production_id, body_id, asked.version, asked.document))


@router.post("/bodies/{body_id}/removal", responses=STALE)
def remove_body(production_id: ProductionId, body_id: BodyId, asked: Removal, db: Db) -> BodyKept:
    """Take a body out of the production, or bring it back; nothing is lost."""
    return kept(BODIES.set_removed(db, production_id, body_id, asked.version, asked.removed))


@router.get("/bodies/{body_id}/catalogue")
def catalogue_changes(production_id: ProductionId, body_id: BodyId, db: Db) -> list[CatalogueChange]:
    """List what the catalogue says differently since the body was taken from it."""
    found = BODIES.catalogue_changes(db, BODIES.find(db, production_id, body_id))
    return [CatalogueChange(**vars(change), touched=change.touched) for change in found]


@router.post("/bodies/{body_id}/catalogue", responses=STALE)
def settle_changes(production_id: ProductionId, body_id: BodyId, asked: ChangesSettled, db: Db) -> BodyKept:
    """Take some of the catalogue's changes, leave others for good."""
    row = BODIES.find(db, production_id, body_id)
    return kept(BODIES.settle_changes(db, row, asked.version, asked.take, asked.leave))


def _settings(db: Session, production_id: int) -> PackageSettings:
    return parse_settings(repositories.find_production(db, production_id).settings)


@router.get("/settings")
def read_settings(production_id: ProductionId, db: Db) -> SettingsKept:
    """Give the package's settings: base rate, shutter, planned minutes, cards."""
    production = repositories.find_production(db, production_id)
    return SettingsKept(version=production.version, settings=parse_settings(production.settings))


@router.put("/settings", responses=STALE)
def write_settings(production_id: ProductionId, asked: SettingsWrite, db: Db) -> SettingsKept:
    """Keep the package's settings; 409 with both when somebody else kept some in between."""
    version = repositories.save_settings(db, production_id, asked.version, asked.settings)
    return SettingsKept(version=version, settings=asked.settings)


@router.get("/speed", responses={200: {"model": SpeedTable}})
def speed(production_id: ProductionId, db: Db, request: Request) -> Response:
    """Answer how fast each scan mode goes, what binds it and what it costs."""
    equipment = request.app.state.packages.package(db, production_id)
    return json_answer(speed_table(equipment, _settings(db, production_id)))


@router.post("/finder", responses={200: {"model": FinderAnswer}})
def finder(production_id: ProductionId, asked: FinderAsk, db: Db, request: Request) -> Response:
    """Answer what a shot can be recorded in, ranked, and why the rest is out."""
    equipment = request.app.state.packages.package(db, production_id)
    return json_answer(find_formats(equipment, _settings(db, production_id), asked))


@router.post("/data", responses={200: {"model": DataTable}})
def data(production_id: ProductionId, asked: DataAsk, db: Db, request: Request) -> Response:
    """Lay out pixels and data of every recording format."""
    equipment = request.app.state.packages.package(db, production_id)
    return json_answer(data_table(equipment, _settings(db, production_id), asked))
