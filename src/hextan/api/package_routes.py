"""The endpoints of the Package view: parse, call, answer."""

from __future__ import annotations

import math
from typing import Annotated

from fastapi import APIRouter, Path, Request, Response
from sqlalchemy.orm import Session

from hextan.api.errors import stale
from hextan.api.package_schemas import (
    BodyKept,
    BodyList,
    BodyNew,
    BodySummary,
    BodyWrite,
    CatalogueChange,
    CatalogueChanges,
    ChangesSettled,
    Removal,
    SettingsKept,
    SettingsWrite,
)
from hextan.api.plumbing import Db, Id, ProductionId, answers, json_answer, made
from hextan.api.route import Route
from hextan.core.base import Fault, InvalidInputError, RateSet
from hextan.core.documents import BodyDocument, Home, body_sheet, check_body
from hextan.core.equipment import DataAsk, PackageSettings, data_table, speed_table
from hextan.core.finder import FinderAsk, find_formats
from hextan.core.optics import format_class
from hextan.store import bodies, models, repositories
from hextan.store.bodies import BODIES
from hextan.store.units import change_unit

router = APIRouter(route_class=Route, prefix="/productions/{production_id}")
BodyId = Annotated[Id, Path()]


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
        format_class=format_class(math.hypot(row.photosites_w, row.photosites_h) * mm),
        modes=len(modes),
        formats=sum(not f.removed for mode in modes for f in mode.formats),
        offered_fps=max(
            (float(RateSet.parse(f.rates).highest) for m in modes for f in m.formats if not f.removed),
            default=None,
        ),
        changes=len(BODIES.catalogue_changes(db, row)),
        catalogue_body_id=row.catalogue_body_id,
    )


@router.get("/bodies", name="bodies_list", tags=["Bodies"])
def list_bodies(production_id: ProductionId, db: Db) -> BodyList:
    """List the bodies of a production."""
    repositories.find_production(db, production_id)
    return BodyList(
        here=[_summary(db, row) for row in BODIES.every(db, production_id)],
        removed=[_summary(db, row) for row in BODIES.every(db, production_id, removed=True)],
    )


def kept(row: models.Body) -> BodyKept:
    """Show a body with its version."""
    return BodyKept(id=row.id, version=row.version, document=bodies.document_of(row))


@router.post("/bodies", name="body_add", tags=["Bodies"], status_code=201)
def add_body(production_id: ProductionId, asked: BodyNew, db: Db, response: Response) -> BodyKept:
    """Add a body: from a document, as a copy from the catalogue, or as a copy of one that is here."""
    production = repositories.find_production(db, production_id)
    if asked.catalogue_body_id is not None:
        shelf = repositories.catalogue_of(db, production_id)
        source = BODIES.find(db, shelf.id, asked.catalogue_body_id)
        return _added(response, BODIES.copy_from_catalogue(db, production, source))
    if asked.body_id is not None:
        source = BODIES.find(db, production_id, asked.body_id)
        return _added(response, BODIES.duplicate(db, production, source))
    if asked.document is None:
        rule = "give a document, or a catalogue_body_id, or a body_id to copy"
        raise InvalidInputError.of(Fault("document", None, rule))
    check_body(asked.document, "document")
    row = BODIES.add(db, production, asked.document)
    db.commit()
    return _added(response, row)


def _added(response: Response, row: models.Body) -> BodyKept:
    return made(response, f"{row.production_id}/bodies/{row.id}", kept(row))


@router.post("/bodies/sheet", name="body_sheet", tags=["Bodies"], responses=answers(body_sheet))
def sheet(production_id: ProductionId, document: BodyDocument, db: Db) -> Response:
    """Check a body as it is typed, and work out what follows from it; keeps nothing."""
    home = _home(db, production_id) if document.claims.crops else None
    return json_answer(body_sheet(document, _others(db, production_id, document), home))


def _home(db: Session, production_id: int) -> Home | None:
    """The reference that the production's Bench goes by; a scan mode's window under its own name."""
    reference = repositories.reference_of(db, production_id)
    if reference.own is not None:
        own = reference.own
        return Home(own.name, own.width_mm, own.height_mm, reference.by)
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
    places = dict.fromkeys((production_id, repositories.catalogue_of(db, production_id).id))
    found = [bodies.document_of(row) for place in places for row in BODIES.every(db, place)]
    named = {(d.maker, d.name): d for d in found}
    return [d for name, d in named.items() if name != (document.maker, document.name)]


@router.get("/bodies/{body_id}", name="body_read", tags=["Bodies"])
def read_body(production_id: ProductionId, body_id: BodyId, db: Db) -> BodyKept:
    """Give a body's document."""
    return kept(BODIES.find(db, production_id, body_id))


@router.put("/bodies/{body_id}", name="body_write", tags=["Bodies"], responses=stale(BodyWrite))
def write_body(production_id: ProductionId, body_id: BodyId, asked: BodyWrite, db: Db) -> BodyKept:
    """Keep a body; 409 with both when somebody else kept one in between."""
    check_body(asked.document, "document")
    return kept(BODIES.save(db, production_id, body_id, asked.version, asked.document))


@router.post("/bodies/{body_id}/removal", name="body_remove", tags=["Bodies"], responses=stale(BodyWrite))
def remove_body(production_id: ProductionId, body_id: BodyId, asked: Removal, db: Db) -> BodyKept:
    """Take a body out of the production, or bring it back; nothing is lost."""
    return kept(BODIES.set_removed(db, production_id, body_id, asked.version, asked.removed))


@router.get("/bodies/{body_id}/catalogue", name="body_changes", tags=["Bodies"])
def catalogue_changes(production_id: ProductionId, body_id: BodyId, db: Db) -> CatalogueChanges:
    """List what the catalogue says differently since the body was taken from it."""
    found = BODIES.catalogue_changes(db, BODIES.find(db, production_id, body_id))
    return CatalogueChanges(here=[CatalogueChange(**vars(c), touched=c.touched) for c in found])


@router.post("/bodies/{body_id}/catalogue", name="body_settle", tags=["Bodies"], responses=stale(BodyWrite))
def settle_changes(production_id: ProductionId, body_id: BodyId, asked: ChangesSettled, db: Db) -> BodyKept:
    """Take some of the catalogue's changes, leave others for good."""
    row = BODIES.find(db, production_id, body_id)
    return kept(BODIES.settle_changes(db, row, asked.version, asked.take, asked.leave))


def _settings(db: Session, production_id: int) -> PackageSettings:
    return repositories.settings_of(repositories.find_production(db, production_id))


@router.get("/settings", name="settings_read", tags=["Productions"])
def read_settings(production_id: ProductionId, db: Db) -> SettingsKept:
    """Give the package's settings: base rate, shutter, planned minutes, cards."""
    production = repositories.find_production(db, production_id)
    return SettingsKept(version=production.version, settings=repositories.settings_of(production))


@router.put("/settings", name="settings_write", tags=["Productions"], responses=stale(SettingsWrite))
def write_settings(production_id: ProductionId, asked: SettingsWrite, db: Db) -> SettingsKept:
    """Keep the package's settings; 409 with both when somebody else kept some in between."""
    before, after = _settings(db, production_id).unit, asked.settings.unit
    if before != after:
        change_unit(db, production_id, before, after)
    version = repositories.save_settings(db, production_id, asked.version, asked.settings)
    return SettingsKept(version=version, settings=asked.settings)


@router.get("/speed", name="speed_table", tags=["Formats"], responses=answers(speed_table))
def speed(production_id: ProductionId, db: Db, request: Request) -> Response:
    """Answer how fast each scan mode goes, what binds it and what it costs."""
    equipment = request.app.state.packages.package(db, production_id)
    return json_answer(speed_table(equipment, _settings(db, production_id)))


@router.post("/finder", name="formats_find", tags=["Formats"], responses=answers(find_formats))
def finder(production_id: ProductionId, asked: FinderAsk, db: Db, request: Request) -> Response:
    """Answer what a shot can be recorded in, ranked, and why the rest is out."""
    equipment = request.app.state.packages.package(db, production_id)
    shelf = None
    if asked.catalogue:
        shelf = request.app.state.packages.package(db, repositories.catalogue_of(db, production_id).id)
    return json_answer(find_formats(equipment, _settings(db, production_id), asked, shelf))


@router.post("/data", name="data_table", tags=["Formats"], responses=answers(data_table))
def data(production_id: ProductionId, asked: DataAsk, db: Db, request: Request) -> Response:
    """Lay out pixels and data of every recording format."""
    equipment = request.app.state.packages.package(db, production_id)
    return json_answer(data_table(equipment, _settings(db, production_id), asked))
