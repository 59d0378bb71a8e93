"""The endpoints of lens sets, mounts and adapters: parse, call, answer."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated

from fastapi import APIRouter, Path, Request, Response
from sqlalchemy.orm import Session

from hextan.api.errors import BAD, STALE
from hextan.api.gate import StatedRoute
from hextan.api.lens_schemas import (
    LensSetKept,
    LensSetList,
    LensSetNew,
    LensSetSheet,
    LensSetSummary,
    LensSetWrite,
    RigKept,
    RigSheet,
    RigWrite,
)
from hextan.api.package_schemas import CatalogueChange, ChangesSettled, Removal
from hextan.api.plumbing import Db, Id, ProductionId, json_answer
from hextan.core.errors import Fault, InvalidInputError
from hextan.core.lens_document import LensSetDocument, check_lens_set
from hextan.core.lens_sheet import lens_set_sheet
from hextan.core.mounting import combinations
from hextan.core.rig_document import RigDocument, adapter_of, check_rig, filter_markings, mount_of, rig_notes
from hextan.store import models, repositories, rigs
from hextan.store.lens_sets import LENS_SETS

router = APIRouter(route_class=StatedRoute, responses=BAD, prefix="/productions/{production_id}")
SetId = Annotated[Id, Path()]


def _summary(db: Session, row: models.LensSet) -> LensSetSummary:
    lenses = [lens for lens in row.lenses if not lens.removed]
    focals = [f for lens in lenses for f in (lens.focal_mm, lens.focal_long_mm) if f is not None]
    return LensSetSummary(
        id=row.id,
        version=row.version,
        maker=row.maker,
        name=row.name,
        lenses=len(lenses),
        focal_min_mm=min(focals, default=None),
        focal_max_mm=max(focals, default=None),
        squeezes=sorted({lens.squeeze for lens in lenses}),
        mounts=sorted({lens.mount for lens in lenses}),
        changes=len(LENS_SETS.catalogue_changes(db, row)),
        catalogue_lens_set_id=row.catalogue_lens_set_id,
    )


@router.get("/lens-sets")
def list_lens_sets(production_id: ProductionId, db: Db) -> LensSetList:
    """List the lens sets of a production."""
    repositories.find_production(db, production_id)
    here, out = (LENS_SETS.every(db, production_id, removed) for removed in (False, True))
    return LensSetList(
        lens_sets=[_summary(db, row) for row in here], removed=[_summary(db, row) for row in out]
    )


def kept_set(row: models.LensSet) -> LensSetKept:
    """Show a lens set with its version."""
    return LensSetKept(id=row.id, version=row.version, document=LENS_SETS.document_of(row))


@router.post("/lens-sets", status_code=201)
def add_lens_set(production_id: ProductionId, asked: LensSetNew, db: Db) -> LensSetKept:
    """Add a lens set: from a document, as a copy from the catalogue, or as a copy of one that is here."""
    production = repositories.find_production(db, production_id)
    if asked.catalogue_lens_set_id is not None:
        source = LENS_SETS.find(db, repositories.catalogue_of(db).id, asked.catalogue_lens_set_id)
        return kept_set(LENS_SETS.copy_from_catalogue(db, production, source))
    if asked.lens_set_id is not None:
        source = LENS_SETS.find(db, production_id, asked.lens_set_id)
        return kept_set(LENS_SETS.duplicate(db, production, source))
    if asked.document is None:
        rule = "give a document, or a catalogue_lens_set_id, or a lens_set_id to copy"
        raise InvalidInputError.of(Fault("document", None, rule))
    check_lens_set(asked.document, "document")
    row = LENS_SETS.add(db, production, asked.document)
    db.commit()
    return kept_set(row)


@router.post("/lens-sets/sheet", responses={200: {"model": LensSetSheet}})
def lens_sheet(production_id: ProductionId, document: LensSetDocument, db: Db, request: Request) -> Response:
    """Check a lens set as it is typed, and work out what follows from it; keeps nothing."""
    package = request.app.state.packages.package(db, production_id)
    return json_answer(lens_set_sheet(document, package.mounts_by_name))


@router.get("/lens-sets/{set_id}")
def read_lens_set(production_id: ProductionId, set_id: SetId, db: Db) -> LensSetKept:
    """Give a lens set's document."""
    return kept_set(LENS_SETS.find(db, production_id, set_id))


@router.put("/lens-sets/{set_id}", responses=STALE)
def write_lens_set(production_id: ProductionId, set_id: SetId, asked: LensSetWrite, db: Db) -> LensSetKept:
    """Keep a lens set; 409 with both when somebody else kept one in between."""
    check_lens_set(asked.document, "document")
    return kept_set(LENS_SETS.save(db, production_id, set_id, asked.version, asked.document))


@router.post("/lens-sets/{set_id}/removal", responses=STALE)
def remove_lens_set(production_id: ProductionId, set_id: SetId, asked: Removal, db: Db) -> LensSetKept:
    """Take a lens set out of the production, or bring it back; nothing is lost."""
    return kept_set(LENS_SETS.set_removed(db, production_id, set_id, asked.version, asked.removed))


@router.get("/lens-sets/{set_id}/catalogue")
def lens_set_changes(production_id: ProductionId, set_id: SetId, db: Db) -> list[CatalogueChange]:
    """List what the catalogue says differently since the set was taken from it."""
    found = LENS_SETS.catalogue_changes(db, LENS_SETS.find(db, production_id, set_id))
    return [CatalogueChange(**vars(change), touched=change.touched) for change in found]


@router.post("/lens-sets/{set_id}/catalogue", responses=STALE)
def settle_lens_set(production_id: ProductionId, set_id: SetId, asked: ChangesSettled, db: Db) -> LensSetKept:
    """Take some of the catalogue's changes, leave others for good."""
    row = LENS_SETS.find(db, production_id, set_id)
    return kept_set(LENS_SETS.settle_changes(db, row, asked.version, asked.take, asked.leave))


@router.get("/rig")
def read_rig(production_id: ProductionId, db: Db) -> RigKept:
    """Give mounts and adapters; version 0 and nothing when none were kept yet."""
    repositories.find_production(db, production_id)
    row = rigs.find_rig(db, production_id)
    return RigKept(version=0 if row is None else row.version, document=rigs.document_of(row))


@router.put("/rig", responses=STALE)
def write_rig(production_id: ProductionId, asked: RigWrite, db: Db) -> RigKept:
    """Keep mounts and adapters; 409 with both when somebody else kept some in between."""
    repositories.find_production(db, production_id)
    check_rig(asked.document, "document")
    version, document = rigs.save_rig(db, production_id, asked.version, asked.document)
    return RigKept(version=version, document=document)


@router.post("/rig/sheet", responses={200: {"model": RigSheet}})
def rig_sheet(production_id: ProductionId, document: RigDocument, db: Db, request: Request) -> Response:
    """Judge every combination of lens, adapters and body as the document would make it; keeps nothing."""
    check_rig(document)
    package = request.app.state.packages.package(db, production_id)
    as_typed = replace(
        package,
        mounts=tuple(mount_of(mount) for mount in document.mounts),
        adapters=tuple(adapter_of(adapter, i) for i, adapter in enumerate(document.adapters, 1)),
    )
    return json_answer(
        {
            "notes": rig_notes(document),
            "filters": filter_markings(document),
            "combinations": combinations(as_typed),
        }
    )
