"""The endpoints of lens sets, mounts and adapters: parse, call, answer."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Path, Response
from sqlalchemy.orm import Session

from hextan.api.errors import stale
from hextan.api.lens_schemas import (
    LensSetKept,
    LensSetList,
    LensSetNew,
    LensSetSummary,
    LensSetWrite,
    RigKept,
    RigWrite,
)
from hextan.api.package_schemas import CatalogueChange, CatalogueChanges, ChangesSettled, Removal
from hextan.api.paging import Pages
from hextan.api.plumbing import Db, Equipment, Id, ProductionId, answers, json_answer, made
from hextan.api.route import Route
from hextan.core.base import Fault, InvalidInputError
from hextan.core.documents import (
    LensSetDocument,
    RigDocument,
    check_lens_set,
    check_rig,
    lens_set_sheet,
)
from hextan.core.documents import (
    rig_sheet as judge_rig,
)
from hextan.core.optics import CLASSES
from hextan.store import repositories
from hextan.store.keeper import Kept, find_production
from hextan.store.kinds import LENS_SETS, RIG

router = APIRouter(route_class=Route, prefix="/productions/{production_id}")
SetId = Annotated[Id, Path()]


def _summary(db: Session, kept: Kept[LensSetDocument]) -> LensSetSummary:
    lenses = kept.document.lenses
    focals = [f for lens in lenses for f in (lens.focal_mm, lens.focal_long_mm) if f is not None]
    circles = [
        size
        for lens in lenses
        for size in (lens.image_circle_mm, *(c.circle_mm for c in lens.circles))
        if size
    ]
    return LensSetSummary(
        id=kept.id,
        version=kept.version,
        maker=kept.document.maker,
        name=kept.document.name,
        lenses=len(lenses),
        focal_min_mm=min(focals, default=None),
        focal_max_mm=max(focals, default=None),
        squeezes=sorted({lens.squeeze for lens in lenses}),
        mounts=sorted({lens.mount for lens in lenses}),
        classes=[each for each in CLASSES if any(lens.designed_for == each for lens in lenses)],
        largest_circle_mm=max(circles, default=None),
        changes=len(LENS_SETS.catalogue_changes(db, kept)),
        catalogue_lens_set_id=kept.source_id,
    )


@router.get("/lens-sets", name="lens_sets_list", tags=["Lenses"])
def list_lens_sets(production_id: ProductionId, db: Db, pages: Pages) -> LensSetList:
    """List the lens sets of a production."""
    find_production(db, production_id)
    here, out = pages.of(*(LENS_SETS.every(db, production_id, removed) for removed in (False, True)))
    return LensSetList(here=[_summary(db, row) for row in here], removed=[_summary(db, row) for row in out])


def kept_set(kept: Kept[LensSetDocument]) -> LensSetKept:
    """Show a lens set with its version."""
    return LensSetKept(id=kept.id, version=kept.version, document=kept.document)


@router.post("/lens-sets", name="lens_set_add", tags=["Lenses"], status_code=201)
def add_lens_set(production_id: ProductionId, asked: LensSetNew, db: Db, response: Response) -> LensSetKept:
    """Add a lens set: from a document, as a copy from the catalogue, or as a copy of one that is here."""
    find_production(db, production_id)
    if asked.catalogue_lens_set_id is not None:
        source = LENS_SETS.find(
            db, repositories.catalogue_of(db, production_id).id, asked.catalogue_lens_set_id
        )
        return _added(response, LENS_SETS.copy_from_catalogue(db, production_id, source))
    if asked.lens_set_id is not None:
        source = LENS_SETS.find(db, production_id, asked.lens_set_id)
        return _added(response, LENS_SETS.duplicate(db, production_id, source))
    if asked.document is None:
        rule = "give a document, or a catalogue_lens_set_id, or a lens_set_id to copy"
        raise InvalidInputError.of(Fault("document", None, rule))
    check_lens_set(asked.document, "document")
    kept = LENS_SETS.add(db, production_id, asked.document)
    db.commit()
    return _added(response, kept)


def _added(response: Response, kept: Kept[LensSetDocument]) -> LensSetKept:
    return made(response, f"{kept.production_id}/lens-sets/{kept.id}", kept_set(kept))


@router.post("/lens-sets/sheet", name="lens_set_sheet", tags=["Lenses"], responses=answers(lens_set_sheet))
def lens_sheet(document: LensSetDocument, equipment: Equipment) -> Response:
    """Check a lens set as it is typed, and work out what follows from it; keeps nothing."""
    return json_answer(lens_set_sheet(document, equipment.rig.mounts_by_name))


@router.get("/lens-sets/{set_id}", name="lens_set_read", tags=["Lenses"])
def read_lens_set(production_id: ProductionId, set_id: SetId, db: Db) -> LensSetKept:
    """Give a lens set's document."""
    return kept_set(LENS_SETS.find(db, production_id, set_id))


@router.put("/lens-sets/{set_id}", name="lens_set_write", tags=["Lenses"], responses=stale(LensSetWrite))
def write_lens_set(production_id: ProductionId, set_id: SetId, asked: LensSetWrite, db: Db) -> LensSetKept:
    """Keep a lens set; 409 with both when somebody else kept one in between."""
    check_lens_set(asked.document, "document")
    return kept_set(LENS_SETS.save(db, production_id, set_id, asked.version, asked.document))


@router.post(
    "/lens-sets/{set_id}/removal", name="lens_set_remove", tags=["Lenses"], responses=stale(LensSetWrite)
)
def remove_lens_set(production_id: ProductionId, set_id: SetId, asked: Removal, db: Db) -> LensSetKept:
    """Take a lens set out of the production, or bring it back; nothing is lost."""
    return kept_set(LENS_SETS.set_removed(db, production_id, set_id, asked.version, asked.removed))


@router.get("/lens-sets/{set_id}/catalogue", name="lens_set_changes", tags=["Lenses"])
def lens_set_changes(production_id: ProductionId, set_id: SetId, db: Db) -> CatalogueChanges:
    """List what the catalogue says differently since the set was taken from it."""
    found = LENS_SETS.catalogue_changes(db, LENS_SETS.find(db, production_id, set_id))
    return CatalogueChanges(here=[CatalogueChange(**vars(c), touched=c.touched) for c in found])


@router.post(
    "/lens-sets/{set_id}/catalogue", name="lens_set_settle", tags=["Lenses"], responses=stale(LensSetWrite)
)
def settle_lens_set(production_id: ProductionId, set_id: SetId, asked: ChangesSettled, db: Db) -> LensSetKept:
    """Take some of the catalogue's changes, leave others for good."""
    row = LENS_SETS.find(db, production_id, set_id)
    return kept_set(LENS_SETS.settle_changes(db, row, asked.version, asked.take, asked.leave))


@router.get("/rig", name="rig_read", tags=["Lenses"])
def read_rig(production_id: ProductionId, db: Db) -> RigKept:
    """Give mounts and adapters; version 0 and nothing when none were kept yet."""
    version, document = RIG.versioned(db, production_id)
    return RigKept(version=version, document=document)


@router.put("/rig", name="rig_write", tags=["Lenses"], responses=stale(RigWrite))
def write_rig(production_id: ProductionId, asked: RigWrite, db: Db) -> RigKept:
    """Keep mounts and adapters; 409 with both when somebody else kept some in between."""
    find_production(db, production_id)
    check_rig(asked.document, "document")
    version = RIG.save(db, production_id, asked.version, asked.document)
    return RigKept(version=version, document=asked.document)


@router.post("/rig/sheet", name="rig_sheet", tags=["Lenses"], responses=answers(judge_rig))
def rig_sheet(document: RigDocument, equipment: Equipment) -> Response:
    """Judge every combination of lens, adapters and body as the document would make it; keeps nothing."""
    return json_answer(judge_rig(document, equipment))
