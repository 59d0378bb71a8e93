"""The endpoints of the Package view: parse, call, answer."""

from __future__ import annotations

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
from hextan.api.paging import Pages
from hextan.api.plumbing import Db, Id, ProductionId, answers, json_answer, made
from hextan.api.route import Route
from hextan.core.base import Fault, InvalidInputError, RateSet
from hextan.core.documents import BodyDocument, Home, body_sheet, check_body
from hextan.core.equipment import DataAsk, PackageSettings, data_table, speed_table
from hextan.core.finder import FinderAsk, find_formats
from hextan.core.optics import format_class
from hextan.core.shots import check_usual
from hextan.store import repositories
from hextan.store.keeper import Kept, find_production
from hextan.store.kinds import BODIES, SETTINGS
from hextan.store.units import change_unit

router = APIRouter(route_class=Route, prefix="/productions/{production_id}")
BodyId = Annotated[Id, Path()]


def _summary(db: Session, kept: Kept[BodyDocument]) -> BodySummary:
    body = kept.document
    width, height = (count * body.pitch_um / 1000 for count in body.photosites)
    formats = [f for mode in body.modes for f in mode.formats]
    return BodySummary(
        id=kept.id,
        version=kept.version,
        maker=body.maker,
        name=body.name,
        mount=body.mount,
        firmware=body.firmware,
        photosites=body.photosites,
        width_mm=width,
        height_mm=height,
        format_class=format_class(*(n * body.pitch_um / 1000 for n in body.photosites)),
        modes=len(body.modes),
        formats=len(formats),
        offered_fps=max((float(RateSet.parse(f.rates).highest) for f in formats), default=None),
        changes=len(BODIES.catalogue_changes(db, kept)),
        catalogue_body_id=kept.source_id,
    )


@router.get("/bodies", name="bodies_list", tags=["Bodies"])
def list_bodies(production_id: ProductionId, db: Db, pages: Pages) -> BodyList:
    """List the bodies of a production."""
    find_production(db, production_id)
    here, removed = pages.of(*(BODIES.every(db, production_id, out) for out in (False, True)))
    return BodyList(here=[_summary(db, row) for row in here], removed=[_summary(db, row) for row in removed])


def kept(body: Kept[BodyDocument]) -> BodyKept:
    """Show a body with its version."""
    return BodyKept(id=body.id, version=body.version, document=body.document)


@router.post("/bodies", name="body_add", tags=["Bodies"], status_code=201)
def add_body(production_id: ProductionId, asked: BodyNew, db: Db, response: Response) -> BodyKept:
    """Add a body: from a document, as a copy from the catalogue, or as a copy of one that is here."""
    find_production(db, production_id)
    if asked.catalogue_body_id is not None:
        shelf = repositories.catalogue_of(db, production_id)
        source = BODIES.find(db, shelf.id, asked.catalogue_body_id)
        return _added(response, BODIES.copy_from_catalogue(db, production_id, source))
    if asked.body_id is not None:
        source = BODIES.find(db, production_id, asked.body_id)
        return _added(response, BODIES.duplicate(db, production_id, source))
    if asked.document is None:
        rule = "give a document, or a catalogue_body_id, or a body_id to copy"
        raise InvalidInputError.of(Fault("document", None, rule))
    check_body(asked.document, "document")
    body = BODIES.add(db, production_id, asked.document)
    db.commit()
    return _added(response, body)


def _added(response: Response, body: Kept[BodyDocument]) -> BodyKept:
    return made(response, f"{body.production_id}/bodies/{body.id}", kept(body))


@router.post("/bodies/sheet", name="body_sheet", tags=["Bodies"], responses=answers(body_sheet))
def sheet(production_id: ProductionId, document: BodyDocument, db: Db, request: Request) -> Response:
    """Check a body as it is typed, and work out what follows from it; keeps nothing."""
    home = _home(db, production_id, request) if document.claims.crops else None
    return json_answer(body_sheet(document, _others(db, production_id, document), home))


def _home(db: Session, production_id: int, request: Request) -> Home:
    """What the production counts against."""
    return Home.of(request.app.state.packages.package(db, production_id).reference)


def _others(db: Session, production_id: int, document: BodyDocument) -> list[BodyDocument]:
    """The bodies that a copied page may belong to; asked for only where a crop factor is claimed."""
    if not document.claims.crops:
        return []
    places = dict.fromkeys((production_id, repositories.catalogue_of(db, production_id).id))
    found = [body.document for place in places for body in BODIES.every(db, place)]
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
    body = BODIES.find(db, production_id, body_id)
    return kept(BODIES.settle_changes(db, body, asked.version, asked.take, asked.leave))


def _settings(db: Session, production_id: int) -> PackageSettings:
    return SETTINGS.read(db, production_id)


@router.get("/settings", name="settings_read", tags=["Productions"])
def read_settings(production_id: ProductionId, db: Db) -> SettingsKept:
    """Give the package's settings: base rate, shutter, planned minutes, cards."""
    version, settings = SETTINGS.versioned(db, production_id)
    return SettingsKept(version=version, settings=settings)


@router.put("/settings", name="settings_write", tags=["Productions"], responses=stale(SettingsWrite))
def write_settings(production_id: ProductionId, asked: SettingsWrite, db: Db) -> SettingsKept:
    """Keep the package's settings; 409 with both when somebody else kept some in between."""
    check_usual(asked.settings)
    before, after = _settings(db, production_id).unit, asked.settings.unit
    if before != after:
        change_unit(db, production_id, before, after)
    version = SETTINGS.save(db, production_id, asked.version, asked.settings)
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
