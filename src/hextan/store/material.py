"""What sheets are made from, out of the database."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core.equipment import Package
from hextan.core.sheets import Material
from hextan.store import comparisons, log
from hextan.store.bodies import BODIES
from hextan.store.models import EquipmentStamp
from hextan.store.repositories import find_production, mended_bench, settings_of
from hextan.store.single import PACKING, SHOTS


def material_of(session: Session, production_id: int, package: Package) -> Material:
    """Gather what a production's sheets are made from.

    Parameters
    ----------
    package : the production's equipment, as it is in the database now

    Raises
    ------
    NotFoundError
        When there is no such production.
    """
    row = find_production(session, production_id)
    bench = mended_bench(session, production_id, package)
    documents = [BODIES.document_of(body) for body in BODIES.every(session, production_id)]
    return Material(
        name=row.name,
        package=package,
        settings=settings_of(row),
        bench=bench,
        shots=SHOTS.read(session, production_id),
        packing=PACKING.read(session, production_id),
        log=log.read(session, production_id),
        comparisons=tuple(comparisons.document_of(c) for c in comparisons.every(session, production_id)),
        bodies={document.name: document for document in documents},
    )


def changed_at(session: Session, production_id: int) -> datetime | None:
    """When the production was last changed."""
    return session.scalar(
        select(EquipmentStamp.changed_at).where(EquipmentStamp.production_id == production_id)
    )
